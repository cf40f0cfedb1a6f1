/**
 * Looks: materials, gradients, effects and kept looks, tried on the stage by hovering or by arrow keys, and compared
 * side by side.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 * @typedef {import("../ui/types.js").Edit} Edit
 */
import { all, byId, closest } from "../ui/dom.js";
import { Newest } from "../ui/newest.js";
import { ask, say, wordsOf } from "../ui/page.js";
import { Compared } from "./compared.js";
import { keptOf, putBack } from "./kept.js";
import { dropped, keepGradient, post, ruled } from "./shelf.js";

/** @type {Object<string, 1|-1>} */
const ARROWS = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 };
/** @param {string} id */
const field = (id) => /** @type {HTMLInputElement} */ (byId(id));

const newest = new Newest();

/** The panel lies over the lower end of the stage, or does not. @param {Bench} bench @param {HTMLElement} panel
 * @param {boolean} on */
function lay(bench, panel, on) {
  panel.hidden = !on;
  bench.stage.cover(on ? panel : null);
}

/**
 * The edit of a button, with what the panel's own fields and the selection add to it.
 *
 * @param {HTMLElement} button @param {string[]} parts @param {string} colours of materials
 * @returns {Edit}
 */
function editOf(button, parts, colours) {
  /** @type {Edit} */
  const edit = JSON.parse(button.dataset.tried ?? "{}");
  const [scaled, linked] = [field("looks-scaled").checked, field("looks-linked").checked];
  /** @type {Object<string, object>} */
  const more = {
    "lay-material": { parts, scaled, linked, own_colour: colours === "own" },
    "paint-with": { parts, onto: field("looks-onto").value },
    "use-version": { parts },
    "add-start": { parts },
    "add-effect": { part: parts[0] },
  };
  return { ...edit, ...more[edit.kind] };
}

class Looks {
  /** @param {Bench} bench */
  constructor(bench) {
    this.bench = bench;
    this.panel = byId("looks");
    /** Whether materials are laid in the part's own colour or in theirs. */
    this.colours = "own";
    this.compared = new Compared(
      (how) => this.#fetched("compare", how),
      () => this.panel.focus({ preventScroll: true }),
    );
    /** @type {Object<string, () => void>} */
    this.presses = {
      "looks-close": () => this.#close(),
      "compare-close": () => this.compared.close(),
      "compare-open": () => this.compared.open(),
    };
    bench.openLooks = () => this.#open();
    this.#listenToTrying();
    this.#listenToPresses();
    this.#listenToEscape();
    bench.element.addEventListener("kept-aside", () => this.#showKept());
    bench.element.addEventListener("shown", () => {
      if (bench.state.selected.length) return;
      this.compared.hide();
      if (!this.panel.hidden) this.#close();
    });
  }

  /** Hovered, or come to by arrow keys, a look is shown on the stage. */
  #listenToTrying() {
    const { bench, panel } = this;
    panel.addEventListener("pointerover", (event) => {
      const button = closest(event, "[data-tried]");
      if (button) bench.stage.preview(this.#editOf(button));
    });
    panel.addEventListener("keydown", (event) => {
      const way = ARROWS[event.key];
      const here = closest(event, "[data-tried]");
      if (!way || !here) return;
      const tried = all("[data-tried]", panel);
      const next = tried[tried.indexOf(here) + way];
      event.preventDefault();
      event.stopPropagation();
      if (!next) return;
      next.focus();
      bench.stage.preview(this.#editOf(next));
    });
    for (const leave of ["pointerout", "focusout"]) panel.addEventListener(leave, () => bench.stage.preview(null));
  }

  #listenToPresses() {
    for (const place of [this.panel, this.compared.panel]) {
      place.addEventListener("click", (event) => {
        const button = closest(event, "button", HTMLButtonElement);
        if (button && button.type !== "submit") this.#press(button);
      });
    }
    this.panel.addEventListener("change", (event) => {
      this.#rename(event);
      this.#recolour(event);
    });
    this.panel.addEventListener("submit", (event) => this.#save(event));
    byId("sheet").addEventListener("submit", (event) => keepGradient(this.bench, event));
  }

  #listenToEscape() {
    /** @param {HTMLElement} place @param {() => void} away */
    const onEscape = (place, away) =>
      place.addEventListener("keydown", (event) => {
        if (event.key !== "Escape") return;
        event.stopPropagation();
        away();
      });
    onEscape(this.panel, () => {
      this.#close();
      this.bench.stage.element.focus();
    });
    onEscape(this.compared.panel, () => this.compared.close());
  }

  /** What the server has of the selected part, for a panel; null when refused.
   * @param {string} name @param {string} [more] @returns {Promise<string|null>} */
  async #fetched(name, more = "") {
    const { stage, state, api } = this.bench;
    const here = new URLSearchParams({ part: state.selected[0], ...stage.drawn });
    const answer = await ask(`${api.base}/${name}?${here}&${more}`);
    const text = await answer.text();
    if (answer.ok) return text;
    this.bench.complain(wordsOf(text));
    return null;
  }

