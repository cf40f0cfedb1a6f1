/**
 * The bench's talk with the server: edits are posted one after the other and kept while it is away.
 *
 * @typedef {{words: string, edit: import("./types.js").Edit}} Cure
 * @typedef {{words: string, cures: Cure[]}} Found
 * @typedef {import("../stage/types.js").Scene} Scene
 * @typedef {import("../stage/types.js").Gradient} Gradient
 * @typedef {import("../stage/types.js").Fall} Fall
 * @typedef {{id: string, name: string, effects?: {id: string}[], shape?: {kind: string}}} Clip a
 *   part as it is copied
 * @typedef {{id: string, role: string, colour: string}} Origin a swatch, as it is told along with what is copied
 * @typedef {{version: number, hash: string, name: string, token: string, selected: string[], effect: string,
 *   scene: Scene, gradient: Gradient|null, fall: Fall|null, clip: Clip[], undo: boolean, redo: boolean, found: Found[],
 *   ground: string, stands: string, state: string, stateName: string, sign: string, editions: string,
 *   edition: string, files: number, sizes: string[], arts: string[], states: string[],
 *   came: string, whole: number,
 *   readings: Object<string, number>,
 *   swatches: Origin[], known: import("./told.js").Known,
 *   said?: string, fresh?: string[], removed?: boolean}} State
 *
 * @typedef {"part"|"reference"|"fill"} PictureUse
 * @typedef {import("./types.js").Edit} Edit
 * @typedef {Object<string, string>} Selection what is selected and open
 * @typedef {{seen?: Selection, ident?: string, [name: string]: unknown}} Body
 * @typedef {Promise<Edit|null>} Coming an edit that is not read yet; nothing when there turns out to be none
 *
 * @typedef {object} Asked what waits for its turn
 * @property {string} path
 * @property {Body} body
 * @property {Coming|null} coming the edit of the body, when that is not read yet
 * @property {(state: any) => void} keep
 * @property {(error: Error) => void} refuse
 */
import { wordsOf } from "./page.js";

const AGAIN_MS = 900;
const BUSY = 503;
const KEPT = "obrell/unsaved";
const REMEMBERED = 200;

export class Refusal extends Error {}

/** Send a file. @param {string} address @param {File} file @returns {Promise<any>} throws a refusal in words */
async function uploaded(address, file) {
  const answer = await fetch(address, { method: "POST", body: file });
  const text = await answer.text();
  if (!answer.ok) throw new Refusal(wordsOf(text));
  return JSON.parse(text);
}

/** What was done and is not answered yet. @type {Set<Promise<unknown>>} */
const waiting = new Set();
/** Whether what the page shows may not be what is stored: something that was done is not answered yet. */
export const unsettled = () => waiting.size > 0;

/**
 * Something that was done, until it is answered; the page says that there is any.
 *
 * @template T
 * @param {Promise<T>} answer
 * @returns {Promise<T>}
 */
export function settling(answer) {
  waiting.add(answer);
  document.documentElement.toggleAttribute("data-unsettled", true);
  return answer.finally(() => {
    waiting.delete(answer);
    document.documentElement.toggleAttribute("data-unsettled", unsettled());
  });
}

/** Remember the values that an edit sets, by path.
 * @param {Set<any>} mine @param {Edit} edit @param {Selection} selection */
function remember(mine, edit, selection) {
  const set = { set: edit.changes?.map((change) => change.path) ?? [], type: edit.path ? [edit.path] : [] };
  for (const path of edit.kind === "set" || edit.kind === "type" ? set[edit.kind] : []) {
    for (const part of path.includes("*") ? selection.part.split(",") : [""]) {
      mine.delete(path.replace("*", part));
      mine.add(path.replace("*", part));
    }
  }
  while (mine.size > REMEMBERED) mine.delete(mine.values().next().value);
}

export class Api {
  /** @param {string} base the control's address */
  constructor(base) {
    this.base = base;
    this.window = crypto.randomUUID();
    /** @type {Asked[]} */
    this.waiting = [];
    this.busy = false;
    /** @type {(count: number, words: string) => void} how many edits wait while the server is away, and why */
    this.away = () => {};
    /** @type {() => string} the token of what the page shows, asked for when something is sent */
    this.have = () => "";
    /** @type {() => number} the version of the control that the page shows */
    this.shown = () => 0;
    /** The values this window set last, by path, so that another window that sets one of them is noticed. */
    this.mine = new Set();
    addEventListener("beforeunload", (event) => {
      if (this.waiting.length) event.preventDefault();
    });
  }

  /**
   * Post an edit; resolves with the new state, rejects with a Refusal in words. One that is still to be read has its
   * turn before all that is done after it; when there turns out to be none, that is null.
   *
   * @param {Edit|Coming} edit
   * @param {Selection} selection
   */
  edit(edit, selection) {
    const body = { seen: selection, window: this.window, based: this.shown() };
    if (edit instanceof Promise) return this.#queue("/edits", body, edit);
    remember(this.mine, edit, selection);
    return this.#queue("/edits", { ...body, edit });
  }

