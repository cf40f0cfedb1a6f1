/** Keys that are pressed one after the other and mean one thing: shown at once, one step of history. */

const PAUSE_MS = 450;

/** @typedef {(dx: number, dy: number) => import("./types.js").Edit|null} Edit from what all presses come to */

export class Burst {
  /** @param {{post: (edit: any) => unknown, stage: {preview: (edit: any) => void}}} bench what shows and keeps edits */
  constructor(bench) {
    this.bench = bench;
    this.timer = 0;
    /** @type {{name: string, dx: number, dy: number, edit: Edit}|null} */
    this.going = null;
    window.addEventListener("pointerdown", () => this.end(), true);
    window.addEventListener("blur", () => this.end());
    window.addEventListener("pagehide", () => this.end());
  }

  /** @param {string} name what is moved @param {number} dx @param {number} dy @param {Edit} edit */
  add(name, dx, dy, edit) {
    if (this.going?.name !== name) this.end();
    this.going = { name, dx: (this.going?.dx ?? 0) + dx, dy: (this.going?.dy ?? 0) + dy, edit };
    this.bench.stage.preview(edit(this.going.dx, this.going.dy));
    clearTimeout(this.timer);
    this.timer = window.setTimeout(() => this.end(), PAUSE_MS);
  }

  /** Keep what was done so far. */
  end() {
    clearTimeout(this.timer);
    const { going } = this;
    this.going = null;
    if (!going) return;
    const edit = going.dx || going.dy ? going.edit(going.dx, going.dy) : null;
    if (edit) this.bench.post(edit);
    else this.bench.stage.preview(null);
  }
}
