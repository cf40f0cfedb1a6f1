/**
 * What lies under a place of the stage.
 *
 * @typedef {import("./types.js").ScenePart} ScenePart
 */
import { toOwn } from "./plane.js";

const HAIR_PX = 3;
const KEPT = 2000;
const probe = /** @type {CanvasRenderingContext2D} */ (document.createElement("canvas").getContext("2d"));
/** @type {Map<string, Path2D>} */
const outlines = new Map();

/** @param {ScenePart} part */
function outlineOf(part) {
  const known = outlines.get(part.outline);
  if (known) return known;
  if (outlines.size > KEPT) outlines.clear();
  const made = new Path2D(part.outline);
  outlines.set(part.outline, made);
  return made;
}

/**
 * Whether a place is on a part's shape, or within a hair of its edge; words count as their box.
 *
 * @param {ScenePart} part @param {number} x @param {number} y logical px @param {number} hair logical px
 */
function inside(part, x, y, hair = 0) {
  const [u, v] = toOwn(part, x, y);
  const [left, top, right, bottom] = part.frame;
  if (part.kind === "text") return u >= left && u <= right && v >= top && v <= bottom;
  probe.lineWidth = 2 * hair;
  const outline = outlineOf(part);
  return probe.isPointInPath(outline, u, v) || (hair > 0 && probe.isPointInStroke(outline, u, v));
}

export class Hits {
  /** @param {import("./types.js").Marks} marks */
  constructor(marks) {
    this.marks = marks;
    /** @param {string|null} id */
    this.partOf = (id) => (id ? marks.bench.partOf(id) : undefined);
  }

  /** The containers worked in, from the innermost outwards. @returns {Set<string>} */
  #entered() {
    const found = new Set();
    for (let up = this.partOf(this.marks.inner); up; up = this.partOf(up.within)) found.add(up.id);
    return found;
  }

  /**
   * Whether a place lies within all that clips a part, and what it lies in.
   *
   * @param {ScenePart} part @param {number} x @param {number} y logical px
   */
  #unclipped(part, x, y) {
    const seen = new Set();
    for (let up = /** @type {ScenePart|undefined} */ (part); up; up = this.partOf(up.within)) {
      for (let clip = this.partOf(up.clip); clip && !seen.has(clip); clip = this.partOf(clip.clip)) {
        if (!inside(clip, x, y)) return false;
        seen.add(clip);
      }
    }
    return true;
  }

  /**
   * Parts under a place, front-most first; a group is reached through what lies in it, and so is a combination or a
   * repeat that is worked in.
   *
   * @param {number} x @param {number} y logical px
   * @param {boolean} [pieces] also the pieces of combinations and repeats that are not worked in
   */
  under(x, y, pieces = false) {
    const { parts } = this.marks.bench.state.scene;
    const entered = this.#entered();
    const closed = new Set();
    for (const part of parts) if (part.holds === "pieces" && !entered.has(part.id)) closed.add(part.id);
    const { partOf } = this;
    /** @param {ScenePart} part */
    const sealed = (part) => {
      for (let up = pieces ? undefined : partOf(part.within); up; up = partOf(up.within))
        if (closed.has(up.id)) return true;
      return false;
    };
    /** @param {ScenePart|undefined} part */
    const hidden = (part) => {
      for (let up = part; up; up = partOf(up.within)) if (!up.visible) return true;
      return false;
    };
    const hair = HAIR_PX / this.marks.stage.zoom;
    return [...parts]
      .reverse()
      .filter(
        (part) =>
          part.holds !== "parts" &&
          !entered.has(part.id) &&
          !hidden(part) &&
          (!sealed(part) || this.marks.bench.state.selected.includes(part.id)) &&
          inside(part, x, y, hair) &&
          this.#unclipped(part, x, y),
      );
  }

  /**
   * What a press at a place takes hold of: the outermost group, or what lies in the group worked in.
   *
   * @param {number} x @param {number} y logical px
   */
  hit(x, y) {
    const [leaf] = this.under(x, y);
    if (!leaf) return null;
    if (this.marks.bench.state.selected.includes(leaf.id)) return leaf;
    return this.innermost(leaf);
  }

  /**
   * The part that a press on a leaf means: the outermost, or what lies in the group worked in.
   *
   * @param {ScenePart} leaf
   */
  innermost(leaf) {
    let part = leaf;
    while (part.within && part.within !== this.marks.inner) {
      const outer = this.partOf(part.within);
      if (!outer) break;
      part = outer;
    }
    return part;
  }
}
