/**
 * What was typed and is not answered yet: it goes on standing in its fields, whatever older answer writes them anew.
 *
 * @typedef {{text: string, count: number}} Waiting
 */
import { all } from "../ui/dom.js";

/** @type {Map<string, Waiting>} */
const waiting = new Map();

/** @param {HTMLElement} node @param {string} text a number as it is typed */
function writeNumber(node, text) {
  node.textContent = text;
  node.classList.add("pending");
  const value = Number(text.replace("−", "-").replace(",", "."));
  if (!text.trim() || !Number.isFinite(value)) return;
  node.dataset.value = String((value - Number(node.dataset.shift || 0)) / Number(node.dataset.factor));
}

/** Write what waits into its fields. @param {string} [path] of one that waits, else all */
export function writeWaiting(path) {
  for (const [at, { text }] of waiting) {
    if (path && path !== at) continue;
    for (const node of all(`#sheet [data-path="${CSS.escape(at)}"]`)) {
      if (node.matches(".num")) writeNumber(node, text);
      else if (node !== document.activeElement && isText(node)) node.value = text;
    }
  }
}

/** @param {HTMLElement} node @returns {node is HTMLInputElement|HTMLTextAreaElement} */
const isText = (node) =>
  node instanceof HTMLTextAreaElement || (node instanceof HTMLInputElement && node.type === "text");

/**
 * Show a text at a path until its edit is answered.
 *
 * @template T
 * @param {string} path @param {string} text @param {Promise<T>} answer
 * @returns {Promise<T>}
 */
export async function untilAnswered(path, text, answer) {
  waiting.set(path, { text, count: (waiting.get(path)?.count ?? 0) + 1 });
  writeWaiting(path);
  try {
    return await answer;
  } finally {
    const now = waiting.get(path);
    if (now && now.count > 1) waiting.set(path, { ...now, count: now.count - 1 });
    else waiting.delete(path);
  }
}

/** Whether something that was typed at a path waits for its answer. @param {string} path */
export const waits = (path) => waiting.has(path);
