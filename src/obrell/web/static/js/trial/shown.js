/**
 * What is shown of a piece: stills of its states and numbers, and the frames of one becoming another. All of them were
 * rendered by the server; only a way that is left before its end is faded over by the next.
 *
 * @typedef {import("./types.js").PieceData} PieceData
 * @typedef {{from: string, to: string, start: number, whole: number, frames: number,
 *   frozen: HTMLCanvasElement|null}} Motion
 */

/** Stills on their way at the same time, so that numbers keep up. */
const AT_ONCE = 2;

export class Shown {
  /**
   * @param {HTMLCanvasElement} canvas @param {PieceData} data
   * @param {import("./pictures.js").Pictures} pictures
   * @param {string} state the state that it begins in
   */
  constructor(canvas, data, pictures, state) {
    this.canvas = canvas;
    this.context = /** @type {CanvasRenderingContext2D} */ (canvas.getContext("2d"));
    this.data = data;
    this.pictures = pictures;
    this.state = state;
    this.readings = "";
    /** @type {Motion|null} */
    this.motion = null;
    /** The still that is wanted, while another is shown. */
    this.wanted = "";
    this.asked = 0;
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
    const frozen = this.motion ? this.#copy() : null;
    this.motion = frames ? { from: this.state, to: state, start: now, whole, frames, frozen } : null;
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
    const strip = this.pictures.ready(this.strip(motion.from, motion.to));
    if (strip) this.#frame(strip, frame, motion, time);
    else this.#moment(motion, frame, time);
    return true;
  }

  /** @param {ImageBitmap} strip @param {number} frame @param {Motion} motion @param {number} time */
  #frame(strip, frame, motion, time) {
    const { width, height } = this.canvas;
    this.#lay((context) => context.drawImage(strip, 0, frame * height, width, height, 0, 0, width, height), {
      frozen: motion.frozen,
      weight: time / motion.whole,
    });
  }

  /** One frame by itself, while the others are not there yet. @param {Motion} motion @param {number} frame
   * @param {number} time */
  #moment(motion, frame, time) {
    const at = ((frame + 1) / motion.frames) * motion.whole;
    const address = this.#address({ came: motion.from, state: motion.to, time: at.toFixed(3) });
    const here = this.pictures.ready(address);
    if (here)
      this.#lay((context) => context.drawImage(here, 0, 0), { frozen: motion.frozen, weight: time / motion.whole });
    else if (this.asked < AT_ONCE) this.#ask(address, () => {});
  }

  /** Two pictures, premultiplied, the one by the weight of the other (CSS Images 4, section 3.4).
   * @param {(context: CanvasRenderingContext2D) => void} draw
   * @param {{frozen?: HTMLCanvasElement|null, weight?: number}} [over] */
  #lay(draw, { frozen, weight = 1 } = {}) {
    const { context, canvas } = this;
    context.globalCompositeOperation = "copy";
    context.globalAlpha = frozen ? weight : 1;
    draw(context);
    if (frozen) {
      context.globalCompositeOperation = "lighter";
      context.globalAlpha = 1 - weight;
      context.drawImage(frozen, 0, 0);
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
    if (here) {
      this.wanted = "";
      if (!this.motion) this.#lay((context) => context.drawImage(here, 0, 0));
    } else if (address && this.asked < AT_ONCE) this.#ask(address, (picture) => this.#arrived(address, picture));
  }

  /** A still that was asked for: the newest stays; of numbers that go on, each is shown as it comes.
   * @param {string} address @param {ImageBitmap} picture */
  #arrived(address, picture) {
    if (address === this.wanted) this.wanted = "";
    const current = address === this.still(this.state) || this.wanted;
    if (current && !this.motion) this.#lay((context) => context.drawImage(picture, 0, 0));
    if (this.wanted) this.#showWanted();
  }

  /** @param {string} address @param {(picture: ImageBitmap) => void} then */
  async #ask(address, then) {
    this.asked += 1;
    try {
      then(await this.pictures.load(address));
    } catch {
      this.canvas.dispatchEvent(new CustomEvent("missing", { bubbles: true }));
    } finally {
      this.asked -= 1;
    }
    if (this.wanted && this.wanted !== address) this.#showWanted();
  }

  /** Show it as it begins. */
  begin() {
    this.#settle();
  }
}
