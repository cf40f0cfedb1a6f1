/**
 * The sheet beside the screen: live values of the panel and of the control under the pointer, words, choices, files.
 *
 * @typedef {import("../trial.js").Trial} Trial
 */
import { byId, closest } from "../ui/dom.js";
import { ask, wordsOf } from "../ui/page.js";
import { Values } from "../sheet/values.js";

/** What live values need: nothing is previewed here, what is kept is posted. */
class Bound {
  /** @param {Trial} trial */
  constructor(trial) {
    this.trial = trial;
    this.element = trial.element;
    this.anchor = "";
    this.state = { selected: [], scene: { light: 0 } };
    this.stage = { preview: () => {}, request: () => {} };
  }

  /** @param {import("../ui/types.js").Edit} edit */
  async send(edit) {
    const { saving } = this.trial;
    const { path = "", kind, text, shift, negated } = edit;
    const answer = await saving.value(path, { kind, text, shift, negated });
    saving.take(answer);
    return answer;
  }

  /** @param {string} path @param {unknown} value */
  set(path, value) {
    return this.trial.saving.set(path, value);
  }

  get holding() {
    return { held: this.trial.saving.holds > 0 };
  }

  /** @param {boolean} on */
  hold(on) {
    this.trial.saving.hold(on);
  }

  /** @param {string} words */
  complain(words) {
    this.trial.saving.complain(words);
  }

  async refresh() {
    await this.trial.saving.refresh();
  }
}

/** @param {EventTarget|null} target @returns {target is HTMLInputElement|HTMLSelectElement} */
const isField = (target) => target instanceof HTMLInputElement || target instanceof HTMLSelectElement;
/** @param {string} value */
const orNone = (value) => (value === "None" ? null : value);

/** What choosing or typing in a field is as an edit, by what its data says.
 * @type {Object<string, (value: string, said: string, field: HTMLElement, trial: Trial) => object|null>} */
const EDITS = {
  ground: (value) => ({ kind: "set", path: "ground", value: JSON.parse(value) }),
  groundColour: (value) => ({ kind: "set", path: "ground", value: { kind: "solid", colour: value.trim() } }),
  set: (value, path) => ({ kind: "set", path, value: orNone(value) }),
  refill: (value, placement) => (value ? { kind: "refill", placement, control: value } : null),
  swap: (value, fixture) => (value ? { kind: "swap", fixture, control: value } : null),
  course: (value, source) => (value ? { kind: "course", source, course: value } : null),
  steps: (value, source) => ({ kind: "steps", source, text: value }),
  moves: (value, source) => (value ? { kind: "add-move", source, move: JSON.parse(value) } : null),
  when: (value, at, field) => ({ kind: "set-move", source: sourceOf(field), at: Number(at), when: value }),
  than: (value, at, field) => ({ kind: "set-move", source: sourceOf(field), at: Number(at), than: value }),
  numberOf: (value, reading, _field, trial) => ({
    kind: "number",
    placement: trial.arranging.one,
    reading,
    text: value,
  }),
  words: (value, part, _field, trial) => ({ kind: "words", placement: trial.arranging.one, part, text: value }),
};

/** @param {HTMLElement} field */
const sourceOf = (field) => field.closest("[data-source]")?.getAttribute("data-source") ?? "";

class Sheet {
  /** @param {Trial} trial */
  constructor(trial) {
    this.trial = trial;
    new Values(new Bound(trial));
    const sheet = byId("sheet");
    sheet.addEventListener("change", (event) => this.#change(event));
    sheet.addEventListener("click", (event) => this.#click(event));
    sheet.addEventListener("submit", (event) => this.#submit(event));
  }

  /** @param {Event} event */
  async #change({ target: field }) {
    if (!isField(field)) return;
    if (field instanceof HTMLInputElement && field.type === "file") return this.#upload(field);
    const { easing, of } = field.dataset;
    if (easing) {
      const edit = { ...JSON.parse(easing), kind: "set-easing", css: field.value };
      return this.#kept(field, this.trial.saving.editControl(of ?? "", edit));
    }
    const name = Object.keys(EDITS).find((one) => one in field.dataset);
    const edit = name && EDITS[name](field.value, field.dataset[name] ?? "", field, this.trial);
    if (edit) await this.#kept(field, this.trial.saving.edit(edit));
  }

  /** @param {HTMLElement} field @param {Promise<unknown>} done */
  async #kept(field, done) {
    if (!(await done)) document.getElementById(field.id)?.classList.add("bad");
  }

  /** @param {MouseEvent} event */
  #click(event) {
    const panel = closest(event, "[data-panel-edit]")?.dataset.panelEdit;
    if (panel) this.trial.saving.edit(JSON.parse(panel));
    const turned = closest(event, "[data-switch]");
    if (turned) this.trial.saving.set(turned.dataset.path ?? "", turned.getAttribute("aria-pressed") !== "true");
    const button = closest(event, "[data-control-edit]");
    if (button) this.trial.saving.editControl(button.dataset.of ?? "", JSON.parse(button.dataset.controlEdit ?? "{}"));
  }

  /** @param {SubmitEvent} event */
  async #submit(event) {
    const form = closest(event, "[data-add-source]", HTMLFormElement);
    if (!form) return;
    event.preventDefault();
    const field = /** @type {HTMLInputElement} */ (byId("new-source"));
    if (await this.trial.saving.edit({ kind: "add-source", name: field.value })) field.value = "";
  }

  /** A recording, or a picture that the screen is made of. @param {HTMLInputElement} field */
  async #upload(field) {
    const [file] = field.files ?? [];
    if (!file) return;
    const { recording } = field.dataset;
    const body = new FormData();
    body.set("file", file);
    body.set("chosen", this.trial.arranging.ids);
    body.set("window", this.trial.saving.api.window);
    field.value = "";
    this.trial.saving.complain("");
    const place = recording ? `sources/${recording}/recording` : "ground";
    const answer = await ask(`${this.trial.base}/${place}`, { method: "POST", body });
    const text = await answer.text();
    if (answer.ok) this.trial.saving.take(JSON.parse(text));
    else this.trial.saving.complain(wordsOf(text));
  }
}

/** @param {Trial} trial */
export function startSheet(trial) {
  new Sheet(trial);
}
