/** The colour chooser. Every conversion between spaces is the server's. */

import { follow } from "../ui/drags.js";
import { ask, wordsOf } from "../ui/page.js";

/** @param {string[]} colours @param {HTMLElement} place @param {(colour: string) => void} take */
function offer(colours, place, take) {
  place.replaceChildren(
    ...colours.map((colour) => {
      const button = document.createElement("button");
      button.style.background = colour;
      button.title = colour;
      button.setAttribute("aria-label", colour);
      button.addEventListener("click", () => take(colour));
      return button;
    }),
  );
}

export class Chooser {
  constructor(bench) {
    this.bench = bench;
    this.box = document.getElementById("chooser");
    this.hex = document.getElementById("hex");
    this.opacity = document.getElementById("opacity");
    this.fault = this.box.querySelector(".fault");
    this.hsv = [0, 0, 0];
    this.open = false;
    this.turn = 0;
    document.getElementById("sheet").addEventListener("click", (event) => {
      const button = event.target.closest(".colour");
      if (button) this.show(button);
    });
    this.#drag(document.getElementById("plane"), (x, y) => this.#take("hsv", [this.hsv[0], x * 100, 100 - y * 100]));
    this.#drag(document.getElementById("hue"), (x) => this.#take("hsv", [x * 360, this.hsv[1], this.hsv[2]]));
    this.hex.addEventListener("change", () => this.#read("hex", this.hex.value));
    for (const row of this.box.querySelectorAll("[data-space]")) {
      row.addEventListener("change", () => {
        this.#read(row.dataset.space, [...row.querySelectorAll("input")].map((field) => field.value).join(" "));
      });
    }
    this.opacity.addEventListener("input", () => this.#preview());
    document.getElementById("colour-keep").addEventListener("click", () => this.keep());
    document.getElementById("colour-back").addEventListener("click", () => this.restore());
    document.getElementById("from-art").addEventListener("click", () => this.#fromStage((at) => this.#seen(at)));
    document.getElementById("from-part").addEventListener("click", () => this.#fromStage((at) => this.#painted(at)));
    this.box.addEventListener("keydown", (event) => this.#key(event));
    document.addEventListener(
      "pointerdown",
      (event) => {
        if (this.open && !this.taking && !this.box.contains(event.target)) this.keep();
      },
      true,
    );
  }

  /** @param {HTMLElement} button the colour's slot in the sheet */
  async show(button) {
    if (this.open) await this.keep();
    this.path = button.dataset.path;
    this.slot = button.id;
    this.before = button.dataset.colour;
    this.colour = this.before;
    this.fade = this.#opacitySlot();
    document.getElementById("opacity-row").hidden = !this.fade;
    this.opacity.value = this.fade ? Number(this.fade.dataset.value) : 1;
    // What the slider says of it: a finer value is kept as it is until the slider is moved.
    this.fadeBefore = Number(this.opacity.value);
    this.#sayOpacity();
    this.open = true;
    this.box.hidden = false;
    this.#stand(button.getBoundingClientRect());
    document.getElementById("colour-old").style.background = this.before;
    const mine = this.turn + 1;
    await this.#read("hex", this.before);
    if (this.turn === mine && !this.taking) {
      this.hex.focus();
      this.hex.select();
    }
    const answer = await ask(`/kits/${this.bench.kit}/colours`);
    if (!answer.ok) return;
    const offers = await answer.json();
    const take = (colour) => this.#read("hex", colour);
    offer(offers.used, document.getElementById("used"), take);
    offer([...offers.whites, ...offers.blacks], document.getElementById("neutral"), take);
    this.#stand(this.box.getBoundingClientRect());
  }

  /** Below the slot if there is room, else as low as fits. */
  #stand(at) {
    const below = at.height < 100 ? at.bottom + 6 : at.top;
    this.box.style.left = `${Math.max(8, Math.min(at.left, innerWidth - 290))}px`;
    this.box.style.top = `${Math.max(46, Math.min(below, innerHeight - this.box.offsetHeight - 8))}px`;
  }

  #opacitySlot() {
    const path = this.path.replace(/(fill\/)?colour$/, "opacity");
    return document.querySelector(`#sheet .num[data-path="${CSS.escape(path)}"]`);
  }

  /** Ask for a colour in all spaces; the newest answer wins. */
  #read(space, value) {
    this.reading = this.#ask(space, value);
    return this.reading;
  }

  async #ask(space, value) {
    const turn = (this.turn += 1);
    const answer = await ask(`/colour?${new URLSearchParams({ space, value })}`);
    const text = await answer.text();
    if (turn !== this.turn || !this.open) return;
    this.fault.textContent = answer.ok ? "" : wordsOf(text);
    if (!answer.ok) return;
    const all = JSON.parse(text);
    const faded = this.#fades(all.opacity);
    const changed = all.hex !== this.colour || faded;
    this.colour = all.hex;
    if (space !== "hsv") this.#keepHue(all.hsv.map(Number));
    this.#showAll(all);
    if (changed) this.#preview();
  }

  /** Take over the opacity that came with a colour, if any. @returns {boolean} whether it is another one */
  #fades(opacity) {
    if (opacity === null) return false;
    if (!this.fade && opacity < 1)
      this.fault.textContent = "This colour has no opacity of its own; the last digits were left out.";
    if (!this.fade || opacity === Number(this.opacity.value)) return false;
    this.opacity.value = opacity;
    return true;
  }

