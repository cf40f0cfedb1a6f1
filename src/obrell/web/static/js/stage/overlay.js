/**
 * What lies around the parts on the stage: paper, margin, canvas edges, guides, snaps, distances.
 *
 * @typedef {import("./types.js").Axis} Axis
 * @typedef {import("./types.js").Marks} Marks
 * @typedef {import("./types.js").Scene} Scene
 * @typedef {import("./types.js").ScenePart} ScenePart
 * @typedef {{axis: 0|1, from: number, to: number, at: number}} Gap a stretch along an axis, and where it stands across
 */
import { byId } from "../ui/dom.js";
import { svg } from "../ui/svg.js";
import { named } from "./handles.js";
import { drawTouch } from "./touched.js";
import { around, corners, gapsBetween, short } from "./plane.js";

const LEAST_GAP = 0.005;
/** Numbers of gaps shorter than this on the screen stand beside them. */
const ROOM_PX = 26;

export class Overlay {
  /** @param {Marks} marks */
  constructor(marks) {
    this.marks = marks;
  }

  /** Below the frames. @param {Scene["canvas"]} canvas */
  below(canvas) {
    this.#paper(canvas);
    this.#dim();
    this.#guides();
  }

  /** Over the frames. @param {ScenePart[]} selected */
  above(selected) {
    this.#weakest();
    this.#snapped();
    this.#distances(selected);
    drawTouch(this.marks);
    if (this.marks.ties) this.#ties();
  }

