/** Places of parts on the canvas: pure, so that they can be tested without a browser. */

/**
 * @typedef {[number, number]} Point
 * @typedef {[Point, Point, Point, Point]} Corners clockwise from the top left
 * @typedef {{x: number, y: number, turn: number, mirrored: boolean}} Place where a part stands; degrees clockwise
 * @typedef {Place & {id: string, kind: string, frame: number[]}} Part its frame as left, top, right, bottom
 */

/** A number as it is shown and sent: two places at most. @param {number} value */
export const short = (value) => String(Math.round(value * 100) / 100);

/** Length and direction of a stretch, clockwise from straight up. @param {number} dx @param {number} dy */
export function measured(dx, dy) {
  const degrees = ((Math.atan2(dx, -dy) * 180) / Math.PI + 360) % 360;
  return `${short(Math.hypot(dx, dy))} at ${short(Math.round(degrees * 10) / 10)}°`;
}

/**
 * A place in a part's own space, on the canvas.
 *
 * @param {Place} part @param {number} x @param {number} y @returns {Point}
 */
export function toCanvas(part, x, y) {
  const angle = (part.turn * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const across = part.mirrored ? -x : x;
  return [part.x + cos * across - sin * y, part.y + sin * across + cos * y];
}

/**
 * A place of the canvas in a part's own space.
 *
 * @param {Place} part @param {number} x @param {number} y @returns {Point}
 */
export function toOwn(part, x, y) {
  const angle = (-part.turn * Math.PI) / 180;
  const [dx, dy] = [x - part.x, y - part.y];
  const across = Math.cos(angle) * dx - Math.sin(angle) * dy;
  return [part.mirrored ? -across : across, Math.sin(angle) * dx + Math.cos(angle) * dy];
}

/**
 * The frame of a part as four corners, in logical px of the canvas.
 *
 * @param {Place & {frame: number[]}} part @returns {Corners}
 */
export function corners(part) {
  const [left, top, right, bottom] = part.frame;
  return [
    toCanvas(part, left, top),
    toCanvas(part, right, top),
    toCanvas(part, right, bottom),
    toCanvas(part, left, bottom),
  ];
}

/**
 * Left, top, right and bottom of a part's frame on the canvas.
 *
 * @param {Place & {frame: number[]}} part @returns {number[]}
 */
export function around(part) {
  const points = corners(part);
  const [across, down] = [0, 1].map((axis) => points.map((point) => point[axis]));
  return [Math.min(...across), Math.min(...down), Math.max(...across), Math.max(...down)];
}

/**
 * The gaps between two boxes along both axes; to all four sides where one lies in the other.
 *
 * @param {number[]} one @param {number[]} other left, top, right, bottom
 * @returns {{axis: 0|1, from: number, to: number, at: number}[]} stretches, and where they stand across
 */
export function gapsBetween(one, other) {
  const axes = /** @type {(0|1)[]} */ ([0, 1]);
  const [inner, outer] = holds(other, one) ? [one, other] : [other, one];
  if (holds(outer, inner)) {
    return axes.flatMap((axis) => {
      const at = (inner[1 - axis] + inner[3 - axis]) / 2;
      return [
        { axis, from: outer[axis], to: inner[axis], at },
        { axis, from: inner[axis + 2], to: outer[axis + 2], at },
      ];
    });
  }
  return axes.map((axis) => {
    const [low, high] = one[axis] < other[axis] ? [one, other] : [other, one];
    const across = 1 - axis;
    const at = (Math.max(one[across], other[across]) + Math.min(one[across + 2], other[across + 2])) / 2;
    return { axis, from: low[axis + 2], to: high[axis], at };
  });
}

/** Whether a box lies in another. @param {number[]} outer @param {number[]} inner */
function holds(outer, inner) {
  return [0, 1].every((axis) => outer[axis] <= inner[axis] && inner[axis + 2] <= outer[axis + 2]);
}

/**
 * A point of a frame by shares across and down.
 *
 * @param {Corners} corners @param {number} across @param {number} down @returns {Point}
 */
export function between([a, b, c, d], across, down) {
  /** @type {(p: number, q: number, t: number) => number} */
  const mix = (p, q, t) => p + (q - p) * t;
  /** @param {0|1} axis */
  const at = (axis) => mix(mix(a[axis], b[axis], across), mix(d[axis], c[axis], across), down);
  return [at(0), at(1)];
}

/**
 * The unit vector out of a side: 0 top, 1 right, 2 bottom, 3 left.
 *
 * @param {Corners} points @param {number} side @returns {Point}
 */
export function outward(points, side) {
  const [from, to] = [points[side], points[(side + 1) % 4]];
  const length = Math.hypot(to[0] - from[0], to[1] - from[1]) || 1;
  return [(to[1] - from[1]) / length, -(to[0] - from[0]) / length];
}
