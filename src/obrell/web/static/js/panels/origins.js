/**
 * Swatches that copied things follow, told along, so that they find their like in another kit.
 *
 * @typedef {import("../ui/api.js").Origin} Origin
 */

/** The swatches that a copied value names. @param {unknown} value @returns {Set<string>} */
export function swatchesIn(value) {
  const found = new Set();
  /** @param {any} one */
  const look = (one) => {
    if (!one || typeof one !== "object") return;
    if (typeof one.swatch === "string" && !one.own) found.add(one.swatch);
    Object.values(one).forEach(look);
  };
  look(value);
  return found;
}

/**
 * What is said when colours of what was copied have no swatch to follow here.
 *
 * @param {unknown} value that is pasted @param {Origin[]} origins @param {Origin[]} here the swatches of this kit
 * @returns {string} nothing when all have
 */
export function unboundIn(value, origins, here) {
  const roles = new Set(here.map(({ role }) => role).filter(Boolean));
  const ids = new Set(here.map(({ id }) => id));
  const lost = [...swatchesIn(value)].filter((id) => {
    const origin = origins.find((one) => one.id === id);
    return !ids.has(id) && origin && !roles.has(origin.role);
  });
  if (!lost.length) return "";
  const them = lost.length === 1 ? "it" : "them";
  return `No swatch here is like ${lost.join(", ")}: what followed ${them} is its own now.`;
}
