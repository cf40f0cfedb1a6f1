/**
 * Bench: holds the state, swaps blocks, and joins stage, marks, values, chooser and ramp.
 *
 * @typedef {import("./ui/api.js").State} State
 * @typedef {import("./ui/types.js").Edit} Edit
 */
import { byId, saidBy } from "./ui/dom.js";
import { Api } from "./ui/api.js";
import { startActions } from "./panels/actions.js";
import { startAside } from "./panels/aside.js";
import { startAsking } from "./sheet/ask.js";
import { Chooser } from "./sheet/chooser.js";
import { startCurves } from "./sheet/curves.js";
import { startIcons, startDropping } from "./panels/imports.js";
import { startFinder, startFinding } from "./panels/finder.js";
import { startFills } from "./sheet/fills.js";
import { startFonts, startLetters } from "./sheet/fonts.js";
import { Brought } from "./panels/brought.js";
import { startBeside } from "./panels/beside.js";
import { startButtons } from "./panels/buttons.js";
import { startClipboard } from "./panels/clipboard.js";
import { Face, stateOf } from "./panels/face.js";
import { startHolds, startSnaps } from "./panels/holds.js";
import { Holding } from "./panels/holding.js";
import { startKeys } from "./panels/keys.js";
import { startLaying } from "./panels/laying.js";
import { startLines } from "./panels/lines.js";
import { listen, resume } from "./panels/news.js";
import { startView } from "./panels/view.js";
import { startLooks } from "./panels/looks.js";
import { short } from "./stage/plane.js";
import { Marks } from "./stage/marks.js";
import { retract, say } from "./ui/page.js";
import { startOffering } from "./sheet/parts.js";
import { startRamp } from "./sheet/ramp.js";
import { Stage } from "./stage/stage.js";
import { startHalves } from "./panels/halves.js";
import { startMoving } from "./panels/moving.js";
import { startReadings } from "./panels/readings.js";
import { startStates } from "./panels/states.js";
import { startHeat, startStrip } from "./panels/strip.js";
import { Used } from "./panels/used.js";
import { setting } from "./sheet/setting.js";
import { startValues } from "./sheet/values.js";

/** What listens on the page, in this order. */
const STARTS = [
  startValues,
  startRamp,
  startActions,
  startLines,
  startHolds,
  startSnaps,
  startButtons,
  startView,
  startKeys,
  startClipboard,
  startAsking,
  startFinder,
  startFinding,
  startIcons,
  startFonts,
  startFills,
  startCurves,
  startLooks,
  startStrip,
  startHeat,
  startHalves,
  startLetters,
  startDropping,
  startOffering,
  startLaying,
  startAside,
  startStates,
  startBeside,
  startReadings,
  startMoving,
];

/** What could not be shown while the page was held. @param {Bench} bench */
function showWaiting(bench) {
  const { selected, effect } = bench.state;
  const state = bench.waiting;
  bench.waiting = null;
  if (!state) return;
  // What was selected, opened or drawn by the press that was waited for stays so.
  const same = state.selected.join() === selected.join() && state.effect === effect;
  const { drawn } = bench.stage;
  if (same && state.state === drawn.state && state.editions === drawn.editions) bench.show(state);
  else bench.refresh();
}

class Bench extends Brought {
  /** @param {HTMLElement} element */
  constructor(element) {
    super();
    this.element = element;
    this.kit = element.dataset.kit ?? "";
    const base = `/kits/${this.kit}/controls/${element.dataset.control}`;
    this.api = new Api(base);
    this.face = new Face(this, JSON.parse(element.dataset.state ?? "{}"));
    /** @type {State} */
    this.state = stateOf(this.face.told.shown);
    const scheme = location.protocol === "https:" ? "wss" : "ws";
    this.stage = new Stage(byId("stage"), `${scheme}://${location.host}${base}/live`);
    this.stage.opened = () => (this.state.effect ? `${this.state.selected[0]}/${this.state.effect}` : "");
    this.used = new Used(this);
    this.marks = new Marks(this);
    this.chooser = new Chooser(this);
    this.anchor = "";
    /** Where the art was pressed last, and which parts were selected by that. */
    this.near = { parts: "", at: "" };
    this.copyNumber = "";
    /** The newest state, while the page must not be written anew. @type {State|null} */
    this.waiting = null;
    this.swapping = false;
    /** How often the state was asked for, and the latest of those that was shown. */
    this.asks = { begun: 0, shown: 0 };
    this.holding = new Holding(() => showWaiting(this));
    listen(this);
    for (const start of STARTS) start(this);
    this.face.showState();
    const [width, height] = this.state.scene.canvas;
    this.stage.centre(width, height);
    resume(this);
  }

