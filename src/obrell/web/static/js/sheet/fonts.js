/** The chooser of fonts: every font shows the words it is chosen for. */
import { svg } from "../ui/svg.js";
import { ask, wordsOf } from "../ui/page.js";

const fieldOf = (path) => document.getElementById(`v-${path.replaceAll("/", "-")}`);

/** What a font looks like: the words set in it. */
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
  constructor(bench) {
    this.bench = bench;
    this.dialog = document.getElementById("fonts");
    this.list = document.getElementById("font-list");
    this.file = document.getElementById("font-file");
    this.fault = document.getElementById("font-fault");
    this.path = "";
    this.file.addEventListener("change", () => this.#bring());
    document.getElementById("sheet").addEventListener("click", (event) => {
      const chosen = event.target.closest("[data-font-path]");
      if (chosen) this.#open(chosen.dataset.fontPath);
    });
  }

  #open(path) {
    this.path = path;
    this.fault.textContent = "";
    this.dialog.showModal();
    this.#show();
  }

  async #show() {
    const words = fieldOf(`${this.path.split("/shape/")[0]}/shape/words`)?.value || "Label";
    const weight = fieldOf(this.path.replace(/font$/, "weight"))?.dataset.value || 600;
    const answer = await ask(`/kits/${this.bench.kit}/fonts?${new URLSearchParams({ words, weight })}`);
    if (!answer.ok) {
      this.fault.textContent = wordsOf(await answer.text());
      return;
    }
    const { fonts } = await answer.json();
    this.list.replaceChildren(...fonts.map((font) => this.#row(font)));
  }

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
    this.fault.textContent = "";
    try {
      await this.bench.api.font(this.file.files[0]);
      await this.#show();
    } catch (error) {
      this.fault.textContent = error.message;
    }
    this.file.value = "";
  }
}

/** @param {object} bench */
export function startFonts(bench) {
  new Fonts(bench);
}

/** Letters selected in the words of a text, to be given a look of their own. @param {object} bench */
export function startLetters(bench) {
  let marked = null;
  document.addEventListener("selectionchange", () => {
    const field = document.activeElement;
    if (field?.matches?.("#sheet textarea.words"))
      marked = { start: field.selectionStart, end: field.selectionEnd, id: field.id };
  });
  document.getElementById("sheet").addEventListener("pointerdown", (event) => {
    if (event.target.closest("[data-letters]")) event.preventDefault();
  });
  bench.styleLetters = () => {
    const [part] = bench.state.selected;
    const { start, end } = marked?.id === `v-parts-${part}-shape-words` ? marked : { start: 0, end: 0 };
    return bench.post({ kind: "style-letters", part, start, end });
  };
}
