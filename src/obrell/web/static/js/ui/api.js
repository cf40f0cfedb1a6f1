/**
 * The bench's talk with the server: edits are posted one after the other and kept while it is away.
 *
 * @typedef {{words: string, edit: import("./types.js").Edit}} Cure
 * @typedef {{words: string, cures: Cure[]}} Found
 * @typedef {import("../stage/types.js").Scene} Scene
 * @typedef {import("../stage/types.js").Gradient} Gradient
 * @typedef {{id: string, name: string, effects?: {id: string}[], shape?: {kind: string}}} Clip a
 *   part as it is copied
 * @typedef {{id: string, role: string, colour: string}} Origin a swatch, as it is told along with what is copied
 * @typedef {{version: number, hash: string, name: string, token: string, selected: string[], effect: string,
 *   scene: Scene, gradient: Gradient|null, clip: Clip[], undo: boolean, redo: boolean, found: Found[],
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
 */
import { wordsOf } from "./page.js";

const AGAIN_MS = 900;
const BUSY = 503;
const KEPT = "obrell/unsaved";
const REMEMBERED = 200;

export class Refusal extends Error {}

export class Api {
  /** @param {string} base the control's address */
  constructor(base) {
    this.base = base;
    this.window = crypto.randomUUID();
    /** @type {{path: string, body: Body, keep: (state: any) => void, refuse: (error: Error) => void}[]} */
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
   * Post an edit; resolves with the new state, rejects with a Refusal in words.
   *
   * @param {Edit} edit
   * @param {Selection} selection
   */
  edit(edit, selection) {
    this.#remember(edit, selection);
    return this.#queue("/edits", { edit, seen: selection, window: this.window, based: this.shown() });
  }

  /** @param {Edit} edit @param {Selection} selection */
  #remember(edit, selection) {
    const set = { set: edit.changes?.map((change) => change.path) ?? [], type: edit.path ? [edit.path] : [] };
    for (const path of edit.kind === "set" || edit.kind === "type" ? set[edit.kind] : []) {
      for (const part of path.includes("*") ? selection.part.split(",") : [""]) {
        this.mine.delete(path.replace("*", part));
        this.mine.add(path.replace("*", part));
      }
    }
    while (this.mine.size > REMEMBERED) this.mine.delete(this.mine.values().next().value);
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
      else localStorage.setItem(this.#place, JSON.stringify(this.waiting.map(({ path, body }) => ({ path, body }))));
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
    return this.#upload(`${this.base}/pictures?${query}`, file);
  }

  /** Bring a font into the kit. @param {File} file */
  async font(file) {
    return this.#upload(`${this.base.split("/controls/")[0]}/fonts`, file);
  }

  /** @param {string} address @param {File} file */
  async #upload(address, file) {
    const answer = await fetch(address, { method: "POST", body: file });
    const text = await answer.text();
    if (!answer.ok) throw new Refusal(wordsOf(text));
    return JSON.parse(text);
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

  /** @param {string} path @param {Body} body @returns {Promise<any>} what the server answers */
  #queue(path, body) {
    return new Promise((keep, refuse) => {
      this.waiting.push({ path, body: { ident: crypto.randomUUID(), ...body }, keep, refuse });
      this.#keep();
      this.#run();
    });
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

  async #run() {
    if (this.busy) return;
    this.busy = true;
    while (this.waiting.length) {
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
