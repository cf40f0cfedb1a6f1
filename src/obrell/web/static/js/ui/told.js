/**
 * What the server has told of a control, put together from what it sends: all of it, or what differs from something
 * that it told before.
 *
 * @typedef {{items: Object<string, any>, order: string[]}} List
 * @typedef {{items: Object<string, any>, order?: string[]}} Change of a list
 * @typedef {{token: string, from: string, facts: object, blocks: Object<string, string>,
 *   lists: Object<string, Change>}} Parcel
 * @typedef {{token: string, facts: any, blocks: Object<string, string>, lists: Object<string, List>}} Known
 */

/** Answers cross on their way: one may be made for what was shown a little earlier. */
const REMEMBERED = 16;
const NOTHING = { token: "", facts: {}, blocks: {}, lists: {} };

/** A list after some of it changed. @param {List} [before] @param {Change} [change] @returns {List} */
export function listAfter(before = { items: {}, order: [] }, change = { items: {} }) {
  const order = change.order ?? before.order;
  const all = { ...before.items, ...change.items };
  return { order, items: change.order ? Object.fromEntries(order.map((key) => [key, all[key]])) : all };
}

/** What brings one list to another. @param {List} before @param {List} after @returns {Change} */
export function changeOf(before, after) {
  const fresh = Object.entries(after.items).filter(([key, item]) => before.items[key] !== item);
  const same = before.order.length === after.order.length && before.order.every((key, at) => key === after.order[at]);
  return { items: Object.fromEntries(fresh), ...(same ? {} : { order: after.order }) };
}

/**
 * Canvas, light and guides with every part, back to front.
 *
 * @param {any} around
 * @param {List} parts
 * @returns {any} a scene of the stage
 */
export const sceneOf = (around, parts) => ({ ...around, parts: parts.order.map((key) => parts.items[key]) });

/** @param {Known} before @param {Parcel} parcel @returns {Known} */
function after(before, { token, facts, blocks, lists }) {
  const names = Object.keys({ ...before.lists, ...lists });
  return {
    token,
    facts: { ...before.facts, ...facts },
    blocks: { ...before.blocks, ...blocks },
    lists: Object.fromEntries(names.map((name) => [name, listAfter(before.lists[name], lists[name])])),
  };
}

export class Told {
  /** @param {Known} start what the page came with */
  constructor(start) {
    /** What is shown. */
    this.shown = start;
    this.known = new Map([[start.token, start]]);
  }

  /** @param {Parcel} parcel @returns {Known|null} null when what it was made for is forgotten */
  with(parcel) {
    const before = parcel.from ? this.known.get(parcel.from) : NOTHING;
    if (!before) return null;
    const known = after(before, parcel);
    this.known.set(known.token, known);
    const [oldest] = this.known.keys();
    if (this.known.size > REMEMBERED) this.known.delete(oldest);
    return known;
  }
}