  /** Greys have no hue: the slider stays where it was. */
  #keepHue([hue, saturation, value]) {
    this.hsv = [saturation && value ? hue : this.hsv[0], value ? saturation : this.hsv[1], value];
  }

  #take(space, values) {
    this.hsv = values;
    this.#marks();
    this.#read(space, values.map((value) => value.toFixed(3)).join(" "));
  }

  #showAll(all) {
    if (document.activeElement !== this.hex) this.hex.value = all.hex;
    for (const row of this.box.querySelectorAll("[data-space]")) {
      row.querySelectorAll("input").forEach((field, index) => {
        if (document.activeElement !== field) field.value = all[row.dataset.space][index];
      });
    }
    document.getElementById("colour-new").style.background = all.hex;
    this.#marks();
  }

  #marks() {
    const [hue, saturation, value] = this.hsv;
    const plane = document.getElementById("plane");
    plane.style.setProperty("--pure", `hsl(${hue} 100% 50%)`);
    plane.firstElementChild.style.left = `${saturation}%`;
    plane.firstElementChild.style.top = `${100 - value}%`;
    plane.setAttribute("aria-valuetext", `saturation ${Math.round(saturation)} %, value ${Math.round(value)} %`);
    const slider = document.getElementById("hue");
    slider.firstElementChild.style.left = `${hue / 3.6}%`;
    slider.setAttribute("aria-valuenow", String(Math.round(hue)));
  }

  #edit() {
    const changes = [{ path: this.path, value: this.colour }];
    const fade = Number(this.opacity.value);
    if (this.fade && fade !== this.fadeBefore) changes.push({ path: this.fade.dataset.path, value: fade });
    return { kind: "set", changes, parts: this.path.includes("*") ? this.bench.state.selected : [] };
  }

  #preview() {
    this.#sayOpacity();
    this.bench.stage.preview(this.#edit());
  }

  #sayOpacity() {
    document.getElementById("opacity-now").textContent = `${Math.round(this.opacity.value * 100)} %`;
  }

  #close() {
    this.open = false;
    this.box.hidden = true;
    document.getElementById(this.slot)?.focus({ preventScroll: true });
  }

  async keep() {
    if (!this.open) return;
    await this.reading;
    if (!this.open) return;
    const changed = this.colour !== this.before || (this.fade && Number(this.opacity.value) !== this.fadeBefore);
    this.#close();
    if (changed) await this.bench.post(this.#edit());
    else this.bench.stage.preview(null);
  }

  restore() {
    this.#close();
    this.bench.stage.preview(null);
  }

  /** The colour of the picture under the pointer. */
  async #seen(event) {
    return this.bench.stage.colourAt(event) || Promise.reject(new Error("There is nothing drawn there."));
  }

  /** The colour that the part under the pointer is painted with itself, whatever lies over it. */
  async #painted(event) {
    const [x, y] = this.bench.stage.toLogical(event);
    const part = this.bench.marks.hits.hit(x, y);
    if (!part) throw new Error("There is no part there.");
    const place = new URLSearchParams({ part: part.id, x, y });
    const answer = await ask(`${this.bench.address}/own-colour?${place}`);
    if (!answer.ok) throw new Error(wordsOf(await answer.text()));
    return (await answer.json()).hex;
  }

  /** The next press on the stage takes a colour there. */
  #fromStage(colourAt) {
    const stage = this.bench.stage;
    this.taking = true;
    stage.element.classList.add("taking");
    const end = () => {
      this.taking = false;
      stage.element.classList.remove("taking");
      stage.element.removeEventListener("pointerdown", take, true);
      document.removeEventListener("keydown", cancel, true);
    };
    const cancel = (event) => {
      if (event.key !== "Escape") return;
      event.stopPropagation();
      end();
    };
    const take = async (event) => {
      event.stopPropagation();
      event.preventDefault();
      end();
      this.hex.blur();
      try {
        await this.#read("hex", await colourAt(event));
      } catch (error) {
        this.fault.textContent = error.message;
      }
    };
    stage.element.addEventListener("pointerdown", take, true);
    document.addEventListener("keydown", cancel, true);
  }

  #key(event) {
    event.stopPropagation();
    if (event.key === "Escape") this.restore();
    if (event.key === "Enter") {
      if (event.target.matches("input")) event.target.blur();
      setTimeout(() => this.#settled(), 0);
    }
    const step = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[event.key];
    const by = (event.shiftKey ? 10 : 1) * (event.altKey ? 0.1 : 1);
    const limit = (value) => Math.min(100, Math.max(0, value));
    if (step && event.target.id === "plane") {
      this.#take("hsv", [this.hsv[0], limit(this.hsv[1] + step[0] * by), limit(this.hsv[2] + step[1] * by)]);
      event.preventDefault();
    }
    if (step && event.target.id === "hue") {
      this.#take("hsv", [(this.hsv[0] + (step[0] + step[1]) * by + 360) % 360, this.hsv[1], this.hsv[2]]);
      event.preventDefault();
    }
  }

  /** Keep once the last conversion has come back. */
  async #settled() {
    const turn = this.turn;
    await this.#read("hex", this.hex.value || this.colour);
    if (this.turn >= turn && !this.fault.textContent) this.keep();
  }

  #drag(node, take) {
    node.addEventListener("pointerdown", (event) => {
      const move = (at) => {
        const box = node.getBoundingClientRect();
        const limit = (value) => Math.min(1, Math.max(0, value));
        take(limit((at.clientX - box.left) / box.width), limit((at.clientY - box.top) / box.height));
      };
      move(event);
      follow(event, { move });
    });
  }
}
