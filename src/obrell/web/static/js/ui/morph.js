/** Writing blocks anew without losing what is in hand: focus, places, open folds, pictures, and what is being typed. */
import { Idiomorph } from "../../vendor/idiomorph/idiomorph.esm.js";
import { showWhenReady } from "./pictures.js";

/** @type {WeakMap<Element, string>} */
const chosen = new WeakMap();

/**
 * Attributes of a picture follow at once, what it shows once the new one is there.
 *
 * @param {HTMLImageElement} old
 * @param {HTMLImageElement} fresh
 */
function morphPicture(old, fresh) {
  for (const { name, value } of fresh.attributes) if (!name.startsWith("src")) old.setAttribute(name, value);
  showWhenReady(old, fresh.getAttribute("src") ?? "", fresh.srcset);
}

const callbacks = {
  /** @param {Element} old @param {Element} fresh */
  beforeNodeMorphed(old, fresh) {
    if (old instanceof HTMLImageElement && fresh instanceof HTMLImageElement && old.complete && old.naturalWidth) {
      morphPicture(old, fresh);
      return false;
    }
    // What the browser fetched into a place stays there, as long as it is the same place.
    if (old instanceof HTMLElement && "held" in old.dataset && old.id === fresh.id) return false;
    // What is asked for in a form is the person's until it is done.
    if (old instanceof HTMLSelectElement && old.matches(".ask")) chosen.set(old, old.value);
    return !(
      old instanceof HTMLInputElement && old.closest(".ask-form:not([data-typed]), [data-makes], .keep-as, .several")
    );
  },
  /** @param {Element} old */
  afterNodeMorphed(old) {
    const before = chosen.get(old);
    if (before === undefined || !(old instanceof HTMLSelectElement)) return;
    if ([...old.options].some(({ value }) => value === before)) old.value = before;
    chosen.delete(old);
  },
  /** @param {string} name @param {Element} node */
  beforeAttributeUpdated: (name, node) => !(name === "open" && node instanceof HTMLDetailsElement),
};

/** @param {"innerHTML"|"outerHTML"} morphStyle */
const options = (morphStyle) => ({
  callbacks,
  restoreFocus: false,
  morphStyle,
  // Of any other element in focus "value" would mean all that lies in it.
  ignoreActiveValue: document.activeElement?.matches("input, textarea"),
});

/**
 * Keep what has the focus where it is in the sheet, also when a line above it grows or shrinks.
 *
 * @param {Element|null} node @returns {(now: Element|null) => void} called with what has the focus once all is written
 *   anew
 */
export function anchoredTo(node) {
  const panel = node?.closest(".sheet");
  if (!node || !panel) return () => undefined;
  const { top } = node.getBoundingClientRect();
  return (now) => {
    if (now?.isConnected) panel.scrollTop += now.getBoundingClientRect().top - top;
  };
}

/** Make what lies in a place that of an HTML text. @param {Element} place @param {string} html */
export function morphInner(place, html) {
  Idiomorph.morph(place, html, options("innerHTML"));
}

/** @param {string} html of one element @returns {Element} */
function made(html) {
  const template = document.createElement("template");
  template.innerHTML = html.trim();
  return /** @type {Element} */ (template.content.firstElementChild);
}

/**
 * Bring a list up to date: items that changed by their key, and their order when that did.
 *
 * @param {Element} place whose children have keys
 * @param {{items: Object<string, string>, order?: string[]}} list
 */
export function morphList(place, { items, order }) {
  const there = new Map([...place.children].map((node) => [node.getAttribute("data-key") ?? "", node]));
  for (const [key, html] of Object.entries(items)) {
    const node = there.get(key);
    if (node) Idiomorph.morph(node, html, options("outerHTML"));
    else there.set(key, place.appendChild(made(html)));
  }
  if (!order) return;
  const wanted = new Set(order);
  for (const [key, node] of there) if (!wanted.has(key)) node.remove();
  order.forEach((key, index) => {
    const node = there.get(key);
    if (node && place.children[index] !== node) place.insertBefore(node, place.children[index] ?? null);
  });
}
