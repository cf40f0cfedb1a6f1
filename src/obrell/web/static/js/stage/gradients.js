/**
 * Handles of the open effect's gradient on the art: ends or centre, radii, focus, angle, every stop on its line.
 *
 * @typedef {import("./types.js").Gradient} Gradient
 * @typedef {import("./types.js").Handle} Handle
 * @typedef {import("./types.js").Marks} Marks
 * @typedef {import("./types.js").Point} Point
 * @typedef {import("./types.js").ScenePart} ScenePart
 */
import { svg } from "../ui/svg.js";
import { named } from "./handles.js";
import { short } from "./plane.js";

const BEYOND_PX = 16;
/** Nearer to the centre than this a stop stands beside it: the centre moves the whole gradient. */
const BESIDE_PX = 15;
const REACH_PX = 8;
/** @type {Object<string, string>} */
const NAMES = {
  from: "start",
  to: "end",
  down: "other radius",
  focus: "focus",
  centre: "moves the gradient",
  line: "moves the gradient along its line",
};

/** @param {string} name @returns {string} what a handle is called */
function called(name) {
  return NAMES[name] ?? `stop ${Number(name.slice(5)) + 1}`;
}

export class Gradients {
  /** @param {Marks} marks */
  constructor(marks) {
    this.marks = marks;
  }

  /** Where the open gradient lies: while something is dragged, as the server shows it. @returns {Gradient|null} */
  get now() {
    return this.marks.gradient || this.marks.bench.state.gradient;
  }

  /** @param {ScenePart|null} part */
  draw(part) {
    const gradient = this.now;
    if (!part || !gradient || gradient.part !== part.id) return;
    /** @param {Point} point @returns {Point} */
    const place = ([x, y]) => this.marks.stage.toScreen(x, y);
    const at = Object.fromEntries(Object.entries(gradient.handles).map(([name, point]) => [name, place(point)]));
    for (const [from, to] of gradient.lines) this.#line(`M${place(from)}L${place(to)}`);
    if (at.line) this.#hold(svg("path", { class: "ramp-reach", d: `M${at.from}L${at.to}` }), "line");
    this.#ends(at);
    if (at.focus) {
      const [x, y] = at.focus;
      this.#line(`M${x} ${y}v${-BEYOND_PX}`);
      this.#dot([x, y - BEYOND_PX], "focus", 4.5);
    }
    gradient.stops.forEach((fill, number) => this.#stop(at, number, fill));
    if (at.centre) this.#dot(at.centre, "centre", 9, { class: "ramp-dot ring" });
  }

  /** @param {string} d */
  #line(d) {
    this.marks.svg.append(svg("path", { class: "ramp-line", d }));
  }

  /** @param {SVGElement} node @param {string} name */
  #hold(node, name) {
    node.dataset.gradient = name;
    this.marks.svg.append(named(node, called(name)));
  }

  /** @param {Point} at @param {string} name @param {number} r @param {Object<string, string>} [more] */
  #dot([cx, cy], name, r, more = {}) {
    const reach = svg("circle", { class: "ramp-reach", cx, cy, r: Math.max(r, REACH_PX) });
    this.#hold(reach, name);
    this.#hold(svg("circle", { class: "ramp-dot", cx, cy, r, ...more }), name);
  }

  /** Ends are taken hold of a little beyond the stop that lies there. @param {Object<string, Point>} at */
  #ends(at) {
    const inner = { to: at.from || at.centre, down: at.centre, from: at.to };
    for (const [name, [fx, fy]] of Object.entries(inner).filter(([key]) => at[key])) {
      const [x, y] = at[name];
      const away = Math.hypot(x - fx, y - fy) || 1;
      /** @type {Point} */
      const beyond = [x + ((x - fx) / away) * BEYOND_PX, y + ((y - fy) / away) * BEYOND_PX];
      this.#line(`M${x} ${y}L${beyond}`);
      this.#dot(beyond, name, 6.5);
    }
  }

  /**
   * A stop on its line; one that lies on the centre stands beside it.
   *
   * @param {Object<string, Point>} at @param {number} number @param {string} fill
   */
  #stop(at, number, fill) {
    const [x, y] = at[`stop ${number}`];
    const [cx, cy] = at.centre || [Infinity, Infinity];
    if (Math.hypot(x - cx, y - cy) >= BESIDE_PX) {
      this.#dot([x, y], `stop ${number}`, 5, { fill });
      return;
    }
    const [tx, ty] = at.to;
    const long = Math.hypot(tx - cx, ty - cy) || 1;
    const far = BESIDE_PX + 4;
    // Across the line, away from where the focus is taken hold of.
    /** @type {Point} */
    const beside = [x - ((ty - cy) / long) * far, y + ((tx - cx) / long) * far];
    this.#line(`M${x} ${y}L${beside}`);
    this.#dot(beside, `stop ${number}`, 5, { fill });
  }

  /** @param {string} handle @returns {Handle|null} */
  handle(handle) {
    const saved = this.marks.bench.state.gradient;
    if (!saved?.handles[handle]) return null;
    const { part, effect, handles } = saved;
    const [x, y] = handles[handle];
    return {
      words: called(handle),
      value: () => (this.now?.handles[handle] ?? [x, y]).map(short).join(", "),
      edit: (dx, dy, keys) => ({
        kind: "move-gradient",
        part,
        effect,
        handle,
        x: x + dx,
        y: y + dy,
        steps: keys.shiftKey,
        centred: keys.altKey,
        snap: this.marks.placing(keys),
      }),
    };
  }
}
