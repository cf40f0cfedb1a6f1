/**
 * What can be taken hold of on the stage, found from the mark that shows it: by the pointer and by keys alike.
 *
 * @typedef {import("./types.js").Handle} Handle
 * @typedef {import("./types.js").Marks} Marks
 */
import { svg } from "../ui/svg.js";

const REACH_PX = 6;
/** Marks that are handles, in the order in which keys come to them. */
export const HANDLES = ["handle", "turn", "pull", "end", "knot", "grip", "gradient", "fall", "guide", "edge"];

/**
 * @param {Marks} marks
 * @param {DOMStringMap} data of the mark
 * @returns {Handle|null}
 */
export function handleOf(marks, data) {
  const { falls, gradients, guides, points, pulls } = marks;
  if (data.handle) return marks.cropping ? pulls.cropping(data.handle) : pulls.sizing(data.handle);
  if (data.turn) return pulls.turning(data.turn);
  if (data.pull) return pulls.gripping(data.pull);
  if (data.guide) return guides.handle(data.guide);
  if (data.edge) return pulls.edge(data.edge);
  if (data.gradient) return gradients.handle(data.gradient);
  if (data.fall) return falls.handle();
  return points.handle(data);
}

/**
 * A mark that is taken hold of: it says what it is, and is large enough for a hand.
 *
 * @template {SVGElement} T
 * @param {T} node
 * @param {string} words
 * @returns {T}
 */
export function named(node, words) {
  const title = svg("title", {});
  title.textContent = words;
  node.append(title);
  return node;
}

/**
 * What lies unseen around a small mark and takes hold of the same.
 *
 * @param {number} cx
 * @param {number} cy
 * @param {string} words
 * @param {Object<string, string>} data of the mark
 */
export function reach(cx, cy, words, data) {
  const node = named(svg("circle", { class: "reach", cx, cy, r: REACH_PX }), words);
  Object.assign(node.dataset, data);
  return node;
}
