/**
 * Editions: the size and the art for a density that are drawn, made and named.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 * @typedef {import("../ui/api.js").State} State
 */

/** Another size, or the art for another density, is drawn. @param {Bench} bench @param {string} editions */
export async function drawEditions(bench, editions) {
  const before = bench.state.scene.canvas.join();
  bench.stage.editions = editions;
  bench.stage.preview(null);
  await bench.refresh();
  const [width, height] = bench.state.scene.canvas;
  if (`${width},${height}` !== before) bench.stage.centre(width, height);
}

/** What is drawn once an edition was made: that, and what else was drawn of the other kind.
 * @param {Bench} bench @param {string} made @param {State} state in which it is there */
export function drawMade(bench, made, { sizes, editions }) {
  const others = editions.split(",").filter((name) => name && sizes.includes(name) !== sizes.includes(made));
  drawEditions(bench, [...others, made].join());
}
