/**
 * The bench's talk with the server: edits are posted one after the other and kept while it is away.
 *
 * @typedef {{version: number, hash: string, selected: string[], effect: string, scene: object,
 *   blocks?: Object<string, string>, undo: boolean, redo: boolean, said?: string, fresh?: string[],
 *   name: string, clip: object[]}} State
 */
import { wordsOf } from "./page.js";

const AGAIN_MS = 900;

export class Refusal extends Error {}

export class Api {
  /** @param {string} base the control's address */
  constructor(base) {
    this.base = base;
    this.window = crypto.randomUUID();
    this.waiting = [];
    this.busy = false;
    this.away = () => {};
  }

  /** Post an edit; resolves with the new state, rejects with a Refusal in words. */
  edit(edit, selection) {
    return this.#queue("/edits", { edit, seen: selection, window: this.window });
  }

  /** Put the parts of an SVG text in. */
  bring(svg, name, selection) {
    return this.#queue("/drawings", { svg, name, seen: selection, window: this.window });
  }

  /** Put a picture in. @param {File} file @param {"part"|"reference"|"fill"} use @param {string} path of a fill */
  async picture(file, use, path, selection) {
    const seen = path ? JSON.stringify(selection) : "";
    const query = new URLSearchParams({ name: file.name, use, path, seen, window: this.window });
    return this.#upload(`${this.base}/pictures?${query}`, file);
  }

  /** Bring a font into the kit. @param {File} file */
  async font(file) {
    return this.#upload(`${this.base.split("/controls/")[0]}/fonts`, file);
  }

  async #upload(address, file) {
    const answer = await fetch(address, { method: "POST", body: file });
    const text = await answer.text();
    if (!answer.ok) throw new Refusal(wordsOf(text));
    return JSON.parse(text);
  }

  /** @param {"undo"|"redo"} way */
  step(way, selection) {
    return this.#queue(`/steps/${way}`, { seen: selection, window: this.window });
  }

  /** The state as it stands. */
  async blocks(selection) {
    const query = new URLSearchParams(selection);
    const answer = await fetch(`${this.base}/blocks?${query}`);
    const text = await answer.text();
    if (!answer.ok) throw new Refusal(wordsOf(text));
    return JSON.parse(text);
  }

  #queue(path, body) {
    return new Promise((keep, refuse) => {
      this.waiting.push({ path, body, keep, refuse });
      this.#run();
    });
  }

  async #run() {
    if (this.busy) return;
    this.busy = true;
    while (this.waiting.length) {
      const { path, body, keep, refuse } = this.waiting[0];
      let answer;
      try {
        answer = await fetch(this.base + path, {
          method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(body),
        });
      } catch {
        this.away(this.waiting.length);
        await new Promise((done) => setTimeout(done, AGAIN_MS));
        continue;
      }
      this.away(0);
      this.waiting.shift();
      const text = await answer.text();
      if (answer.ok) keep(JSON.parse(text));
      else refuse(new Refusal(wordsOf(text)));
    }
    this.busy = false;
  }
}
