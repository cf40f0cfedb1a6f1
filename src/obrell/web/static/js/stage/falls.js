/**
 * The handle of the open shadow: from the middle of its part to where it falls.
 *
 * @typedef {import("./types.js").Fall} Fall
 * @typedef {import("./types.js").Handle} Handle
 * @typedef {import("./types.js").Marks} Marks
 * @typedef {import("./types.js").ScenePart} ScenePart
 */
import { svg } from "../ui/svg.js";
import { named } from "./handles.js";
import { short } from "./plane.js";

const WORDS = "where the shadow falls";
const DOT_PX = 6;
const REACH_PX = 10;

export class Falls {
  /** @param {Marks} marks */
  constructor(marks) {
    this.marks = marks;
  }

  /** Where the open shadow falls: while something is dragged, as the server shows it. @returns {Fall|null} */
  get now() {
    return this.marks.fall || this.marks.bench.state.fall;
  }

  /** @param {ScenePart|null} part */
  draw(part) {
    const fall = this.now;
    if (!part || !fall || fall.part !== part.id) return;
    const [x, y] = this.marks.stage.toScreen(...fall.from);
    const [cx, cy] = this.marks.stage.toScreen(...fall.to);
    this.marks.svg.append(svg("path", { class: "ramp-line", d: `M${x} ${y}L${cx} ${cy}` }));
    this.#hold(svg("circle", { class: "ramp-reach", cx, cy, r: REACH_PX }));
    this.#hold(svg("circle", { class: "ramp-dot fall-dot", cx, cy, r: DOT_PX }));
  }

  /** @param {SVGElement} node */
  #hold(node) {
    node.dataset.fall = "to";
    this.marks.svg.append(named(node, WORDS));
  }

  /** @returns {Handle|null} */
  handle() {
    const saved = this.marks.bench.state.fall;
    if (!saved) return null;
    const { part, effect, from, to } = saved;
    return {
      words: WORDS,
      value: () => {
        const [x, y] = this.now?.to ?? to;
        return `${short(x - from[0])} across, ${short(y - from[1])} down`;
      },
      edit: (dx, dy, keys) => ({
        kind: "move-shadow",
        part,
        effect,
        x: to[0] + dx,
        y: to[1] + dy,
        steps: keys.shiftKey,
      }),
    };
  }
}
