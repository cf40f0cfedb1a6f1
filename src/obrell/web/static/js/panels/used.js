/**
 * The last look that a part was given in this kit, kept in this browser. A new part begins plain, and is offered it.
 * Looks given at rest, in the regular size, are remembered; a look that was undone is forgotten.
 *
 * @typedef {{kind: string, control: string, part: string, name: string, effects: object[], extent: number,
 *   origins: import("../ui/api.js").Origin[]}} Look of a part, its size, and the swatches it was used with
 * @typedef {import("../ui/types.js").State} State
 * @typedef {import("../ui/types.js").Bench} Bench
 */
import { say } from "../ui/page.js";

const LARGEST = 40_000;
const NONE = "No part was given a look here yet.";

/** @param {State} state the effects of the one selected part, as text */
function dress({ selected, clip }) {
  const part = selected.length === 1 && clip.find(({ id }) => id === selected[0]);
  return part && part.effects && part.shape ? JSON.stringify(part.effects) : "";
}

/** Whether a look is more than the one paint that every part begins with. @param {{kind?: string}[]} effects */
const isLook = (effects) => effects.length > 1;

export class Used {
  /** @param {Bench} bench */
  constructor(bench) {
    this.bench = bench;
    this.place = `looks given in ${bench.kit}`;
    /** The newest first, one for each kind of part. @type {Look[]} */
    this.looks = JSON.parse(localStorage.getItem(this.place) || "[]");
  }

  /**
   * An edit was kept, or a step taken: a part that looks another way now was given that look.
   *
   * @param {State} before @param {State} after
   */
  learn(before, after) {
    const id = after.selected[0];
    const [old, now] = [dress(before), dress(after)];
    const here = after.state === "rest" && !after.editions && before.selected[0] === id;
    if (!here || !old || old === now || now.length > LARGEST) return;
    const part = after.scene.parts.find((one) => one.id === id);
    const kind = after.clip.find((one) => one.id === id)?.shape?.kind;
    if (part && kind) this.#keep(kind, part, JSON.parse(now || "[]"), after.swatches);
  }

  /**
   * @param {string} kind @param {import("../ui/types.js").ScenePart} part @param {object[]} effects
   * @param {import("../ui/api.js").Origin[]} origins
   */
  #keep(kind, { id, name, extent }, effects, origins) {
    const others = this.looks.filter((one) => one.kind !== kind);
    const look = { kind, control: this.bench.api.base, part: id, name, effects, extent, origins };
    this.looks = isLook(effects) ? [look, ...others] : others;
    localStorage.setItem(this.place, JSON.stringify(this.looks));
  }

  /** The look for a part: the last one of its kind, else the last of any.
   * @param {string} id @returns {Look|undefined} */
  #of(id) {
    const kind = this.bench.state.clip.find((one) => one.id === id)?.shape?.kind;
    const others = this.looks.filter((one) => one.part !== id || one.control !== this.bench.api.base);
    return others.find((one) => one.kind === kind) ?? others[0];
  }

  /**
   * What was just drawn is plain; the last look is offered.
   *
   * @param {string} id @param {import("../ui/types.js").Edit} edit @param {string|undefined} said
   */
  offer(id, edit, said) {
    const look = edit.kind === "draw" ? this.#of(id) : undefined;
    if (look) say(`${said ?? "Drawn"}, plain.`, { words: `Like ${look.name}`, act: () => this.give([id]) });
  }

  /** Parts are given the last look, with lengths that fit them. @param {string[]} parts */
  give(parts) {
    const look = parts.length ? this.#of(parts[0]) : undefined;
    if (!look) return this.bench.complain(NONE);
    const { effects, extent, origins } = look;
    return this.bench.post({ kind: "paste-effects", parts, effects, instead: true, made_for: extent, origins });
  }
}
