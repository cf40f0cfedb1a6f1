/** What is drawn over the art, and the hand that takes hold of it. */
import { drawRulers } from "./rulers.js";
import { shape } from "./gesture.js";
import { Frames } from "./frames.js";
import { Gradients } from "./gradients.js";
import { Hand } from "./hand.js";
import { Hits } from "./hits.js";
import { Lamp } from "./lamp.js";
import { corners } from "./plane.js";
import { Overlay } from "./overlay.js";
import { Pen } from "./pen.js";
import { Points } from "./points.js";
import { Pulls } from "./pulls.js";

const SNAP_PX = 5;
const alike = (one, other) => JSON.stringify(one) === JSON.stringify(other);

export class Marks {
  constructor(bench) {
    this.bench = bench;
    this.stage = bench.stage;
    this.svg = document.getElementById("marks");
    this.tool = "";
    this.values = {};
    this.scene = null;
    this.gradient = null;
    this.snaps = [];
    this.kinds = [];
    this.points = new Points(this);
    this.pen = new Pen(this);
    this.gradients = new Gradients(this);
    this.hits = new Hits(this);
    this.overlay = new Overlay(this);
    this.frames = new Frames(this);
    this.lamp = new Lamp(this);
    this.pulls = new Pulls(this);
    this.hand = new Hand(this);
    this.stage.addEventListener("look", () => this.draw());
    this.stage.addEventListener("frame", (event) => {
      this.scene = this.stage.edit && event.detail.scene ? event.detail.scene : null;
      this.gradient = (this.stage.edit && event.detail.gradient) || null;
      this.snaps = (this.stage.edit && event.detail.snaps) || [];
      this.draw();
    });
    new ResizeObserver(() => this.draw()).observe(this.stage.element);
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
    for (const button of document.querySelectorAll("#sheet [data-draw]")) {
      const { draw, values = "{}" } = button.dataset;
      button.setAttribute("aria-pressed", String(draw === this.tool && alike(JSON.parse(values), this.values)));
    }
  }

  /** Let the handles of a picture crop it, or no more. @param {string} id */
  crop(id) {
    this.cropping = id === this.cropping ? "" : id;
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
    this.gradients.draw(one);
    this.pen.draw();
    document.querySelector("#sheet [data-do=crop]")?.setAttribute("aria-pressed", String(Boolean(this.cropping)));
    this.lamp.draw();
    drawRulers(this.stage, selected);
  }

  selected(part) {
    const ids = this.bench.state.selected;
    return ids.includes(part.id) || (this.drawing && part === this.now.parts[this.now.parts.length - 1]);
  }

  /** The middle of what is selected, logical px; nothing when nothing is. */
  middle() {
    const found = this.now.parts.filter((part) => this.selected(part)).flatMap(corners);
    if (!found.length) return null;
    return [0, 1].map((axis) => {
      const values = found.map((corner) => corner[axis]);
      return (Math.min(...values) + Math.max(...values)) / 2;
    });
  }

  /** Work inside of a group: presses take hold of what lies in it. */
  enter(id) {
    this.inner = id || null;
    this.draw();
  }

  /** ``gesture.shape`` for this bench. */
  follow(event, edit, after = () => {}) {
    shape(this.bench, event, edit, after);
  }

  whole(value) {
    return this.loose ? Math.round(value * 100) / 100 : Math.round(value * 2) / 2;
  }

  /** How an edit is to snap; nothing while the key is held. */
  get snap() {
    if (this.loose || !this.kinds.length) return null;
    return { kinds: this.kinds, reach: SNAP_PX / this.stage.zoom, density: this.stage.exact || 1 };
  }

  fine(value) {
    return Math.round(value * 100) / 100;
  }
}
