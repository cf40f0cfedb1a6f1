/**
 * Operating, as the tables of the server say it: what comes of presses, keys and turns. It does what
 * `core/trial/operating.py` does, and is tested against that on the same events; it stands alone, since the shared page
 * carries it along.
 *
 * @typedef {{start: number, end: number, step: number}} Scale
 * @typedef {{kind: string, x: number, y: number, sweep: number, dx: number, dy: number, far: boolean}} Grip
 * @typedef {{behaviour: string, scale: Scale|null, grip: Grip|null, group: string, hold: number,
 *   disabled: boolean}} Piece
 * @typedef {{phase: string, over: boolean, focused: boolean, on: boolean, number: number, share: number, held: number,
 *   begun: number, since: number, acted: number}} Now
 * @typedef {{time: number, kind: string, x?: number, y?: number, amount?: number}} Happening
 * @typedef {{rows: Object<string, Object<string, [string, string]>>, deed: string, turned: boolean}} Table
 * @typedef {{tables: Object<string, Table>, said: Object<string, string>, twice: number, thumb: number,
 *   arm: number}} Rules
 * @typedef {{now: Now, said: string[]}} Came
 */

/** How something stands before anything is done. @type {Now} */
export const STILL = {
  phase: "up",
  over: false,
  focused: false,
  on: false,
  number: 0,
  share: 0,
  held: 0,
  begun: 0,
  since: 0,
  acted: -1e9,
};

/** @param {number} value */
const halfUp = (value) => Math.floor(value + 0.5);
/** @param {number} value */
const rounded = (value) => halfUp(value * 1e6) / 1e6;
/** @param {number} value @param {number} low @param {number} high */
const within = (value, low, high) => Math.min(high, Math.max(low, value));

/** A number as it is said: at most three decimals. @param {number} value */
export const written = (value) => String(halfUp(value * 1e3) / 1e3);

/** @param {Scale} scale @param {number} value */
const shareOf = (scale, value) => (value - scale.start) / (scale.end - scale.start);

/** @param {Scale} scale @param {number} share */
function snapped({ start, end, step }, share) {
  const way = end - start;
  const one = way < 0 ? -step : step;
  const value = start + halfUp((share * way) / one) * one;
  return rounded(within(value, Math.min(start, end), Math.max(start, end)));
}

/** @param {Scale} scale @param {Now} now @param {number} share @returns {Now} */
function at(scale, now, share) {
  const far = within(share, 0, 1);
  return { ...now, share: far, number: snapped(scale, far) };
}

/** Degrees clockwise from straight up. @param {Grip} grip @param {Happening} event */
const angle = (grip, { x = 0, y = 0 }) => (Math.atan2(x - grip.x, grip.y - y) * 180) / Math.PI;

/** How far along its way the pointer is, as a share. @param {Grip} grip @param {Happening} event */
const along = (grip, { x = 0, y = 0 }) =>
  ((x - grip.x) * grip.dx + (y - grip.y) * grip.dy) / (grip.dx * grip.dx + grip.dy * grip.dy);

export class Machine {
  /** @param {Rules} rules */
  constructor(rules) {
    this.rules = rules;
  }

