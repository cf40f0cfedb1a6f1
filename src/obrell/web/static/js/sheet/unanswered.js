/**
 * Values that were typed and are not answered yet. Their fields keep showing them when an older answer arrives.
 *
 * @typedef {{text: string, count: number, last: Promise<unknown>}} Waiting
 */
import { all } from "../ui/dom.js";

/** @type {Map<string, Waiting>} */
const waiting = new Map();

/** A typed text as a number; NaN for a sum, which the server works out. @param {string} text */
const numberOf = (text) => (text.trim() ? Number(text.replace("−", "-").replace(",", ".")) : NaN);

/** @param {HTMLElement} node @param {string} text as it is typed */
function writeNumber(node, text) {
  node.dataset.stood ??= JSON.stringify([node.textContent, node.dataset.value]);
  node.textContent = text;
  node.classList.add("pending");
  const value = numberOf(text);
  if (!Number.isFinite(value)) return;
  node.dataset.value = String((value - Number(node.dataset.shift || 0)) / Number(node.dataset.factor));
}

/** Numbers whose answers wrote nothing anew show again what they were. */
function writeBack() {
  for (const node of all("#sheet .num.pending")) {
    if (waiting.has(node.dataset.path ?? "")) continue;
    const [text, value] = JSON.parse(node.dataset.stood ?? "[]");
    node.classList.remove("pending");
    delete node.dataset.stood;
    if (value !== undefined) [node.textContent, node.dataset.value] = [text, value];
  }
}

/** Show what waits in its fields, after the sheet was written anew. */
export function writeWaiting() {
  writeBack();
  for (const [at, { text }] of waiting) {
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
 * Show a text at a path until its edit is answered; while the sheet is held, until it is written anew.
 *
 * @template T
 * @param {{holding: {held: boolean}}} bench
 * @param {string} path @param {string} text @param {Promise<T>} answer
 * @returns {Promise<T>}
 */
export async function untilAnswered(bench, path, text, answer) {
  waiting.set(path, { text, count: (waiting.get(path)?.count ?? 0) + 1, last: answer });
  writeWaiting();
  try {
    return await answer;
  } finally {
    const now = waiting.get(path);
    if (now && now.count > 1) waiting.set(path, { ...now, count: now.count - 1 });
    else waiting.delete(path);
    if (!bench.holding.held) writeBack();
  }
}

/** The answer to a sum that was typed at a path and is not worked out yet; null when there is none.
 * @param {string} path */
export function sumAt(path) {
  const now = waiting.get(path);
  return now && Number.isNaN(numberOf(now.text)) ? now.last : null;
}
