/**
 * The points of a path or a line on the stage.
 *
 * @typedef {import("./types.js").Edit} Edit
 * @typedef {import("./types.js").Handle} Handle
 * @typedef {import("./types.js").Held} Held
 * @typedef {import("./types.js").Marks} Marks
 * @typedef {import("./types.js").Pull} Pull
 * @typedef {import("./types.js").ScenePart} ScenePart
 * @typedef {import("./knots.js").Side} Side
 */
import { closest } from "../ui/dom.js";
import { arm, drawContour, drawEnds, ENDS, key } from "./knots.js";
import { measured, short, toCanvas } from "./plane.js";

/** @param {string} name @returns {[number, number]} */
const pair = (name) => {
  const [contour, index] = name.split("/").map(Number);
  return [contour, index];
};

/** What has to be chosen first, in words; empty when enough is. @param {string} name @param {number} count */
function lacks(name, count) {
  if (name === "join" && count !== 2)
    return "Choose the two open ends to join: press one, then Shift and press the other.";
  return count ? "" : "Choose points first: press one on the stage, with Shift more.";
}

/** The edit of a word of the sheet. @param {string} name @param {string|undefined} part
 * @param {[number, number][]} points @returns {Edit} */
function saidOf(name, part, points) {
  /** @type {Object<string, Edit>} */
  const edits = {
    smooth: { kind: "bend-points", part, points, smooth: true },
    sharp: { kind: "bend-points", part, points, smooth: false },
    cut: { kind: "cut-open", part, point: points[0] },
    join: { kind: "join-ends", part, points },
    remove: { kind: "remove-points", part, points },
  };
  return edits[name];
}

export class Points {
  /** @param {Marks} marks */
  constructor(marks) {
    this.marks = marks;
    /** @type {Set<string>} */
    this.chosen = new Set();
  }

  /** @returns {string} the chosen points, for the sheet */
  get names() {
    return [...this.chosen].join(",");
  }

  clear() {
    this.chosen.clear();
  }

  /** @param {string[]} names */
  async choose(names) {
    this.chosen = new Set(names);
    this.marks.draw();
    await this.marks.bench.refresh();
  }

  get list() {
    return [...this.chosen].map(pair);
  }

  /** @param {ScenePart|null} part */
  draw(part) {
    if (!part || part.locked) return;
    if (part.ends) drawEnds(this.marks, part);
    part.contours?.forEach((contour, number) => drawContour(this.marks, part, contour, number));
  }

  /** @param {PointerEvent} event @returns {boolean} whether the press was on a point, or on a segment */
  press(event) {
    const { knot, segment } = closest(event, "[data-knot], [data-segment]", SVGElement)?.dataset ?? {};
    const { part } = this.marks.bench;
    if (!part) return false;
    if (knot) this.#dragPoints(event, part, knot);
    else if (segment) this.#dragSegment(event, part, segment);
    else return false;
    return true;
  }

  /** @param {DOMStringMap} data of a mark @returns {Handle|null} */
  handle({ end, grip, knot, side }) {
    const { part } = this.marks.bench;
    if (!part) return null;
    if (end !== undefined) return this.#end(part, Number(end));
    if (knot) return this.#knot(part, knot);
    return grip && (side === "in" || side === "out") ? this.#arm(part, grip, side) : null;
  }

