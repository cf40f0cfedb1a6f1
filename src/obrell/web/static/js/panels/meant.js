/** What is meant by a word that names nothing: what is open, else what is selected, else everything. */

/**
 * The open effect, or the selected parts, or all of them, by their paths.
 *
 * @param {import("../ui/types.js").Bench} bench
 * @returns {string[]}
 */
export function meant(bench) {
  const { selected, effect, scene } = bench.state;
  if (effect) return [`parts/${selected[0]}/effects/${effect}`];
  return (selected.length ? selected : scene.parts.map((part) => part.id)).map((id) => `parts/${id}`);
}

/**
 * The edit that hides what stands at paths; null when there are none.
 *
 * @param {string[]} paths
 * @returns {import("../ui/types.js").Edit|null}
 */
export function hiding(paths) {
  if (!paths.length) return null;
  return { kind: "set", changes: paths.map((path) => ({ path: `${path}/visible`, value: false })) };
}