  get selection() {
    const part = this.state.selected.join(",");
    return {
      part,
      effect: this.state.effect,
      points: this.marks.points.names,
      anchor: this.anchor,
      copy_number: this.copyNumber,
      ...this.stage.seen,
      near: this.near.parts === part ? this.near.at : "",
    };
  }

  /** The one selected part's scene. */
  get part() {
    return this.state.selected.length === 1 ? this.partOf(this.state.selected[0]) : undefined;
  }

  /** @param {string|null|undefined} id */
  partOf(id) {
    return this.state.scene.parts.find((part) => part.id === id);
  }

  /**
   * Save an edit, and show what came of it; when something else was selected meanwhile, that stays so.
   *
   * @param {Edit|Promise<Edit|null>} edit
   * @returns {Promise<State>} throws a refusal in words
   */
  async send(edit) {
    const asked = this.#asked;
    const parcel = await this.api.edit(edit, this.selection);
    const state = parcel ? await this.read(parcel) : this.state;
    this.used.learn(this.state, state);
    await this.#arrived(state, asked);
    return state;
  }

  /** What came of an edit is shown; when something else was selected or drawn meanwhile, that is asked for.
   * @param {State} state @param {string} asked the selection that it was made for */
  async #arrived(state, asked) {
    if (!state.fresh?.length && asked !== this.#asked) await this.refresh();
    else this.show(state);
  }

  /** Save an edit and show what came of it; null when refused. @param {Edit|Promise<Edit|null>} edit */
  async post(edit) {
    this.complain("");
    try {
      const state = await this.send(edit);
      if (state.removed) this.offerBack(state.said);
      if (edit instanceof Promise) return state;
      if (edit.kind === "keep-version") this.element.dispatchEvent(new Event("kept-aside"));
      if (state.fresh?.length && this.marks.tool !== "pen") this.face.offer(state.fresh[0], edit, state.said);
      return state;
    } catch (error) {
      this.complain(saidBy(error));
      await this.refresh();
      return null;
    } finally {
      if (this.stage.edit) this.stage.preview(null);
      else this.stage.request();
    }
  }

  /** What a parcel comes to. @param {any} parcel @returns {Promise<State>} */
  read(parcel) {
    return this.face.read(parcel);
  }

  /** The selection as it was asked for. */
  get #asked() {
    return JSON.stringify(this.selection);
  }

  /** What was taken away can be taken back on the spot. @param {string|undefined} said @param {() => void} [act] */
  offerBack(said, act = () => this.step("undo")) {
    say(`${(said ?? "").replace(/\.$/, "")}.`, { words: "Take it back", act });
  }

  /** @param {string} path @param {unknown} value */
  set(path, value) {
    return this.post(setting(this, path, value));
  }

  /** @param {"undo"|"redo"} way */
  async step(way) {
    try {
      const asked = this.#asked;
      const state = await this.read(await this.api.step(way, this.selection));
      this.used.learn(this.state, state);
      await this.#arrived(state, asked);
      say(state.said ?? "");
      this.stage.preview(null);
    } catch (error) {
      this.complain(saidBy(error));
    }
  }

  /**
   * A place of the art was pressed: its edge is looked at.
   *
   * @param {string[]} ids @param {number} x @param {number} y
   */
  pressed(ids, x, y) {
    this.near = { parts: ids.join(","), at: `${short(x)},${short(y)}` };
    if (this.near.parts === this.state.selected.join(",")) this.refresh();
  }

  /** @param {string[]} ids @param {string} [effect] one that is open */
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
    const turn = ++this.asks.begun;
    try {
      const state = await this.read(await this.api.blocks(this.selection));
      // Of two that crossed on their way the later is the newer, also of what is around the control.
      if (turn < this.asks.shown) return;
      this.asks.shown = turn;
      if (asked === this.#asked) {
        this.show(state);
        this.stage.request();
      } else if (state.version > this.state.version) await this.refresh();
    } catch (error) {
      this.complain(saidBy(error) || "The server is away.");
    }
  }

  /** While a value is held by hand or typed, the sheet stays as it is; the newest state waits. @param {boolean} on */
  hold(on) {
    this.holding.hold(on);
  }

  /** @param {State} state */
  show(state) {
    if (state.version < this.state.version) return;
    if (state.version > this.state.version) retract();
    if (this.holding.held) {
      this.waiting = state;
      // What was just made is selected at once: what is done next is done to it.
      if (state.fresh?.length) this.state = { ...this.state, selected: state.selected, effect: state.effect };
      return;
    }
    this.state = state;
    this.face.swap(state);
    this.face.showState();
  }

  /** @param {string} words shown under the sheet; empty clears */
  complain(words) {
    this.face.complain(words);
  }
}

new Bench(byId("bench"));
