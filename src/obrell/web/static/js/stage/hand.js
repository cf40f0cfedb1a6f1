/**
 * The hand that takes hold of what is on the stage: each press is an edit shown live and posted when let go.
 *
 * @typedef {import("./types.js").Marks} Marks
 * @typedef {import("./types.js").Axis} Axis
 * @typedef {import("./types.js").Pull} Pull
 */
import { byId, closest } from "../ui/dom.js";
import { follow } from "../ui/drags.js";
import { HANDLES, handleOf } from "./handles.js";
import { short } from "./plane.js";

/** Whether a part lies in another, however deep.
 * @param {import("../ui/types.js").Bench} bench @param {string} outer @param {string} inner */
function under(bench, outer, inner) {
  for (let part = bench.partOf(inner); part?.within; part = bench.partOf(part.within)) {
    if (part.within === outer) return true;
  }
  return false;
}

const TWICE_MS = 400;
const TWICE_PX = 5;
const HALVING_PX = 240;
const HELD = HANDLES.map((name) => `[data-${name}]`).join(",");
/** @type {Object<string, Axis>} */
const RULERS = { "ruler-x": "down", "ruler-y": "across" };

export class Hand {
  /** @param {Marks} marks */
  constructor(marks) {
    this.marks = marks;
    /** @type {{x: number, y: number, time: number}|null} */
    this.pressed = null;
    const { element } = marks.stage;
    element.addEventListener("pointerdown", (event) => this.#press(event));
    element.addEventListener("contextmenu", (event) => this.#list(event));
    element.addEventListener("wheel", (event) => this.#wheel(event), { passive: false });
    element.addEventListener("pointermove", (event) => this.#hover(event));
  }

  /** @param {PointerEvent} event */
  #hover(event) {
    const { bench, hits, stage } = this.marks;
    if (event.buttons || this.marks.tool || bench.state.selected.length !== 1) return;
    const [leaf] = hits.under(...stage.toLogical(event));
    const over = leaf?.id ?? null;
    if (over === this.marks.over) return;
    this.marks.over = over;
    this.marks.draw();
  }

  /** @param {PointerEvent} event */
  #press(event) {
    if (closest(event, ".tray, #piled")) return;
    byId("piled").hidden = true;
    if (event.button === 1 || (event.button === 0 && this.marks.panning)) {
      this.#pan(event);
      return;
    }
    if (event.button !== 0) return;
    this.marks.stage.element.focus({ preventScroll: true });
    this.marks.walk.at = "";
    event.preventDefault();
    if (this.#twice(event) && this.#deeper(event)) return;
    if (!this.#tool(event) && !this.#mark(event)) this.#grip(event);
  }

  /**
   * What the lamp, the tool in hand, or the points of the selected part make of a press.
   *
   * @param {PointerEvent} event
   */
  #tool(event) {
    const { lamp, pen, points, pulls, tool } = this.marks;
    if (event.target === lamp.element) lamp.drag(event);
    else if (tool === "pen") pen.press(event);
    else if (tool) pulls.drawPart(event);
    else return points.press(event);
    return true;
  }

  /** What a ruler, or something that can be taken hold of, makes of a press. @param {PointerEvent} event */
  #mark(event) {
    const { guides, hits, stage } = this.marks;
    const ruler = event.target instanceof Element ? RULERS[event.target.id] : undefined;
    if (ruler) {
      guides.pull(event, ruler);
      return true;
    }
    const node = closest(event, HELD, SVGElement);
    // A guide that lies over the art leaves the press to it.
    if (!node || (node.dataset.guide && hits.hit(...stage.toLogical(event)))) return false;
    const handle = handleOf(this.marks, node.dataset);
    if (!handle) return false;
    handle.begin?.();
    this.marks.follow(event, handle.edit, handle.after);
    return true;
  }

  /** @param {WheelEvent} event */
  #wheel(event) {
    event.preventDefault();
    const { stage } = this.marks;
    if (event.ctrlKey || event.metaKey) {
      const box = stage.element.getBoundingClientRect();
      const zoom = stage.zoom * 2 ** (-event.deltaY / HALVING_PX);
      stage.zoomAbout(zoom, event.clientX - box.left, event.clientY - box.top);
    } else {
      const [dx, dy] = event.shiftKey ? [event.deltaY, event.deltaX] : [event.deltaX, event.deltaY];
      stage.look(stage.zoom, stage.x - dx, stage.y - dy);
    }
  }

  /** @param {PointerEvent} event */
  #pan(event) {
    event.preventDefault();
    const { stage } = this.marks;
    const from = [stage.x - event.clientX, stage.y - event.clientY];
    follow(event, { move: (at) => stage.look(stage.zoom, from[0] + at.clientX, from[1] + at.clientY) });
  }

