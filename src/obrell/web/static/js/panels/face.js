/**
 * What the page shows of a state: its blocks and lines, its bar, what was found, whether the server is there.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 * @typedef {import("../ui/types.js").State} State
 * @typedef {import("../ui/told.js").Known} Known
 * @typedef {import("../ui/told.js").List} List
 */
import { byId } from "../ui/dom.js";
import { anchoredTo, morphInner, morphList } from "../ui/morph.js";
import { ownGrounds, stand, tell } from "../ui/page.js";
import { changeOf, sceneOf, Told } from "../ui/told.js";

/** What finds an element again after its block is written anew; empty for one that nothing tells apart.
 * @param {Element|null} node */
function selectorOf(node) {
  if (node?.id) return `#${CSS.escape(node.id)}`;
  const form = node?.closest("[data-form]")?.getAttribute("data-form");
  const name = node?.getAttribute("name");
  return form && name ? `[data-form="${form}"] [name="${name}"]` : "";
}

/** The lines of a list as the page came with them. @param {string} id @returns {List} */
function linesOf(id) {
  const lines = [...byId(id).children].map((line) => [line.getAttribute("data-key") ?? "", line.outerHTML]);
  return { items: Object.fromEntries(lines), order: lines.map(([key]) => key) };
}

/** @param {Known} known @param {object} [answer] what else the server said @returns {State} */
export const stateOf = (known, answer = {}) => ({
  ...answer,
  ...known.facts,
  known,
  scene: sceneOf(known.facts.around, known.lists.scene),
});

export class Face {
  /** @param {Bench} bench @param {Known} start what the page came with besides its HTML */
  constructor(bench, start) {
    this.bench = bench;
    const blocks = { "sheet-top": byId("sheet-top").innerHTML };
    const lists = { ...start.lists, parts: linesOf("parts"), steps: linesOf("steps") };
    this.told = new Told({ ...start, blocks, lists });
    this.fault = byId("fault");
    this.away = byId("away");
    this.unsaved = 0;
    this.why = "";
    this.linked = true;
  }

  showState() {
    const { bench } = this;
    const { undo, redo, name, ground, stands } = bench.state;
    /** @type {HTMLButtonElement} */ (byId("undo")).disabled = !undo;
    /** @type {HTMLButtonElement} */ (byId("redo")).disabled = !redo;
    byId("crumb").textContent = name;
    byId("file-count").textContent = String(bench.state.files);
    const { part, effect, colourway } = bench.selection;
    bench.stage.state = bench.state.state;
    bench.stage.editions = bench.state.editions;
    const usual = { colourway: colourway === "day" ? "" : colourway, ...bench.stage.drawn };
    const said = { part, effect, ...usual, state: usual.state === "rest" ? "" : usual.state };
    const query = new URLSearchParams(Object.entries(said).filter(([, value]) => value));
    history.replaceState(null, "", `${location.pathname}${query.size ? `?${query}` : ""}`);
    ownGrounds(ground);
    stand(stands);
    this.#showFound();
    bench.marks.showTool();
    bench.marks.draw();
    bench.element.dispatchEvent(new Event("shown"));
  }

  /**
   * What was just made is offered a name: Enter, or a press, and it can be typed. A text that was drawn has its words
   * ready to be typed over, which is what it was drawn for.
   *
   * @param {string} id
   * @param {import("../ui/types.js").Edit} edit what made it
   * @param {string|undefined} said
   */
  offer(id, edit, said) {
    this.bench.used.offer(id, edit, said);
    const words = document.getElementById(`v-parts-${id}-shape-words`);
    if (words instanceof HTMLTextAreaElement && edit.kind === "draw") {
      words.focus();
      words.select();
      return;
    }
    document.getElementById(`name-${id}`)?.classList.add("offered");
    this.bench.stage.element.focus({ preventScroll: true });
  }

  /** What a parcel comes to; asked for anew, whole, when it was made for something else than what is shown.
   * @param {any} parcel @returns {Promise<State>} */
  async read(parcel) {
    const { said, fresh, removed, facts } = parcel;
    const known = this.told.with(parcel);
    if (known) return stateOf(known, { said, fresh, removed });
    const seen = { ...this.bench.selection, part: facts.selected.join(","), effect: facts.effect };
    const whole = this.told.with(await this.bench.api.blocks(seen, ""));
    if (!whole) throw new Error("What the server says cannot be put together. Load the page again.");
    return stateOf(whole, { said, fresh, removed });
  }

  /** Write anew what changed, and what may have been changed by hand since: the top and the selected lines.
   * @param {State} state */
  swap({ known, selected }) {
    const active = document.activeElement;
    const focused = selectorOf(active);
    const before = this.told.shown.lists;
    const parts = changeOf(before.parts, known.lists.parts);
    for (const id of selected) parts.items[id] = known.lists.parts.items[id];
    this.bench.swapping = true;
    const settle = anchoredTo(active);
    for (const [id, html] of Object.entries(known.blocks)) morphInner(byId(id), html);
    morphList(byId("parts"), parts);
    morphList(byId("steps"), changeOf(before.steps, known.lists.steps));
    const again = focused && !active?.isConnected ? document.querySelector(focused) : null;
    if (again instanceof HTMLElement) again.focus({ preventScroll: true });
    settle(again ?? active);
    this.bench.swapping = false;
    this.told.shown = known;
  }

  /** What is lost in every file is said in the bar, with what can be done; all else that was found, in the column. */
  #showFound() {
    const [first, ...more] = this.bench.state.found;
    const box = byId("found");
    const said = /** @type {HTMLElement} */ (box.firstElementChild);
    box.hidden = !first;
    if (!first) return;
    const others = more.length ? ` And ${more.length} more.` : "";
    box.title = `${first.words}${others}`;
    said.textContent = box.title;
    const cures = first.cures.map(({ words, edit }) => {
      const button = Object.assign(document.createElement("button"), { textContent: words });
      button.dataset.edit = JSON.stringify(edit);
      return button;
    });
    box.replaceChildren(said, ...cures);
  }

  /** @param {string} words shown under the sheet; empty clears */
  complain(words) {
    this.fault.textContent = words;
  }

  /** Whether the server is there, and what waits for it. */
  showAway() {
    const count = this.unsaved;
    const kept = count ? ` ${count} edit${count > 1 ? "s are" : " is"} kept here and saved when it is back.` : "";
    tell(this.away, `${this.why || "The server is away."}${kept}`);
    this.away.hidden = this.linked && !count;
  }
}
