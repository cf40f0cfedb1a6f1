/** Bench: holds the state, swaps blocks, and joins stage, marks, values, chooser and ramp. */
import { Api } from "./ui/api.js";
import { startActions } from "./panels/actions.js";
import { startAsking } from "./sheet/ask.js";
import { Chooser } from "./sheet/chooser.js";
import { startCurves } from "./sheet/curves.js";
import { startIcons, startDropping } from "./panels/bringing.js";
import { startFinder, startFinding } from "./panels/finder.js";
import { startFonts, startLetters } from "./sheet/fonts.js";
import { startKeys } from "./panels/keys.js";
import { startLooks } from "./panels/looks.js";
import { short } from "./stage/plane.js";
import { Marks } from "./stage/marks.js";
import { ownGrounds, retract, say, stand, tell } from "./ui/page.js";
import { morphInner, morphList } from "./ui/morph.js";
import { startOffering } from "./sheet/parts.js";
import { startRamp } from "./sheet/ramp.js";
import { Stage } from "./stage/stage.js";
import { changeOf, sceneOf, Told } from "./ui/told.js";
import { startHalves, startHeat, startStrip } from "./panels/strip.js";
import { startValues } from "./sheet/values.js";

/** What finds an element again after its block is written anew; empty for one that nothing tells apart. */
function selectorOf(node) {
  if (node?.id) return `#${CSS.escape(node.id)}`;
  const form = node?.closest?.("[data-form]")?.dataset.form;
  return form && node.name ? `[data-form="${form}"] [name="${node.name}"]` : "";
}

/** The lines of a list as the page came with them. */
function linesOf(id) {
  const lines = [...document.getElementById(id).children].map((line) => [line.dataset.key, line.outerHTML]);
  return { items: Object.fromEntries(lines), order: lines.map(([key]) => key) };
}

/** @param {import("./ui/told.js").Known} known @param {object} [answer] what else the server said */
const stateOf = (known, answer = {}) => ({
  ...answer,
  ...known.facts,
  known,
  scene: sceneOf(known.facts.around, known.lists.scene),
});

class Bench {
  constructor(element) {
    this.element = element;
    const base = `/kits/${element.dataset.kit}/controls/${element.dataset.control}`;
    this.api = new Api(base);
    this.kit = element.dataset.kit;
    this.address = base;
    const start = JSON.parse(element.dataset.state);
    const blocks = { "sheet-top": document.getElementById("sheet-top").innerHTML };
    const lists = { ...start.lists, parts: linesOf("parts"), steps: linesOf("steps") };
    this.told = new Told({ ...start, blocks, lists });
    /** @type {import("./ui/api.js").State} */
    this.state = stateOf(this.told.shown);
    const scheme = location.protocol === "https:" ? "wss" : "ws";
    this.stage = new Stage(document.getElementById("stage"), `${scheme}://${location.host}${base}/live`);
    this.stage.opened = () => (this.state.effect ? `${this.state.selected[0]}/${this.state.effect}` : "");
    this.marks = new Marks(this);
    this.chooser = new Chooser(this);
    this.fault = document.getElementById("fault");
    this.away = document.getElementById("away");
    this.unsaved = 0;
    this.anchor = "";
    /** Where the art was pressed last, and which parts were selected by that. */
    this.near = { parts: "", at: "" };
    this.copyNumber = "";
    this.linked = true;
    this.api.have = () => this.told.shown.token;
    this.api.shown = () => this.state.version;
    this.api.away = (count, words) => {
      this.unsaved = count;
      this.why = words;
      this.showAway();
    };
    this.stage.addEventListener("link", (event) => {
      const again = event.detail && !this.linked;
      this.linked = event.detail;
      this.showAway();
      if (again) this.refresh();
    });
    this.stage.addEventListener("news", (event) => this.hear(event.detail));
    this.stage.addEventListener("refused", (event) => this.complain(event.detail));
    this.#waitForPresses();
    startValues(this);
    startRamp(this);
    startActions(this);
    startKeys(this);
    startAsking(this);
    startFinder(this);
    startFinding(this);
    startIcons(this);
    startFonts(this);
    startCurves(this);
    startLooks(this);
    startStrip(this);
    startHeat(this);
    startHalves(this);
    startLetters(this);
    startDropping(this);
    startOffering(this);
    this.showState();
    const [width, height] = this.state.scene.canvas;
    this.stage.centre(width, height);
    this.#resume();
  }

