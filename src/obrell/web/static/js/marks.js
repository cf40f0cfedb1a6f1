/**
 * What is drawn over the art: frames, handles, dimension lines, rulers, canvas edges, key light;
 * and the hand that takes hold of them. A gesture is an edit shown live and posted when let go.
 */
import { Gradients } from "./gradients.js";
import { say } from "./page.js";
import { Pen, Points } from "./points.js";

const NS = "http://www.w3.org/2000/svg";
const RULER_PX = 22;
/** The bars over and under the stage, which the art never lies beneath in sight. */
const BAR_PX = 24;
const FOOT_PX = 36;
/** How far from the art its dimensions stand. */
const DIMENSION_PX = 16;
const LIGHT_AIR_PX = 52;
const DRAG_FROM_PX = 3;
const HAIR_PX = 3;
const TWICE_MS = 400;
const SNAP_PX = 5;
const HANDLES = { nw: [-1, -1], n: [0, -1], ne: [1, -1], e: [1, 0], se: [1, 1], s: [0, 1], sw: [-1, 1], w: [-1, 0] };

/** @returns {SVGElement} */
export function svg(tag, attributes, text) {
  const node = document.createElementNS(NS, tag);
  for (const [name, value] of Object.entries(attributes)) node.setAttribute(name, value);
  if (text !== undefined) node.textContent = text;
  return node;
}

/** How far the lamp is dragged in or out before its height changes, and by how much then. */
const RISE_FROM_PX = 24;
const DEGREES_PER_PX = 0.5;

export const short = (value) => String(Math.round(value * 100) / 100);
const modifiers = (event) => ({ constrained: event.shiftKey, centred: event.altKey });

