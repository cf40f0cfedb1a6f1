/**
 * What is drawn over the art, and the hand that takes hold of it.
 *
 * @typedef {import("./types.js").Bench} Bench
 * @typedef {import("./types.js").Frame} Frame
 * @typedef {import("./types.js").Fall} Fall
 * @typedef {import("./types.js").Gradient} Gradient
 * @typedef {import("./types.js").Held} Held
 * @typedef {import("./types.js").Pull} Pull
 * @typedef {import("./types.js").Scene} Scene
 * @typedef {import("./types.js").ScenePart} ScenePart
 * @typedef {import("./types.js").Snap} Snap
 */
import { all, byId } from "../ui/dom.js";
import { drawRulers } from "./rulers.js";
import { shape } from "./gesture.js";
import { Frames } from "./frames.js";
import { Falls } from "./falls.js";
import { Gradients } from "./gradients.js";
import { Guides } from "./guides.js";
import { Hand } from "./hand.js";
import { Hits } from "./hits.js";
import { drawLength } from "./knots.js";
import { Lamp } from "./lamp.js";
import { corners } from "./plane.js";
import { Overlay } from "./overlay.js";
import { Pen } from "./pen.js";
import { Points } from "./points.js";
import { Pulls } from "./pulls.js";
import { Walk } from "./walk.js";

const SNAP_PX = 5;
/** @param {unknown} one @param {unknown} other */
const alike = (one, other) => JSON.stringify(one) === JSON.stringify(other);

export class Marks {
  /** @param {Bench} bench */
  constructor(bench) {
    this.bench = bench;
    this.stage = bench.stage;
    /** @type {Element} */
    this.svg = byId("marks");
    this.tool = "";
    this.values = {};
    /** @type {Scene|null} */
    this.scene = null;
    /** @type {Gradient|null} */
    this.gradient = null;
    /** @type {Fall|null} */
    this.fall = null;
    /** @type {Snap[]} */
    this.snaps = [];
    /** Kinds of things to snap to. @type {string[]} */
    this.kinds = [];
    /** The container worked in. @type {string|null} */
    this.inner = null;
    /** The part under the pointer. @type {string|null} */
    this.over = null;
    this.cropping = "";
    this.drawing = false;
    this.sizing = false;
    this.panning = false;
    this.loose = false;
    /** Whether it is shown what follows what. */
    this.ties = false;
    /** The letter that is read least, as left, top, right, bottom. @type {[number, number, number, number]|null} */
    this.weakest = null;
    this.points = new Points(this);
    this.pen = new Pen(this);
    this.gradients = new Gradients(this);
    this.falls = new Falls(this);
    this.hits = new Hits(this);
    this.overlay = new Overlay(this);
    this.frames = new Frames(this);
    this.lamp = new Lamp(this);
    this.guides = new Guides(this);
    this.pulls = new Pulls(this);
    this.walk = new Walk(this);
    this.hand = new Hand(this);
    this.stage.addEventListener("look", () => this.draw());
    this.stage.addEventListener("frame", (event) => this.#frame(/** @type {CustomEvent<Frame>} */ (event).detail));
    new ResizeObserver(() => this.draw()).observe(this.stage.element);
  }

  /** @param {Frame} frame */
  #frame({ scene, gradient, fall, snaps }) {
    const shown = Boolean(this.stage.edit);
    this.scene = (shown && scene) || null;
    this.gradient = (shown && gradient) || null;
    this.fall = (shown && fall) || null;
    this.snaps = (shown && snaps) || [];
    this.draw();
  }

  /** The scene while something is dragged, else the saved one. */
  get now() {
    return this.scene || this.bench.state.scene;
  }

  /** @param {string} tool box, round, text, or nothing @param {object} [values] those of its shape that are meant */
  take(tool, values = {}) {
    this.pen.end();
    if (tool && tool === this.tool && alike(values, this.values) && tool !== "pen") {
      const [width, height] = this.now.canvas;
      this.take("");
      const at = { x0: width / 2, y0: height / 2, x1: width / 2, y1: height / 2 };
      this.bench.post({ kind: "draw", shape: tool, values, ...at });
      return;
    }
    this.tool = tool;
    this.values = values;
    this.showTool();
  }

  /** The words of the sheet show which tool is taken. */
  showTool() {
    this.stage.element.classList.toggle("drawing", Boolean(this.tool));
    for (const button of all("#sheet [data-draw]")) {
      const { draw, values = "{}" } = button.dataset;
      button.setAttribute("aria-pressed", String(draw === this.tool && alike(JSON.parse(values), this.values)));
    }
  }

  /** Let the handles of a picture crop it, or no more. @param {string} id */
  crop(id) {
    this.cropping = id === this.cropping ? "" : id;
    this.draw();
  }

  /** The letter that is read least is outlined. @param {[number, number, number, number]|null|undefined} letter */
  weaken(letter) {
    this.weakest = letter ?? null;
    this.draw();
  }

  draw() {
    const { canvas } = this.now;
    const selected = this.now.parts.filter((part) => this.selected(part));
    const one = selected.length === 1 && !this.drawing ? selected[0] : null;
    this.svg.replaceChildren();
    this.overlay.below(canvas);
    for (const part of selected) this.frames.frame(part, selected.length === 1);
    this.overlay.above(selected);
    this.points.draw(one);
    if (this.drawing && selected[0]) drawLength(this, selected[0]);
    this.gradients.draw(one);
    this.falls.draw(one);
    this.pen.draw();
    document.querySelector("#sheet [data-do=crop]")?.setAttribute("aria-pressed", String(Boolean(this.cropping)));
    this.lamp.draw();
    this.walk.draw();
    drawRulers(this.stage, selected);
  }

  /** @param {ScenePart} part */
  selected(part) {
    const ids = this.bench.state.selected;
    return ids.includes(part.id) || (this.drawing && part === this.now.parts[this.now.parts.length - 1]);
  }

  /** The middle of what is selected, logical px; nothing when nothing is. */
  middle() {
    const found = this.now.parts.filter((part) => this.selected(part)).flatMap((part) => corners(part));
    if (!found.length) return null;
    return [0, 1].map((axis) => {
      const values = found.map((corner) => corner[axis]);
      return (Math.min(...values) + Math.max(...values)) / 2;
    });
  }

  /** Work inside of a group: presses take hold of what lies in it. @param {string|null|undefined} id */
  enter(id) {
    this.inner = id || null;
    this.draw();
  }

  /**
   * ``gesture.shape`` for this bench.
   *
   * @param {PointerEvent} event @param {Pull} edit @param {(moved: boolean) => void} [after]
   */
  follow(event, edit, after = () => {}) {
    shape(this.bench, event, edit, after);
  }

  /** A place or a way as points and guides keep it: to half px unless freed. @param {number} value */
  whole(value) {
    return this.loose ? this.fine(value) : Math.round(value * 2) / 2;
  }

  /** How an edit is to snap; nothing while the key is held. */
  get snap() {
    if (this.loose || !this.kinds.length) return null;
    return { kinds: this.kinds, reach: SNAP_PX / this.stage.zoom, density: this.stage.exact || 1 };
  }

  /**
   * How a single place that is led snaps: to what is near; to half px it keeps by itself.
   *
   * @param {Partial<Held>} keys
   */
  placing({ led }) {
    const { snap } = this;
    const kinds = this.kinds.filter((kind) => kind !== "pixels");
    return snap && kinds.length && !led ? { ...snap, kinds } : null;
  }

  /** @param {number} value */
  fine(value) {
    return Math.round(value * 100) / 100;
  }
}