  /** Write the panel anew; what is typed, chosen and unfolded in it by then stays. */
  async #show() {
    const text = await newest.of(this.#fetched("looks", `colours=${this.colours}`));
    if (text === null) return false;
    const kept = keptOf(this.panel);
    this.panel.innerHTML = text;
    putBack(this.panel, kept);
    return true;
  }

  /** @param {HTMLElement} button @returns {Edit} */
  #editOf(button) {
    return editOf(button, this.bench.state.selected, this.colours);
  }

  /** Opens with the part as it is. */
  async #open() {
    if (!this.bench.state.selected.length) this.bench.complain("Select a part first.");
    else if (await this.#show()) {
      lay(this.bench, this.panel, true);
      this.panel.focus({ preventScroll: true });
    }
  }

  #close() {
    lay(this.bench, this.panel, false);
    this.bench.stage.preview(null);
  }

  /** A look was kept aside: where it went is shown, and its name can be typed over. */
  async #showKept() {
    if (this.panel.hidden) {
      say("The look is kept aside, in Looks.", { words: "See it", act: () => this.#open() });
      return;
    }
    if (!(await this.#show())) return;
    const names = all("[data-version-name]", this.panel);
    const newest = names[names.length - 1];
    newest?.focus();
    if (newest instanceof HTMLInputElement) newest.select();
  }

  /** Another choice of colours: the pictures show it. @param {Event} event */
  #recolour({ target }) {
    if (!(target instanceof HTMLSelectElement) || target.id !== "looks-colours") return;
    this.colours = target.value;
    this.#show();
  }

  /** @param {Event} event */
  #rename({ target }) {
    if (!(target instanceof HTMLInputElement) || target.dataset.versionName === undefined) return;
    const [part] = this.bench.state.selected;
    this.bench.set(`parts/${part}/versions/${target.dataset.versionName}/name`, target.value);
  }

  /** @param {HTMLButtonElement} button */
  async #press(button) {
    const { compared } = button.dataset;
    if (compared) await this.compared.open(compared);
    else if (this.presses[button.id]) this.presses[button.id]();
    else if (await this.#done(button)) await this.#show();
  }

  /** Do what a button says. @param {HTMLElement} button @returns {Promise<boolean>} whether the panel has to be written
   * anew */
  async #done(button) {
    const { tried, dropMaterial, dropGradient, edit, rule } = button.dataset;
    const { bench } = this;
    if (tried) {
      if (!(await bench.post(this.#editOf(button)))) return false;
      this.compared.hide();
    } else if (dropMaterial) await dropped(bench, `materials/${dropMaterial}`, () => this.#show());
    else if (dropGradient) await dropped(bench, `gradients/${dropGradient}`, () => this.#show());
    else if (rule) await ruled(bench, JSON.parse(rule));
    else if (edit) {
      const made = { ...JSON.parse(edit), parts: bench.state.selected };
      await bench.post(made);
      return made.kind !== "keep-version";
    } else return false;
    return true;
  }

  /** Keep the part's look as a material, under a name. @param {SubmitEvent} event */
  async #save(event) {
    const form = closest(event, "form", HTMLFormElement);
    if (!form) return;
    event.preventDefault();
    const [part] = this.bench.state.selected;
    const name = new FormData(form).get("name");
    const scaled = field("looks-scaled").checked;
    const { ok, text } = await post(`${this.bench.api.base}/materials`, {
      part,
      name,
      scaled,
      drawn: this.bench.stage.drawn,
    });
    if (!ok) {
      byId("looks-fault").textContent = wordsOf(text);
      return;
    }
    form.reset();
    say(JSON.parse(text).said);
    await this.bench.refresh();
    this.#show();
  }
}

/** @param {Bench} bench */
export function startLooks(bench) {
  new Looks(bench);
}
