/** Looks: materials, gradients, effects and kept looks, tried on the stage by hovering, and compared side by side. */
import { ask, say, wordsOf } from "../ui/page.js";

const field = (id) => document.getElementById(id);

/** Send something; what the server says to it. @returns {Promise<{ok: boolean, text: string}>} */
async function post(path, body) {
  const headers = { "content-type": "application/json" };
  const answer = await ask(path, { method: "POST", headers, body: JSON.stringify(body) });
  return { ok: answer.ok, text: await answer.text() };
}

/** What is typed, chosen, unfolded and scrolled to in a panel, to be put back after it is written anew. */
function keptOf(panel) {
  return {
    fields: [...panel.querySelectorAll("input, select")].map((one) => [one.id || one.name, one.value, one.checked]),
    within: panel.contains(document.activeElement),
    typing: Boolean(document.activeElement?.closest("#looks-save")),
    scrolled: panel.scrollTop,
    open: [...panel.querySelectorAll("details[open]")].map((node) => node.id),
  };
}

function putBack(panel, { fields, within, typing, scrolled, open }) {
  for (const id of open) panel.querySelector(`#${id}`)?.setAttribute("open", "");
  panel.scrollTop = scrolled;
  for (const [name, value, checked] of fields) {
    const input = panel.querySelector(`[id="${name}"], [name="${name}"]`);
    if (input) [input.value, input.checked] = [value, checked];
  }
  if (typing) panel.querySelector("#looks-save input").focus();
  else if (within) panel.focus({ preventScroll: true });
}

class Looks {
  constructor(bench) {
    this.bench = bench;
    this.panel = field("looks");
    this.compare = field("compare");
    this.presses = {
      "looks-close": () => this.#close(),
      "compare-close": () => this.#closeCompared(),
      "compare-open": () => this.#openCompared(),
    };
    bench.openLooks = () => this.#open();
    this.#listenToTrying();
    this.#listenToPresses();
    bench.element.addEventListener("shown", () => {
      if (bench.state.selected.length) return;
      this.compare.hidden = true;
      if (!this.panel.hidden) this.#close();
    });
  }

  /** Hovered, or reached by Tab, a look is shown on the stage. */
  #listenToTrying() {
    const { bench, panel } = this;
    const tried = (event) => event.target.closest("[data-tried]");
    panel.addEventListener("pointerover", (event) => {
      const button = tried(event);
      if (button) bench.stage.preview(this.#editOf(button));
    });
    panel.addEventListener("focusin", (event) => {
      const button = tried(event);
      if (button?.matches(":focus-visible")) bench.stage.preview(this.#editOf(button));
    });
    for (const leave of ["pointerout", "focusout"]) panel.addEventListener(leave, () => bench.stage.preview(null));
  }

  #listenToPresses() {
    for (const place of [this.panel, this.compare]) {
      place.addEventListener("click", (event) => {
        const button = event.target.closest("button");
        if (button && button.type !== "submit") this.#press(button);
      });
    }
    this.panel.addEventListener("submit", (event) => this.#save(event));
    field("sheet").addEventListener("submit", (event) => this.#keepGradient(event));
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
    onEscape(this.compare, () => this.#closeCompared());
  }

  /** What the server has of the selected part, for a panel; null when refused. */
  async #fetched(name) {
    const answer = await ask(`${this.bench.api.base}/${name}?part=${this.bench.state.selected[0]}`);
    const text = await answer.text();
    if (answer.ok) return text;
    this.bench.complain(wordsOf(text));
    return null;
  }

  /** Write the panel anew; what is typed, chosen and unfolded in it by then stays. */
  async #show() {
    const text = await this.#fetched("looks");
    if (text === null) return false;
    const kept = keptOf(this.panel);
    this.panel.innerHTML = text;
    putBack(this.panel, kept);
    return true;
  }

  /** The edit of a button, with what the panel's own fields and the selection add to it. */
  #editOf(button) {
    const edit = JSON.parse(button.dataset.tried);
    const parts = this.bench.state.selected;
    const more = {
      "lay-material": () => ({ parts, scaled: field("looks-scaled").checked, linked: field("looks-linked").checked }),
      "paint-with": () => ({ parts, onto: field("looks-onto").value }),
      "use-version": () => ({ parts }),
      "add-effect": () => ({ part: parts[0] }),
    }[edit.kind]();
    return { ...edit, ...more };
  }

  async #open() {
    if (!this.bench.state.selected.length) this.bench.complain("Select a part first.");
    else if (await this.#show()) {
      this.panel.hidden = false;
      this.panel.focus({ preventScroll: true });
    }
  }

  #close() {
    this.panel.hidden = true;
    this.bench.stage.preview(null);
  }

  async #openCompared() {
    const text = await this.#fetched("compare");
    if (text === null) return;
    this.compare.innerHTML = text;
    this.compare.hidden = false;
    this.compare.querySelector("button")?.focus();
  }

  #closeCompared() {
    this.compare.hidden = true;
    this.panel.focus({ preventScroll: true });
  }

  async #press(button) {
    if (this.presses[button.id]) this.presses[button.id]();
    else if (await this.#done(button)) await this.#show();
  }

  /** Do what a button says. @returns {Promise<boolean>} whether the panel has to be written anew */
  async #done(button) {
    const { tried, dropMaterial, dropGradient, edit, rule } = button.dataset;
    const { bench } = this;
    if (tried) {
      if (!(await bench.post(this.#editOf(button)))) return false;
      this.compare.hidden = true;
    } else if (dropMaterial) await this.#dropped(`materials/${dropMaterial}`);
    else if (dropGradient) await this.#dropped(`gradients/${dropGradient}`);
    else if (rule) await this.#ruled(JSON.parse(rule));
    else if (edit) await bench.post({ ...JSON.parse(edit), parts: bench.state.selected });
    else return false;
    return true;
  }

  async #ruled({ material, ...change }) {
    await post(`/kits/${this.bench.kit}/materials/${material}/lengths`, change);
    await this.bench.refresh();
  }

  /** Taken off the kit's shelf, and offered back. */
  async #dropped(what) {
    const { bench } = this;
    const { ok, text } = await post(`/kits/${bench.kit}/${what}/remove`, {});
    if (!ok) {
      bench.complain(wordsOf(text));
      return;
    }
    bench.offerBack(JSON.parse(text).said, async () => {
      await post(`/kits/${bench.kit}/undo`, {});
      this.#show();
    });
  }

  /** Keep the part's look as a material, under a name. */
  async #save(event) {
    event.preventDefault();
    const [part] = this.bench.state.selected;
    const name = event.target.elements.name.value;
    const scaled = field("looks-scaled").checked;
    const { ok, text } = await post(`${this.bench.api.base}/materials`, { part, name, scaled });
    if (!ok) {
      field("looks-fault").textContent = wordsOf(text);
      return;
    }
    event.target.reset();
    say(JSON.parse(text).said);
    await this.bench.refresh();
    this.#show();
  }

  /** Keep the open gradient in the kit, under a name. */
  async #keepGradient(event) {
    const form = event.target.closest("[data-keep-gradient]");
    if (!form) return;
    event.preventDefault();
    const body = { path: form.dataset.keepGradient, name: form.elements.name.value };
    const { ok, text } = await post(`${this.bench.api.base}/gradients`, body);
    if (!ok) {
      this.bench.complain(wordsOf(text));
      return;
    }
    say(JSON.parse(text).said);
    form.reset();
  }
}

/** @param {object} bench */
export function startLooks(bench) {
  new Looks(bench);
}
