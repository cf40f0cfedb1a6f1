/**
 * The panel beside the art in which colours follow swatches or are turned: tried on the stage, written when it is kept.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 * @typedef {import("../ui/types.js").Edit} Edit
 */
import { byId, closest } from "../ui/dom.js";
import { morphInner } from "../ui/morph.js";
import { Newest } from "../ui/newest.js";
import { ask, JSON_TYPE, say, wordsOf } from "../ui/page.js";
import { linksIn } from "./follow_form.js";
import { share } from "./sharing.js";
import { Recolouring } from "./recolouring.js";

/** Forms that are not an edit of this control, and what keeps each: it answers with what kept it from that.
 * @type {Object<string, (bench: Bench, form: HTMLFormElement) => Promise<string>>} */
const KEEPERS = { "share-form": share };

class Aside {
  /** @param {Bench} bench */
  constructor(bench) {
    this.bench = bench;
    this.panel = byId("aside");
    this.newest = new Newest();
    this.recolouring = new Recolouring(this.panel, {
      preview: (edit) => bench.stage.preview(edit),
      contrast: (edit) => this.#send("contrast", { edit, seen: bench.stage.seen }),
      keep: (how, edits, name) => this.#send(`recolour/${how}`, { edits, name, seen: bench.stage.seen }),
      kept: (how, text) => this.#recoloured(how, JSON.parse(text)),
      again: (more) => this.#fetch("recolour", more),
      fault: (words) => this.#fault(words),
    });
    bench.openAside = (name, more) => this.open(name, more);
    this.panel.addEventListener("change", () => this.#try());
    this.panel.addEventListener("click", (event) => {
      if (closest(event, "[data-close]")) this.close();
    });
    this.panel.addEventListener("submit", (event) => {
      event.preventDefault();
      this.#keep();
    });
    this.panel.addEventListener("keydown", (event) => {
      event.stopPropagation();
      if (event.key === "Escape") this.close();
    });
  }

  /** @param {string} name of what is asked for @param {Object<string, string>} [more] */
  async open(name, more) {
    this.recolouring.begin();
    if (!(await this.#fetch(name, more))) return;
    this.panel.hidden = false;
    this.panel.focus({ preventScroll: true });
    this.#try();
  }

  /** @param {string} name @param {Object<string, string>} [more] @returns {Promise<boolean>} whether it is there */
  async #fetch(name, more = {}) {
    const { bench } = this;
    const { part, colourway } = bench.selection;
    const asked = new URLSearchParams({ part, colourway, ...bench.stage.drawn, ...more });
    const answer = ask(`${bench.api.base}/${name}?${asked}`);
    const read = await this.newest.of(answer.then(async (one) => ({ ok: one.ok, text: await one.text() })));
    if (!read) return false;
    const { ok, text } = read;
    if (ok) this.#write(text);
    else if (this.panel.hidden) bench.complain(wordsOf(text));
    else this.#fault(wordsOf(text));
    return ok;
  }

  /** @param {string} where @param {object} body */
  #send(where, body) {
    const how = { method: "POST", body: JSON.stringify(body), headers: JSON_TYPE };
    return ask(`${this.bench.api.base}/${where}`, how);
  }

  /** New colourways or controls are there. @param {string} how @param {{ids: string[], said: string}} made */
  #recoloured(how, { ids, said }) {
    const { bench } = this;
    if (how === "colourway") bench.stage.colourway = ids[ids.length - 1];
    this.close();
    say(said);
    bench.refresh();
    bench.stage.request();
  }

  /** What is typed in it meanwhile stays, and keeps the focus. @param {string} html */
  #write(html) {
    if (this.panel.hidden) this.panel.innerHTML = html;
    else morphInner(this.panel, html);
  }

  /** @param {string} words */
  #fault(words) {
    this.panel.querySelector(".fault")?.replaceChildren(words);
  }

  /** @returns {Edit|null} what is chosen; nothing when nothing is */
  #edit() {
    const form = this.panel.querySelector("form");
    if (!form || form.id in KEEPERS) return null;
    if (form.id === "recolour-form") return this.recolouring.chosen;
    const links = linksIn(form);
    const parts = (form.dataset.parts ?? "").split(",").filter(Boolean);
    return Object.keys(links).length ? { kind: "follow-swatches", links, parts } : null;
  }

  #try() {
    this.bench.stage.preview(this.#edit());
  }

  async #keep() {
    const form = this.panel.querySelector("form");
    if (form && form.id in KEEPERS) {
      const fault = await KEEPERS[form.id](this.bench, form);
      if (fault) this.#fault(fault);
      else this.close();
      return;
    }
    await this.recolouring.settled;
    const edit = this.#edit();
    if (!edit) {
      this.#fault("Nothing is chosen.");
      return;
    }
    this.panel.hidden = true;
    await this.bench.post(edit);
  }

  close() {
    this.newest.end();
    this.panel.hidden = true;
    this.bench.stage.preview(null);
    this.bench.stage.element.focus({ preventScroll: true });
  }
}

/** @param {Bench} bench */
export function startAside(bench) {
  new Aside(bench);
}
