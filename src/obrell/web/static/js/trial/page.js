/**
 * A shared page: one panel that is operated without a server. What can be seen of its pieces was rendered beforehand
 * and lies in the page; of one state becoming another, both are faded over each other by its timing, and where that
 * would be seen, the delivered frames are laid over it.
 *
 * @typedef {import("./machine.js").Piece} Piece
 * @typedef {import("./machine.js").Now} Now
 * @typedef {{values: number[], box: [number, number, number, number], strips: Object<string, string>}} Numbers
 * @typedef {{count: number, box: [number, number, number, number], strip: number}} Frames
 * @typedef {Piece & {id: string, name: string, x: number, y: number, looks: Object<string, string>, role: string,
 *   numbers: Numbers|null, timings: Object<string, [number, number[]]>, now: Now, unit: string,
 *   frames: Object<string, Frames>, reading: string}} Shared
 * @typedef {{before: HTMLCanvasElement, timing: [number, number[]], start: number, frames: Frames|undefined}} Motion
 */
import { byId } from "../ui/dom.js";
import { Hands } from "./hands.js";
import { Machine, STILL, moved, nextInGroup, shownAs } from "./machine.js";
import { tellStanding } from "./telling.js";

/** @param {number[]} values @param {number} value @returns {number} the place of the nearest */
function nearest(values, value) {
  let best = 0;
  values.forEach((one, at) => {
    if (Math.abs(one - value) < Math.abs(values[best] - value)) best = at;
  });
  return best;
}

/** How far a transition has come. @param {[number, number[]]} timing @param {number} time ms */
function wayAt([whole, way], time) {
  const place = Math.min(1, time / whole) * (way.length - 1);
  const before = Math.floor(place);
  const after = Math.min(way.length - 1, before + 1);
  return Math.min(1, Math.max(0, way[before] + (way[after] - way[before]) * (place - before)));
}

class Drawn {
  /** @param {HTMLElement} element @param {Shared} data @param {HTMLImageElement[]} framed strips of frames */
  constructor(element, data, framed) {
    this.element = element;
    this.data = data;
    this.framed = framed;
    /** @type {Map<string, HTMLImageElement>} */
    this.pictures = new Map();
    for (const one of element.querySelectorAll("img")) this.pictures.set(one.dataset.look ?? "", one);
    /** @type {Map<string, HTMLImageElement>} */
    this.strips = new Map();
    for (const [look, address] of Object.entries(data.numbers?.strips ?? {})) {
      const strip = new Image();
      strip.src = address;
      this.strips.set(look, strip);
    }
    const first = /** @type {HTMLImageElement} */ (element.querySelector("img"));
    this.canvas = document.createElement("canvas");
    this.canvas.width = first.naturalWidth;
    this.canvas.height = first.naturalHeight;
    this.canvas.style.width = first.style.width;
    this.context = /** @type {CanvasRenderingContext2D} */ (this.canvas.getContext("2d"));
    element.prepend(this.canvas);
    this.state = "";
    /** @type {Motion|null} */
    this.motion = null;
  }

  /** Every picture of it. */
  get all() {
    return [...this.pictures.values(), ...this.strips.values()];
  }

  /** @param {CanvasRenderingContext2D} context @param {string} state @param {number} value */
  #still(context, state, value) {
    const picture = this.pictures.get(state);
    if (picture) context.drawImage(picture, 0, 0);
    this.#number(context, state, value);
  }

  /** What a number changes. @param {CanvasRenderingContext2D} context @param {string} state @param {number} value */
  #number(context, state, value) {
    const strip = this.strips.get(state);
    if (!strip || !this.data.numbers) return;
    const [left, top, width, height] = this.data.numbers.box;
    const at = nearest(this.data.numbers.values, value) * height;
    context.clearRect(left, top, width, height);
    context.drawImage(strip, 0, at, width, height, left, top, width, height);
  }

  /** @param {Now} now @param {number} time */
  become(now, time) {
    const state = this.data.looks[shownAs(this.data, now)] ?? "rest";
    const timing = this.data.timings[`${this.state}>${state}`] ?? this.data.timings[""];
    if (this.state && state !== this.state && timing[0]) {
      const before = document.createElement("canvas");
      [before.width, before.height] = [this.canvas.width, this.canvas.height];
      before.getContext("2d")?.drawImage(this.canvas, 0, 0);
      // A way that is left before its end is faded over.
      const frames = this.motion ? undefined : this.data.frames[`${this.state}>${state}`];
      this.motion = { before, timing, start: time, frames };
    }
    this.state = state;
    this.paint(now, time);
  }

  /** Whether it still moves. @param {Now} now @param {number} time */
  paint(now, time) {
    const { context, canvas, motion } = this;
    const passed = motion ? time - motion.start : 0;
    if (motion && passed >= motion.timing[0]) this.motion = null;
    const fresh = document.createElement("canvas");
    [fresh.width, fresh.height] = [canvas.width, canvas.height];
    this.#still(/** @type {CanvasRenderingContext2D} */ (fresh.getContext("2d")), this.state, now.number);
    const weight = this.motion ? wayAt(this.motion.timing, passed) : 1;
    context.globalCompositeOperation = "copy";
    context.globalAlpha = weight;
    context.drawImage(fresh, 0, 0);
    if (this.motion) {
      context.globalCompositeOperation = "lighter";
      context.globalAlpha = 1 - weight;
      context.drawImage(this.motion.before, 0, 0);
    }
    context.globalAlpha = 1;
    context.globalCompositeOperation = "source-over";
    if (this.motion?.frames) this.#frame(this.motion.frames, passed / this.motion.timing[0], now.number);
    this.canvas.dataset.state = this.motion ? "" : this.state;
    return Boolean(this.motion);
  }

  /** The frame of a time over what is faded; they were rendered with the number that it began with.
   * @param {Frames} frames @param {number} passed share of the time @param {number} number */
  #frame({ count, box: [left, top, width, height], strip }, passed, number) {
    const { context, data, framed } = this;
    if (!framed[strip]?.complete) return;
    const at = Math.min(count - 1, Math.floor(passed * count)) * height;
    context.save();
    if (data.numbers && number !== data.now.number) leaveOut(context, data.numbers.box);
    context.clearRect(left, top, width, height);
    context.drawImage(framed[strip], 0, at, width, height, left, top, width, height);
    context.restore();
  }
}

