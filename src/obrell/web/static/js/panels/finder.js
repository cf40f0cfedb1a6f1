/**
 * The command finder: commands are found by their words; one that cannot be done now says why.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 */
import { all, byId, closest } from "../ui/dom.js";

/** @type {Object<string, (bench: Bench) => boolean>} */
const READY = {
  "": () => true,
  part: ({ state }) => state.selected.length > 0,
  one: ({ state }) => state.selected.length === 1,
  pair: ({ state }) => state.selected.length === 2,
  two: ({ state }) => state.selected.length > 1,
  three: ({ state }) => state.selected.length > 2,
  path: ({ part }) => part?.kind === "path",
  picture: ({ part }) => part?.kind === "picture",
  points: ({ marks }) => marks.points.chosen.size > 0,
  holder: ({ part }) => Boolean(part?.holds),
  effect: ({ state }) => Boolean(state.effect),
  ramp: () => Boolean(document.querySelector(".eff.open [data-ramp]")),
  guides: ({ state }) => state.scene.guides.length > 0,
  state: ({ state }) => state.state !== "rest",
  edition: ({ state }) => Boolean(state.edition),
  states: ({ state }) => state.states.length > 1,
  original: () => Boolean(document.getElementById("original")),
  undo: ({ state }) => state.undo,
  redo: ({ state }) => state.redo,
};

/**
 * How well a word fits words, 0 the best: one of them, the beginning of one, none.
 *
 * @param {string} word @param {string[]} texts
 */
function fits(word, texts) {
  if (texts.includes(word)) return 0;
  return texts.some((text) => text.startsWith(word)) ? 1 : NONE;
}
const NONE = 100;
/** What people call a command besides comes after what it is called. */
const BESIDES = 3;
/** @param {string} text */
const wordsIn = (text) =>
  text
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);

/** @type {Object<string, 1|-1>} */
const ARROWS = { ArrowDown: 1, ArrowUp: -1 };

class Finder {
  /** @param {Bench} bench */
  constructor(bench) {
    this.bench = bench;
    this.dialog = /** @type {HTMLDialogElement} */ (byId("commands"));
    this.field = /** @type {HTMLInputElement} */ (byId("command-words"));
    this.list = byId("command-list");
    this.buttons = all("button", this.list);
    this.field.addEventListener("input", () => this.#show());
    this.list.addEventListener("click", (event) => this.#run(closest(event, "button")));
    this.dialog.addEventListener("submit", (event) => {
      event.preventDefault();
      this.#run(this.#found.find((button) => !button.matches(".cannot")));
    });
    this.dialog.addEventListener("keydown", (event) => this.#key(event));
    byId("all-commands").addEventListener("click", () => this.open());
  }

  /** In the order in which they are seen: those whose own words were said before others that people call so. */
  get #found() {
    const seen = this.buttons.filter((button) => !button.hidden);
    return seen.sort((one, other) => Number(one.style.order) - Number(other.style.order));
  }

  open() {
    this.dialog.showModal();
    this.field.value = "";
    this.#show();
    this.field.focus();
  }

  #show() {
    const wanted = wordsIn(this.field.value);
    for (const button of this.buttons) {
      const { need = "", where = "", why = "", other = "" } = button.dataset;
      const [own, others] = [wordsIn(button.querySelector("b")?.textContent ?? ""), wordsIn(other)];
      const far = wanted.map((word) => Math.min(fits(word, own), fits(word, others) + BESIDES));
      const ready = READY[need](this.bench);
      button.hidden = far.some((rank) => rank >= NONE);
      button.style.order = String(far.reduce((sum, rank) => sum + rank, 0));
      button.classList.toggle("cannot", !ready);
      button.setAttribute("aria-disabled", String(!ready));
      const said = button.querySelector("span");
      if (said) said.textContent = ready ? where : why;
    }
    all("p", this.list)[0].hidden = this.#found.length > 0;
  }

  /** @param {HTMLElement|null|undefined} button */
  #run(button) {
    if (!button || button.matches(".cannot")) return;
    this.dialog.close();
    this.bench.act(button);
  }

  /** @param {KeyboardEvent} event */
  #key(event) {
    const way = ARROWS[event.key];
    if (!way) return;
    event.preventDefault();
    const nodes = [this.field, ...this.#found];
    const now = nodes.findIndex((node) => node === document.activeElement);
    nodes[Math.max(0, Math.min(nodes.length - 1, now + way))].focus();
  }
}

/** @param {Bench} bench */
export function startFinder(bench) {
  const finder = new Finder(bench);
  bench.openFinder = () => finder.open();
}

/** Rows of the sheet by name, kind or colour. @param {Bench} bench */
export function startFinding(bench) {
  const field = /** @type {HTMLInputElement} */ (byId("sheet-find"));
  const show = () => {
    const wanted = field.value.toLowerCase().trim();
    for (const row of all("#sheet .part")) {
      row.classList.toggle("away-row", Boolean(wanted) && !row.dataset.find?.includes(wanted));
    }
  };
  field.addEventListener("input", show);
  field.addEventListener("keydown", (event) => {
    event.stopPropagation();
    if (event.key === "Escape") {
      field.value = "";
      show();
      field.blur();
    }
  });
  bench.element.addEventListener("shown", show);
}
