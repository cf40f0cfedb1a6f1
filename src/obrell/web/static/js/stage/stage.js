/**
 * The stage: a view of the logical plane, and the frames that the server renders for it.
 *
 * One request is under way at a time; while it is, only the newest one waits.
 *
 * @typedef {import("./types.js").Edit} Edit
 * @typedef {import("./types.js").Frame} Frame
 * @typedef {{clientX: number, clientY: number}} Pointed
 * @typedef {{facts?: {around?: object}, lists: Object<string, import("../ui/told.js").Change>}} Told
 */
import { Art } from "./art.js";
import { byId } from "../ui/dom.js";
import { Looked } from "./looked.js";
import { Room } from "./room.js";
import { Link } from "../ui/link.js";
import { listAfter, sceneOf } from "../ui/told.js";

const NEAREST = 128;
const FARTHEST = 0.05;

export class Stage extends Looked {
  /** @param {HTMLElement} element @param {string} address of the live socket */
  constructor(element, address) {
    super();
    this.element = element;
    this.art = new Art(/** @type {HTMLCanvasElement} */ (byId("art")));
    this.zoom = 1;
    this.x = 0;
    this.y = 0;
    /** The density whose true pixels are shown; 0 when sharp. */
    this.exact = 0;
    /** @type {Edit|null} */
    this.edit = null;
    this.seq = 0;
    this.pending = false;
    this.again = false;
    /** @type {{around: object, parts: import("../ui/told.js").List}} */
    this.live = { around: {}, parts: { items: {}, order: [] } };
    /** The part and the effect that is open, whose gradient is told with every frame. */
    this.opened = () => "";
    /** @type {Map<number, number>} */
    this.sentAt = new Map();
    this.link = new Link(address, {
      opened: () => this.#opened(),
      closed: () => this.#closed(),
      news: (news) => this.#tell("news", news),
      frame: (header, data, offset) => this.#receive(header, data, offset),
    });
    /** What is to be fitted once the stage has a size. @type {[number, number]|null} */
    this.unfitted = null;
    this.room = new Room(element);
    new ResizeObserver(() => this.#sized()).observe(element);
  }

  /** What was in the middle stays there, as when a panel opens below. */
  #sized() {
    const { room, unfitted } = this;
    if (room.any) {
      const [dx, dy] = room.moved();
      if (unfitted) this.centre(...unfitted);
      else if (dx || dy) this.look(this.zoom, this.x + dx, this.y + dy);
    }
    this.request();
  }

  /** The art moves out from under a panel. @param {HTMLElement|null} panel over its lower end; null when it is gone */
  cover(panel) {
    this.room.under(panel);
    this.#sized();
  }

  /** Show what an edit makes of a state. @param {string} state @param {Edit|null} edit null ends that */
  tryIn(state, edit) {
    this.tried = edit ? state : "";
    this.preview(edit);
  }

  get ratio() {
    return window.devicePixelRatio || 1;
  }

  /** @param {number} x @param {number} y @returns {[number, number]} CSS px inside the stage of a logical point */
  toScreen(x, y) {
    return [this.x + x * this.zoom, this.y + y * this.zoom];
  }

  /** @param {Pointed} event @returns {[number, number]} its logical point */
  toLogical(event) {
    const box = this.element.getBoundingClientRect();
    return [(event.clientX - box.left - this.x) / this.zoom, (event.clientY - box.top - this.y) / this.zoom];
  }

  /** Look from elsewhere; the origin stays on the device grid so that 1:1 is exact.
   * @param {number} zoom @param {number} x @param {number} y */
  look(zoom, x, y) {
    const grid = this.ratio;
    this.zoom = Math.min(NEAREST, Math.max(FARTHEST, zoom));
    this.x = Math.round(x * grid) / grid;
    this.y = Math.round(y * grid) / grid;
    this.art.place(this);
    this.dispatchEvent(new Event("look"));
    this.request();
  }

  /** Enlarge about a point of the stage. @param {number} zoom @param {number} px @param {number} py */
  zoomAbout(zoom, px, py) {
    const wanted = Math.min(NEAREST, Math.max(FARTHEST, zoom));
    const factor = wanted / this.zoom;
    this.look(wanted, px - (px - this.x) * factor, py - (py - this.y) * factor);
  }

  /** Put a canvas of that logical size into the middle.
   * @param {number} width @param {number} height @param {number} [zoom] */
  centre(width, height, zoom) {
    this.unfitted = this.room.any ? null : [width, height];
    this.bring(width / 2, height / 2, zoom ?? this.room.fit(width, height));
  }

  /** Whether all of a canvas of that logical size is seen. @param {number} width @param {number} height */
  holds(width, height) {
    return this.room.holds(this.x, this.y, this.toScreen(width, height));
  }

  /** Have a place of the canvas in the middle of what is free. @param {number} x @param {number} y logical px */
  bring(x, y, zoom = this.zoom) {
    const { left, top, width, height } = this.room.free;
    this.look(zoom, left + width / 2 - x * zoom, top + height / 2 - y * zoom);
  }

  /** Show the control with an edit that is not saved; null shows it as it is. @param {Edit|null} edit */
  preview(edit) {
    this.edit = edit;
    this.request();
  }

  /** Ask for a frame of the view as it stands now. */
  request() {
    if (this.pending) {
      this.again = true;
      return;
    }
    if (!this.link.open) return;
    const grid = this.ratio;
    const box = this.element.getBoundingClientRect();
    if (box.width < 1 || box.height < 1) return;
    const wanted = {
      seq: ++this.seq,
      edit: this.edit,
      density: this.exact || this.zoom * grid,
      exact: this.exact > 0,
      ...this.looked,
      opened: this.opened(),
      left: Math.round(-this.x * grid),
      top: Math.round(-this.y * grid),
      width: Math.ceil(box.width * grid),
      height: Math.ceil(box.height * grid),
    };
    this.pending = true;
    this.again = false;
    this.sentAt.set(wanted.seq, performance.now());
    this.link.send(wanted);
  }

  #opened() {
    this.pending = false;
    this.art.forget();
    this.live = { around: {}, parts: { items: {}, order: [] } };
    this.#tell("link", true);
    this.request();
  }

  #closed() {
    this.pending = false;
    this.#tell("link", false);
  }

  /** @param {string} name @param {unknown} detail */
  #tell(name, detail) {
    this.dispatchEvent(new CustomEvent(name, { detail }));
  }

  /** @param {Frame & Told} header @param {ArrayBuffer} data @param {number} offset of the pixels */
  #receive(header, data, offset) {
    this.pending = false;
    this.#hear(header);
    if (header.words) this.#tell("refused", header.words);
    else this.art.paint(header, data, offset, this);
    const sent = this.sentAt.get(header.seq);
    this.sentAt.delete(header.seq);
    if (this.again) this.request();
    this.#tell("frame", header);
    requestAnimationFrame(() => {
      const detail = { seq: header.seq, ms: performance.now() - (sent ?? 0), box: header.box };
      this.element.dispatchEvent(new CustomEvent("obrell:painted", { detail }));
    });
  }

  /** The scene of a frame: what was told before, with what changed since. @param {Frame & Told} header */
  #hear(header) {
    if (!header.facts) return;
    this.live.around = header.facts.around ?? this.live.around;
    this.live.parts = listAfter(this.live.parts, header.lists.scene);
    header.scene = sceneOf(this.live.around, this.live.parts);
  }

  /** @param {Pointed} event @returns {string|null} the colour of the art under it, as #rrggbb */
  colourAt(event) {
    return this.art.colourAt(...this.toLogical(event));
  }
}
