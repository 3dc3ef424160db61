'use strict';

const { COLUMNS } = require('./screen');

/**
 * Writes a height.
 *
 * @param {number} metres - The height.
 * @param {Object} options
 * @param {number} [options.digits=1] - Digits behind the point.
 * @param {string} [options.sign] - What stands before positive heights.
 * @returns {string} Such as "3.2 m".
 */
exports.formatHeight = function formatHeight(metres, { digits = 1 } = {}) {
  return `${metres.toFixed(digits)} m`;
};

/** Writes a time as four digits. */
exports.formatTime = (at) => new Date(at).toISOString().slice(11, 16);

/**
 * Writes how long it is until a moment.
 *
 * @param {number} at - The moment.
 * @param {number} now - The moment that it is counted from.
 */
exports.formatUntil = function (at, now) {
  const minutes = Math.round((at - now) / 60000);
  return minutes < 0 ? '-'.repeat(COLUMNS) : minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
};
