/**
 * Which parts a value's path speaks of, and about which point they turn or grow: all that are selected when the path
 * says so.
 *
 * @param {import("../ui/types.js").Sheeted} bench @param {string} path
 */
export function scopeOf(bench, path) {
  const { anchor, state } = bench;
  const turned = anchor && /^parts\/[^/]+\/(rotation|shape\/\w+)$/.test(path);
  return { parts: path.includes("*") ? state.selected : [], anchor: turned ? anchor.split(",").map(Number) : null };
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