  /** Select what lies under the pointer and move it, or a copy of it. @param {PointerEvent} event */
  #grip(event) {
    const { bench, hits, stage } = this.marks;
    const [x, y] = stage.toLogical(event);
    const hit = hits.hit(x, y);
    const { selected } = bench.state;
    if (!hit) {
      if (!event.shiftKey) bench.select([]);
      return;
    }
    if (event.shiftKey && !selected.includes(hit.id)) {
      bench.select([...selected, hit.id]);
      return;
    }
    const held = selected.some((id) => id === hit.id || under(bench, id, hit.id));
    const ids = held ? selected : [hit.id];
    if (!held) {
      bench.near = { parts: hit.id, at: `${short(x)},${short(y)}` };
      bench.select(ids);
    }
    this.marks.follow(event, this.#moving(ids, event.ctrlKey || event.metaKey), (moved) => {
      if (moved) return;
      if (event.shiftKey) bench.select(selected.filter((id) => id !== hit.id));
      else if (held && (selected.length > 1 || selected[0] !== hit.id)) bench.select([hit.id]);
      else if (held) bench.pressed(ids, x, y);
    });
  }

  /** @param {string[]} parts @param {boolean} copy @returns {Pull} */
  #moving(parts, copy) {
    return (dx, dy, keys) => ({
      kind: copy ? "duplicate" : "move",
      parts,
      dx: this.marks.fine(dx),
      dy: this.marks.fine(dy),
      constrained: keys.shiftKey,
      snap: this.marks.snap,
    });
  }

  /** Whether this is the second of two presses at one place; marks are drawn anew at the first, so
   * the browser's own double click is lost. @param {PointerEvent} event */
  #twice(event) {
    const last = this.pressed;
    const again =
      last !== null &&
      event.timeStamp - last.time < TWICE_MS &&
      Math.hypot(event.clientX - last.x, event.clientY - last.y) < TWICE_PX;
    this.pressed = again ? null : { x: event.clientX, y: event.clientY, time: event.timeStamp };
    return again;
  }

  /** Two presses add a point to a path, or go one level deeper into what holds parts. @param {PointerEvent} event */
  #deeper(event) {
    const { bench, hits, points, stage, tool } = this.marks;
    if (tool) return false;
    const [x, y] = stage.toLogical(event);
    const { segment } = closest(event, "[data-segment]", SVGElement)?.dataset ?? {};
    if (segment) return points.addAt(event, segment);
    const [leaf] = hits.under(x, y);
    if (!leaf) return false;
    const group = hits.innermost(leaf);
    if (!group.holds) return false;
    this.marks.enter(group.id);
    const [inner] = hits.under(x, y);
    if (inner) bench.select([hits.innermost(inner).id]);
    return true;
  }

  /** All parts that lie under the pointer, to pick one from. @param {MouseEvent} event */
  #list(event) {
    event.preventDefault();
    const { bench, hits, stage } = this.marks;
    const box = stage.element.getBoundingClientRect();
    const found = hits.under(...stage.toLogical(event), true);
    const list = byId("piled");
    list.replaceChildren(
      ...found.map((part) => {
        const button = document.createElement("button");
        button.className = "word";
        button.textContent = part.name;
        button.addEventListener("click", () => {
          list.hidden = true;
          bench.select([part.id]);
        });
        return button;
      }),
    );
    list.hidden = found.length === 0;
    list.style.left = `${event.clientX - box.left}px`;
    list.style.top = `${event.clientY - box.top}px`;
    list.querySelector("button")?.focus();
  }
}
