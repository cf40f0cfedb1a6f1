/**
 * Trial: a simulated screen whose controls are pressed, held, turned, tabbed through; what they do is said by tables
 * that the server sends, what they look like by pictures that it renders.
 *
 * @typedef {import("./trial/types.js").Screen} Screen
 * @typedef {import("./trial/types.js").PieceData} PieceData
 * @typedef {import("./trial/machine.js").Now} Now
 */
import { byId } from "./ui/dom.js";
import { trouble } from "./ui/page.js";
import { Arranging } from "./trial/arranging.js";
import { Clock } from "./trial/clock.js";
import { Hands } from "./trial/hands.js";
import { Lens } from "./trial/lens.js";
import { Log } from "./trial/log.js";
import { Machine, nextInGroup } from "./trial/machine.js";
import { Pictures } from "./trial/pictures.js";
import { Placed, standingOf } from "./trial/placed.js";
import { prepare } from "./trial/preparing.js";
import { Saving } from "./trial/saving.js";
import { startSheet } from "./trial/sheet.js";
import { Sources } from "./trial/sources.js";
import { Stand } from "./trial/stand.js";
import { startTaking } from "./trial/taking.js";
import { startTime } from "./trial/time.js";
import { startTray } from "./trial/tray.js";
import { Under } from "./trial/under.js";

/** What happens too often to look ahead at each. */
const OFTEN = ["tick", "move", "set"];

/** What leaves a piece, or is not done by a hand: the sheet goes on about what was done before. */
const ASIDE = ["leave", "blur", "set", "light", "tick"];

export class Trial {
  /** @param {HTMLElement} element */
  constructor(element) {
    this.element = element;
    this.base = `/kits/${element.dataset.kit}/trial/${element.dataset.panel}`;
    this.machine = new Machine(JSON.parse(element.dataset.rules ?? "{}"));
    /** @type {Screen} */
    this.screen = JSON.parse(element.dataset.screen ?? "{}");
    /** The pieces that can be operated, by their ids. @type {Object<string, PieceData>} */
    this.parts = {};
    /** How each of them stands. @type {Object<string, Now>} */
    this.standing = {};
    /** @type {Map<string, Placed>} */
    this.placed = new Map();
    /** Counts what the screen was. */
    this.version = 0;
    this.ticking = 0;
    this.clock = new Clock();
    this.pictures = new Pictures();
    this.pieces = byId("pieces");
    this.stand = new Stand();
    this.log = new Log();
    this.saving = new Saving(this, this.base);
    this.arranging = new Arranging(this);
    this.under = new Under(this);
    this.sources = new Sources(this);
    startSheet(this);
    startTaking(/** @type {HTMLAnchorElement} */ (byId("share")));
    new Hands(this);
    this.lens = new Lens(this);
    startTime(this);
    startTray(this);
    this.pieces.addEventListener("missing", () => trouble("A picture of this panel is not there any more."));
    this.show(this.screen);
    // There is nothing to operate yet.
    if (!this.screen.pieces.length) this.arranging.turn(true);
  }

  /** The screen as it stands now. @param {Screen} screen */
  show(screen) {
    const before = new Map(this.screen.pieces.map((one) => [one.id, JSON.stringify(one)]));
    const same = screen.density === this.screen.density;
    this.screen = screen;
    this.version += 1;
    this.parts = Object.fromEntries(screen.pieces.filter((one) => !one.gone).map((one) => [one.id, one]));
    byId("panel-called").textContent = screen.name;
    for (const data of screen.pieces)
      if (!same || !this.placed.has(data.id) || before.get(data.id) !== JSON.stringify(data)) this.#place(data);
    const wanted = new Set(screen.pieces.map(({ id }) => id));
    for (const [id, placed] of this.placed) if (!wanted.has(id)) this.#displace(id, placed);
    this.#stack();
    this.stand.furnish(screen);
    this.arranging.draw();
    this.sources.told();
    this.wake();
    for (const { id } of screen.pieces) prepare(this, id, false);
  }

