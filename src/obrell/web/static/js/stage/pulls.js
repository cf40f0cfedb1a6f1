/** What is pulled on the stage: new parts, handles, guides, edges of the canvas. */
import { follow } from "../ui/drags.js";
import { say } from "../ui/page.js";
import { RULER_PX } from "./bars.js";

const modifiers = (event) => ({ constrained: event.shiftKey, centred: event.altKey });

export class Pulls {
  /** @param {object} marks */
  constructor(marks) {
    this.marks = marks;
  }

  /** A guide pulled out of a ruler; let go on the ruler it is none. */
  pullGuide(event, axis) {
    const at = (move) => {
      const [x, y] = this.marks.stage.toLogical(move);
      return this.marks.whole(axis === "across" ? x : y);
    };
    const leave = () => {
      this.marks.newGuide = null;
      this.marks.draw();
    };
    follow(event, {
      move: (now) => {
        this.marks.newGuide = { axis, at: at(now) };
        this.marks.draw();
      },
      done: (now) => {
        leave();
        const box = this.marks.stage.element.getBoundingClientRect();
        const far = axis === "across" ? now.clientX - box.left : now.clientY - box.top;
        if (far > RULER_PX) this.marks.bench.post({ kind: "add-guide", axis, at: at(now) });
      },
      back: leave,
    });
  }

  dragGuide(event, id) {
    const { axis } = this.marks.now.guides.find((guide) => guide.id === id);
    const box = this.marks.stage.element.getBoundingClientRect();
    this.marks.follow(event, (dx, dy, now) => {
      const far = axis === "across" ? now.clientX - box.left : now.clientY - box.top;
      if (far < RULER_PX) return { kind: "remove-guides", guide: id };
      return { kind: "move-guide", guide: id, by: this.marks.whole(axis === "across" ? dx : dy) };
    });
  }

  drawPart(event) {
    const shape = this.marks.tool;
    const [x, y] = this.marks.stage.toLogical(event).map((value) => this.marks.fine(value));
    this.marks.drawing = true;
    const edit = (dx, dy, at) => ({
      kind: "draw",
      shape,
      values: this.marks.values,
      x0: x,
      y0: y,
      x1: this.marks.fine(x + dx),
      y1: this.marks.fine(y + dy),
      ...modifiers(at),
      snap: this.marks.snap,
    });
    this.marks.follow(event, edit, (moved) => {
      this.marks.drawing = false;
      this.marks.take("");
      if (!moved) this.marks.bench.post(edit(0, 0, event));
    });
  }

  resize(event, handle) {
    const part = this.marks.bench.part;
    let last = null;
    this.marks.follow(
      event,
      (dx, dy, at) => {
        last = {
          kind: "resize",
          part: part.id,
          handle,
          dx: this.marks.fine(dx),
          dy: this.marks.fine(dy),
          ...modifiers(at),
          snap: this.marks.snap,
        };
        return last;
      },
      (moved) => moved && this.#askForEffects(last),
    );
  }

  crop(event, handle) {
    const { part } = this.marks.bench;
    this.marks.follow(event, (dx, dy) => ({
      kind: "crop",
      part: part.id,
      handle,
      dx: this.marks.fine(dx),
      dy: this.marks.fine(dy),
    }));
  }

  /** After a pull, the lengths of effects can be made to scale along. */
  #askForEffects(edit) {
    const part = this.marks.bench.state.clip.find((one) => one.id === edit.part);
    if (!part?.effects.length) return;
    say(`The effects of ${part.name} kept their lengths.`, {
      words: "Scale them along",
      act: async () => {
        await this.marks.bench.step("undo");
        this.marks.bench.post({ ...edit, effects: true });
      },
    });
  }

  turn(event, id) {
    const part = this.marks.bench.partOf(id);
    const angleOf = (x, y) => (Math.atan2(x - part.x, part.y - y) * 180) / Math.PI;
    const [x, y] = this.marks.stage.toLogical(event);
    const from = angleOf(x, y);
    this.marks.follow(event, (dx, dy, at) => {
      const degrees = part.turn + angleOf(x + dx, y + dy) - from;
      return { kind: "turn", part: id, degrees: Math.round(degrees * 10) / 10, constrained: at.shiftKey };
    });
  }

  canvas(event, side) {
    this.marks.sizing = true;
    const outwards = { left: (dx) => -dx, right: (dx) => dx, top: (dx, dy) => -dy, bottom: (dx, dy) => dy }[side];
    this.marks.follow(
      event,
      (dx, dy, at) => ({
        kind: "canvas-edges",
        [side]: Math.round(outwards(dx, dy)),
        centred: at.altKey,
      }),
      () => {
        this.marks.sizing = false;
        this.marks.draw();
      },
    );
  }
}