  /** The letter that is read least is outlined, in two tones. */
  #weakest() {
    const { weakest, stage } = this.marks;
    if (!weakest) return;
    const [left, top, right, bottom] = weakest;
    const [[x, y], [far, low]] = [stage.toScreen(left, top), stage.toScreen(right, bottom)];
    const box = { x: x - 3, y: y - 3, width: far - x + 6, height: low - y + 6, rx: 3 };
    this.marks.svg.append(svg("rect", { class: "weak-under", ...box }), svg("rect", { class: "weak", ...box }));
  }

  /** What keeps to what: a line from every part to those that it follows, which are dotted. */
  #ties() {
    const { parts } = this.marks.now;
    const places = new Map(parts.map((part) => [part.id, this.#middle(part)]));
    for (const part of parts) {
      for (const source of part.keeps) {
        const [from, to] = [places.get(part.id), places.get(source)];
        if (from && to) this.#tie(from, to);
      }
    }
  }

  /** @param {[number, number]} from @param {[number, number]} to places of the stage */
  #tie(from, to) {
    const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
    // Bent a little, so that parts with one middle are seen to be tied too.
    const bend = [(from[0] + to[0]) / 2 - dy * 0.12 + (dx || dy ? 0 : 16), (from[1] + to[1]) / 2 + dx * 0.12 - 22];
    const d = `M${from.join(" ")}Q${bend.join(" ")} ${to.join(" ")}`;
    this.marks.svg.append(
      svg("path", { class: "tie-under", d }),
      svg("path", { class: "tie", d }),
      svg("circle", { class: "tie-end", cx: to[0], cy: to[1], r: 4 }),
    );
  }

  /** @param {ScenePart} part @returns {[number, number]} */
  #middle(part) {
    const [left, top, right, bottom] = around(part);
    return this.marks.stage.toScreen((left + right) / 2, (top + bottom) / 2);
  }

  /** @param {Scene["canvas"]} canvas */
  #paper([width, height, margin]) {
    const [x, y] = this.marks.stage.toScreen(0, 0);
    const size = [width * this.marks.stage.zoom, height * this.marks.stage.zoom];
    for (const id of ["paper", "veil", "pixels"]) {
      const { style } = byId(id);
      [style.left, style.top, style.width, style.height] = [x, y, ...size].map((value) => `${value}px`);
    }
    this.#reference();
    this.#grid();
    if (this.marks.sizing) this.#canvasSize(x + size[0] / 2, y, width, height);
    this.#margin(x, y, size[0], size[1], margin * this.marks.stage.zoom);
    this.#edges(x, y, size[0], size[1]);
  }

  /** @param {number} left @param {number} top @param {number} wide @param {number} high @param {number} inset px */
  #margin(left, top, wide, high, inset) {
    if (inset <= 0 || wide <= 2 * inset || high <= 2 * inset) return;
    const [x, y, width, height] = [left + inset, top + inset, wide - 2 * inset, high - 2 * inset];
    this.marks.svg.append(svg("rect", { class: "margin", x, y, width, height }));
  }

  /** The edges of the canvas, which can be pulled. @param {number} x @param {number} y
   * @param {number} width @param {number} height px */
  #edges(x, y, width, height) {
    const edges = {
      left: `M${x} ${y}v${height}`,
      right: `M${x + width} ${y}v${height}`,
      top: `M${x} ${y}h${width}`,
      bottom: `M${x} ${y + height}h${width}`,
    };
    for (const [side, d] of Object.entries(edges)) {
      const edge = svg("path", { class: "edge", d, "data-edge": side });
      edge.style.cursor = side === "left" || side === "right" ? "ew-resize" : "ns-resize";
      this.marks.svg.append(named(edge, `${side} edge of the canvas`));
    }
  }

  /** The pinned picture, under or over the art. */
  #reference() {
    const { reference } = this.marks.now;
    for (const lies of ["under", "over"]) {
      const image = byId(`reference-${lies}`);
      image.hidden = !reference?.visible || reference.lies !== `${lies} the art`;
      if (image.hidden || !reference) continue;
      const address = `/files/${reference.file}`;
      if (image.getAttribute("src") !== address) image.setAttribute("src", address);
      const [x, y] = this.marks.stage.toScreen(reference.x, reference.y);
      Object.assign(image.style, {
        left: `${x}px`,
        top: `${y}px`,
        width: `${reference.width * this.marks.stage.zoom}px`,
        opacity: reference.opacity,
      });
    }
  }

  /**
   * A line over the whole stage, at a place on the canvas.
   *
   * @param {Axis} axis @param {number} at @param {Object<string, string>} attributes
   */
  #line(axis, at, attributes) {
    const [x, y] = this.marks.stage.toScreen(at, at);
    const { clientWidth, clientHeight } = this.marks.stage.element;
    return svg("path", { ...attributes, d: axis === "across" ? `M${x} 0V${clientHeight}` : `M0 ${y}H${clientWidth}` });
  }

  #guides() {
    for (const guide of this.marks.now.guides) {
      const hold = this.#line(guide.axis, guide.at, { class: "guide-hold", "data-guide": guide.id });
      hold.style.cursor = guide.axis === "across" ? "ew-resize" : "ns-resize";
      this.marks.svg.append(this.#line(guide.axis, guide.at, { class: "guide" }));
      if (!guide.locked) this.marks.svg.append(named(hold, `guide at ${short(guide.at)} px`));
    }
  }

  /** What a dragged thing snapped to, and from how far. */
  #snapped() {
    const { clientWidth, clientHeight } = this.marks.stage.element;
    for (const { axis, at, words } of this.marks.snaps) {
      if (words.startsWith("pixels")) continue;
      this.marks.svg.append(this.#line(axis, at, { class: "snap" }));
      const [x, y] = this.marks.stage.toScreen(at, at);
      const place =
        axis === "across"
          ? { x: Math.min(clientWidth - 90, Math.max(110, x)), y: clientHeight - 66 }
          : { x: 110, y: y - 10 };
      this.marks.svg.append(svg("text", { class: "snap-words", ...place }, words));
    }
  }

  /** Distances between the selected part and the one the pointer is over. @param {ScenePart[]} selected */
  #distances(selected) {
    const [one] = selected;
    const over = this.marks.over && this.marks.now.parts.find((part) => part.id === this.marks.over);
    if (!over || selected.length !== 1 || this.marks.stage.edit || this.marks.tool || one.id === over.id) return;
    for (const gap of gapsBetween(around(one), around(over))) if (gap.to - gap.from > LEAST_GAP) this.#gap(gap);
  }

  /** @param {Gap} gap */
  #gap({ axis, from, to, at }) {
    const { stage } = this.marks;
    const [start, end] = [from, to].map((place) => stage.toScreen(axis ? at : place, axis ? place : at));
    const [x, y] = [(start[0] + end[0]) / 2, (start[1] + end[1]) / 2];
    const close = (to - from) * stage.zoom < ROOM_PX;
    const beside = axis ? [close ? 18 : 14, 0] : [0, close ? -14 : -9];
    this.marks.svg.append(
      svg("path", { class: "between", d: `M${start.join(" ")}L${end.join(" ")}` }),
      svg("text", { class: "between-words", x: x + beside[0], y: y + beside[1] }, short(to - from)),
    );
  }

  /** While a group is worked in, all that lies around it is dimmed. */
  #dim() {
    const group = this.marks.inner && this.marks.now.parts.find((part) => part.id === this.marks.inner);
    if (!group) return;
    const hole = corners(group)
      .map((corner) => this.marks.stage.toScreen(...corner).join(" "))
      .join("L");
    const { clientWidth, clientHeight } = this.marks.stage.element;
    this.marks.svg.append(svg("path", { class: "dimmed", d: `M0 0H${clientWidth}V${clientHeight}H0ZM${hole}Z` }));
  }

  /** @param {number} x @param {number} y @param {number} width @param {number} height logical px */
  #canvasSize(x, y, width, height) {
    this.marks.svg.append(svg("text", { x, y: y - 12 }, `${short(width)} × ${short(height)}`));
  }

  /** The pixel grid of true pixels, from 8 CSS px a pixel on. */
  #grid() {
    const pixel = this.marks.stage.zoom / (this.marks.stage.exact || Infinity);
    const grid = byId("pixels");
    grid.hidden = !(this.marks.stage.exact && pixel >= 8);
    grid.style.backgroundSize = `${pixel}px ${pixel}px`;
  }
}
