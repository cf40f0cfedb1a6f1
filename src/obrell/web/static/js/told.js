/**
 * What the server has told of a control, put together from what it sends: all of it, or what differs.
 *
 * @typedef {{items: Object<string, any>, order?: string[]}} List
 * @typedef {{token: string, from: string, facts: object, blocks: Object<string, string>, lists: Object<string, List>}}
 *   Parcel
 */

/** A list after some of it changed. @param {List} before @param {List} [change] @returns {List} */
export function listAfter(before, change) {
  if (!change) return before;
  const order = change.order ?? before.order;
  const all = { ...before.items, ...change.items };
  return { order, items: change.order ? Object.fromEntries(order.map((key) => [key, all[key]])) : all };
}

/** Canvas, light and guides with every part, back to front. @param {object} around @param {List} parts */
export const sceneOf = (around, parts) => ({ ...around, parts: parts.order.map((key) => parts.items[key]) });

export class Told {
  /** @param {{token: string, facts: object, lists: Object<string, List>}} start */
  constructor({ token, facts, lists }) {
    this.token = token;
    this.facts = facts;
    this.scene = lists.scene;
    /** The HTML of what is written anew whenever something is shown, and of every part's line. */
    this.tops = {};
    this.lines = {};
  }

  /**
   * What it comes to with a parcel; null when that was made for something else than what is known here.
   *
   * @param {Parcel} parcel
   */
  with(parcel) {
    const { from, lists, ...rest } = parcel;
    if (from && from !== this.token) return null;
    const facts = { ...(from ? this.facts : {}), ...parcel.facts };
    const scene = listAfter(from ? this.scene : { items: {}, order: [] }, lists.scene);
    const lines = { ...this.lines, ...lists.parts?.items };
    const tops = { ...this.tops, ...parcel.blocks };
    return { ...rest, lists, all: facts, listed: scene, lines, tops, ...facts, scene: sceneOf(facts.around, scene) };
  }

  /** Take over what ``with`` made. */
  take({ token, all, listed, lines, tops }) {
    Object.assign(this, { token, facts: all, scene: listed, lines, tops });
  }
}
