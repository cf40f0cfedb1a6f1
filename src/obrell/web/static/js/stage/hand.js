/** The hand that takes hold of what is on the stage: each press is an edit shown live and posted when let go. */
import { follow } from "../ui/drags.js";
import { short } from "./plane.js";

const TWICE_MS = 400;
const TWICE_PX = 5;

export class Hand {
  /** @param {object} marks */
  constructor(marks) {
    this.marks = marks;
    const { element } = marks.stage;
    element.addEventListener("pointerdown", (event) => this.#press(event));
    element.addEventListener("contextmenu", (event) => this.#list(event));
    element.addEventListener("wheel", (event) => this.#wheel(event), { passive: false });
    element.addEventListener("pointermove", (event) => this.#hover(event));
  }

  #hover(event) {
    const { bench, hits, stage } = this.marks;
    if (event.buttons || this.marks.tool || bench.state.selected.length !== 1) return;
    const [leaf] = hits.under(...stage.toLogical(event));
    const over = leaf?.id || null;
    if (over === this.marks.over) return;
    this.marks.over = over;
    this.marks.draw();
  }

  #press(event) {
    if (event.target.closest(".tray, #piled")) return;
    document.getElementById("piled").hidden = true;
    if (event.button === 1 || (event.button === 0 && this.marks.panning)) {
      this.#pan(event);
      return;
    }
    if (event.button !== 0) return;
    this.marks.stage.element.focus({ preventScroll: true });
    event.preventDefault();
    if (this.#twice(event) && this.#deeper(event)) return;
    if (!this.#tool(event) && !this.#mark(event)) this.#grip(event);
  }

  /** What the lamp, the tool in hand, or the points and gradients of the selected part make of a press. */
  #tool(event) {
    const { gradients, lamp, pen, points, pulls, tool } = this.marks;
    if (event.target === lamp.element) lamp.drag(event);
    else if (tool === "pen") pen.press(event);
    else if (tool) pulls.drawPart(event);
    else return gradients.press(event) || points.press(event);
    return true;
  }

  /** What a ruler, a handle, a guide or an edge of the canvas makes of a press. */
  #mark(event) {
    const { handle, turn, edge, guide } = event.target.dataset;
    const ruler = { "ruler-x": "down", "ruler-y": "across" }[event.target.id];
    const { cropping, hits, pulls, stage } = this.marks;
    if (ruler) pulls.pullGuide(event, ruler);
    else if (handle && cropping) pulls.crop(event, handle);
    else if (handle) pulls.resize(event, handle);
    else if (guide && !hits.hit(...stage.toLogical(event))) pulls.dragGuide(event, guide);
    else if (turn) pulls.turn(event, turn);
    else if (edge) pulls.canvas(event, edge);
    else return false;
    return true;
  }

  #wheel(event) {
    event.preventDefault();
    const box = this.marks.stage.element.getBoundingClientRect();
    if (event.ctrlKey || event.metaKey) {
      this.marks.stage.zoomAbout(
        this.marks.stage.zoom * 2 ** (-event.deltaY / 240),
        event.clientX - box.left,
        event.clientY - box.top,
      );
    } else {
      const [dx, dy] = event.shiftKey ? [event.deltaY, event.deltaX] : [event.deltaX, event.deltaY];
      this.marks.stage.look(this.marks.stage.zoom, this.marks.stage.x - dx, this.marks.stage.y - dy);
    }
  }

  #pan(event) {
    event.preventDefault();
    const from = [this.marks.stage.x - event.clientX, this.marks.stage.y - event.clientY];
    const { stage } = this.marks;
    follow(event, { move: (at) => stage.look(stage.zoom, from[0] + at.clientX, from[1] + at.clientY) });
  }

  /** Select what lies under the pointer and move it, or a copy of it. */
  #grip(event) {
    const [x, y] = this.marks.stage.toLogical(event);
    const hit = this.marks.hits.hit(x, y);
    const { selected } = this.marks.bench.state;
    if (!hit) {
      if (!event.shiftKey) this.marks.bench.select([]);
      return;
    }
    if (event.shiftKey && !selected.includes(hit.id)) {
      this.marks.bench.select([...selected, hit.id]);
      return;
    }
    const held = selected.some((id) => id === hit.id || this.marks.bench.under(id, hit.id));
    const ids = held ? selected : [hit.id];
    if (!held) {
      this.marks.bench.near = { parts: hit.id, at: `${short(x)},${short(y)}` };
      this.marks.bench.select(ids);
    }
    const copy = event.ctrlKey || event.metaKey;
    const edit = (dx, dy, at) => ({
      parts: ids,
      constrained: at.shiftKey,
      ...(copy
        ? { kind: "duplicate", dx: this.marks.whole(dx), dy: this.marks.whole(dy) }
        : { kind: "move", dx: this.marks.fine(dx), dy: this.marks.fine(dy), snap: this.marks.snap }),
    });
    this.marks.follow(event, edit, (moved) => {
      if (moved) return;
      if (event.shiftKey) this.marks.bench.select(selected.filter((id) => id !== hit.id));
      else if (held && (selected.length > 1 || selected[0] !== hit.id)) this.marks.bench.select([hit.id]);
      else if (held) this.marks.bench.pressed(ids, x, y);
    });
  }

  /** Whether this is the second of two presses at one place; marks are drawn anew at the first, so
   * the browser's own double click is lost. */
  #twice(event) {
    const { x, y, time } = this.pressed || {};
    const again = event.timeStamp - time < TWICE_MS && Math.hypot(event.clientX - x, event.clientY - y) < TWICE_PX;
    this.pressed = again ? null : { x: event.clientX, y: event.clientY, time: event.timeStamp };
    return again;
  }

  /** Two presses add a point to a path, or go one level deeper into what holds parts. @returns {boolean} */
  #deeper(event) {
    if (this.marks.tool) return false;
    const [x, y] = this.marks.stage.toLogical(event);
    if (event.target.dataset.segment) return this.marks.points.addAt(event, event.target.dataset.segment);
    const [leaf] = this.marks.hits.under(x, y);
    if (!leaf) return false;
    const group = this.marks.hits.innermost(leaf);
    if (!group.holds) return false;
    this.marks.enter(group.id);
    const [inner] = this.marks.hits.under(x, y);
    if (inner) this.marks.bench.select([this.marks.hits.innermost(inner).id]);
    return true;
  }

  /** All parts that lie under the pointer, to pick one from. */
  #list(event) {
    event.preventDefault();
    const box = this.marks.stage.element.getBoundingClientRect();
    const [x, y] = this.marks.stage.toLogical(event);
    const found = this.marks.hits.under(x, y, true);
    const list = document.getElementById("piled");
    list.replaceChildren(
      ...found.map((part) => {
        const button = document.createElement("button");
        button.className = "word";
        button.textContent = part.name;
        button.addEventListener("click", () => {
          list.hidden = true;
          this.marks.bench.select([part.id]);
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
