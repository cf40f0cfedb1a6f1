/**
 * What was chosen in the colour chooser, apart from it: another colour may be chosen before it is read and kept.
 *
 * @typedef {import("./colour_field.js").Colour} Colour
 * @typedef {import("./following.js").LinkTo} LinkTo
 * @typedef {import("../ui/types.js").Edit} Edit
 * @typedef {Colour & {link?: LinkTo}} Newest what was asked for last
 *
 * @typedef {object} Pick a colour as it was chosen when the chooser was closed
 * @property {string} path
 * @property {string} slot where it stands in the sheet
 * @property {string[]} parts that are meant
 * @property {string} before what was stored of it, as JSON; empty when that is not sure
 * @property {string} text what is typed
 * @property {string} colour as it looks
 * @property {LinkTo|null} link how it follows
 * @property {LinkTo|null} remembered how it did before it was its own
 * @property {{path: string, before: number, now: number}} opacity of it, and what it was; its path is empty when it has
 *   none
 */

/** How a colour follows and looks, once what was asked for last has arrived.
 * @param {Pick} pick @param {Newest} [read]
 * @returns {{link: LinkTo|null, remembered: LinkTo|null, colour: string}} */
function taken({ link, remembered, colour }, read) {
  if (read?.link) return { link: read.link, remembered, colour: read.hex };
  if (!read || read.hex === colour) return { link, remembered, colour };
  return { link: null, remembered: link ?? remembered, colour: read.hex };
}

/** What is stored of a colour. @param {ReturnType<typeof taken>} now @returns {unknown} */
function stored({ link, remembered, colour }) {
  if (link) return { ...link, own: null };
  return remembered ? { ...remembered, own: colour } : colour;
}

/** What is set of its opacity. @param {Pick} pick @param {Newest} [read] */
function faded({ opacity: { path, before, now } }, read) {
  const value = read?.opacity ?? now;
  return path && value !== before ? [{ path, value }] : [];
}

/**
 * The edit that sets a colour to what was chosen; null when that is what it was.
 *
 * @param {Pick} pick @param {Newest} [read]
 * @returns {Edit|null}
 */
export function editOf(pick, read) {
  const value = stored(taken(pick, read));
  const fade = faded(pick, read);
  if (JSON.stringify(value) === pick.before && !fade.length) return null;
  return { kind: "set", changes: [{ path: pick.path, value }, ...fade], parts: pick.parts };
}
