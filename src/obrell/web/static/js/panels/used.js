/**
 * The look last used for each kind of part in this kit, kept for this browser: what is drawn next begins with it.
 *
 * @typedef {object[]} Look the effects of a part
 * @typedef {{look: Look, origins: import("../ui/api.js").Origin[]}} Worn a look, and the swatches it was used with
 * @typedef {import("../ui/types.js").State} State
 */

const LARGEST = 40_000;

/** @param {State} state @returns {{kind: string, look: Look}|null} of the one selected part */
function lookOf({ selected, clip }) {
  const part = selected.length === 1 && clip.find(({ id }) => id === selected[0]);
  if (!part || !part.effects || !part.shape) return null;
  return { kind: part.shape.kind, look: part.effects };
}

export class Used {
  /** @param {string} kit */
  constructor(kit) {
    this.place = `looks used in ${kit}`;
    /** @type {Object<string, Worn>} */
    this.looks = JSON.parse(localStorage.getItem(this.place) || "{}");
  }

  /** What an edit that draws a part of a kind says of its look. @param {string} kind @returns {Worn|{}} */
  of(kind) {
    return this.looks[kind] ?? {};
  }

  /**
   * An edit was kept: a part that looks another way now was given a look.
   *
   * @param {State} before @param {State} after
   */
  learn(before, after) {
    const [old, now] = [lookOf(before), lookOf(after)];
    if (!now || before.selected[0] !== after.selected[0]) return;
    const text = JSON.stringify(now.look);
    if (!old || JSON.stringify(old.look) === text || text.length > LARGEST) return;
    this.looks[now.kind] = { look: now.look, origins: after.swatches };
    localStorage.setItem(this.place, JSON.stringify(this.looks));
  }
}
