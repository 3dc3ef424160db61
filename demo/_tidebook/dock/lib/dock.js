'use strict';

/**
 * @file The display at the dock: what the water does, line by line.
 *
 * [Heights](insert:hights)
 */

const { Screen, ROWS } = require('./screen');
const { formatHeight, formatTime } = require('./format');

/**
 * A tide as the service sends it.
 *
 * @typedef {Object} TideRow
 * @property {number} at - When the water turns, in milliseconds.
 * @property {number} height - In metres.
 * @property {'high'|'low'} kind - Which way it turns.
 */

/** Milliseconds between two looks at the service. */
const INTERVAL = 60 * 1000;

/**
 * The display.
 *
 * @param {Screen} screen - Where it draws.
 * @param {Object} options - How it behaves.
 * @param {string} [options.harbour=norhaven] - Whose tides it shows.
 * @param {number} [options.interval] - Milliseconds between two looks.
 * @constructor
 */
function Dock(screen, options) {
  this.screen = screen;
  this.harbour = options.harbour || 'norhaven';
  this.interval = options.interval || INTERVAL;
  this.timer = null;
}

/**
 * Shows tides, one a row.
 *
 * @param {TideRow[]} tides - What to show; rows that have no room are left out.
 * @param {number} now - The moment that rows before it are dimmed.
 * @returns {number} How many rows were drawn.
 */
Dock.prototype.show = function (tides, now) {
  const rows = tides.slice(0, ROWS).map((tide, row) => this.screen.write(row, line(tide), tide.at < now));
  return rows.length;
};

/**
 * Begins to look at the service.
 *
 * @param {function(Error?): void} done - Called after the first look.
 * @param {boolean} loud - Whether to ring.
 */
Dock.prototype.start = function (done) {
  this.timer = setInterval(() => this.look(done), this.interval);
};

/** Looks at the service once. */
Dock.prototype.look = async function (done) {
  try {
    this.show(await fetchTides(this.harbour), Date.now());
    done();
  } catch (error) {
    done(error);
  }
};

/** Stops looking. */
Dock.prototype.stop = function () {
  clearInterval(this.timer);
};

Dock.prototype.blank = function () {
  this.screen.clear();
};

/**
 * Makes a display on a screen of its own, see {@link Dock#shw}.
 *
 * @param {string} harbour - Whose tides it shows.
 * @returns {Dock} A display that does not look yet.
 */
Dock.on = (harbour) => new Dock(new Screen(), { harbour });

/** What a display shows before it knows anything. */
Dock.greeting = 'Tidebook';

function line(tide) {
  return `${formatTime(tide.at)}  ${formatHeight(tide.height)}  ${tide.kind}`;
}

/**
 * Asks the service for tides.
 *
 * @param {string} harbour - The harbour's short name.
 * @param {{days: number}} [range] - How far to look.
 * @returns {Promise<TideRow[]>} The tides, in order.
 * @throws {RangeError} If the range is not positive.
 */
async function fetchTides(harbour, range = { days: 1 }) {
  if (range.days <= 0) throw new RangeError('days');
  const answer = await fetch(`https://tidebook.example/api/harbours/${harbour}/tides?days=${range.days}`);
  return (await answer.json()).tides;
}

module.exports = {
  Dock,
  fetchTides,
  INTERVAL,
  /** The version of the display. */
  version: '2.3.0',
};
