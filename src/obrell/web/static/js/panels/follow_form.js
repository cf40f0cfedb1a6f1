/** The form in which colours that could follow swatches are ticked. */
import { all } from "../ui/dom.js";

/** @param {HTMLFormElement} form @returns {Object<string, object>} which colours follow, by their digits */
export function linksIn(form) {
  const ticked = all("tr[data-links]", form).filter((row) => row.querySelector("input:checked"));
  return Object.assign({}, ...ticked.map((row) => JSON.parse(row.dataset.links ?? "{}")));
}
