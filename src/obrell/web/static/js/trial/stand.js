/**
 * The device with its screen: how large it is shown, where a pointer is on it, what is drawn over it.
 *
 * @typedef {import("./types.js").Screen} Screen
 * @typedef {import("./types.js").PieceData} PieceData
 * @typedef {{clientX: number, clientY: number}} At
 */
import { byId } from "../ui/dom.js";
import { svg } from "../ui/svg.js";

/** Room around the device, px. */
const AIR_PX = 40;
/** What the words of a distance take, px. */
const WORDS_PX = 76;

/** Where a piece is touched, in px of the panel. @param {PieceData} data */
const outline = ({ x, y, touch }) => svg("path", { class: "touch", d: touch, transform: `translate(${x} ${y})` });

/** @param {{x: number, y: number, width: number, height: number}} place */
export const boxOf = ({ x, y, width, height }) => ({ left: x, top: y, right: x + width, bottom: y + height });

export class Stand {
  constructor() {
    this.scale = 1;
    /** @type {{width: number, height: number}} */
    this.size = { width: 1, height: 1 };
    new ResizeObserver(() => this.fit()).observe(byId("room"));
    byId("show-reach").addEventListener("click", () => {
      const on = byId("screen").classList.toggle("reaches");
      byId("show-reach").setAttribute("aria-pressed", String(on));
    });
  }

  /** What belongs to the screen: its ground, its bezel, what is drawn over it. @param {Screen} screen */
  furnish({ width, height, bezel, ground, gap, pieces }) {
    this.size = { width, height };
    const picture = /** @type {HTMLImageElement} */ (byId("ground"));
    if (picture.getAttribute("src") !== ground) picture.src = ground;
    byId("device").classList.toggle("bare", !bezel);
    for (const id of ["screen", "ground", "lens", "marks"]) {
      byId(id).style.width = `${width}px`;
      byId(id).style.height = `${height}px`;
    }
    const marks = byId("marks");
    marks.setAttribute("viewBox", `0 0 ${width} ${height}`);
    const touched = pieces.filter((one) => !one.gone && one.touched && !one.disabled && one.touch);
    marks.replaceChildren(...touched.map(outline), ...(gap ? gapMarks(gap, width) : []));
    this.fit();
  }

  /** As large as there is room for, and no larger than it is. */
  fit() {
    const [device, stand] = [byId("device"), byId("stand")];
    const { width, height } = this.size;
    const around = device.offsetWidth - width;
    const wide = (stand.clientWidth - AIR_PX) / (width + around);
    const high = (stand.clientHeight - AIR_PX) / (height + around);
    this.scale = Math.max(0.1, Math.min(1, wide, high));
    device.style.transform = this.scale < 1 ? `scale(${this.scale})` : "";
    byId("shown-at").textContent = this.scale < 1 ? `shown at ${Math.round(this.scale * 100)} %` : "";
  }

  /** Where a pointer is on the panel. @param {At} at @returns {[number, number]} */
  place({ clientX, clientY }) {
    const box = byId("screen").getBoundingClientRect();
    return [(clientX - box.left) / this.scale, (clientY - box.top) / this.scale];
  }

  /** The box of a piece's body; its place where its control is gone. @param {PieceData} data */
  body(data) {
    const { x, y, body } = data;
    if (!body) return boxOf(data);
    const [left, top, right, bottom] = body;
    return { left: x + left, top: y + top, right: x + right, bottom: y + bottom };
  }
}

/** @param {{start: [number, number], end: [number, number], px: number}} gap @param {number} width of the screen */
function gapMarks({ start: [x, y], end: [right, bottom], px }, width) {
  const at = { x: Math.min((x + right) / 2 + 6, width - WORDS_PX), y: (y + bottom) / 2 + 4 };
  return [
    svg("path", { class: "gap-line", d: `M${x} ${y}L${right} ${bottom}` }),
    svg("text", { class: "gap-words", ...at }, `${px} px`),
  ];
}
