'use strict';

const { formatTime } = require('./format');

/** Rows of a screen. */
const ROWS = 8;

/** Columns of a screen. */
const COLUMNS = 40;

const SHADER = `
  void main() {
    gl_FragColor = vec4(1.0); /* function shader() {} */
  }
`;

/** A screen of letters that light up. */
class Screen {
  static #count = 0;

  constructor() {
    /** What stands in each row. */
    this.rows = new Array(ROWS).fill('');
    /** How bright it is, from 0 to 1. */
    this.brightness = 1;
    Screen.#count++;
  }

  /**
   * Writes a row.
   *
   * @param {number} row - Which one, from 0.
   * @param {string} text - What to write; what has no room is cut.
   * @param {boolean} [dim=false] - Whether it is past.
   * @return {string} What stands there now.
   */
  write(row, text, dim = false) {
    this.rows[row] = text.slice(0, COLUMNS).replace(/["'`{}]/g, '');
    return dim ? this.rows[row].toLowerCase() : this.rows[row];
  }

  /** Puts all rows out but the clock. */
  clear() {
    this.rows.fill('');
    this.rows[0] = formatTime(Date.now());
  }

  /** The text of the whole screen. */
  get text() {
    return this.rows.join('\n');
  }

  /**
   * Dims the screen.
   *
   * @param {number} to - From 0 to 1.
   * @throws {RangeError If it is neither.
   */
  dim(to) {
    this.brightness = to;
  }

  /** How many screens there are. */
  static get count() {
    return Screen.#count;
  }
}

exports.ROWS = ROWS;
exports.COLUMNS = COLUMNS;
exports.Screen = Screen;
exports.shader = SHADER;
