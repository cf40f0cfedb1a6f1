/**
 * Drawn curves of the sheet: points are added, dragged, nudged and taken out where they stand.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 * @typedef {{x: number, y: number}} CurvePoint shares
 */
import { byId, closest } from "../ui/dom.js";
import { dragged } from "../ui/drags.js";

const AIR = 4;
const SIZE = 108;
/** @type {Object<string, [number, number]>} */
const WAYS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };
const REMOVING = ["Delete", "Backspace"];

/** @param {number} value */
const share = (value) => Math.round(Math.min(1, Math.max(0, value)) * 1000) / 1000;
/** @param {SVGElement} curve @returns {CurvePoint[]} */
const pointsOf = (curve) => {
  /** @type {[number, number][]} */
  const pairs = JSON.parse(curve.dataset.points ?? "[]");
  return pairs.map(([x, y]) => ({ x, y }));
};
/** @param {SVGElement} curve */
const pathOf = (curve) => `${curve.dataset.path}/points`;
/** The number of the point that something happened to; -1 for none. @param {Event} event */
const numberOf = (event) => Number(closest(event, "[data-point]", SVGElement)?.dataset.point ?? -1);

/** Where a curve was pressed. @param {SVGElement} curve @param {PointerEvent} event @returns {CurvePoint} */
function place(curve, event) {
  const box = curve.getBoundingClientRect();
  const x = ((event.clientX - box.left) / box.width) * SIZE - AIR;
  const y = ((event.clientY - box.top) / box.height) * SIZE - AIR;
  return { x: share(x / 100), y: share(1 - y / 100) };
}

class Curves {
  /** @param {Bench} bench */
  constructor(bench) {
    this.bench = bench;
    const sheet = byId("sheet");
    sheet.addEventListener("pointerdown", (event) => this.#press(event));
    sheet.addEventListener("keydown", (event) => this.#key(event));
  }

  /** Keep the points, and the focus on the one meant, wherever it stands among them now. What is done next is done to
   *  these points, whether the server has answered by then or not.
   * @param {SVGElement} curve @param {CurvePoint[]} points @param {CurvePoint} point */
  async #keep(curve, points, point) {
    const { id } = curve;
    const sorted = [...points].sort((one, other) => one.x - other.x);
    curve.dataset.points = JSON.stringify(sorted.map(({ x, y }) => [x, y]));
    if (!(await this.bench.set(pathOf(curve), points))) return;
    const index = sorted.indexOf(point);
    document.getElementById(`${id}-${Math.max(0, index)}`)?.focus({ preventScroll: true });
  }

  /** @param {SVGElement} curve @param {number} index */
  #without(curve, index) {
    const points = pointsOf(curve);
    const { least } = curve.dataset;
    if (points.length <= Number(least)) {
      this.bench.complain(`A curve has at least ${least} points.`);
      return;
    }
    const others = points.filter((_, number) => number !== index);
    this.#keep(curve, others, points[Math.max(0, index - 1)]);
  }

  /** @param {SVGElement} curve @param {number} index */
  #added(curve, index) {
    const points = pointsOf(curve);
    const { most } = curve.dataset;
    const [one, next] = [points[index], points[index + 1] ?? points[index - 1]];
    const point = { x: share((one.x + next.x) / 2), y: share((one.y + next.y) / 2) };
    if (points.length < Number(most)) this.#keep(curve, [...points, point], point);
    else this.bench.complain(`A curve has at most ${most} points.`);
  }

  /** @param {PointerEvent} event */
  #press(event) {
    const curve = closest(event, ".curve", SVGElement);
    if (!curve || event.button !== 0) return;
    event.preventDefault();
    const index = numberOf(event);
    if (index >= 0 && event.detail > 1) this.#without(curve, index);
    else this.#drag(curve, event, index);
  }

  /** A point dragged; a new one where there is none.
   * @param {SVGElement} curve @param {PointerEvent} event @param {number} found */
  #drag(curve, event, found) {
    const points = pointsOf(curve);
    const isNew = found < 0;
    const index = isNew ? points.push(place(curve, event)) - 1 : found;
    if (!isNew) closest(event, "[data-point]", SVGElement)?.focus({ preventScroll: true });
    const dot = curve.querySelector(`[data-point="${index}"]`);
    /** @param {PointerEvent} at */
    const move = (at) => {
      points[index] = place(curve, at);
      this.bench.stage.preview(this.bench.setting(pathOf(curve), points));
      dot?.setAttribute("cx", String(points[index].x * 100));
      dot?.setAttribute("cy", String(100 - points[index].y * 100));
    };
    dragged(this.bench, event, move, (moved) => {
      if (moved || isNew) this.#keep(curve, points, points[index]);
    });
  }

  /** @param {KeyboardEvent} event */
  #key(event) {
    const curve = closest(event, ".curve", SVGElement);
    const index = numberOf(event);
    if (!curve || index < 0) return;
    const way = WAYS[event.key];
    if (way) this.#nudge(curve, index, way, event);
    else if (REMOVING.includes(event.key)) this.#without(curve, index);
    else if (event.key === "Enter") this.#added(curve, index);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }

  /** @param {SVGElement} curve @param {number} index @param {[number, number]} way @param {KeyboardEvent} event */
  #nudge(curve, index, [across, up], event) {
    const points = pointsOf(curve);
    const by = 0.01 * (event.shiftKey ? 10 : 1) * (event.altKey ? 0.1 : 1);
    points[index] = { x: share(points[index].x + across * by), y: share(points[index].y + up * by) };
    this.#keep(curve, points, points[index]);
  }
}

/** @param {Bench} bench */
export function startCurves(bench) {
  new Curves(bench);
}
