/**
 * Arranging: controls put on the panel, chosen, dragged to edges and middles of what else is there, nudged, removed.
 *
 * @typedef {import("../trial.js").Trial} Trial
 */
import { Burst } from "../ui/burst.js";
import { byId, closest } from "../ui/dom.js";
import { follow } from "../ui/drags.js";
import { typing } from "../ui/page.js";
import { svg } from "../ui/svg.js";
import { layFixtures } from "./fixtures.js";
import { snapped } from "./snapping.js";
import { boxOf } from "./stand.js";

const DRAG_FROM_PX = 3;
const FAR_PX = 10;
/** What keys do with what is chosen. @type {Object<string, string>} */
const DOES = { delete: "remove", backspace: "remove", d: "copy" };
/** Keys that choose what they have gone to. */
const PRESSES = ["enter", " "];
/** @type {Object<string, [number, number]>} */
const ARROWS = { arrowleft: [-1, 0], arrowright: [1, 0], arrowup: [0, -1], arrowdown: [0, 1] };

/** What is pressed: a piece, or something of the screen itself. @param {Event} event */
const idAt = (event) =>
  closest(event, "[data-piece]")?.dataset.piece ?? closest(event, "[data-fixture]")?.dataset.fixture ?? "";

export class Arranging {
  /** @param {Trial} trial */
  constructor(trial) {
    this.trial = trial;
    this.on = false;
    /** @type {string[]} */
    this.chosen = [];
    /** Whether N is held: nothing snaps then. */
    this.free = false;
    this.burst = new Burst({
      post: (edit) => this.trial.saving.edit(edit).then(() => this.#preview(null)),
      stage: { preview: (edit) => this.#preview(edit) },
    });
    byId("operate").addEventListener("click", () => this.turn(false));
    byId("arrange").addEventListener("click", () => this.turn(true));
    byId("screen").addEventListener("pointerdown", (event) => this.#press(event));
    document.addEventListener("keydown", (event) => this.#key(event));
    document.addEventListener("keyup", (event) => {
      if (event.key.toLowerCase() === "n") this.free = false;
    });
  }

  /** @param {boolean} on */
  turn(on) {
    this.on = on;
    byId("operate").setAttribute("aria-pressed", String(!on));
    byId("arrange").setAttribute("aria-pressed", String(on));
    byId("tray").hidden = !on;
    byId("fixtures").hidden = !on;
    byId("screen").classList.toggle("arranged", on);
    this.choose(on ? this.chosen : []);
    this.trial.stand.fit();
    this.trial.wake();
  }

  /** @param {string[]} ids */
  choose(ids) {
    const same = ids.join() === this.chosen.join();
    this.chosen = ids;
    this.draw();
    if (!same) this.trial.saving.refresh();
  }

  /** All that are chosen, as they are sent. */
  get ids() {
    return this.chosen.join(",");
  }

  /** The one that is chosen; empty where there are several or none. */
  get one() {
    return this.chosen.length === 1 ? this.chosen[0] : "";
  }

  /** Frames around what is chosen, what the screen itself shows as places; keys go to every piece. */
  draw() {
    const marks = byId("marks");
    const { pieces, fixtures } = this.trial.screen;
    for (const old of marks.querySelectorAll(".frame")) old.remove();
    for (const placed of this.trial.placed.values()) placed.reachable(this.on);
    if (!this.on) return;
    const there = [...pieces, ...fixtures].map(({ id }) => id);
    this.chosen = this.chosen.filter((id) => there.includes(id));
    layFixtures(fixtures, this.chosen);
    for (const { id, x, y, width, height } of pieces)
      if (this.chosen.includes(id)) marks.append(svg("rect", { class: "frame", "data-of": id, x, y, width, height }));
  }

  /** @param {PointerEvent} event */
  #press(event) {
    if (!this.on || event.button !== 0) return;
    event.preventDefault();
    const id = idAt(event);
    byId("screen").focus({ preventScroll: true });
    this.#pick(id, event.shiftKey);
    if (id && this.chosen.length) this.#drag(event, this.chosen);
  }

  /** Choose one, or one more, or one less. @param {string} id empty for nothing @param {boolean} more */
  #pick(id, more) {
    if (more && id)
      this.choose(this.chosen.includes(id) ? this.chosen.filter((one) => one !== id) : [...this.chosen, id]);
    else if (!this.chosen.includes(id)) this.choose(id ? [id] : []);
  }

  /** @param {PointerEvent} event @param {string[]} ids */
  #drag(event, ids) {
    const start = this.trial.stand.place(event);
    let by = [0, 0];
    const end = () => {
      for (const id of ids) this.#shift(id, 0, 0);
      this.#lines([]);
    };
    follow(event, {
      from: DRAG_FROM_PX,
      move: (at) => {
        const [x, y] = this.trial.stand.place(at);
        by = this.#snapped(ids, Math.round(x - start[0]), Math.round(y - start[1]));
        for (const id of ids) this.#shift(id, by[0], by[1]);
      },
      done: (_at, moved) => {
        end();
        if (moved && (by[0] || by[1])) this.trial.saving.edit({ kind: "move", placements: ids, dx: by[0], dy: by[1] });
      },
      back: end,
    });
  }

  /** @param {string} id @param {number} dx @param {number} dy */
  #shift(id, dx, dy) {
    const node = document.getElementById(`piece-${id}`) ?? document.getElementById(`fixture-${id}`);
    const frame = byId("marks").querySelector(`.frame[data-of="${CSS.escape(id)}"]`);
    for (const one of [node, frame])
      if (one instanceof HTMLElement || one instanceof SVGElement)
        one.style.transform = dx || dy ? `translate(${dx}px, ${dy}px)` : "";
  }

