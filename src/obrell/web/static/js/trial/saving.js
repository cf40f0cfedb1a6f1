/**
 * What is done to a panel and to the controls on it is posted, and what came of it shown.
 *
 * @typedef {import("../trial.js").Trial} Trial
 * @typedef {import("./types.js").Answer} Answer
 */
import { byId, saidBy } from "../ui/dom.js";
import { Api } from "../ui/api.js";
import { morphInner } from "../ui/morph.js";
import { say, trouble } from "../ui/page.js";

/** htmx, which the page loads before. @type {{process: (node: Element) => void}} */
const htmx = /** @type {any} */ (window).htmx;
const OF_CONTROL = /^control\/([^/@]+)(?:@([^/]+))?\/(.+)$/;

/** Whose value a path is, in which state, and the path there. @param {string} path */
function scoped(path) {
  const [, control = "", state = "", below = path] = OF_CONTROL.exec(path) ?? [];
  return { control, state, path: below };
}

export class Saving {
  /** @param {Trial} trial @param {string} base the panel's address */
  constructor(trial, base) {
    this.trial = trial;
    this.base = base;
    this.api = new Api(base);
    /** What was answered while a value is typed. @type {Answer|null} */
    this.waiting = null;
    /** How many values are held. */
    this.holds = 0;
    /** How often something was shown. */
    this.turn = 0;
    for (const way of ["undo", "redo"]) byId(way).addEventListener("click", () => this.#step(way));
  }

  /** @param {string} path @param {object} edit @returns {Promise<Answer>} */
  #post(path, edit) {
    return this.api.post(path, { edit, chosen: this.trial.arranging.ids });
  }

  /** A value set or typed, of the panel or of the control that its path names.
   * @param {string} path
   * @param {{kind: string, value?: unknown, text?: unknown, shift?: unknown, negated?: unknown}} how
   * @returns {Promise<Answer>} throws a refusal in words */
  value(path, how) {
    const { control, state, path: below } = scoped(path);
    const { kind, value, text } = how;
    if (!control) return this.#post("/edits", kind === "set" ? { kind, path, value } : { kind, path, text });
    const set = kind === "set" ? { kind, changes: [{ path: below, value }] } : { ...how, path: below };
    const edit = state ? { kind: "in-states", states: [state], edit: set } : set;
    return this.#post(`/controls/${control}/edits`, edit);
  }

  /** @param {string} path @param {unknown} value */
  set(path, value) {
    return this.#done(this.value(path, { kind: "set", value }));
  }

  /** Make an edit of the panel; null when it was refused. @param {object} edit */
  edit(edit) {
    return this.#done(this.#post("/edits", edit));
  }

  /** @param {string} scope whose edit it is, as a beginning of paths @param {object} edit */
  editControl(scope, edit) {
    return this.#done(this.#post(`/controls/${scoped(`${scope}x`).control}/edits`, edit));
  }

  /** @param {string} way */
  #step(way) {
    return this.#done(this.api.post(`/steps/${way}`, { chosen: this.trial.arranging.ids }));
  }

  /** @param {Promise<Answer>} asked */
  async #done(asked) {
    this.complain("");
    try {
      const answer = await asked;
      this.take(answer);
      return answer;
    } catch (error) {
      this.complain(saidBy(error));
      await this.refresh();
      return null;
    }
  }

  /** What came of something. @param {Answer} answer */
  take(answer) {
    this.turn += 1;
    if (answer.said) {
      this.trial.lens.labels();
      const offer = { words: "Take it back", act: () => this.#step("undo") };
      say(answer.said, answer.removed ? offer : undefined);
    }
    if (answer.fresh?.length) this.trial.arranging.chosen = answer.fresh;
    for (const way of /** @type {("undo"|"redo")[]} */ (["undo", "redo"]))
      byId(way).toggleAttribute("disabled", !answer[way]);
    this.trial.show(answer.screen);
    this.waiting = answer;
    if (!this.holds) this.#write();
  }

  /** Write the sheet anew. */
  #write() {
    if (!this.waiting) return;
    const { head, foot } = this.waiting.sheet;
    this.waiting = null;
    for (const [id, html] of [
      ["sheet-head", head],
      ["sheet-foot", foot],
    ]) {
      const place = byId(id);
      morphInner(place, html);
      htmx.process(place);
    }
    this.trial.sources.told();
    this.trial.under.again();
  }

  /** While a value is typed or dragged the sheet stays as it is. @param {boolean} on */
  hold(on) {
    this.holds = Math.max(0, this.holds + (on ? 1 : -1));
    if (!this.holds) this.#write();
  }

  async refresh() {
    const { turn } = this;
    const query = new URLSearchParams({ chosen: this.trial.arranging.ids });
    const answer = await fetch(`${this.base}/now?${query}`).catch(() => null);
    if (answer?.ok) {
      const now = await answer.json();
      // What was done here meanwhile may not be in it.
      if (turn === this.turn) this.take(now);
      else await this.refresh();
    } else if (answer?.status === 404) trouble("This panel was removed. Undo on the Wall brings it back.");
  }

  /** Something was done in another window. @param {{by?: string}} news */
  hear({ by }) {
    if (by === this.api.window) return;
    this.refresh();
    this.trial.lens.labels();
  }

  /** @param {string} words */
  complain(words) {
    byId("fault").textContent = words;
  }
}
