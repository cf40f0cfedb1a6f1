/**
 * Rulers: numbers along the stage, the stretch of what is selected, and how long that is.
 *
 * @typedef {import("./types.js").View} View
 * @typedef {import("./plane.js").Part} Part
 * @typedef {0|1} Axis across or down
 * @typedef {(value: number) => number} Scale from logical px of the canvas to px of the ruler
 */
import { BAR_PX, FOOT_PX, RULER_PX } from "./bars.js";
import { corners, short } from "./plane.js";

const STEPS = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000];
const WIDEST = 10000;
const LEAST_PX = 42;
const MINORS = 5;

/** @param {View} stage @param {Part[]} selected */
export function drawRulers(stage, selected) {
  drawOne(stage, "ruler-x", 0, selected);
  drawOne(stage, "ruler-y", 1, selected);
}

/** @param {View} stage @param {string} id @param {Axis} axis @param {Part[]} selected */
function drawOne(stage, id, axis, selected) {
  const ruler = /** @type {HTMLCanvasElement} */ (document.getElementById(id));
  const length = axis ? ruler.clientHeight : ruler.clientWidth;
  ruler.width = (axis ? RULER_PX : length) * stage.ratio;
  ruler.height = (axis ? length : RULER_PX) * stage.ratio;
  const pen = /** @type {CanvasRenderingContext2D} */ (ruler.getContext("2d"));
  pen.scale(stage.ratio, stage.ratio);
  drawRuler(stage, pen, axis, length, selected);
}

/** From where to where a part reaches along an axis. @param {Part} part @param {Axis} axis */
function reach(part, axis) {
  const values = corners(part).map((corner) => corner[axis]);
  return [Math.min(...values), Math.max(...values)];
}

/**
 * @param {View} stage @param {CanvasRenderingContext2D} pen @param {Axis} axis
 * @param {number} length px @param {Part[]} selected
 */
function drawRuler(stage, pen, axis, length, selected) {
  const origin = axis ? stage.y - RULER_PX - BAR_PX : stage.x - RULER_PX;
  /** @type {Scale} */
  const place = (value) => origin + value * stage.zoom;
  pen.fillStyle = "#0d6a7026";
  for (const part of selected) {
    const [from, to] = reach(part, axis).map(place);
    if (axis) pen.fillRect(0, from, RULER_PX, to - from);
    else pen.fillRect(from, 0, to - from, RULER_PX);
  }
  pen.fillStyle = "#62696e";
  pen.font = "10px SplineMono";
  pen.textAlign = "center";
  const step = STEPS.find((value) => value * stage.zoom >= LEAST_PX) || WIDEST;
  for (let value = Math.floor(-origin / stage.zoom / step) * step; place(value) < length; value += step) {
    drawTicks(pen, axis, value, step, place);
    upright(pen, axis, Math.round(place(value)) + 0.5, 12, () => pen.fillText(String(value), 0, 0));
  }
  if (selected.length === 1) drawMeasure(stage, pen, axis, place, selected[0]);
}

/**
 * @param {CanvasRenderingContext2D} pen @param {Axis} axis @param {number} value @param {number} step
 * @param {Scale} place
 */
function drawTicks(pen, axis, value, step, place) {
  for (let minor = 0; minor < MINORS; minor += 1) {
    const at = Math.round(place(value + (minor * step) / MINORS));
    const long = minor ? 3 : 6;
    if (axis) pen.fillRect(RULER_PX - long, at, long, 1);
    else pen.fillRect(at, RULER_PX - long, 1, long);
  }
}

/**
 * Draw with the pen at a place of a ruler, along it.
 *
 * @param {CanvasRenderingContext2D} pen @param {Axis} axis @param {number} at
 * @param {number} low px from its upper edge
 * @param {() => void} draw
 */
function upright(pen, axis, at, low, draw) {
  pen.save();
  if (axis) {
    pen.translate(10, at);
    pen.rotate(-Math.PI / 2);
  } else pen.translate(at, low);
  draw();
  pen.restore();
}

/**
 * How long the selected part is, written on its stretch of the ruler.
 *
 * @param {View} stage @param {CanvasRenderingContext2D} pen @param {Axis} axis @param {Scale} place @param {Part} part
 */
function drawMeasure(stage, pen, axis, place, part) {
  const [from, to] = reach(part, axis);
  const words = short(to - from);
  const { clientHeight, clientWidth } = stage.element;
  const length = axis ? clientHeight - FOOT_PX - BAR_PX - RULER_PX : clientWidth - RULER_PX;
  const middle = (Math.max(0, place(from)) + Math.min(length, place(to))) / 2;
  const wide = pen.measureText(words).width + 8;
  upright(pen, axis, middle, 11, () => {
    pen.fillStyle = "#0d6a70";
    pen.fillRect(-wide / 2, -8, wide, 14);
    pen.fillStyle = "#fff";
    pen.fillText(words, 0, 3);
  });
}
