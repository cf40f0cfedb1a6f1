/**
 * Drawn curves of the sheet: points are added, dragged, nudged and taken out where they stand.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 * @typedef {{x: number, y: number}} CurvePoint how far across, and how far up
 */
import { byId, closest } from "../ui/dom.js";
import { dragged } from "../ui/drags.js";
import { setting } from "./setting.js";

const AIR = 4;
/** @type {Object<string, [number, number]>} */
const WAYS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };
const REMOVING = ["Delete", "Backspace"];

/** How the points of each form are stored: where, and as what.
 * @type {Object<string, (path: string, points: CurvePoint[]) => [string, unknown]>} */
const FORMS = {
  points: (path, points) => [`${path}/points`, points],
  stops: (path, points) => [`${path}/stops`, points.map(({ x, y }) => ({ time: x, way: y }))],
  curve: (path, [one, other]) => [path, { kind: "curve", x1: one.x, y1: one.y, x2: other.x, y2: other.y }],
};

/** @param {number} value */
const share = (value, low = 0, high = 1) => Math.round(Math.min(high, Math.max(low, value)) * 1000) / 1000;
/** @param {SVGSVGElement} curve @returns {CurvePoint[]} */
const pointsOf = (curve) => {
  /** @type {[number, number][]} */
  const pairs = JSON.parse(curve.dataset.points ?? "[]");
  return pairs.map(([x, y]) => ({ x, y }));
};
/** @param {SVGSVGElement} curve */
const formOf = (curve) => curve.dataset.form ?? "points";
/** Where points are stored, and as what. @param {SVGSVGElement} curve @param {CurvePoint[]} points */
const stored = (curve, points) => FORMS[formOf(curve)](curve.dataset.path ?? "", points);
/** The number of the point that something happened to; -1 for none. @param {Event} event */
const numberOf = (event) => Number(closest(event, "[data-point]", SVGElement)?.dataset.point ?? -1);

/** Units of a curve's drawing for all of the way across, and all of the way up. @param {SVGSVGElement} curve */
const sizeOf = (curve) => [curve.viewBox.baseVal.width - 2 * AIR, Number(curve.dataset.up)];

/** @param {SVGSVGElement} curve @param {number} x @param {number} y @returns {CurvePoint} within its bounds */
function bounded(curve, x, y) {
  const { low, high } = curve.dataset;
  return { x: share(x), y: share(y, Number(low ?? 0), Number(high ?? 1)) };
}

/** Where a curve was pressed. @param {SVGSVGElement} curve @param {PointerEvent} event @returns {CurvePoint} */
function place(curve, event) {
  const box = curve.getBoundingClientRect();
  const view = curve.viewBox.baseVal;
  const [across, up] = sizeOf(curve);
  const x = ((event.clientX - box.left) / box.width) * view.width + view.x;
  const y = ((event.clientY - box.top) / box.height) * view.height + view.y;
  return bounded(curve, x / across, 1 - y / up);
}

/** The point that is nearest to a place. @param {CurvePoint[]} points @param {CurvePoint} at */
function nearest(points, at) {
  const far = points.map(({ x, y }) => Math.hypot(x - at.x, y - at.y));
  return far.indexOf(Math.min(...far));
}

/** A point where it is dragged to, with its arm. @param {SVGSVGElement} curve @param {number} index
 * @param {CurvePoint} point */
function showAt(curve, index, { x, y }) {
  const [across, up] = sizeOf(curve);
  const [left, top] = [String(x * across), String((1 - y) * up)];
  const dot = curve.querySelector(`[data-point="${index}"]`);
  dot?.setAttribute("cx", left);
  dot?.setAttribute("cy", top);
  const from = index ? `${across} 0` : `0 ${up}`;
  curve.querySelectorAll(".arm")[index]?.setAttribute("d", `M${from}L${left} ${top}`);
}

