/**
 * The chooser of fonts: every font shows the words it is chosen for.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 * @typedef {{name: string, label: string, missing: boolean, favourite: boolean, box: number[], path: string}} Font
 */
import { byId, closest, saidBy } from "../ui/dom.js";
import { svg } from "../ui/svg.js";
import { ask, wordsOf } from "../ui/page.js";

/** @param {string} path */
const fieldOf = (path) => document.getElementById(`v-${path.replaceAll("/", "-")}`);

/** What a font looks like: the words set in it. @param {Font} font */
function drawingOf({ box, path }) {
  const [left, top, right, bottom] = box;
  const size = { width: Math.max(1, right - left), height: Math.max(1, bottom - top) };
  const drawing = svg("svg", { viewBox: `${left} ${top} ${size.width} ${size.height}`, ...size });
  drawing.append(svg("path", { d: path }));
  return drawing;
}

/** @param {string} className @param {() => void} press */
function button(className, press) {
  const made = Object.assign(document.createElement("button"), { type: "button", className });
  made.addEventListener("click", press);
  return made;
}

class Fonts {
  /** @param {Bench} bench */
  constructor(bench) {
    this.bench = bench;
    this.dialog = /** @type {HTMLDialogElement} */ (byId("fonts"));
    this.list = byId("font-list");
    this.file = /** @type {HTMLInputElement} */ (byId("font-file"));
    this.fault = byId("font-fault");
    this.path = "";
    this.file.addEventListener("change", () => this.#bring());
    byId("sheet").addEventListener("click", (event) => {
      const path = closest(event, "[data-font-path]")?.dataset.fontPath;
      if (path) this.#open(path);
    });
  }

  /** @param {string} path */
  #open(path) {
    this.path = path;
    this.fault.textContent = "";
    this.dialog.showModal();
    this.#show();
  }

  async #show() {
    const field = fieldOf(`${this.path.split("/shape/")[0]}/shape/words`);
    const words = (field instanceof HTMLTextAreaElement && field.value) || "Label";
    const weight = fieldOf(this.path.replace(/font$/, "weight"))?.dataset.value || "600";
    const answer = await ask(`/kits/${this.bench.kit}/fonts?${new URLSearchParams({ words, weight })}`);
    if (!answer.ok) {
      this.fault.textContent = wordsOf(await answer.text());
      return;
    }
    /** @type {{fonts: Font[]}} */
    const { fonts } = await answer.json();
    this.list.replaceChildren(...fonts.map((font) => this.#row(font)));
  }

  /** @param {Font} font */
  #row(font) {
    const item = Object.assign(document.createElement("div"), { className: "font-row" });
    const take = button("font-take", () => {
      this.dialog.close();
      this.bench.set(this.path, font.name);
    });
    take.setAttribute("aria-label", font.label);
    const name = document.createElement("small");
    name.textContent = font.missing ? `${font.label}, without some of these letters` : font.label;
    take.append(drawingOf(font), name);
    const star = button("word", async () => {
      await ask(`/kits/${this.bench.kit}/fonts/${encodeURIComponent(font.name)}/favourite`, { method: "POST" });
      this.#show();
    });
    star.textContent = font.favourite ? "favourite" : "make a favourite";
    star.setAttribute("aria-pressed", String(font.favourite));
    item.append(take, star);
    return item;
  }

  async #bring() {
    const [file] = this.file.files ?? [];
    if (!file) return;
    this.fault.textContent = "";
    try {
      await this.bench.api.font(file);
      await this.#show();
    } catch (error) {
      this.fault.textContent = saidBy(error);
    }
    this.file.value = "";
  }
}

/** @param {Bench} bench */
export function startFonts(bench) {
  new Fonts(bench);
}

/** Letters selected in the words of a text, to be given a look of their own. @param {Bench} bench */
export function startLetters(bench) {
  let marked = { start: 0, end: 0, id: "" };
  document.addEventListener("selectionchange", () => {
    const field = document.activeElement;
    if (field instanceof HTMLTextAreaElement && field.matches("#sheet .words"))
      marked = { start: field.selectionStart, end: field.selectionEnd, id: field.id };
  });
  byId("sheet").addEventListener("pointerdown", (event) => {
    if (closest(event, "[data-letters]")) event.preventDefault();
  });
  bench.styleLetters = () => {
    const [part] = bench.state.selected;
    const { start, end } = marked.id === `v-parts-${part}-shape-words` ? marked : { start: 0, end: 0 };
    return bench.post({ kind: "style-letters", part, start, end });
  };
}