  /** @param {string[]} ids @param {number} dx @param {number} dy @returns {[number, number]} */
  #snapped(ids, dx, dy) {
    if (this.free) {
      this.#lines([]);
      return [dx, dy];
    }
    const { width, height, pieces, fixtures } = this.trial.screen;
    const [own, others] = [true, false].map((moved) =>
      [...pieces, ...fixtures]
        .filter((one) => ids.includes(one.id) === moved)
        .map((one) => ("touch" in one ? this.trial.stand.body(one) : boxOf(one))),
    );
    const found = snapped(own, [dx, dy], others, [width, height]);
    this.#lines(found.lines);
    return [found.dx, found.dy];
  }

  /** @param {{axis: "x"|"y", at: number}[]} lines */
  #lines(lines) {
    const marks = byId("marks");
    for (const old of marks.querySelectorAll(".snap")) old.remove();
    const { width, height } = this.trial.screen;
    for (const { axis, at } of lines)
      marks.append(svg("path", { class: "snap", d: axis === "x" ? `M${at} 0V${height}` : `M0 ${at}H${width}` }));
  }

  /** @param {KeyboardEvent} event */
  #key(event) {
    if (!this.on || typing(event) || closest(event, "#tray, .num") || event.ctrlKey || event.metaKey) return;
    const key = event.key.toLowerCase();
    if (key === "n") this.free = true;
    const gone = PRESSES.includes(key) ? idAt(event) : "";
    if (gone) this.#pick(gone, event.shiftKey);
    else if (key === "escape") this.choose([]);
    else if (!this.#does(key, event.shiftKey ? FAR_PX : 1)) return;
    event.preventDefault();
  }

  /** Whether a key does something with what is chosen. @param {string} key @param {number} far px of a step */
  #does(key, far) {
    const copied = DOES[key] === "copy";
    const placements = this.chosen.filter((id) => !copied || this.trial.placed.has(id));
    const arrow = ARROWS[key];
    if (!placements.length || !(arrow || DOES[key])) return false;
    if (arrow) {
      const [dx, dy] = [arrow[0] * far, arrow[1] * far];
      this.burst.add(placements.join(), dx, dy, (across, down) => ({
        kind: "move",
        placements,
        dx: across,
        dy: down,
      }));
    } else {
      this.burst.end();
      this.trial.saving.edit({ kind: DOES[key], placements });
    }
    return true;
  }

  /** What is moved by keys is seen where it will be. @param {any} edit */
  #preview(edit) {
    const { pieces, fixtures } = this.trial.screen;
    for (const { id } of [...pieces, ...fixtures]) {
      const moved = edit?.placements.includes(id);
      this.#shift(id, moved ? edit.dx : 0, moved ? edit.dy : 0);
    }
  }
}
