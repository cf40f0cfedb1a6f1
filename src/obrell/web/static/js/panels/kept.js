/** What a person has in a panel outlives its being written anew. */
import { all } from "../ui/dom.js";

/** @typedef {{fields: [string, string, boolean][], within: boolean, typing: boolean, scrolled: number,
 *   open: string[]}} Kept */

/** What is typed, chosen, unfolded and scrolled to in a panel, to be put back after it is written anew.
 * @param {HTMLElement} panel @returns {Kept} */
export function keptOf(panel) {
  const inputs = all("input:not(.entitle), select", panel);
  return {
    fields: inputs.map((one) => {
      const { id, name, value, checked = false } = /** @type {HTMLInputElement} */ (one);
      return [id || name, value, checked];
    }),
    within: panel.contains(document.activeElement),
    typing: Boolean(document.activeElement?.closest("#looks-save")),
    scrolled: panel.scrollTop,
    open: all("details[open]", panel).map((node) => node.id),
  };
}

/** @param {HTMLElement} panel @param {Kept} kept */
export function putBack(panel, { fields, within, typing, scrolled, open }) {
  for (const id of open) panel.querySelector(`#${id}`)?.setAttribute("open", "");
  panel.scrollTop = scrolled;
  for (const [name, value, checked] of fields) {
    const input = panel.querySelector(`[id="${name}"], [name="${name}"]`);
    if (input instanceof HTMLInputElement) [input.value, input.checked] = [value, checked];
    else if (input instanceof HTMLSelectElement) input.value = value;
  }
  if (typing) all("#looks-save input", panel)[0]?.focus();
  else if (within) panel.focus({ preventScroll: true });
}
