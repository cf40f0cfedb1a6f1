/** Where what is dragged snaps: to edges and middles of what else stands there, and of the screen. */

/**
 * @typedef {{left: number, top: number, right: number, bottom: number}} Bounds
 * @typedef {{axis: "x"|"y", at: number}} Line
 */

const NEAR_PX = 5;
const MARGIN_PX = 24;

/** @param {Bounds} box @param {"x"|"y"} axis @returns {number[]} both edges and the middle */
function places(box, axis) {
  const [low, high] = axis === "x" ? [box.left, box.right] : [box.top, box.bottom];
  return [low, (low + high) / 2, high];
}

/**
 * The nearest way to bring one of some places onto one of others.
 *
 * @param {number[]} own @param {number[]} others
 */
function nearest(own, others) {
  let best = { by: 0, at: NaN, far: NEAR_PX };
  for (const place of own)
    for (const at of others) {
      const by = at - place;
      if (Math.abs(by) < best.far) best = { by, at, far: Math.abs(by) };
    }
  return best;
}

/**
 * How far things go that are dragged, when they snap, and along which lines.
 *
 * @param {Bounds[]} own @param {[number, number]} by @param {Bounds[]} others @param {[number, number]} size
 * @returns {{dx: number, dy: number, lines: Line[]}}
 */
export function snapped(own, by, others, size) {
  /** @type {Line[]} */
  const lines = [];
  const [dx, dy] = /** @type {["x", "y"]} */ (["x", "y"]).map((axis, at) => {
    const all = {
      left: Math.min(...own.map((box) => box.left)),
      top: Math.min(...own.map((box) => box.top)),
      right: Math.max(...own.map((box) => box.right)),
      bottom: Math.max(...own.map((box) => box.bottom)),
    };
    const screen = [0, MARGIN_PX, size[at] / 2, size[at] - MARGIN_PX, size[at]];
    const there = [...screen, ...others.flatMap((box) => places(box, axis))];
    const found = nearest(
      places(all, axis).map((place) => place + by[at]),
      there,
    );
    if (Number.isNaN(found.at)) return by[at];
    lines.push({ axis, at: found.at });
    return by[at] + found.by;
  });
  return { dx, dy, lines };
}
