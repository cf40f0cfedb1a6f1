/**
 * The tray: controls of the kit, dragged onto the panel or put into its middle by keys.
 *
 * @typedef {import("../trial.js").Trial} Trial
 */
import { all, byId, closest } from "../ui/dom.js";
import { follow } from "../ui/drags.js";
import { buttonAt } from "./fixtures.js";

const DRAG_FROM_PX = 3;

class Tray {
  /** @param {Trial} trial */
  constructor(trial) {
    this.trial = trial;
    byId("tray").addEventListener("pointerdown", (event) => this.#take(event));
    byId("tray").addEventListener("click", (event) => this.#click(event));
    byId("find-tile").addEventListener("input", () => this.#find());
    byId("find-tile").addEventListener("keydown", (event) => {
      const first = all("[data-put]", byId("tray")).find((tile) => !tile.hidden);
      if (event.key === "Enter" && first) this.#middle(first);
    });
  }

  /** A control dragged from the tray: put where it is let go, or in place of the plain button there.
   * @param {PointerEvent} event */
  #take(event) {
    const tile = closest(event, "[data-put]");
    if (!tile || event.button !== 0) return;
    const ghost = /** @type {HTMLElement} */ (tile.cloneNode(true));
    ghost.classList.add("ghost");
    const put = () => ghost.remove();
    follow(event, {
      from: DRAG_FROM_PX,
      move: (at) => {
        if (!ghost.isConnected) document.body.append(ghost);
        ghost.style.left = `${at.clientX}px`;
        ghost.style.top = `${at.clientY}px`;
      },
      done: (at, moved) => {
        put();
        if (moved) this.#put(tile, at);
      },
      back: put,
    });
  }

  /** @param {HTMLElement} tile @param {PointerEvent} at */
  #put(tile, at) {
    const [x, y] = this.trial.stand.place(at);
    const { width, height, fixtures } = this.trial.screen;
    if (x < 0 || y < 0 || x > width || y > height) return;
    byId("screen").focus({ preventScroll: true });
    const control = tile.dataset.put;
    const button = buttonAt(fixtures, [x, y]);
    if (button) this.trial.saving.edit({ kind: "swap", fixture: button.id, control });
    else {
      const [wide, high] = [Number(tile.dataset.width), Number(tile.dataset.height)];
      this.trial.saving.edit({ kind: "put", control, x: Math.round(x - wide / 2), y: Math.round(y - high / 2) });
    }
  }

  /** Only tiles whose names have what is typed. */
  #find() {
    const field = /** @type {HTMLInputElement} */ (byId("find-tile"));
    const wanted = field.value.trim().toLowerCase();
    for (const tile of all("[data-put]", byId("tray")))
      tile.hidden = !(tile.textContent ?? "").toLowerCase().includes(wanted);
  }

  /** By keys, a control is put in the middle: a press by keys has no place. @param {MouseEvent} event */
  #click(event) {
    const tile = closest(event, "[data-put]");
    if (tile && !event.detail) this.#middle(tile);
  }

  /** @param {HTMLElement} tile */
  #middle(tile) {
    // What is put there is what keys go on with.
    byId("screen").focus({ preventScroll: true });
    const { width, height } = this.trial.screen;
    const [wide, high] = [Number(tile.dataset.width), Number(tile.dataset.height)];
    this.trial.saving.edit({
      kind: "put",
      control: tile.dataset.put,
      x: Math.round((width - wide) / 2),
      y: Math.round((height - high) / 2),
    });
  }
}

/** @param {Trial} trial */
export function startTray(trial) {
  new Tray(trial);
}
