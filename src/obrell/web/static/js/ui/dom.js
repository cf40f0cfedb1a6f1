/** Elements of the page, as what they are: found by id, from what was pressed, all that match. */

/**
 * An element that every page of this view has.
 *
 * @param {string} id
 * @returns {HTMLElement}
 */
export function byId(id) {
  const found = document.getElementById(id);
  if (!found) throw new Error(`The page has no #${id}.`);
  return found;
}

/**
 * The nearest element around what something happened to.
 *
 * @template {Element} [T=HTMLElement]
 * @param {{target: EventTarget|null}} event
 * @param {string} selector
 * @param {abstract new () => T} [kind] any other is nothing
 * @returns {T|null}
 */
export function closest(event, selector, kind) {
  const found = event.target instanceof Element ? event.target.closest(selector) : null;
  return kind && !(found instanceof kind) ? null : /** @type {T|null} */ (found);
}

/**
 * @param {{target: EventTarget|null}} event
 * @param {string} selector
 */
export function matches(event, selector) {
  return event.target instanceof Element && event.target.matches(selector);
}

/**
 * @param {string} selector
 * @param {ParentNode} [root]
 * @returns {HTMLElement[]}
 */
export function all(selector, root = document) {
  return [...root.querySelectorAll(selector)].filter((node) => node instanceof HTMLElement);
}

/**
 * What a choice says; “None” is nothing.
 *
 * @param {HTMLSelectElement} choice
 */
export function chosen(choice) {
  return choice.value === "None" ? null : choice.value;
}

/** @param {unknown} error @returns {string} */
export function saidBy(error) {
  return error instanceof Error ? error.message : String(error);
}