  /**
   * Where a point, or one of its handles, is on the canvas now.
   *
   * @param {string} id @param {string} name @param {Side} [side]
   */
  #place(id, name, side) {
    const part = this.marks.now.parts.find((one) => one.id === id);
    const [contour, index] = pair(name);
    const knot = part?.contours?.[contour]?.knots[index];
    if (!part || !knot) return "";
    const [dx, dy] = side ? arm(knot, side) : [0, 0];
    return toCanvas(part, knot[0] + dx, knot[1] + dy)
      .map(short)
      .join(", ");
  }

  /** @param {ScenePart} part @param {string} name @returns {Handle} */
  #knot(part, name) {
    const names = this.chosen.has(name) ? [name, ...[...this.chosen].filter((other) => other !== name)] : [name];
    return {
      words: `point ${pair(name)[1] + 1}`,
      value: () => this.#place(part.id, name),
      edit: this.#moving(part, names.map(pair)),
    };
  }

  /** @param {ScenePart} part @param {[number, number][]} points the one that is held first @returns {Pull} */
  #moving(part, points) {
    return (dx, dy, keys) => ({
      kind: "move-points",
      part: part.id,
      points,
      dx: this.marks.whole(dx),
      dy: this.marks.whole(dy),
      constrained: keys.shiftKey,
      snap: this.marks.placing(keys),
    });
  }

  /** @param {PointerEvent} event @param {ScenePart} part @param {string} name */
  #dragPoints(event, part, name) {
    let names = this.chosen.has(name) ? [...this.chosen] : [name];
    if (event.shiftKey)
      names = this.chosen.has(name) ? [...this.chosen].filter((other) => other !== name) : [...this.chosen, name];
    this.chosen = new Set(names);
    this.marks.draw();
    const edit = this.#moving(part, [name, ...names.filter((other) => other !== name)].map(pair));
    this.marks.follow(event, edit, (moved) => {
      if (!moved) this.choose(event.shiftKey ? names : [name]);
    });
  }

  /** @param {ScenePart} part @param {string} name @param {Side} side @returns {Handle|null} */
  #arm(part, name, side) {
    const point = pair(name);
    const knot = part.contours?.[point[0]]?.knots[point[1]];
    if (!knot) return null;
    const [ax, ay] = arm(knot, side);
    const [x, y] = toCanvas(part, knot[0] + ax, knot[1] + ay);
    return {
      words: `handle ${side} of point ${point[1] + 1}`,
      value: () => this.#place(part.id, name, side),
      edit: (dx, dy, keys) => ({
        kind: "move-handle",
        part: part.id,
        point,
        side,
        x: x + dx,
        y: y + dy,
        alone: keys.altKey,
        constrained: keys.shiftKey,
      }),
    };
  }

  /** @param {PointerEvent} event @param {ScenePart} part @param {string} name */
  #dragSegment(event, part, name) {
    const point = pair(name);
    const [x, y] = this.marks.stage.toLogical(event);
    this.marks.follow(
      event,
      (dx, dy) => ({ kind: "drag-segment", part: part.id, point, x, y, dx, dy }),
      (moved) => {
        if (!moved) this.choose([name]);
      },
    );
  }

  /** @param {ScenePart} part @param {number} index @returns {Handle} */
  #end(part, index) {
    return {
      words: `${ENDS[index]} of the line`,
      value: () => {
        const now = this.marks.now.parts.find((one) => one.id === part.id);
        const [start, end] = (now?.ends ?? []).map(([x, y]) => toCanvas(now ?? part, x, y));
        return start ? measured(end[0] - start[0], end[1] - start[1]) : "";
      },
      edit: (dx, dy, keys) => ({
        kind: "move-end",
        part: part.id,
        end: ENDS[index],
        dx: this.marks.whole(dx),
        dy: this.marks.whole(dy),
        constrained: keys.shiftKey,
        centred: keys.altKey,
        snap: this.marks.placing(keys),
      }),
    };
  }

  /** A double press on a segment adds a point there. @param {PointerEvent} event @param {string} name */
  addAt(event, name) {
    const { part } = this.marks.bench;
    if (!part) return false;
    const point = pair(name);
    const [x, y] = this.marks.stage.toLogical(event);
    this.chosen = new Set([key(point[0], point[1] + 1)]);
    this.marks.bench.post({ kind: "add-point", part: part.id, point, x, y });
    return true;
  }

  /** The edit that moves the chosen points. @param {number} dx @param {number} dy @returns {Edit} */
  moved(dx, dy) {
    return { kind: "move-points", part: this.marks.bench.part?.id, points: this.list, dx, dy };
  }

  /** A word of the sheet, for the chosen points. @param {string} name */
  command(name) {
    const { bench } = this.marks;
    const points = this.list;
    const lacking = lacks(name, points.length);
    if (lacking) {
      bench.complain(lacking);
      return;
    }
    if (name !== "smooth" && name !== "sharp") this.clear();
    bench.post(saidOf(name, bench.part?.id, points));
  }
}