/** Leave what a number changes out of all that is drawn now. @param {CanvasRenderingContext2D} context
 * @param {number[]} box */
function leaveOut(context, [left, top, width, height]) {
  context.beginPath();
  context.rect(0, 0, context.canvas.width, context.canvas.height);
  context.rect(left, top, width, height);
  context.clip("evenodd");
}

/** Whether something has another number, or was put on or off. @param {Now} before @param {Now} after */
const isOther = (before, after) => before.number !== after.number || before.on !== after.on;

class Page {
  /** @param {any} data @param {Drawn[]} drawn */
  constructor(data, drawn) {
    this.data = data;
    this.machine = new Machine(data.rules);
    this.pieces = byId("pieces");
    this.arranging = { on: false };
    /** @type {Object<string, Shared>} */
    this.parts = Object.fromEntries(data.pieces.map((/** @type {Shared} */ one) => [one.id, one]));
    /** @type {Object<string, Now>} */
    this.standing = {};
    this.drawn = new Map(drawn.map((one) => [one.data.id, one]));
    for (const one of data.pieces) this.standing[one.id] = { ...STILL, ...one.now };
    /** What was changed by hand: sources leave it as it is. @type {Set<string>} */
    this.own = new Set();
    this.passed = 0;
    this.seen = performance.now();
    this.running = false;
    document.documentElement.classList.add("scripted");
    new Hands(/** @type {any} */ (this));
    document.getElementById("run")?.addEventListener("click", ({ currentTarget: button }) => this.#toggle(button));
    for (const [id, now] of Object.entries(this.standing)) this.#show(id, now);
    this.#tick();
  }

  /** @param {EventTarget|null} button */
  #toggle(button) {
    this.running = !this.running;
    this.seen = performance.now();
    if (button instanceof HTMLElement) button.textContent = this.running ? "Pause" : "Go on";
  }

  /** @param {string} id @param {Now} now */
  #show(id, now) {
    this.drawn.get(id)?.become(now, performance.now());
    tellStanding(byId(`piece-${id}`), this.parts[id], now);
  }

  /** @param {string} id @param {string} kind @param {object} [more] */
  happen(id, kind, more = {}) {
    if (!this.parts[id]) return;
    const before = this.standing;
    const event = { time: performance.now(), kind, ...more };
    const { after } = this.machine.operate(this.parts, before, id, event);
    this.standing = after;
    const bySource = kind === "set" || kind === "light";
    for (const one of Object.keys(after)) {
      if (after[one] === before[one]) continue;
      this.#show(one, after[one]);
      if (!bySource && isOther(before[one], after[one])) this.own.add(one);
    }
  }

  /** @param {string} id @param {{clientX: number, clientY: number}} at */
  placeIn(id, { clientX, clientY }) {
    const box = byId("screen").getBoundingClientRect();
    return { x: clientX - box.left - this.parts[id].x, y: clientY - box.top - this.parts[id].y };
  }

  /** @param {string} id */
  isTurned(id) {
    return this.machine.rules.tables[this.parts[id].behaviour].turned;
  }

  /** @param {string} id @param {number} way */
  alongGroup(id, way) {
    const next = nextInGroup(this.parts, id, way);
    if (!next) return;
    byId(`piece-${next.id}`).focus();
    for (const kind of ["key", "unkey"]) this.happen(next.id, kind);
  }

  #tick() {
    const now = performance.now();
    if (this.running) this.#follow(now);
    for (const [id, standing] of Object.entries(this.standing)) {
      if (standing.phase === "down" || standing.phase === "key") this.happen(id, "tick");
      if (this.drawn.get(id)?.motion) this.drawn.get(id)?.paint(standing, now);
    }
    requestAnimationFrame(() => this.#tick());
  }

  /** What sources do, whose time stands still while they do not run. @param {number} now */
  #follow(now) {
    this.passed += now - this.seen;
    this.seen = now;
    for (const source of this.data.sources)
      for (const { placement, reading, amount } of moved(source, this.passed / 1000))
        if (!this.own.has(placement) && (!reading || reading === this.parts[placement]?.reading))
          this.happen(placement, reading ? "set" : "light", { amount });
  }
}

/** Once all looks can be drawn, the page is operated; frames come after, and until then ways are faded. */
async function begin() {
  const data = JSON.parse(byId("panel").textContent ?? "{}");
  /** @type {HTMLImageElement[]} */
  const framed = [];
  const drawn = data.pieces.map((/** @type {Shared} */ one) => new Drawn(byId(`piece-${one.id}`), one, framed));
  const pictures = drawn.flatMap((/** @type {Drawn} */ one) => one.all);
  await Promise.all(pictures.map((/** @type {HTMLImageElement} */ one) => one.decode().catch(() => {})));
  new Page(data, drawn);
  for (const src of data.strips) framed.push(Object.assign(new Image(), { src }));
}

addEventListener("load", begin);
