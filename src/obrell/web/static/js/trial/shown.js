/**
 * What is shown of a piece: stills of its states and numbers, and the frames of one becoming another. All of them were
 * rendered by the server; a way that is left before its end is faded over by the next, and while frames are not there
 * yet, one still is faded over the other.
 *
 * @typedef {import("./types.js").PieceData} PieceData
 * @typedef {{from: string, to: string, start: number, whole: number, frames: number, before: HTMLCanvasElement,
 *   broken: boolean}} Motion what is shown before it, and whether that was on its way itself
 */

/** Stills on their way at the same time, so that numbers keep up. */
const AT_ONCE = 3;

export class Shown {
  /**
   * @param {HTMLCanvasElement} canvas @param {PieceData} data
   * @param {import("./pictures.js").Pictures} pictures
   * @param {string} state the state that it begins in @param {number} scale px of the canvas for one of a picture
   */
  constructor(canvas, data, pictures, state, scale) {
    this.canvas = canvas;
    this.scale = scale;
    this.context = /** @type {CanvasRenderingContext2D} */ (canvas.getContext("2d"));
    this.data = data;
    this.pictures = pictures;
    this.state = state;
    this.readings = "";
    /** @type {Motion|null} */
    this.motion = null;
    /** The still that is wanted, while another is shown. */
    this.wanted = "";
    /** Stills that are on their way. @type {Set<string>} */
    this.asked = new Set();
    /** Counts what was drawn: a frame, a still. */
    this.drawn = 0;
  }

  /** @param {Object<string, string>} more */
  #address(more) {
    const query = new URLSearchParams(this.readings ? { ...more, readings: this.readings } : more);
    return `${this.data.picture}&${query}`;
  }

  /** @param {string} state */
  still(state) {
    return this.#address(state === "rest" ? {} : { state });
  }

  /** @param {string} from @param {string} to */
  timing(from, to) {
    const { timings } = this.data;
    return timings[`${from}>${to}`] ?? timings[""];
  }

  /** All frames of one state becoming another. @param {string} from @param {string} to */
  strip(from, to) {
    return this.#address({ came: from, state: to, frames: String(this.timing(from, to)[1]) });
  }

  /**
   * Show another state, or other numbers.
   *
   * @param {string} state @param {string} readings @param {number} now
   */
  become(state, readings, now) {
    if (readings !== this.readings) {
      this.readings = readings;
      if (!this.motion) this.#settle();
    }
    if (state === this.state) return;
    delete this.canvas.dataset.still;
    const [whole, frames] = this.timing(this.state, state);
    const broken = this.motion !== null;
    this.motion = frames
      ? { from: this.state, to: state, start: now, whole, frames, before: this.#copy(), broken }
      : null;
    this.state = state;
    if (this.motion) this.paint(now);
    else this.#settle();
  }

  #copy() {
    const copy = document.createElement("canvas");
    copy.width = this.canvas.width;
    copy.height = this.canvas.height;
    copy.getContext("2d")?.drawImage(this.canvas, 0, 0);
    return copy;
  }

  /** The frame of a time; whether it still moves. @param {number} now */
  paint(now) {
    const { motion } = this;
    if (!motion) return false;
    const time = now - motion.start;
    if (time >= motion.whole) {
      this.motion = null;
      this.#settle();
      return false;
    }
    const frame = Math.min(motion.frames - 1, Math.floor((time / motion.whole) * motion.frames));
    this.#show(motion, frame, time / motion.whole);
    return true;
  }

  /** A frame of those that were rendered, else both ends over each other. @param {Motion} motion
   * @param {number} frame @param {number} weight how much of the time has passed */
  #show(motion, frame, weight) {
    const strip = this.pictures.ready(this.strip(motion.from, motion.to));
    const end = this.pictures.ready(this.still(motion.to));
    if (strip)
      this.#lay(
        { picture: strip, frame, frames: motion.frames },
        { before: motion.broken ? motion.before : null, weight },
      );
    else if (end) this.#lay({ picture: end }, { before: motion.before, weight });
    else this.#ask(this.still(motion.to));
  }

  /** Two pictures, premultiplied, the one by the weight of the other (CSS Images 4, section 3.4).
   * @param {{picture: ImageBitmap, frame?: number, frames?: number}} what a picture, or one of the frames below each
   *   other in it
   * @param {{before?: HTMLCanvasElement|null, weight?: number}} [over] */
  #lay({ picture, frame = 0, frames = 1 }, { before, weight = 1 } = {}) {
    const { context, canvas, scale } = this;
    const [width, height] = [picture.width, picture.height / frames];
    context.imageSmoothingQuality = "high";
    context.globalCompositeOperation = "copy";
    context.globalAlpha = before ? weight : 1;
    context.drawImage(picture, 0, frame * height, width, height, 0, 0, width * scale, height * scale);
    if (before) {
      context.globalCompositeOperation = "lighter";
      context.globalAlpha = 1 - weight;
      context.drawImage(before, 0, 0);
    }
    context.globalAlpha = 1;
    this.drawn += 1;
    canvas.dataset.drawn = String(this.drawn);
    if (this.motion || this.wanted) delete canvas.dataset.still;
    else canvas.dataset.still = this.state;
  }

  /** The still of what it has become. */
  #settle() {
    this.wanted = this.still(this.state);
    delete this.canvas.dataset.still;
    this.#showWanted();
  }

  #showWanted() {
    const address = this.wanted;
    const here = this.pictures.ready(address);
    if (!here) this.#ask(address);
    else if (!this.motion) {
      this.wanted = "";
      this.#lay({ picture: here });
    }
  }

  /** A still that was asked for is here: of numbers that go on, each is shown as it comes, and the newest stays.
   * @param {ImageBitmap} picture */
  #arrived(picture) {
    if (this.motion || !this.wanted) return;
    if (!this.pictures.ready(this.wanted)) this.#lay({ picture });
    this.#showWanted();
  }

  /** @param {string} address */
  async #ask(address) {
    if (!address || this.asked.has(address) || this.asked.size >= AT_ONCE) return;
    this.asked.add(address);
    const picture = await this.pictures.load(address).catch(() => null);
    this.asked.delete(address);
    if (picture) this.#arrived(picture);
    else {
      if (this.wanted === address) this.wanted = "";
      this.canvas.dispatchEvent(new CustomEvent("missing", { bubbles: true }));
    }
  }

  /** Show it as it begins. */
  begin() {
    this.#settle();
  }
}
