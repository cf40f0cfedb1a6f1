/**
 * Everything on the stage by keys: from handle to handle, each led by the arrows, and from part to part.
 *
 * @typedef {import("./types.js").Marks} Marks
 * @typedef {import("./types.js").Edit} Edit
 */
import { byId } from "../ui/dom.js";
import { svg } from "../ui/svg.js";
import { HANDLES, handleOf } from "./handles.js";

const SELECTOR = HANDLES.map((name) => `[data-${name}]`).join(",");
const AIR_PX = 5;
/** By keys alone: nothing is drawn to what is near. */
const LED = { shiftKey: false, altKey: false, led: true };

/** @param {SVGElement} node what tells a handle from all others */
function keyOf(node) {
  const { side = "" } = node.dataset;
  const name = HANDLES.find((one) => node.dataset[one] !== undefined) ?? "";
  return `${name} ${node.dataset[name]} ${side}`;
}

export class Walk {
  /** @param {Marks} marks */
  constructor(marks) {
    this.marks = marks;
    /** The handle that keys lead, by its key; empty for none. */
    this.at = "";
    this.said = "";
  }

  /** Every handle once, in the order that keys go. @returns {Map<string, SVGElement>} */
  get #handles() {
    const nodes = [...this.marks.svg.querySelectorAll(SELECTOR)].filter((node) => node instanceof SVGElement);
    const rank = (/** @type {SVGElement} */ node) => HANDLES.findIndex((one) => node.dataset[one] !== undefined);
    nodes.sort((one, other) => rank(one) - rank(other));
    return new Map(nodes.map((node) => [keyOf(node), node]));
  }

  /** Go to the next handle, or to the one before. @param {1|-1} way */
  step(way) {
    const keys = [...this.#handles.keys()];
    if (!keys.length) return;
    const now = keys.indexOf(this.at);
    const next = now < 0 ? (way > 0 ? 0 : keys.length - 1) : (now + way + keys.length) % keys.length;
    this.at = keys[next];
    this.marks.draw();
  }

  leave() {
    this.at = "";
    this.marks.draw();
  }

  /** What arrow keys make of the handle. @returns {((dx: number, dy: number) => Edit|null)|null} */
  get edit() {
    const node = this.#handles.get(this.at);
    const handle = node && handleOf(this.marks, node.dataset);
    return handle ? (dx, dy) => handle.edit(dx, dy, LED) : null;
  }

  /** The handle with what it is at, seen and spoken. */
  draw() {
    const node = this.at ? this.#handles.get(this.at) : undefined;
    if (!node) this.at = "";
    const handle = node && handleOf(this.marks, node.dataset);
    this.#say(handle ? `${handle.words}, ${handle.value()}` : "");
    if (!handle || !(node instanceof SVGGraphicsElement)) return;
    const { x, y, width, height } = node.getBBox();
    const box = { x: x - AIR_PX, y: y - AIR_PX, width: width + 2 * AIR_PX, height: height + 2 * AIR_PX, rx: AIR_PX };
    this.marks.svg.append(
      svg("rect", { class: "walked", ...box }),
      svg("text", { class: "walked-words", x: x + width / 2, y: y - 12 }, this.said),
    );
  }

  /** @param {string} words */
  #say(words) {
    if (words === this.said) return;
    this.said = words;
    byId("walked").textContent = words;
  }

  /** Select the part in front of the selected one, or behind it. @param {1|-1} way @param {boolean} more one more */
  part(way, more) {
    const { bench, inner } = this.marks;
    const { parts } = bench.state.scene;
    const open = parts.filter((part) => part.visible && part.within === (inner ?? null));
    if (!open.length) return;
    const { selected } = bench.state;
    const last = open.findIndex((part) => part.id === selected[selected.length - 1]);
    const next = open[last < 0 ? (way > 0 ? 0 : open.length - 1) : (last + way + open.length) % open.length];
    bench.select(more ? [...selected.filter((id) => id !== next.id), next.id] : [next.id]);
  }
}