  /** What comes of an event. @param {Piece} piece @param {Now} before @param {Happening} event @returns {Came} */
  step(piece, before, event) {
    if (event.kind === "set") return { now: this.#set(piece, before, event), said: [] };
    if (event.kind === "light") return this.#lit(before, event);
    const now = noticed(before, event);
    if (piece.disabled) return { now, said: [] };
    const table = this.rules.tables[piece.behaviour];
    if (table.turned && ["move", "turn", "end"].includes(event.kind)) return this.#turned(piece, now, event);
    const long = event.kind === "tick" && event.time - now.since >= piece.hold;
    const row = table.rows[now.phase]?.[long ? "long" : event.kind];
    return row ? this.#rowed(piece, table, now, event, row) : { now, said: [] };
  }

  /** @param {Piece} piece @param {Table} table @param {Now} before @param {Happening} event
   * @param {[string, string]} row @returns {Came} */
  #rowed(piece, table, before, event, [phase, said]) {
    const begins = before.phase === "up" && (phase === "down" || phase === "key");
    const begun = { ...before, since: event.time, begun: before.number };
    const now = { ...(begins ? this.#taken(piece, begun, event) : before), phase };
    if (said === "act") return this.#done(piece, table.deed, now, event.time);
    if (said === "turned" && now.number === now.begun) return { now, said: [] };
    return { now, said: this.#sayings(said, now) };
  }

  /** @param {string} said @param {Now} now */
  #sayings(said, now) {
    return said ? [(this.rules.said[said] ?? said).replace("{}", written(now.number))] : [];
  }

  /** What it does when it was pressed. @param {Piece} piece @param {string} deed @param {Now} before
   * @param {number} time @returns {Came} */
  #done(piece, deed, before, time) {
    const { said, twice } = this.rules;
    const again = time - before.acted <= twice;
    const now = { ...before, acted: again ? -1e9 : time };
    const more = again ? [said.twice] : [];
    if (deed === "flip") return { now: { ...now, on: !now.on }, said: [now.on ? said.off : said.on, ...more] };
    if (deed === "choose") return { now: { ...now, on: true }, said: [said.chosen] };
    if (deed === "confirm") return { now: { ...now, on: !now.on }, said: [said.confirm] };
    if (deed !== "count" || !piece.scale) return { now, said: [said.click, ...more] };
    const counted = this.#counted(piece.scale, now);
    return { now: counted, said: this.#sayings("count", counted) };
  }

  /** One step on; after its end it begins anew. @param {Scale} scale @param {Now} now */
  #counted(scale, now) {
    const share = shareOf(scale, now.number) + scale.step / Math.abs(scale.end - scale.start);
    return at(scale, now, share > 1 + 1e-9 ? 0 : share);
  }

  /** A knob or a slider, taken hold of. @param {Piece} piece @param {Now} now @param {Happening} event */
  #taken({ grip, scale }, now, event) {
    if (!grip || !scale) return now;
    if (grip.kind === "around") return { ...now, held: angle(grip, event) };
    const there = along(grip, event);
    const far = Math.abs(there - now.share) * Math.hypot(grip.dx, grip.dy) > this.rules.thumb;
    return grip.far && far ? { ...at(scale, now, there), held: 0 } : { ...now, held: there - now.share };
  }

  /** A number changed by the hand, by keys or by the wheel. @param {Piece} piece @param {Now} before
   * @param {Happening} event @returns {Came} */
  #turned(piece, before, event) {
    const { scale } = piece;
    if (!scale) return { now: before, said: [] };
    if (event.kind === "move") return { now: this.#pulled(piece, scale, before, event), said: [] };
    const { amount = 0 } = event;
    const step = scale.step / Math.abs(scale.end - scale.start);
    const share = event.kind === "turn" ? shareOf(scale, before.number) + amount * step : amount;
    const now = at(scale, before, share);
    return { now, said: now.number === before.number ? [] : this.#sayings("turned", now) };
  }

  /** @param {Piece} piece @param {Scale} scale @param {Now} now @param {Happening} event */
  #pulled({ grip }, scale, now, event) {
    if (!grip || now.phase !== "down") return now;
    if (grip.kind === "along") return at(scale, now, along(grip, event) - now.held);
    const { x = 0, y = 0 } = event;
    if (Math.hypot(x - grip.x, y - grip.y) < this.rules.arm) return now;
    const turned = angle(grip, event);
    const by = ((((turned - now.held + 540) % 360) + 360) % 360) - 180;
    return { ...at(scale, now, now.share + by / grip.sweep), held: turned };
  }