  /** Back to front; what is in its place already keeps the focus. */
  #stack() {
    this.screen.pieces.forEach(({ id }, at) => {
      const element = this.placed.get(id)?.element;
      if (element && this.pieces.children[at] !== element)
        this.pieces.insertBefore(element, this.pieces.children[at] ?? null);
    });
  }

  /** @param {PieceData} data */
  #place(data) {
    const old = this.placed.get(data.id);
    const now = standingOf(data, old?.data, this.standing[data.id]);
    const placed = new Placed(data, this.screen.density, this.pictures, { now, more: old?.more ?? {} });
    const focused = old && old.element === document.activeElement;
    old?.element.replaceWith(placed.element);
    this.placed.set(data.id, placed);
    if (!data.gone) this.standing[data.id] = now;
    if (focused) placed.element.focus({ preventScroll: true });
  }

  /** @param {string} id @param {Placed} placed */
  #displace(id, placed) {
    placed.element.remove();
    this.placed.delete(id);
    delete this.standing[id];
  }

  /**
   * Something happened to a piece.
   *
   * @param {string} id @param {string} kind @param {object} [more]
   */
  happen(id, kind, more = {}) {
    if (!this.parts[id]) return;
    const time = this.clock.now;
    const before = this.standing;
    const { after, said } = this.machine.operate(this.parts, before, id, { time, kind, ...more });
    this.standing = after;
    for (const one of Object.keys(after))
      if (after[one] !== before[one]) this.#become(one, time, one === id && !ASIDE.includes(kind));
    for (const [one, words] of said) this.log.add(time, `${this.parts[one].name} ${words}`);
    if (after[id] === before[id]) return;
    if (!OFTEN.includes(kind)) prepare(this, id, true);
    this.wake();
  }

  /** @param {string} id @param {number} time @param {boolean} told whether the sheet says what it does */
  #become(id, time, told) {
    const placed = this.placed.get(id);
    if (!placed) return;
    const came = placed.shown.state;
    placed.become(this.standing[id], time);
    if (told) this.under.look(id, came);
  }

  /** A reading besides the first is at another number. @param {string} id @param {string} reading
   * @param {number} number */
  readAt(id, reading, number) {
    const placed = this.placed.get(id);
    if (!placed || placed.more[reading] === number) return;
    placed.more[reading] = number;
    placed.become(this.standing[id], this.clock.now);
  }

  /** Where a pointer is on the canvas of a piece. @param {string} id @param {import("./trial/stand.js").At} at */
  placeIn(id, at) {
    const [x, y] = this.stand.place(at);
    const data = this.parts[id];
    return data ? { x: x - data.x, y: y - data.y } : {};
  }

  /** @param {string} id */
  isTurned(id) {
    const piece = this.parts[id];
    return Boolean(piece && this.machine.rules.tables[piece.behaviour].turned);
  }

  /** The next of a group, by an arrow. @param {string} id @param {number} way */
  alongGroup(id, way) {
    const next = nextInGroup(this.parts, id, way);
    if (!next) return;
    this.placed.get(next.id)?.element.focus();
    for (const kind of ["key", "unkey"]) this.happen(next.id, kind);
  }

  /** How all pieces look now. */
  seen() {
    const { now } = this.clock;
    return Object.keys(this.parts).map((id) => this.placed.get(id)?.seen(this.standing[id], now));
  }

  /** Something moves, or may. */
  wake() {
    this.ticking ||= requestAnimationFrame(() => this.#tick());
  }

  #tick() {
    this.ticking = 0;
    let moving = this.sources.tick();
    for (const [id, { phase }] of Object.entries(this.standing)) {
      if ((phase !== "down" && phase !== "key") || this.parts[id].behaviour !== "hold to confirm") continue;
      this.happen(id, "tick");
      moving = true;
    }
    const { now } = this.clock;
    for (const placed of this.placed.values()) moving = placed.shown.paint(now) || moving;
    if (this.lens.look() || moving) this.wake();
  }
}

new Trial(byId("trial"));