/** A place in a part's own space, on the canvas. */
export function toCanvas(part, x, y) {
  const angle = (part.turn * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const across = part.mirrored ? -x : x;
  return [part.x + cos * across - sin * y, part.y + sin * across + cos * y];
}

/** The frame of a part as four corners, clockwise from the top left, in logical px. */
function corners(part) {
  const [left, top, right, bottom] = part.frame;
  return [
    [left, top],
    [right, top],
    [right, bottom],
    [left, bottom],
  ].map(([x, y]) => toCanvas(part, x, y));
}

const probe = document.createElement("canvas").getContext("2d");
const outlines = new Map();

function outlineOf(part) {
  if (!outlines.has(part.outline)) {
    if (outlines.size > 2000) outlines.clear();
    outlines.set(part.outline, new Path2D(part.outline));
  }
  return outlines.get(part.outline);
}

/** Whether a place is on a part's shape, or within a hair of its edge; words count as their box. */
function inside(part, x, y, hair = 0) {
  const angle = (-part.turn * Math.PI) / 180;
  const dx = x - part.x;
  const dy = y - part.y;
  const across = Math.cos(angle) * dx - Math.sin(angle) * dy;
  const u = part.mirrored ? -across : across;
  const v = Math.sin(angle) * dx + Math.cos(angle) * dy;
  const [left, top, right, bottom] = part.frame;
  if (part.kind === "text") return u >= left && u <= right && v >= top && v <= bottom;
  probe.lineWidth = 2 * hair;
  const outline = outlineOf(part);
  return probe.isPointInPath(outline, u, v) || (hair > 0 && probe.isPointInStroke(outline, u, v));
}

/** Left, top, right and bottom of a part's frame on the canvas. */
function around(part) {
  const points = corners(part);
  const [across, down] = [0, 1].map((axis) => points.map((point) => point[axis]));
  return [Math.min(...across), Math.min(...down), Math.max(...across), Math.max(...down)];
}

export class Marks {
  constructor(bench) {
    this.bench = bench;
    this.stage = bench.stage;
    this.svg = document.getElementById("marks");
    this.light = document.getElementById("light");
    this.tool = "";
    this.points = new Points(this);
    this.pen = new Pen(this);
    this.gradients = new Gradients(this);
    this.scene = null;
    this.gradient = null;
    this.snaps = [];
    this.kinds = [];
    this.stage.addEventListener("look", () => this.draw());
    this.stage.addEventListener("frame", (event) => {
      this.scene = this.stage.edit && event.detail.scene ? event.detail.scene : null;
      this.gradient = (this.stage.edit && event.detail.gradient) || null;
      this.snaps = (this.stage.edit && event.detail.snaps) || [];
      this.draw();
    });
    this.stage.element.addEventListener("pointerdown", (event) => this.#press(event));
    this.stage.element.addEventListener("contextmenu", (event) => this.#list(event));
    this.stage.element.addEventListener("wheel", (event) => this.#wheel(event), { passive: false });
    this.stage.element.addEventListener("pointermove", (event) => this.#hover(event));
    this.light.addEventListener("keydown", (event) => this.#lightKey(event));
    new ResizeObserver(() => this.draw()).observe(this.stage.element);
  }

  /** The scene while something is dragged, else the saved one. */
  get now() {
    return this.scene || this.bench.state.scene;
  }

  /** @param {string} tool box, round, text, or nothing */
  take(tool) {
    this.pen.end();
    if (tool && tool === this.tool && tool !== "pen") {
      const [width, height] = this.now.canvas;
      this.take("");
      this.bench.post({ kind: "draw", shape: tool, x0: width / 2, y0: height / 2, x1: width / 2, y1: height / 2 });
      return;
    }
    this.tool = tool;
    this.showTool();
  }

  /** The words of the sheet show which tool is taken. */
  showTool() {
    this.stage.element.classList.toggle("drawing", Boolean(this.tool));
    for (const button of document.querySelectorAll("#sheet [data-draw]")) {
      button.setAttribute("aria-pressed", String(button.dataset.draw === this.tool));
    }
  }

  /** Let the handles of a picture crop it, or no more. @param {string} id */
  crop(id) {
    this.cropping = id === this.cropping ? "" : id;
    this.draw();
  }

  draw() {
    const { canvas } = this.now;
    const selected = this.now.parts.filter((part) => this.selected(part));
    this.svg.replaceChildren();
    this.#paper(canvas);
    this.#dim();
    this.#guides();
    for (const part of selected) this.#frame(part, selected.length === 1);
    this.#snapped();
    this.#distances(selected);
    this.points.draw(selected.length === 1 && !this.drawing ? selected[0] : null);
    this.gradients.draw(selected.length === 1 && !this.drawing ? selected[0] : null);
    this.pen.draw();
    document.querySelector("#sheet [data-do=crop]")?.setAttribute("aria-pressed", String(Boolean(this.cropping)));
    this.#light();
    this.#rulers(selected);
  }

  selected(part) {
    const ids = this.bench.state.selected;
    return ids.includes(part.id) || (this.drawing && part === this.now.parts[this.now.parts.length - 1]);
  }

  #paper([width, height, margin]) {
    const [x, y] = this.stage.toScreen(0, 0);
    const size = [width * this.stage.zoom, height * this.stage.zoom];
    for (const id of ["paper", "veil", "pixels"]) {
      const style = document.getElementById(id).style;
      [style.left, style.top, style.width, style.height] = [x, y, ...size].map((value) => `${value}px`);
    }
    this.#reference();
    this.#grid();
    if (this.sizing) this.#canvasSize(x, y, ...size, width, height);
    const inset = margin * this.stage.zoom;
    if (margin > 0 && size[0] > 2 * inset && size[1] > 2 * inset) {
      this.svg.append(
        svg("rect", {
          class: "margin",
          x: x + inset,
          y: y + inset,
          width: size[0] - 2 * inset,
          height: size[1] - 2 * inset,
        }),
      );
    }
    const edges = {
      left: `M${x} ${y}v${size[1]}`,
      right: `M${x + size[0]} ${y}v${size[1]}`,
      top: `M${x} ${y}h${size[0]}`,
      bottom: `M${x} ${y + size[1]}h${size[0]}`,
    };
    for (const [side, d] of Object.entries(edges)) {
      const cursor = side === "left" || side === "right" ? "ew-resize" : "ns-resize";
      this.svg.append(svg("path", { class: "edge", d, "data-edge": side }));
      this.svg.lastChild.style.cursor = cursor;
    }
  }

  /** The pinned picture, under or over the art. */
  #reference() {
    const { reference } = this.now;
    for (const lies of ["under", "over"]) {
      const image = document.getElementById(`reference-${lies}`);
      image.hidden = !reference?.visible || reference.lies !== `${lies} the art`;
      if (image.hidden) continue;
      const address = `/files/${reference.file}`;
      if (image.getAttribute("src") !== address) image.src = address;
      const [x, y] = this.stage.toScreen(reference.x, reference.y);
      Object.assign(image.style, {
        left: `${x}px`,
        top: `${y}px`,
        width: `${reference.width * this.stage.zoom}px`,
        opacity: reference.opacity,
      });
    }
  }

  /** A line over the whole stage, at a place on the canvas. */
  #line(axis, at, attributes) {
    const [x, y] = this.stage.toScreen(at, at);
    const { clientWidth, clientHeight } = this.stage.element;
    return svg("path", { ...attributes, d: axis === "across" ? `M${x} 0V${clientHeight}` : `M0 ${y}H${clientWidth}` });
  }

  #guides() {
    for (const guide of this.now.guides) {
      const hold = this.#line(guide.axis, guide.at, { class: "guide-hold", "data-guide": guide.id });
      hold.style.cursor = guide.axis === "across" ? "ew-resize" : "ns-resize";
      this.svg.append(this.#line(guide.axis, guide.at, { class: "guide" }));
      if (!guide.locked) this.svg.append(hold);
    }
    if (this.newGuide) this.svg.append(this.#line(this.newGuide.axis, this.newGuide.at, { class: "guide" }));
  }

  /** What a dragged thing snapped to, and from how far. */
  #snapped() {
    const { clientWidth, clientHeight } = this.stage.element;
    for (const { axis, at, words } of this.snaps) {
      if (words.startsWith("pixels")) continue;
      this.svg.append(this.#line(axis, at, { class: "snap" }));
      const [x, y] = this.stage.toScreen(at, at);
      const place =
        axis === "across"
          ? { x: Math.min(clientWidth - 90, Math.max(110, x)), y: clientHeight - 66 }
          : { x: 110, y: y - 10 };
      this.svg.append(svg("text", { class: "snap-words", ...place }, words));
    }
  }

  /** Distances between the selected part and the one the pointer is over. */
  #distances(selected) {
    const over = this.over && this.now.parts.find((part) => part.id === this.over);
    if (!over || selected.length !== 1 || this.stage.edit || this.tool || selected[0].id === over.id) return;
    const [a, b] = [around(selected[0]), around(over)];
    const gaps = [
      ["across", 0],
      ["down", 1],
    ].map(([axis, i]) => {
      const [low, high] = a[i] < b[i] ? [a, b] : [b, a];
      return { axis, from: low[i + 2], to: high[i] };
    });
    for (const { axis, from, to } of gaps) {
      if (to - from <= 0.005) continue;
      const i = axis === "across" ? 1 : 0;
      const middle = (Math.max(a[i], b[i]) + Math.min(a[i + 2], b[i + 2])) / 2;
      const ends = [from, to].map((at) => (i ? this.stage.toScreen(at, middle) : this.stage.toScreen(middle, at)));
      this.svg.append(
        svg("path", { class: "between", d: `M${ends[0].join(" ")}L${ends[1].join(" ")}` }),
        svg(
          "text",
          {
            class: "between-words",
            x: (ends[0][0] + ends[1][0]) / 2 + (i ? 0 : 20),
            y: (ends[0][1] + ends[1][1]) / 2 - (i ? 10 : 0),
          },
          short(to - from),
        ),
      );
    }
  }

  /** While a group is worked in, all that lies around it is dimmed. */
  #dim() {
    const group = this.inner && this.now.parts.find((part) => part.id === this.inner);
    if (!group) return;
    const hole = corners(group)
      .map((corner) => this.stage.toScreen(...corner).join(" "))
      .join("L");
    const { clientWidth, clientHeight } = this.stage.element;
    this.svg.append(svg("path", { class: "dimmed", d: `M0 0H${clientWidth}V${clientHeight}H0ZM${hole}Z` }));
  }

  #canvasSize(x, y, w, h, width, height) {
    this.svg.append(svg("text", { x: x + w / 2, y: y - 12 }, `${short(width)} × ${short(height)}`));
  }

  /** The pixel grid of true pixels, from 8 CSS px a pixel on. */
  #grid() {
    const pixel = this.stage.zoom / (this.stage.exact || Infinity);
    const grid = document.getElementById("pixels");
    grid.hidden = !(this.stage.exact && pixel >= 8);
    grid.style.backgroundSize = `${pixel}px ${pixel}px`;
  }

  #frame(part, alone) {
    const points = corners(part).map(([x, y]) => this.stage.toScreen(x, y));
    const d = `M${points.map((point) => point.join(" ")).join("L")}Z`;
    this.svg.append(svg("path", { class: "frame", d }));
    if (!alone || part.locked || this.drawing) {
      if (this.drawing) this.#dimensions(part, points);
      return;
    }
    this.#dimensions(part, points);
    if (this.cropping === part.id) this.#whole(part);
    const names = part.kind === "text" ? ["nw", "ne", "se", "sw"] : Object.keys(HANDLES);
    for (const name of names) this.#handle(part, points, name);
    if (this.gradients.now) return;
    const [cx, cy] = this.#between(points, 0.5, 0);
    const [nx, ny] = this.#outward(points, 0);
    const knob = svg("circle", { class: "hd", cx: cx + nx * 22, cy: cy + ny * 22, r: 5, "data-turn": part.id });
    knob.style.cursor = "grab";
    this.svg.append(svg("path", { class: "frame", d: `M${cx} ${cy}l${nx * 17} ${ny * 17}` }), knob);
  }

  /** All of a picture that is cropped. */
  #whole(part) {
    const points = corners({ ...part, frame: part.picture }).map(([x, y]) => this.stage.toScreen(x, y));
    this.svg.append(
      svg("path", { class: "whole-picture", d: `M${points.map((point) => point.join(" ")).join("L")}Z` }),
    );
  }

  #handle(part, points, name) {
    const [sx, sy] = HANDLES[name];
    const [x, y] = this.#between(points, (sx + 1) / 2, (sy + 1) / 2);
    const node = svg("rect", {
      class: this.cropping === part.id ? "hd crop" : "hd",
      x: x - 4.5,
      y: y - 4.5,
      width: 9,
      height: 9,
      rx: 2,
      "data-handle": name,
    });
    const cursors = ["ew-resize", "nwse-resize", "ns-resize", "nesw-resize"];
    const direction = Math.round(((Math.atan2(sy, sx) * 180) / Math.PI + part.turn) / 45);
    node.style.cursor = cursors[((direction % 4) + 4) % 4];
    this.svg.append(node);
  }

  /** A point of the frame by shares across and down. */
  #between([a, b, c, d], across, down) {
    const mix = (p, q, t) => p + (q - p) * t;
    return [0, 1].map((axis) => mix(mix(a[axis], b[axis], across), mix(d[axis], c[axis], across), down));
  }

  /** The unit vector out of a side: 0 top, 1 right, 2 bottom, 3 left. */
  #outward(points, side) {
    const [from, to] = [points[side], points[(side + 1) % 4]];
    const length = Math.hypot(to[0] - from[0], to[1] - from[1]) || 1;
    return [(to[1] - from[1]) / length, -(to[0] - from[0]) / length];
  }

  /** Width under the part and height at its right, as on a technical drawing. */
  #dimensions(part, points) {
    const [left, top, right, bottom] = part.frame;
    this.#dimension(points, 2, right - left);
    this.#dimension(points, 1, bottom - top);
  }

  /** How far out along a way a dimension line stands clear of the canvas; 0 where that cannot be seen. */
  #beyond([x, y], nx, ny) {
    const [width, height] = this.now.canvas;
    const edges = [
      [0, 0],
      [width, 0],
      [0, height],
      [width, height],
    ].map(([a, b]) => this.stage.toScreen(a, b));
    const away = Math.max(14, ...edges.map(([a, b]) => (a - x) * nx + (b - y) * ny)) + DIMENSION_PX;
    const { clientWidth, clientHeight } = this.stage.element;
    const [toX, toY] = [x + nx * away, y + ny * away];
    const seen =
      toX > RULER_PX && toX < clientWidth - 12 && toY > RULER_PX + BAR_PX && toY < clientHeight - FOOT_PX - 8;
    return seen ? away : 0;
  }

  #dimension(points, side, length) {
    const [nx, ny] = this.#outward(points, side);
    const [from, to] = [points[side], points[(side + 1) % 4]];
    const away = this.#beyond(from, nx, ny);
    if (!away) return;
    const [ax, ay, bx, by] = [from[0] + nx * away, from[1] + ny * away, to[0] + nx * away, to[1] + ny * away];
    const span = Math.hypot(bx - ax, by - ay);
    const [ux, uy] = [(bx - ax) / (span || 1), (by - ay) / (span || 1)];
    const [mx, my] = [(ax + bx) / 2, (ay + by) / 2];
    const gap = Math.min(24, span / 2 - 6);
    const group = svg("g", {});
    const tick = (x, y) => `M${x - nx * (away - 5)} ${y - ny * (away - 5)}L${x + nx * 5} ${y + ny * 5}`;
    let d = tick(ax, ay) + tick(bx, by);
    if (gap > 4) d += `M${ax} ${ay}L${mx - ux * gap} ${my - uy * gap}M${mx + ux * gap} ${my + uy * gap}L${bx} ${by}`;
    group.append(svg("path", { class: "dim", d }));
    const head = (x, y, s) => `M${x} ${y}l${s * ux * 8 - uy * 2.6} ${s * uy * 8 + ux * 2.6}l${uy * 5.2} ${-ux * 5.2}z`;
    if (span > 20) group.append(svg("path", { class: "dim-head", d: head(ax, ay, 1) + head(bx, by, -1) }));
    const out = span < 44 ? 12 : 0;
    group.append(svg("text", { x: mx + nx * out, y: my + ny * out }, short(length)));
    this.svg.append(group);
  }

  #light() {
    const { canvas, light } = this.now;
    const [x, y] = this.stage.toScreen(canvas[0] / 2, canvas[1] / 2);
    const angle = (light * Math.PI) / 180;
    const box = this.stage.element.getBoundingClientRect();
    const wanted = (Math.hypot(canvas[0], canvas[1]) / 2) * this.stage.zoom * 0.72 + LIGHT_AIR_PX;
    const rx = Math.min(wanted, box.width / 2 - 60);
    const ry = Math.min((canvas[1] / 2) * this.stage.zoom + LIGHT_AIR_PX, box.height / 2 - 60);
    const limit = (value, least, most) => Math.min(most, Math.max(least + 18, value));
    const left = limit(x + Math.sin(angle) * rx, RULER_PX, box.width - 18);
    const top = limit(y - Math.cos(angle) * ry, RULER_PX + BAR_PX, box.height - FOOT_PX - 18);
    // Where there is no room beside the art, the lamp stands small in the corner of the rulers.
    const [across, down] = this.stage.toScreen(0, 0);
    const [right, bottom] = this.stage.toScreen(canvas[0], canvas[1]);
    const over = left > across - 14 && left < right + 14 && top > down - 14 && top < bottom + 14;
    this.light.classList.toggle("docked", over);
    this.light.style.left = `${over ? RULER_PX / 2 : left}px`;
    this.light.style.top = `${over ? BAR_PX + RULER_PX / 2 : top}px`;
  }

  #rulers(selected) {
    for (const [id, axis] of [
      ["ruler-x", 0],
      ["ruler-y", 1],
    ]) {
      const ruler = document.getElementById(id);
      const ratio = this.stage.ratio;
      const length = axis ? ruler.clientHeight : ruler.clientWidth;
      ruler.width = (axis ? RULER_PX : length) * ratio;
      ruler.height = (axis ? length : RULER_PX) * ratio;
      const pen = ruler.getContext("2d");
      pen.scale(ratio, ratio);
      this.#ruler(pen, axis, length, selected);
    }
  }

  #ruler(pen, axis, length, selected) {
    const zoom = this.stage.zoom;
    const origin = axis ? this.stage.y - RULER_PX - BAR_PX : this.stage.x - RULER_PX;
    const step = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000].find((value) => value * zoom >= 42) || 10000;
    const place = (value) => origin + value * zoom;
    pen.fillStyle = "#0d6a7026";
    for (const part of selected) {
      const values = corners(part).map((corner) => corner[axis]);
      const [from, to] = [place(Math.min(...values)), place(Math.max(...values))];
      if (axis) pen.fillRect(0, from, RULER_PX, to - from);
      else pen.fillRect(from, 0, to - from, RULER_PX);
    }
    pen.fillStyle = "#62696e";
    pen.font = "10px SplineMono";
    pen.textAlign = "center";
    const first = Math.floor(-origin / zoom / step) * step;
    for (let value = first; place(value) < length; value += step) {
      const at = Math.round(place(value)) + 0.5;
      for (let minor = 0; minor < 5; minor += 1) {
        const small = Math.round(place(value + (minor * step) / 5));
        if (axis) pen.fillRect(RULER_PX - (minor ? 3 : 6), small, minor ? 3 : 6, 1);
        else pen.fillRect(small, RULER_PX - (minor ? 3 : 6), 1, minor ? 3 : 6);
      }
      pen.save();
      if (axis) {
        pen.translate(10, at);
        pen.rotate(-Math.PI / 2);
      } else pen.translate(at, 12);
      pen.fillText(String(value), 0, 0);
      pen.restore();
    }
    if (selected.length === 1) this.#measure(pen, axis, place, selected[0]);
  }

  /** How long the selected part is, written on its stretch of the ruler. */
  #measure(pen, axis, place, part) {
    const values = corners(part).map((corner) => corner[axis]);
    const [from, to] = [Math.min(...values), Math.max(...values)];
    const words = short(to - from);
    const length = axis
      ? this.stage.element.clientHeight - FOOT_PX - BAR_PX - RULER_PX
      : this.stage.element.clientWidth - RULER_PX;
    const middle = (Math.max(0, place(from)) + Math.min(length, place(to))) / 2;
    const wide = pen.measureText(words).width + 8;
    pen.save();
    if (axis) {
      pen.translate(10, middle);
      pen.rotate(-Math.PI / 2);
    } else pen.translate(middle, 11);
    pen.fillStyle = "#0d6a70";
    pen.fillRect(-wide / 2, -8, wide, 14);
    pen.fillStyle = "#fff";
    pen.fillText(words, 0, 3);
    pen.restore();
  }

  // The hand

  #hover(event) {
    if (event.buttons || this.tool || this.bench.state.selected.length !== 1) return;
    const [leaf] = this.under(...this.stage.toLogical(event));
    const over = leaf?.id || null;
    if (over === this.over) return;
    this.over = over;
    this.draw();
  }

  #wheel(event) {
    event.preventDefault();
    const box = this.stage.element.getBoundingClientRect();
    if (event.ctrlKey || event.metaKey) {
      this.stage.zoomAbout(
        this.stage.zoom * 2 ** (-event.deltaY / 240),
        event.clientX - box.left,
        event.clientY - box.top,
      );
    } else {
      const [dx, dy] = event.shiftKey ? [event.deltaY, event.deltaX] : [event.deltaX, event.deltaY];
      this.stage.look(this.stage.zoom, this.stage.x - dx, this.stage.y - dy);
    }
  }

  #press(event) {
    if (event.target.closest(".tray, #piled")) return;
    document.getElementById("piled").hidden = true;
    if (event.button === 1 || (event.button === 0 && this.panning)) {
      this.#pan(event);
      return;
    }
    if (event.button !== 0) return;
    this.stage.element.focus({ preventScroll: true });
    event.preventDefault();
    if (this.#twice(event) && this.#deeper(event)) return;
    const { handle, turn, edge, guide } = event.target.dataset;
    const ruler = { "ruler-x": "down", "ruler-y": "across" }[event.target.id];
    if (event.target === this.light) this.#dragLight(event);
    else if (this.tool === "pen") this.pen.press(event);
    else if (!this.tool && this.gradients.press(event)) return;
    else if (!this.tool && this.points.press(event)) return;
    else if (this.tool) this.#drawPart(event);
    else if (ruler) this.#pullGuide(event, ruler);
    else if (handle && this.cropping) this.#crop(event, handle);
    else if (handle) this.#resize(event, handle);
    else if (guide && !this.hit(...this.stage.toLogical(event))) this.#dragGuide(event, guide);
    else if (turn) this.#turn(event, turn);
    else if (edge) this.#canvas(event, edge);
    else this.#grip(event);
  }

  /**
   * Follow the pointer with an edit: shown while it moves, posted when it lets go, dropped by Escape.
   *
   * @param {PointerEvent} event
   * @param {(x: number, y: number, at: PointerEvent|KeyboardEvent) => object|null} edit from the
   *   distance moved in logical px
   * @param {(moved: boolean) => void} [after]
   */
  follow(event, edit, after = () => {}) {
    const [startX, startY] = this.stage.toLogical(event);
    let last = event;
    let moved = false;
    const shown = (keys) => {
      const [x, y] = this.stage.toLogical(last);
      return edit(x - startX, y - startY, keys);
    };
    const move = (at) => {
      last = at;
      if (!moved && Math.hypot(at.clientX - event.clientX, at.clientY - event.clientY) < DRAG_FROM_PX) return;
      moved = true;
      this.stage.preview(shown(at));
    };
    const key = (at) => {
      if (at.key === "Escape") {
        at.stopPropagation();
        end();
        this.stage.preview(null);
        after(false);
      } else if (moved && (at.key === "Shift" || at.key === "Alt")) {
        at.preventDefault();
        this.stage.preview(shown(at));
      }
    };
    const end = () => {
      window.removeEventListener("pointermove", move);
      window.removeEventListener("pointerup", up);
      window.removeEventListener("keydown", key, true);
      window.removeEventListener("keyup", key, true);
    };
    const up = (at) => {
      end();
      last = at;
      const made = moved ? shown(at) : null;
      if (made) this.bench.post(made).then(() => after(true));
      else after(false);
    };
    window.addEventListener("pointermove", move);
    window.addEventListener("pointerup", up);
    window.addEventListener("keydown", key, true);
    window.addEventListener("keyup", key, true);
  }

  #pan(event) {
    event.preventDefault();
    const from = [this.stage.x - event.clientX, this.stage.y - event.clientY];
    const move = (at) => this.stage.look(this.stage.zoom, from[0] + at.clientX, from[1] + at.clientY);
    window.addEventListener("pointermove", move);
    window.addEventListener("pointerup", () => window.removeEventListener("pointermove", move), { once: true });
  }

  whole(value) {
    return this.loose ? Math.round(value * 100) / 100 : Math.round(value * 2) / 2;
  }

  /** How an edit is to snap; nothing while the key is held. */
  get snap() {
    if (this.loose || !this.kinds.length) return null;
    return { kinds: this.kinds, reach: SNAP_PX / this.stage.zoom, density: this.stage.exact || 1 };
  }

  fine(value) {
    return Math.round(value * 100) / 100;
  }

  /** A guide pulled out of a ruler; let go on the ruler it is none. */
  #pullGuide(event, axis) {
    const at = (move) => {
      const [x, y] = this.stage.toLogical(move);
      return this.whole(axis === "across" ? x : y);
    };
    const move = (now) => {
      this.newGuide = { axis, at: at(now) };
      this.draw();
    };
    window.addEventListener("pointermove", move);
    window.addEventListener(
      "pointerup",
      (now) => {
        window.removeEventListener("pointermove", move);
        const box = this.stage.element.getBoundingClientRect();
        const far = axis === "across" ? now.clientX - box.left : now.clientY - box.top;
        this.newGuide = null;
        if (far > RULER_PX) this.bench.post({ kind: "add-guide", axis, at: at(now) });
        else this.draw();
      },
      { once: true },
    );
  }

  #dragGuide(event, id) {
    const { axis } = this.now.guides.find((guide) => guide.id === id);
    const box = this.stage.element.getBoundingClientRect();
    this.follow(event, (dx, dy, now) => {
      const far = axis === "across" ? now.clientX - box.left : now.clientY - box.top;
      if (far < RULER_PX) return { kind: "remove-guides", guide: id };
      return { kind: "move-guide", guide: id, by: this.whole(axis === "across" ? dx : dy) };
    });
  }

  /** Parts under a place, front-most first; a group is reached through what lies in it. */
  under(x, y) {
    const { parts } = this.bench.state.scene;
    const closed = new Set();
    for (const part of parts) if (part.kind === "combination" || part.kind === "repeat") closed.add(part.id);
    const sealed = (part) => {
      for (let up = part.within; up; up = this.bench.partOf(up).within) if (closed.has(up)) return true;
      return false;
    };
    const hidden = (part) => {
      for (let up = part; up; up = up.within && this.bench.partOf(up.within)) if (!up.visible) return true;
      return false;
    };
    const hair = HAIR_PX / this.stage.zoom;
    return [...parts]
      .reverse()
      .filter(
        (part) =>
          part.kind !== "group" &&
          !hidden(part) &&
          (!sealed(part) || this.bench.state.selected.includes(part.id)) &&
          inside(part, x, y, hair),
      );
  }

  /** What a press at a place takes hold of: the outermost group, or what lies in the group worked in. */
  hit(x, y) {
    const [leaf] = this.under(x, y);
    if (!leaf) return null;
    if (this.bench.state.selected.includes(leaf.id)) return leaf;
    return this.#innermost(leaf);
  }

  /** Work inside of a group: presses take hold of what lies in it. */
  enter(id) {
    this.inner = id || null;
    this.draw();
  }

  /** Select what lies under the pointer and move it, or a copy of it. */
  #grip(event) {
    const [x, y] = this.stage.toLogical(event);
    const hit = this.hit(x, y);
    const { selected } = this.bench.state;
    if (!hit) {
      if (!event.shiftKey) this.bench.select([]);
      return;
    }
    if (event.shiftKey && !selected.includes(hit.id)) {
      this.bench.select([...selected, hit.id]);
      return;
    }
    const held = selected.some((id) => id === hit.id || this.bench.under(id, hit.id));
    const ids = held ? selected : [hit.id];
    if (!held) {
      this.bench.near = { parts: hit.id, at: `${short(x)},${short(y)}` };
      this.bench.select(ids);
    }
    const copy = event.ctrlKey || event.metaKey;
    const edit = (dx, dy, at) => ({
      parts: ids,
      constrained: at.shiftKey,
      ...(copy
        ? { kind: "duplicate", dx: this.whole(dx), dy: this.whole(dy) }
        : { kind: "move", dx: this.fine(dx), dy: this.fine(dy), snap: this.snap }),
    });
    this.follow(event, edit, (moved) => {
      if (moved) return;
      if (event.shiftKey) this.bench.select(selected.filter((id) => id !== hit.id));
      else if (held && (selected.length > 1 || selected[0] !== hit.id)) this.bench.select([hit.id]);
      else if (held) this.bench.pressed(ids, x, y);
    });
  }

  /** Whether this is the second of two presses at one place; marks are drawn anew at the first, so
   * the browser's own double click is lost. */
  #twice(event) {
    const { x, y, time } = this.pressed || {};
    const again = event.timeStamp - time < TWICE_MS && Math.hypot(event.clientX - x, event.clientY - y) < 5;
    this.pressed = again ? null : { x: event.clientX, y: event.clientY, time: event.timeStamp };
    return again;
  }

  /** Two presses add a point to a path, or go one group deeper. @returns {boolean} */
  #deeper(event) {
    if (this.tool) return false;
    const [x, y] = this.stage.toLogical(event);
    if (event.target.dataset.segment) return this.points.addAt(event, event.target.dataset.segment);
    const [leaf] = this.under(x, y);
    if (!leaf) return false;
    const group = this.#innermost(leaf);
    if (group.kind !== "group") return false;
    this.enter(group.id);
    this.bench.select([this.#innermost(leaf).id]);
    return true;
  }

  #innermost(leaf) {
    let part = leaf;
    while (part.within && part.within !== this.inner) part = this.bench.partOf(part.within);
    return part;
  }

  /** All parts that lie under the pointer, to pick one from. */
  #list(event) {
    event.preventDefault();
    const box = this.stage.element.getBoundingClientRect();
    const found = this.under(...this.stage.toLogical(event));
    const list = document.getElementById("piled");
    list.replaceChildren(
      ...found.map((part) => {
        const button = document.createElement("button");
        button.className = "word";
        button.textContent = part.name;
        button.addEventListener("click", () => {
          list.hidden = true;
          this.bench.select([part.id]);
        });
        return button;
      }),
    );
    list.hidden = found.length === 0;
    list.style.left = `${event.clientX - box.left}px`;
    list.style.top = `${event.clientY - box.top}px`;
    list.querySelector("button")?.focus();
  }

  #drawPart(event) {
    const shape = this.tool;
    const [x, y] = this.stage.toLogical(event).map((value) => this.fine(value));
    this.drawing = true;
    const edit = (dx, dy, at) => ({
      kind: "draw",
      shape,
      x0: x,
      y0: y,
      x1: this.fine(x + dx),
      y1: this.fine(y + dy),
      ...modifiers(at),
      snap: this.snap,
    });
    this.follow(event, edit, (moved) => {
      this.drawing = false;
      this.take("");
      if (!moved) this.bench.post(edit(0, 0, event));
    });
  }

  #resize(event, handle) {
    const part = this.bench.part;
    let last = null;
    this.follow(
      event,
      (dx, dy, at) => {
        last = {
          kind: "resize",
          part: part.id,
          handle,
          dx: this.fine(dx),
          dy: this.fine(dy),
          ...modifiers(at),
          snap: this.snap,
        };
        return last;
      },
      (moved) => moved && this.#askForEffects(last),
    );
  }

  #crop(event, handle) {
    const { part } = this.bench;
    this.follow(event, (dx, dy) => ({ kind: "crop", part: part.id, handle, dx: this.fine(dx), dy: this.fine(dy) }));
  }

  /** After a pull, the lengths of effects can be made to scale along. */
  #askForEffects(edit) {
    const part = this.bench.state.clip.find((one) => one.id === edit.part);
    if (!part?.effects.length) return;
    say(`The effects of ${part.name} kept their lengths.`, {
      words: "Scale them along",
      act: async () => {
        await this.bench.step("undo");
        this.bench.post({ ...edit, effects: true });
      },
    });
  }

  #turn(event, id) {
    const part = this.bench.partOf(id);
    const angleOf = (x, y) => (Math.atan2(x - part.x, part.y - y) * 180) / Math.PI;
    const [x, y] = this.stage.toLogical(event);
    const from = angleOf(x, y);
    this.follow(event, (dx, dy, at) => {
      const degrees = part.turn + angleOf(x + dx, y + dy) - from;
      return { kind: "turn", part: id, degrees: Math.round(degrees * 10) / 10, constrained: at.shiftKey };
    });
  }

  #canvas(event, side) {
    this.sizing = true;
    const outwards = { left: (dx) => -dx, right: (dx) => dx, top: (dx, dy) => -dy, bottom: (dx, dy) => dy }[side];
    this.follow(
      event,
      (dx, dy, at) => ({
        kind: "canvas-edges",
        [side]: Math.round(outwards(dx, dy)),
        centred: at.altKey,
      }),
      () => {
        this.sizing = false;
        this.draw();
      },
    );
  }

  #lightEdit(degrees, constrained) {
    const angle = constrained ? Math.round(degrees / 15) * 15 : Math.round(degrees);
    return { kind: "set", changes: [{ path: "light/direction", value: ((angle % 360) + 360) % 360 }] };
  }

  /** Dragged round the canvas the lamp sets where the light comes from; dragged inwards it rises. */
  #dragLight(event) {
    const [width, height] = this.now.canvas;
    const [x, y] = this.stage.toLogical(event);
    const far = Math.hypot(x - width / 2, y - height / 2);
    const { lightHeight } = this.now;
    this.follow(event, (dx, dy, at) => {
      const angle = (Math.atan2(x + dx - width / 2, height / 2 - (y + dy)) * 180) / Math.PI;
      const edit = this.#lightEdit(angle, at.shiftKey);
      const inwards = (far - Math.hypot(x + dx - width / 2, y + dy - height / 2)) * this.stage.zoom;
      const more = Math.sign(inwards) * Math.max(0, Math.abs(inwards) - RISE_FROM_PX) * DEGREES_PER_PX;
      const rise = Math.round(Math.min(90, Math.max(0, lightHeight + more)));
      if (more) edit.changes.push({ path: "light/height", value: rise });
      return edit;
    });
  }

  #lightKey(event) {
    const step = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: 1, ArrowDown: -1 }[event.key];
    if (!step) return;
    event.preventDefault();
    event.stopPropagation();
    this.bench.post(this.#lightEdit(this.now.light + step * (event.shiftKey ? 10 : 1), false));
  }
}
