/**
 * The key light on the stage: where it stands, dragged and led by keys.
 *
 * @typedef {import("./types.js").Marks} Marks
 */
import { byId } from "../ui/dom.js";
import { BAR_PX, FOOT_PX, RULER_PX } from "./bars.js";

const LIGHT_AIR_PX = 52;
/** How far the lamp is dragged in or out before its height changes, and by how much then. */
const RISE_FROM_PX = 24;
const DEGREES_PER_PX = 0.5;
/** @type {Object<string, number>} */
const STEPS = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: 1, ArrowDown: -1 };

export class Lamp {
  /** @param {Marks} marks */
  constructor(marks) {
    this.marks = marks;
    this.element = byId("light");
    this.element.addEventListener("keydown", (event) => this.#key(event));
  }

  /** Where it stands for the present scene. */
  draw() {
    const { canvas, light } = this.marks.now;
    const [x, y] = this.marks.stage.toScreen(canvas[0] / 2, canvas[1] / 2);
    const angle = (light * Math.PI) / 180;
    const box = this.marks.stage.element.getBoundingClientRect();
    const wanted = (Math.hypot(canvas[0], canvas[1]) / 2) * this.marks.stage.zoom * 0.72 + LIGHT_AIR_PX;
    const rx = Math.min(wanted, box.width / 2 - 60);
    const ry = Math.min((canvas[1] / 2) * this.marks.stage.zoom + LIGHT_AIR_PX, box.height / 2 - 60);
    /** @param {number} value @param {number} least @param {number} most */
    const limit = (value, least, most) => Math.min(most, Math.max(least + 18, value));
    const left = limit(x + Math.sin(angle) * rx, RULER_PX, box.width - 18);
    const top = limit(y - Math.cos(angle) * ry, RULER_PX + BAR_PX, box.height - FOOT_PX - 18);
    // Where there is no room beside the art, the lamp stands small in the corner of the rulers.
    const [across, down] = this.marks.stage.toScreen(0, 0);
    const [right, bottom] = this.marks.stage.toScreen(canvas[0], canvas[1]);
    const over = left > across - 14 && left < right + 14 && top > down - 14 && top < bottom + 14;
    this.element.classList.toggle("docked", over);
    this.element.style.left = `${over ? RULER_PX / 2 : left}px`;
    this.element.style.top = `${over ? BAR_PX + RULER_PX / 2 : top}px`;
  }

  /** @param {number} degrees @param {boolean} constrained @returns {{path: string, value: number}} */
  #direction(degrees, constrained) {
    const angle = constrained ? Math.round(degrees / 15) * 15 : Math.round(degrees);
    return { path: "light/direction", value: ((angle % 360) + 360) % 360 };
  }

  /** Dragged round the canvas the lamp sets where the light comes from; dragged inwards it rises.
   * @param {PointerEvent} event */
  drag(event) {
    const [width, height] = this.marks.now.canvas;
    const [x, y] = this.marks.stage.toLogical(event);
    const far = Math.hypot(x - width / 2, y - height / 2);
    const { lightHeight, lightHeights } = this.marks.now;
    const [lowest, highest] = lightHeights;
    this.marks.follow(event, (dx, dy, at) => {
      const angle = (Math.atan2(x + dx - width / 2, height / 2 - (y + dy)) * 180) / Math.PI;
      const changes = [this.#direction(angle, at.shiftKey)];
      const inwards = (far - Math.hypot(x + dx - width / 2, y + dy - height / 2)) * this.marks.stage.zoom;
      const more = Math.sign(inwards) * Math.max(0, Math.abs(inwards) - RISE_FROM_PX) * DEGREES_PER_PX;
      const rise = Math.round(Math.min(highest, Math.max(lowest, lightHeight + more)));
      if (more) changes.push({ path: "light/height", value: rise });
      return { kind: "set", changes };
    });
  }

  /** @param {KeyboardEvent} event */
  #key(event) {
    const step = STEPS[event.key];
    if (!step) return;
    event.preventDefault();
    event.stopPropagation();
    const light = this.marks.now.light + step * (event.shiftKey ? 10 : 1);
    this.marks.bench.post({ kind: "set", changes: [this.#direction(light, false)] });
  }
}
