/**
 * The Wall while a swatch is tried: what follows it is drawn over the pictures that stand there.
 *
 * @typedef {import("../stage/types.js").Frame} Frame
 * @typedef {{seq: number, words?: string, tiles: (Frame & {control: string})[]}} Answer
 */
import { Art } from "../stage/art.js";
import { all, byId } from "../ui/dom.js";
import { Link } from "../ui/link.js";
import { trouble } from "../ui/page.js";

const PIXEL_BYTES = 4;
/** How long a picture that was tried stays at most while the one that was kept is fetched. */
const LONGEST_MS = 4000;

export class Trying {
  /**
   * @param {string} kit @param {string} colourway that is shown
   * @param {(news: any) => void} news there is something new
   */
  constructor(kit, colourway, news) {
    this.colourway = colourway;
    /** @type {Map<string, Art>} by control */
    this.arts = new Map();
    this.seq = 0;
    /** The last request before trying ended: answers up to it are not shown. */
    this.ended = 0;
    /** The Wall shows nothing that was tried before, so all of it has to be drawn. */
    this.anew = true;
    this.busy = false;
    this.sentAt = 0;
    /** @type {object|null} */
    this.next = null;
    this.link = new Link(`${location.origin.replace("http", "ws")}/kits/${kit}/live`, {
      opened: () => {},
      closed: () => {
        this.busy = false;
      },
      news,
      frame: (header, data, offset) => this.#frame(header, data, offset),
    });
  }

  /**
   * Show what follows swatches in other colours, or what would follow them, or some controls with an edit.
   *
   * @param {Object<string, string>} colours by swatch @param {Object<string, object>} [links] by colour
   * @param {object} [more] the edit, and of which controls
   */
  show(colours, links = {}, more = {}) {
    this.next = { ...this.asked(colours, links), ...more };
    this.#send();
  }

  /** What is asked for to see that. @param {Object<string, string>} colours @param {Object<string, object>} [links]
   * @returns {object} */
  asked(colours, links = {}) {
    this.seq += 1;
    const { seq, colourway } = this;
    const asked = { seq, colours, links, controls: inView(), density: devicePixelRatio > 1.5 ? 2 : 1 };
    // Where all stand beside each other, those of Day are what a hand changes.
    return colourway === "all" ? asked : { ...asked, colourway };
  }

  #send() {
    if (this.busy || !this.next || !this.link.open) return;
    this.busy = true;
    this.sentAt = performance.now();
    this.link.send({ ...this.next, anew: this.anew });
    this.anew = false;
    this.next = null;
  }

  /** @param {Answer} header @param {ArrayBuffer} data @param {number} offset */
  #frame(header, data, offset) {
    this.busy = false;
    if (header.words) trouble(header.words);
    let at = offset;
    for (const tile of header.seq > this.ended ? header.tiles : []) {
      this.#paint(tile, data, at);
      at += tile.box[2] * tile.box[3] * PIXEL_BYTES;
    }
    const detail = { ms: performance.now() - this.sentAt };
    byId("wall").dispatchEvent(new CustomEvent("obrell:painted", { detail }));
    this.#send();
  }

  /** @param {Frame & {control: string}} tile @param {ArrayBuffer} data @param {number} at */
  #paint(tile, data, at) {
    const place = placeOf(tile.control);
    const picture = place?.querySelector("img");
    if (!place || !picture) return;
    let art = this.arts.get(tile.control);
    if (!art) {
      art = new Art(document.createElement("canvas"));
      art.canvas.className = "tried";
      this.arts.set(tile.control, art);
    }
    if (!art.canvas.isConnected) place.append(art.canvas);
    picture.classList.add("covered");
    const zoom = Number(picture.dataset.scale);
    const view = { zoom, x: picture.offsetLeft, y: picture.offsetTop };
    art.paint(tile, data, at, view);
    art.place(view);
  }

  /** The pictures that stand there are seen again: at once, or once those that were kept are there.
   * @param {boolean} kept */
  end(kept) {
    this.next = null;
    this.ended = this.seq;
    this.anew = true;
    for (const [control, art] of this.arts) {
      const picture = placeOf(control)?.querySelector("img");
      if (kept && picture) awaitOther(picture, () => reveal(control, art));
      else reveal(control, art);
    }
    this.arts.clear();
  }

  /** Stop trying on all controls but these. @param {string[]} controls */
  only(controls) {
    for (const [control, art] of this.arts) {
      if (controls.includes(control)) continue;
      reveal(control, art);
      this.arts.delete(control);
      this.anew = true;
    }
  }
}

/** Show the picture of a control again. @param {string} control @param {Art} art */
function reveal(control, art) {
  art.canvas.classList.remove("tried");
  art.canvas.remove();
  placeOf(control)?.querySelector("img")?.classList.remove("covered");
}

/** Once a picture shows something else, or takes too long to. @param {HTMLImageElement} picture
 * @param {() => void} done */
function awaitOther(picture, done) {
  const ended = new AbortController();
  const end = () => {
    ended.abort();
    done();
  };
  const timer = setTimeout(end, LONGEST_MS);
  ended.signal.addEventListener("abort", () => clearTimeout(timer));
  picture.addEventListener("load", end, { signal: ended.signal });
}

/** @param {string} control @returns {HTMLElement|null} */
function placeOf(control) {
  return document.querySelector(`#tile-${CSS.escape(control)} .art`);
}

/** @returns {string[]} the controls whose tiles are in view */
function inView() {
  const pane = byId("wall").querySelector(".tiles-pane")?.getBoundingClientRect();
  if (!pane) return [];
  return all(".tile")
    .filter((tile) => {
      const { top, bottom } = tile.getBoundingClientRect();
      return bottom > pane.top && top < pane.bottom;
    })
    .map((tile) => tile.dataset.control ?? "");
}
