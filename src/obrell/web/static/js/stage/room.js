/** What rulers, bars and panels leave of the stage. */
import { BAR_PX, FOOT_PX, RULER_PX } from "./bars.js";

/** What a canvas can be fitted into at least. */
const LEAST_ROOM_PX = 160;
/** What frames and dimensions take around a canvas, across and down. */
const AIR_PX = [110, 154];
const MOST_ZOOM = 16;

export class Room {
  /** @param {HTMLElement} element of the stage */
  constructor(element) {
    this.element = element;
    /** How much of its lower end a panel lies over, px. */
    this.covered = 0;
    /** What was free when it was last asked how that has changed. @type {{width: number, height: number}|null} */
    this.before = null;
  }

  /** @param {HTMLElement|null} panel that lies over the lower end */
  under(panel) {
    const { bottom } = this.element.getBoundingClientRect();
    this.covered = panel ? Math.max(0, bottom - panel.getBoundingClientRect().top) : 0;
  }

  get free() {
    const { clientWidth, clientHeight } = this.element;
    const [left, top] = [RULER_PX, BAR_PX + RULER_PX];
    return { left, top, width: clientWidth - left, height: clientHeight - top - Math.max(FOOT_PX, this.covered) };
  }

  /** Whether there is room for anything: none while a page that lies behind another one is laid out. */
  get any() {
    const { width, height } = this.free;
    return width > LEAST_ROOM_PX && height > LEAST_ROOM_PX;
  }

  /** How far its middle has moved since this was asked last. @returns {[number, number]} px across and down */
  moved() {
    const { before, free } = this;
    this.before = free;
    return before ? [(free.width - before.width) / 2, (free.height - before.height) / 2] : [0, 0];
  }

  /** How large a canvas of that logical size is shown whole. @param {number} width @param {number} height */
  fit(width, height) {
    const { free } = this;
    const fit = Math.min((free.width - AIR_PX[0]) / width, (free.height - AIR_PX[1]) / height);
    return Math.max(0.1, fit >= 1 ? Math.min(MOST_ZOOM, Math.floor(fit)) : fit);
  }

  /** Whether a box on the stage is seen, px. @param {number} x @param {number} y @param {[number, number]} end */
  holds(x, y, [right, bottom]) {
    const { left, top, width, height } = this.free;
    return x >= left && y >= top && right <= left + width && bottom <= top + height;
  }
}
