const MIDDLE = "0.5,0.5";

/**
 * Which parts a value's path speaks of, and about which point they turn or grow: all that are selected when the path
 * says so.
 *
 * @param {import("../ui/types.js").Sheeted} bench @param {string} path
 */
export function scopeOf(bench, path) {
  const { state } = bench;
  return { parts: path.includes("*") ? state.selected : [], anchor: anchorOf(bench.anchor, path) };
}

/** Shares across and down of what stays where it is: a part turns about its middle when no other place is chosen.
 * @param {string} chosen @param {string} path */
function anchorOf(chosen, path) {
  const turns = /^parts\/[^/]+\/rotation$/.test(path);
  if (turns) return (chosen || MIDDLE).split(",").map(Number);
  return chosen && /^parts\/[^/]+\/shape\/(runs\/\d+\/)?\w+$/.test(path) ? chosen.split(",").map(Number) : null;
}

/**
 * The edit that sets a value.
 *
 * @param {import("../ui/types.js").Sheeted} bench @param {string} path @param {unknown} value
 * @returns {import("../ui/types.js").Edit}
 */
export function setting(bench, path, value) {
  return { kind: "set", changes: [{ path, value }], ...scopeOf(bench, path) };
}
