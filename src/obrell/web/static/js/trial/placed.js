/**
 * A piece on the screen: its picture, where it is touched, and what it is to those who do not see it.
 *
 * @typedef {import("./types.js").PieceData} PieceData
 * @typedef {import("./machine.js").Now} Now
 */
import { STILL, shownAs } from "./machine.js";
import { Shown } from "./shown.js";
import { tellStanding } from "./telling.js";

/** @param {number} value a place, px @param {number} density @returns {number} the px on whose device grid it lies */
const onGrid = (value, density) => Math.floor(value * density + 0.5) / density;

/**
 * How a piece stands that is laid anew: switched and turned as it was, when it begins and is turned as before.
 *
 * @param {PieceData} data @param {PieceData} [before] @param {Now} [standing]
 * @returns {Now}
 */
export function standingOf(data, before, standing) {
  const begins = { ...STILL, ...data.now };
  const same = before && JSON.stringify(wayOf(before)) === JSON.stringify(wayOf(data));
  if (!same || !standing) return begins;
  const { on, number, share } = standing;
  return { ...begins, on, number, share };
}

/** @param {PieceData} data */
const wayOf = ({ behaviour, scale, now }) => [behaviour, scale, now];

export class Placed {
  /** @param {PieceData} data @param {number} density @param {import("./pictures.js").Pictures} pictures
   * @param {{now: Now, more: Object<string, number>}} standing how it stands, and its readings besides the first */
  constructor(data, density, pictures, { now, more }) {
    this.data = data;
    this.element = document.createElement("div");
    this.element.className = "piece";
    this.element.id = `piece-${data.id}`;
    this.element.dataset.piece = data.id;
    this.canvas = document.createElement("canvas");
    this.hit = document.createElement("div");
    this.hit.className = "hit";
    this.element.append(this.canvas, this.hit);
    // More device px than this screen has are smoothed into those that it has.
    const grain = Math.min(density, devicePixelRatio || 1);
    this.#lay(grain);
    /** Readings besides the first, by their ids. @type {Object<string, number>} */
    this.more = Object.fromEntries(Object.entries(more).filter(([reading]) => reading in (data.numbers ?? {})));
    this.shown = new Shown(this.canvas, data, pictures, data.gone ? "rest" : this.stateOf(now), grain / density);
    if (data.gone) this.#stay(data.gone);
    else this.#begin(now);
  }

  /** A place with nothing to show. @param {string} words why */
  #stay(words) {
    this.element.classList.add("gone");
    this.element.dataset.gone = words;
  }

  /** @param {Now} now */
  #begin(now) {
    this.shown.readings = this.readings(now);
    this.shown.begin();
    tellStanding(this.element, this.data, now);
  }

  /** @param {number} grain */
  #lay(grain) {
    const { data, element, canvas, hit } = this;
    const [wide, high] = [Math.ceil(data.width * grain - 1e-6), Math.ceil(data.height * grain - 1e-6)];
    canvas.width = wide;
    canvas.height = high;
    canvas.style.width = `${wide / grain}px`;
    canvas.style.height = `${high / grain}px`;
    element.style.left = `${onGrid(data.x, grain)}px`;
    element.style.top = `${onGrid(data.y, grain)}px`;
    element.style.width = `${data.width}px`;
    element.style.height = `${data.height}px`;
    if (data.gone) return;
    hit.style.clipPath = data.touch ? `path("${data.touch}")` : "none";
    element.setAttribute("role", data.role);
    element.setAttribute("aria-label", data.role === "img" ? data.name : data.words);
    this.reachable(false);
    if (data.disabled) element.setAttribute("aria-disabled", "true");
    element.classList.toggle("inert", !data.touched);
  }

  /** Keys go to what can be operated, and to everything while it is arranged. @param {boolean} arranged */
  reachable(arranged) {
    const { touched, disabled, gone } = this.data;
    if (arranged || (touched && !disabled && !gone)) this.element.tabIndex = 0;
    else this.element.removeAttribute("tabindex");
  }

  /** @param {Now} now @returns {string} the state that is seen then */
  stateOf(now) {
    return this.data.looks[shownAs(this.data, now)] ?? "rest";
  }

  /** @param {Now} now @returns {Object<string, number>} */
  numbers(now) {
    const { reading, numbers } = this.data;
    return { ...numbers, ...this.more, ...(reading ? { [reading]: now.number } : {}) };
  }

  /** @param {Now} now @returns {string} its numbers as addresses have them */
  readings(now) {
    return Object.entries(this.numbers(now))
      .map((pair) => pair.join(":"))
      .join(",");
  }

  /** Show how it stands. @param {Now} now @param {number} time */
  become(now, time) {
    this.shown.become(this.stateOf(now), this.readings(now), time);
    tellStanding(this.element, this.data, now);
  }

  /** How it looks at a time, for a picture of the whole screen. @param {Now} now @param {number} time */
  seen(now, time) {
    const { motion } = this.shown;
    const way = motion ? { came: motion.from, time: Math.min(motion.whole, Math.max(0, time - motion.start)) } : {};
    return { id: this.data.id, state: this.stateOf(now), readings: this.numbers(now), ...way };
  }
}
