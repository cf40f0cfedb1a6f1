/** What lies under a place of the stage. */
import { toOwn } from "./plane.js";

const HAIR_PX = 3;
const KEPT = 2000;
const probe = document.createElement("canvas").getContext("2d");
const outlines = new Map();

function outlineOf(part) {
  if (!outlines.has(part.outline)) {
    if (outlines.size > KEPT) outlines.clear();
    outlines.set(part.outline, new Path2D(part.outline));
  }
  return outlines.get(part.outline);
}

/** Whether a place is on a part's shape, or within a hair of its edge; words count as their box. */
function inside(part, x, y, hair = 0) {
  const [u, v] = toOwn(part, x, y);
  const [left, top, right, bottom] = part.frame;
  if (part.kind === "text") return u >= left && u <= right && v >= top && v <= bottom;
  probe.lineWidth = 2 * hair;
  const outline = outlineOf(part);
  return probe.isPointInPath(outline, u, v) || (hair > 0 && probe.isPointInStroke(outline, u, v));
}

export class Hits {
  /** @param {object} marks */
  constructor(marks) {
    this.marks = marks;
  }

  /** Parts under a place, front-most first; a group is reached through what lies in it. */
  under(x, y) {
    const { parts } = this.marks.bench.state.scene;
    const closed = new Set();
    for (const part of parts) if (part.kind === "combination" || part.kind === "repeat") closed.add(part.id);
    const sealed = (part) => {
      for (let up = part.within; up; up = this.marks.bench.partOf(up).within) if (closed.has(up)) return true;
      return false;
    };
    const hidden = (part) => {
      for (let up = part; up; up = up.within && this.marks.bench.partOf(up.within)) if (!up.visible) return true;
      return false;
    };
    const hair = HAIR_PX / this.marks.stage.zoom;
    return [...parts]
      .reverse()
      .filter(
        (part) =>
          part.kind !== "group" &&
          !hidden(part) &&
          (!sealed(part) || this.marks.bench.state.selected.includes(part.id)) &&
          inside(part, x, y, hair),
      );
  }

  /** What a press at a place takes hold of: the outermost group, or what lies in the group worked in. */
  hit(x, y) {
    const [leaf] = this.under(x, y);
    if (!leaf) return null;
    if (this.marks.bench.state.selected.includes(leaf.id)) return leaf;
    return this.innermost(leaf);
  }

  /** The part that a press on a leaf means: the outermost, or what lies in the group worked in. */
  innermost(leaf) {
    let part = leaf;
    while (part.within && part.within !== this.marks.inner) part = this.marks.bench.partOf(part.within);
    return part;
  }
}