class Curves {
  /** @param {Bench} bench */
  constructor(bench) {
    this.bench = bench;
    /** What was posted of each curve and is not answered yet: an answer from before does not take it back.
     * @type {Map<string, {points: CurvePoint[], count: number}>} */
    this.unanswered = new Map();
    const sheet = byId("sheet");
    sheet.addEventListener("pointerdown", (event) => this.#press(event));
    sheet.addEventListener("keydown", (event) => this.#key(event));
  }

  /** Keep the points, and the focus on the one meant, wherever it stands among them now. What is done next is done to
   *  these points, whether the server has answered by then or not.
   * @param {SVGSVGElement} curve @param {CurvePoint[]} points @param {CurvePoint} point */
  async #keep(curve, points, point) {
    const { id } = curve;
    const sorted = formOf(curve) === "curve" ? points : [...points].sort((one, other) => one.x - other.x);
    const waiting = this.unanswered.get(id) ?? { points: sorted, count: 0 };
    this.unanswered.set(id, { points: sorted, count: waiting.count + 1 });
    const kept = await this.bench.set(...stored(curve, sorted));
    this.#answered(id);
    if (!kept) return;
    const index = sorted.indexOf(point);
    document.getElementById(`${id}-${Math.max(0, index)}`)?.focus({ preventScroll: true });
  }

  /** @param {string} id */
  #answered(id) {
    const waiting = this.unanswered.get(id);
    if (waiting && waiting.count > 1) this.unanswered.set(id, { ...waiting, count: waiting.count - 1 });
    else this.unanswered.delete(id);
  }

  /** A curve's points, as they were left. @param {SVGSVGElement} curve */
  #points(curve) {
    const waiting = this.unanswered.get(curve.id);
    return waiting ? waiting.points.map((point) => ({ ...point })) : pointsOf(curve);
  }

  /** @param {SVGSVGElement} curve @param {number} index */
  #without(curve, index) {
    const points = this.#points(curve);
    const { least } = curve.dataset;
    if (points.length <= Number(least)) {
      this.bench.complain(`A curve has at least ${least} points.`);
      return;
    }
    const others = points.filter((_, number) => number !== index);
    this.#keep(curve, others, points[Math.max(0, index - 1)]);
  }

  /** @param {SVGSVGElement} curve @param {number} index */
  #added(curve, index) {
    const points = this.#points(curve);
    const { most } = curve.dataset;
    const [one, next] = [points[index], points[index + 1] ?? points[index - 1]];
    const point = bounded(curve, (one.x + next.x) / 2, (one.y + next.y) / 2);
    if (points.length < Number(most)) this.#keep(curve, [...points, point], point);
    else this.bench.complain(`A curve has at most ${most} points.`);
  }

  /** @param {PointerEvent} event */
  #press(event) {
    const curve = closest(event, ".curve", SVGSVGElement);
    if (!curve || event.button !== 0) return;
    event.preventDefault();
    const index = numberOf(event);
    if (index >= 0 && event.detail > 1) this.#without(curve, index);
    else this.#drag(curve, event, index);
  }

  /** A point dragged; a new one where there is none.
   * @param {SVGSVGElement} curve @param {PointerEvent} event @param {number} found */
  #drag(curve, event, found) {
    const points = this.#points(curve);
    const isNew = found < 0 && points.length < Number(curve.dataset.most);
    if (isNew) points.push(place(curve, event));
    const index = found < 0 ? (isNew ? points.length - 1 : nearest(points, place(curve, event))) : found;
    if (!isNew) document.getElementById(`${curve.id}-${index}`)?.focus({ preventScroll: true });
    /** @param {PointerEvent} at */
    const move = (at) => {
      points[index] = place(curve, at);
      this.bench.stage.preview(setting(this.bench, ...stored(curve, points)));
      showAt(curve, index, points[index]);
    };
    dragged(this.bench, event, move, (moved) => {
      if (moved || isNew) this.#keep(curve, points, points[index]);
    });
  }

  /** @param {KeyboardEvent} event */
  #key(event) {
    const curve = closest(event, ".curve", SVGSVGElement);
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

  /** @param {SVGSVGElement} curve @param {number} index @param {[number, number]} way @param {KeyboardEvent} event */
  #nudge(curve, index, [across, up], event) {
    const points = this.#points(curve);
    const by = 0.01 * (event.shiftKey ? 10 : 1) * (event.altKey ? 0.1 : 1);
    points[index] = bounded(curve, points[index].x + across * by, points[index].y + up * by);
    this.#keep(curve, points, points[index]);
  }
}

/** @param {Bench} bench */
export function startCurves(bench) {
  new Curves(bench);
}