  /** A source moves it, by whole steps; what the hand holds stays in it. @param {Piece} piece @param {Now} now
   * @param {Happening} event */
  #set({ scale }, now, { amount = 0 }) {
    if (!scale || now.phase !== "up") return now;
    const number = snapped(scale, shareOf(scale, amount));
    return number === now.number ? now : { ...now, number, share: shareOf(scale, number) };
  }

  /** A source lights it, or another of its group was chosen. @param {Now} now @param {Happening} event
   * @returns {Came} */
  #lit(now, { amount = 0 }) {
    const on = amount > 0;
    const { said } = this.rules;
    return on === now.on ? { now, said: [] } : { now: { ...now, on }, said: [on ? said.on : said.off] };
  }

  /**
   * What comes of something that happened to one of the pieces of a panel. Of a group, one is on.
   *
   * @param {Object<string, Piece>} pieces @param {Object<string, Now>} standing @param {string} id
   * @param {Happening} event
   * @returns {{after: Object<string, Now>, said: [string, string][]}}
   */
  operate(pieces, standing, id, event) {
    const piece = pieces[id];
    const came = this.step(piece, standing[id], event);
    /** @type {Object<string, Now>} */
    const after = { ...standing, [id]: came.now };
    /** @type {[string, string][]} */
    const said = came.said.map((words) => [id, words]);
    if (piece.behaviour !== "one of a group" || !came.now.on || standing[id].on) return { after, said };
    for (const [other, one] of Object.entries(pieces)) {
      if (other === id || one.behaviour !== piece.behaviour || one.group !== piece.group) continue;
      const out = this.#lit(after[other], { time: event.time, kind: "light" });
      after[other] = out.now;
      for (const words of out.said) said.push([other, words]);
    }
    return { after, said };
  }
}

/** Whether the pointer is over it, and whether keys go to it. @param {Now} now @param {Happening} event
 * @returns {Now} */
function noticed(now, { kind }) {
  if (kind === "enter" || kind === "leave") return { ...now, over: kind === "enter" };
  if (kind === "focus" || kind === "blur") return { ...now, focused: kind === "focus" };
  return now;
}

/** Which look it has, as a key of its looks. @param {Piece} piece @param {Now} now */
export function shownAs(piece, now) {
  const on = now.on ? "on" : "";
  if (piece.disabled) return `${on}/disabled/`;
  const pressed = ["down", "key", "done"].includes(now.phase);
  const touched = pressed ? "pressed" : now.over && now.phase !== "off" ? "hover" : "";
  return `${on}/${touched}/${now.focused ? "focus" : ""}`;
}

/**
 * The number of a source at a time, s: looked up in its table.
 *
 * @param {{times: number[], values: number[], period: number, even: boolean}} series @param {number} time
 */
export function numberAt({ times, values, period, even }, time) {
  if (values.length === 1) return values[0];
  const now = time % period;
  let low = 0;
  let high = times.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (times[middle] <= now) low = middle + 1;
    else high = middle;
  }
  const place = low - 1;
  if (place < 0) return values[0];
  if (!even || place + 1 === times.length) return values[place];
  const share = (now - times[place]) / (times[place + 1] - times[place]);
  return values[place] + (values[place + 1] - values[place]) * share;
}

/**
 * What a source does at a time, s: to which placement, to which of its readings, and the number; to none, and 1 or 0,
 * where it puts something on or off.
 *
 * @param {{series: Parameters<typeof numberAt>[0],
 *   moves: {placement: string, reading: string, when: string, than: number}[]}} source
 * @param {number} time
 */
export function moved({ series, moves }, time) {
  const number = numberAt(series, time);
  return moves.map(({ placement, reading, when, than }) => {
    const on = when === "above" ? number > than : number < than;
    return { placement, reading, amount: reading ? number : Number(on) };
  });
}

/**
 * The piece that an arrow leads to in the group of another one; none where that is in no group.
 *
 * @template {Piece & {id: string}} T
 * @param {Object<string, T>} pieces @param {string} id @param {number} way
 * @returns {T|undefined}
 */
export function nextInGroup(pieces, id, way) {
  const { behaviour, group } = pieces[id];
  if (behaviour !== "one of a group") return undefined;
  const members = Object.values(pieces).filter((one) => one.behaviour === behaviour && one.group === group);
  const at = members.findIndex((one) => one.id === id);
  return members[(at + way + members.length) % members.length];
}