  /**
   * Send what an earlier visit could not; each has its id, so what did arrive is not done twice.
   *
   * @returns {Promise<number>} how many were kept
   */
  async resume() {
    const before = `${KEPT}${this.base}/`;
    const keys = Object.keys(localStorage).filter((key) => key.startsWith(before));
    const left = keys.flatMap((key) => JSON.parse(localStorage.getItem(key) || "[]"));
    const done = left.map(({ path, body }) => this.#queue(path, body).catch(() => null));
    for (const key of keys) if (key !== this.#place) localStorage.removeItem(key);
    return (await Promise.all(done)).filter(Boolean).length;
  }

  get #place() {
    return `${KEPT}${this.base}/${this.window}`;
  }

  /** Post something of another kind than an edit of a control. @param {string} path @param {Body} body */
  post(path, body) {
    return this.#queue(path, { ...body, window: this.window });
  }

  /** What is not acknowledged waits for the next visit. */
  #keep() {
    try {
      if (!this.waiting.length) localStorage.removeItem(this.#place);
      else {
        const read = this.waiting.filter(({ coming }) => !coming);
        localStorage.setItem(this.#place, JSON.stringify(read.map(({ path, body }) => ({ path, body }))));
      }
    } catch {
      /* storage may be off or full: then it waits in this window only */
    }
  }

  /** Put the parts of an SVG text in. @param {string} svg @param {string} name @param {Selection} selection */
  bring(svg, name, selection) {
    return this.#queue("/drawings", { svg, name, seen: selection, window: this.window, based: this.shown() });
  }

  /**
   * Put a picture in.
   *
   * @param {File} file
   * @param {PictureUse} use
   * @param {string} path of a fill
   * @param {Selection} [selection]
   */
  async picture(file, use, path, selection) {
    const seen = path ? JSON.stringify({ ...selection, have: this.have() }) : "";
    const query = new URLSearchParams({
      name: file.name,
      use,
      path,
      seen,
      window: this.window,
      ident: crypto.randomUUID(),
      based: String(this.shown()),
    });
    return uploaded(`${this.base}/pictures?${query}`, file);
  }

  /** Bring a font into the kit. @param {File} file */
  async font(file) {
    return uploaded(`${this.base.split("/controls/")[0]}/fonts`, file);
  }

  /** @param {"undo"|"redo"} way @param {Selection} selection */
  step(way, selection) {
    return this.#queue(`/steps/${way}`, { seen: selection, window: this.window });
  }

  /** The state as it stands. @param {object} selection @param {string} [have] what the answer differs from */
  async blocks(selection, have = this.have()) {
    const query = new URLSearchParams({ ...selection, have });
    const answer = await fetch(`${this.base}/blocks?${query}`);
    const text = await answer.text();
    if (!answer.ok) throw new Refusal(wordsOf(text));
    return JSON.parse(text);
  }

  /** @param {string} path @param {Body} body @param {Coming|null} [coming]
   * @returns {Promise<any>} what the server answers */
  #queue(path, body, coming = null) {
    const asked = new Promise((keep, refuse) => {
      this.waiting.push({ path, body: { ident: crypto.randomUUID(), ...body }, coming, keep, refuse });
      this.#keep();
      this.#run();
    });
    return settling(asked);
  }

  /** @param {string} words why, when the server said so */
  #later(words) {
    this.away(this.waiting.length, words);
    return new Promise((done) => setTimeout(done, AGAIN_MS));
  }

  /** What waited is answered with what differs from what is shown by then. @param {Body} body */
  #seenNow(body) {
    return body.seen ? { ...body, seen: { ...body.seen, have: this.have() } } : body;
  }

  /**
   * What cannot be shown any more after a step is said by a page of its own.
   *
   * @param {any} state
   * @param {(state: any) => void} keep
   */
  #arrived(state, keep) {
    if (state.lost) location.reload();
    else keep(state);
  }

  /** Wait for an edit that is still to be read; one that there is not loses its turn. @param {Asked} asked */
  async #isRead(asked) {
    if (!asked.coming) return true;
    const edit = await asked.coming;
    asked.coming = null;
    if (edit) {
      asked.body.edit = edit;
      remember(this.mine, edit, asked.body.seen ?? {});
      this.#keep();
      return true;
    }
    this.waiting.shift();
    asked.keep(null);
    return false;
  }

  async #run() {
    if (this.busy) return;
    this.busy = true;
    while (this.waiting.length) {
      if (!(await this.#isRead(this.waiting[0]))) continue;
      const { path, body, keep, refuse } = this.waiting[0];
      let answer;
      try {
        answer = await fetch(this.base + path, {
          method: "POST",
          headers: { "content-type": "application/json" },
          body: JSON.stringify(this.#seenNow(body)),
        });
      } catch {
        await this.#later("");
        continue;
      }
      const text = await answer.text().catch(() => null);
      if (text === null || answer.status === BUSY) {
        await this.#later(text === null ? "" : wordsOf(text));
        continue;
      }
      this.away(0, "");
      this.waiting.shift();
      this.#keep();
      if (answer.ok) this.#arrived(JSON.parse(text), keep);
      else refuse(new Refusal(wordsOf(text)));
    }
    this.busy = false;
  }
}