  /** Edits that an earlier visit could not save. */
  async #resume() {
    const count = await this.api.resume();
    if (!count) return;
    await this.refresh();
    say(
      count > 1
        ? `${count} edits of your last visit are saved now.`
        : "The last edit of your last visit is saved now.",
    );
  }

  get selection() {
    const part = this.state.selected.join(",");
    return {
      part,
      effect: this.state.effect,
      point: this.marks.points.single,
      anchor: this.anchor,
      copy_number: this.copyNumber,
      near: this.near.parts === part ? this.near.at : "",
    };
  }

  /** @returns {object|undefined} the one selected part's scene */
  get part() {
    return this.state.selected.length === 1 ? this.partOf(this.state.selected[0]) : undefined;
  }

  partOf(id) {
    return this.state.scene.parts.find((part) => part.id === id);
  }

  /** Whether a part lies in another, however deep. */
  under(outer, inner) {
    for (let part = this.partOf(inner); part?.within; part = this.partOf(part.within)) {
      if (part.within === outer) return true;
    }
    return false;
  }

  /** Save an edit and show what came of it. @returns {Promise<object|null>} null when refused */
  async post(edit) {
    this.complain("");
    const asked = this.#asked;
    try {
      const state = await this.read(await this.api.edit(edit, this.selection));
      const elsewhere = !state.fresh?.length && asked !== this.#asked;
      if (elsewhere) await this.refresh();
      else this.show(state);
      if (state.removed) this.offerBack(state.said);
      if (state.fresh?.length && this.marks.tool !== "pen") this.nameFresh(state.fresh[0]);
      return state;
    } catch (error) {
      this.complain(error.message);
      await this.refresh();
      return null;
    } finally {
      if (this.stage.edit) this.stage.preview(null);
      else this.stage.request();
    }
  }

  /** What a parcel comes to; asked for anew, whole, when it was made for something else than what is shown. */
  async read(parcel) {
    const { said, fresh, removed, facts } = parcel;
    const known = this.told.with(parcel);
    if (known) return stateOf(known, { said, fresh, removed });
    const seen = { ...this.selection, part: facts.selected.join(","), effect: facts.effect };
    return stateOf(this.told.with(await this.api.blocks(seen, "")), { said, fresh, removed });
  }

  /** The selection as it was asked for. */
  get #asked() {
    return JSON.stringify(this.selection);
  }

  /** What was taken away can be taken back on the spot. */
  offerBack(said, act = () => this.step("undo")) {
    say(`${said}.`, { words: "Take it back", act });
  }

  set(path, value) {
    return this.post(this.setting(path, value));
  }

  /** The edit that sets a value: of all selected parts when the path says so, about the anchor. */
  setting(path, value) {
    return { kind: "set", changes: [{ path, value }], ...this.scope(path) };
  }

  scope(path) {
    const anchor =
      this.anchor && /^parts\/[^/]+\/(rotation|shape\/\w+)$/.test(path) ? this.anchor.split(",").map(Number) : null;
    return { parts: path.includes("*") ? this.state.selected : [], anchor };
  }

  async step(way) {
    try {
      const state = await this.read(await this.api.step(way, this.selection));
      this.show(state);
      say(state.said);
      this.stage.preview(null);
    } catch (error) {
      this.complain(error.message);
    }
  }

  /** A place of the art was pressed: its edge is looked at. */
  pressed(ids, x, y) {
    this.near = { parts: ids.join(","), at: `${short(x)},${short(y)}` };
    if (this.near.parts === this.state.selected.join(",")) this.refresh();
  }

  async select(ids, effect = "") {
    const same = ids.join() === this.state.selected.join() && effect === this.state.effect;
    if (same) return;
    if (ids.join() !== this.state.selected.join()) {
      this.marks.points.clear();
      this.marks.cropping = "";
      this.copyNumber = "";
    }
    this.state = { ...this.state, selected: ids, effect };
    this.marks.draw();
    await this.refresh();
  }

  async refresh() {
    const asked = this.#asked;
    try {
      const state = await this.read(await this.api.blocks(this.selection));
      if (asked === this.#asked) {
        this.show(state);
        this.stage.request();
      } else if (state.version > this.state.version) await this.refresh();
    } catch (error) {
      this.complain(error.message || "The server is away.");
    }
  }

  /** Another window changed this control. */
  hear(news) {
    if (news.gone) {
      this.complain("This control was removed in another window. Undo on the Wall brings it back.");
      return;
    }
    if (news.by === this.api.window) return;
    const said = news.said ? `${news.said[0].toLowerCase()}${news.said.slice(1)}` : "";
    if (said && news.whose === this.api.window) say(`In another window, of what was done here: ${said}.`);
    else if (news.paths?.some((path) => this.api.mine.delete(path)))
      say(`Another window changed what you set: ${said}.`);
    if (news.news !== this.state.hash) this.refresh();
  }

  /** While a value is held by hand or typed, the sheet stays as it is; the newest state waits. */
  hold(on) {
    this.holds = Math.max(0, (this.holds || 0) + (on ? 1 : -1));
    this.#showHeld();
  }

  /** Between a press and its release nothing is written anew: the press would be lost with what it was on. */
  #waitForPresses() {
    const done = () =>
      setTimeout(() => {
        this.pressing = false;
        this.#showHeld();
      }, 0);
    window.addEventListener(
      "pointerdown",
      () => {
        this.pressing = true;
      },
      true,
    );
    for (const name of ["pointerup", "pointercancel"]) window.addEventListener(name, done, true);
  }

  #showHeld() {
    if (!this.holds && !this.pressing && this.held) {
      const state = this.held;
      this.held = null;
      if (state.selected.join() === this.state.selected.join()) this.show(state);
      else this.refresh();
    }
  }

  /** @param {import("./ui/api.js").State} state */
  show(state) {
    if (state.version < this.state.version) return;
    if (state.version > this.state.version) retract();
    if (this.holds || this.pressing) {
      this.held = state;
      // What was just made is selected at once: what is done next is done to it.
      if (state.fresh?.length) this.state = { ...this.state, selected: state.selected, effect: state.effect };
      return;
    }
    this.state = state;
    this.swap(state);
    this.showState();
  }

  showState() {
    const { undo, redo, name } = this.state;
    document.getElementById("undo").disabled = !undo;
    document.getElementById("redo").disabled = !redo;
    document.getElementById("crumb").textContent = name;
    const { part, effect } = this.selection;
    const query = new URLSearchParams(Object.entries({ part, effect }).filter(([, value]) => value));
    history.replaceState(null, "", `${location.pathname}${query.size ? `?${query}` : ""}`);
    ownGrounds(this.state.ground);
    stand(this.state.stands);
    this.showFound();
    this.marks.showTool();
    this.marks.draw();
    this.element.dispatchEvent(new Event("shown"));
  }

  /** Write anew what changed, and what may have been changed by hand since: the top and the selected lines. */
  swap({ known, selected }) {
    const active = document.activeElement;
    const focused = selectorOf(active);
    const before = this.told.shown.lists;
    const parts = changeOf(before.parts, known.lists.parts);
    for (const id of selected) parts.items[id] = known.lists.parts.items[id];
    this.swapping = true;
    for (const [id, html] of Object.entries(known.blocks)) morphInner(document.getElementById(id), html);
    morphList(document.getElementById("parts"), parts);
    morphList(document.getElementById("steps"), changeOf(before.steps, known.lists.steps));
    if (focused && !active.isConnected) document.querySelector(focused)?.focus({ preventScroll: true });
    this.swapping = false;
    this.told.shown = known;
  }

  /** A new part has its name, or a text its words, ready to be typed over. */
  nameFresh(id) {
    const words = document.getElementById(`v-parts-${id}-shape-words`);
    const field = words || document.getElementById(`name-${id}`);
    field?.focus();
    field?.select();
  }

  /** What is lost in every file is said in the bar, with what can be done; all else that was found, in the column. */
  showFound() {
    const [first, ...more] = this.state.found;
    const box = document.getElementById("found");
    box.hidden = !first;
    if (!first) return;
    const others = more.length ? ` And ${more.length} more.` : "";
    box.title = `${first.words}${others}`;
    box.firstElementChild.textContent = box.title;
    const cures = first.cures.map(({ words, edit }) => {
      const button = Object.assign(document.createElement("button"), { textContent: words });
      button.dataset.edit = JSON.stringify(edit);
      return button;
    });
    box.replaceChildren(box.firstElementChild, ...cures);
  }

  /** @param {string} words shown under the sheet; empty clears */
  complain(words) {
    this.fault.textContent = words;
  }

  showAway() {
    const count = this.unsaved;
    const kept = count ? ` ${count} edit${count > 1 ? "s are" : " is"} kept here and saved when it is back.` : "";
    tell(this.away, `${this.why || "The server is away."}${kept}`);
    this.away.hidden = this.linked && !count;
  }
}

new Bench(document.getElementById("bench"));
