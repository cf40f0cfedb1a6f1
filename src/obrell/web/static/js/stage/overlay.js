/** What lies around the parts on the stage: paper, margin, canvas edges, guides, snaps, distances. */
import { svg } from "../ui/svg.js";
import { around, corners, short } from "./plane.js";

export class Overlay {
  /** @param {object} marks */
  constructor(marks) {
    this.marks = marks;
  }

  /** Below the frames. */
  below(canvas) {
    this.#paper(canvas);
    this.#dim();
    this.#guides();
  }

  /** Over the frames. */
  above(selected) {
    this.#snapped();
    this.#distances(selected);
  }

  #paper([width, height, margin]) {
    const [x, y] = this.marks.stage.toScreen(0, 0);
    const size = [width * this.marks.stage.zoom, height * this.marks.stage.zoom];
    for (const id of ["paper", "veil", "pixels"]) {
      const style = document.getElementById(id).style;
      [style.left, style.top, style.width, style.height] = [x, y, ...size].map((value) => `${value}px`);
    }
    this.#reference();
    this.#grid();
    if (this.marks.sizing) this.#canvasSize(x, y, ...size, width, height);
    const inset = margin * this.marks.stage.zoom;
    if (margin > 0 && size[0] > 2 * inset && size[1] > 2 * inset) {
      this.marks.svg.append(
        svg("rect", {
          class: "margin",
          x: x + inset,
          y: y + inset,
          width: size[0] - 2 * inset,
          height: size[1] - 2 * inset,
        }),
      );
    }
    this.#edges(x, y, ...size);
  }

  /** The edges of the canvas, which can be pulled. */
  #edges(x, y, width, height) {
    const edges = {
      left: `M${x} ${y}v${height}`,
      right: `M${x + width} ${y}v${height}`,
      top: `M${x} ${y}h${width}`,
      bottom: `M${x} ${y + height}h${width}`,
    };
    for (const [side, d] of Object.entries(edges)) {
      const cursor = side === "left" || side === "right" ? "ew-resize" : "ns-resize";
      this.marks.svg.append(svg("path", { class: "edge", d, "data-edge": side }));
      this.marks.svg.lastChild.style.cursor = cursor;
    }
  }

  /** The pinned picture, under or over the art. */
  #reference() {
    const { reference } = this.marks.now;
    for (const lies of ["under", "over"]) {
      const image = document.getElementById(`reference-${lies}`);
      image.hidden = !reference?.visible || reference.lies !== `${lies} the art`;
      if (image.hidden) continue;
      const address = `/files/${reference.file}`;
      if (image.getAttribute("src") !== address) image.src = address;
      const [x, y] = this.marks.stage.toScreen(reference.x, reference.y);
      Object.assign(image.style, {
        left: `${x}px`,
        top: `${y}px`,
        width: `${reference.width * this.marks.stage.zoom}px`,
        opacity: reference.opacity,
      });
    }
  }

  /** A line over the whole stage, at a place on the canvas. */
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
      if (!guide.locked) this.marks.svg.append(hold);
    }
    if (this.marks.newGuide)
      this.marks.svg.append(this.#line(this.marks.newGuide.axis, this.marks.newGuide.at, { class: "guide" }));
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

  /** Distances between the selected part and the one the pointer is over. */
  #distances(selected) {
    const over = this.marks.over && this.marks.now.parts.find((part) => part.id === this.marks.over);
    if (!over || selected.length !== 1 || this.marks.stage.edit || this.marks.tool || selected[0].id === over.id)
      return;
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
      const ends = [from, to].map((at) =>
        i ? this.marks.stage.toScreen(at, middle) : this.marks.stage.toScreen(middle, at),
      );
      this.marks.svg.append(
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
    const group = this.marks.inner && this.marks.now.parts.find((part) => part.id === this.marks.inner);
    if (!group) return;
    const hole = corners(group)
      .map((corner) => this.marks.stage.toScreen(...corner).join(" "))
      .join("L");
    const { clientWidth, clientHeight } = this.marks.stage.element;
    this.marks.svg.append(svg("path", { class: "dimmed", d: `M0 0H${clientWidth}V${clientHeight}H0ZM${hole}Z` }));
  }

  #canvasSize(x, y, w, h, width, height) {
    this.marks.svg.append(svg("text", { x: x + w / 2, y: y - 12 }, `${short(width)} × ${short(height)}`));
  }

  /** The pixel grid of true pixels, from 8 CSS px a pixel on. */
  #grid() {
    const pixel = this.marks.stage.zoom / (this.marks.stage.exact || Infinity);
    const grid = document.getElementById("pixels");
    grid.hidden = !(this.marks.stage.exact && pixel >= 8);
    grid.style.backgroundSize = `${pixel}px ${pixel}px`;
  }
}
