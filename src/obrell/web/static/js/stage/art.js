/**
 * The art: the frame that was drawn last, put where it belongs in the view as it is.
 *
 * @typedef {import("./types.js").Frame} Frame
 * @typedef {{zoom: number, x: number, y: number}} View
 * @typedef {{density: number, exact: boolean, left: number, top: number, width: number, height: number}} Shown
 */

export class Art {
  /** @param {HTMLCanvasElement} canvas */
  constructor(canvas) {
    this.canvas = canvas;
    const context = canvas.getContext("2d", { willReadFrequently: true });
    this.context = /** @type {CanvasRenderingContext2D} */ (context);
    /** @type {Shown|null} */
    this.shown = null;
  }

  /** The next frame is drawn whole. */
  forget() {
    this.shown = null;
  }

  /** @param {Frame} header @param {ArrayBuffer} data @param {number} offset of its pixels @param {View} view */
  paint(header, data, offset, view) {
    const [left, top, width, height] = header.frame;
    const next = { density: header.density, exact: header.exact, left, top, width, height };
    const same = this.#shows(next);
    if (!same) {
      this.canvas.width = width;
      this.canvas.height = height;
    }
    this.shown = next;
    const [x, y, w, h] = header.box;
    if (w > 0 && h > 0) {
      const pixels = new Uint8ClampedArray(data, offset, w * h * 4);
      this.context.putImageData(new ImageData(pixels, w, h), x - left, y - top);
    }
    if (!same) this.place(view);
  }

  /** @param {Shown} next */
  #shows(next) {
    const { shown } = this;
    const names = /** @type {(keyof Shown)[]} */ (Object.keys(next));
    return shown !== null && names.every((name) => shown[name] === next[name]);
  }

  /** @param {View} view */
  place({ zoom, x, y }) {
    if (!this.shown) return;
    const { density, exact, left, top, width, height } = this.shown;
    const scale = zoom / density;
    const style = this.canvas.style;
    style.left = `${x + left * scale}px`;
    style.top = `${y + top * scale}px`;
    style.width = `${width * scale}px`;
    style.height = `${height * scale}px`;
    this.canvas.classList.toggle("exact", exact);
  }

  /** @param {number} x @param {number} y logical px @returns {string|null} the colour there, as #rrggbb */
  colourAt(x, y) {
    if (!this.shown) return null;
    const { density, left, top } = this.shown;
    const [column, row] = [Math.floor(x * density) - left, Math.floor(y * density) - top];
    const [r, g, b, a] = this.context.getImageData(column, row, 1, 1).data;
    return a ? `#${[r, g, b].map((v) => v.toString(16).padStart(2, "0")).join("")}` : null;
  }
}
