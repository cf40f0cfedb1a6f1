/** Elements of SVG. */
const NS = "http://www.w3.org/2000/svg";

/**
 * @param {string} tag
 * @param {Object<string, string|number>} attributes
 * @param {string} [text]
 * @returns {SVGElement}
 */
export function svg(tag, attributes, text) {
  const node = document.createElementNS(NS, tag);
  for (const [name, value] of Object.entries(attributes)) node.setAttribute(name, String(value));
  if (text !== undefined) node.textContent = text;
  return /** @type {SVGElement} */ (node);
}
