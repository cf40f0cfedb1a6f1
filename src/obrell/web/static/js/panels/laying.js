/**
 * Swatches laid on: pressed for what is selected, dragged onto a part, an effect, a colour, or the art itself.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 * @typedef {import("../ui/types.js").Edit} Edit
 */
import { byId, closest } from "../ui/dom.js";
import { follow } from "../ui/drags.js";

const DRAG_FROM_PX = 4;
const HERE = "laid-here";

/** What lies under the pointer, and what a swatch does there.
 * @param {Bench} bench @param {PointerEvent} at @returns {{node: Element, edit: object}|null} */
function targetAt(bench, at) {
  const under = document.elementFromPoint(at.clientX, at.clientY);
  const colour = under?.closest("#sheet .colour");
  if (colour instanceof HTMLElement) return { node: colour, edit: { path: colour.dataset.path } };
  const effect = under?.closest("#sheet .eff");
  const row = under?.closest("#sheet .part");
  if (effect instanceof HTMLElement && row instanceof HTMLElement)
    return { node: effect, edit: { path: `parts/${row.dataset.part}/effects/${effect.dataset.effect}` } };
  if (row instanceof HTMLElement) return { node: row, edit: { parts: [row.dataset.part] } };
  const { stage, marks } = bench;
  if (!under || !stage.element.contains(under)) return null;
  const [part] = marks.hits.under(...stage.toLogical(at));
  return part ? { node: stage.element, edit: { parts: [part.id] } } : null;
}

/** @param {HTMLElement} chip */
function ghostOf(chip) {
  const ghost = /** @type {HTMLElement} */ (chip.cloneNode(true));
  ghost.removeAttribute("id");
  ghost.classList.add("dragged-chip");
  ghost.setAttribute("aria-hidden", "true");
  document.body.append(ghost);
  return ghost;
}

class Laying {
  /** @param {Bench} bench @param {HTMLElement} chip */
  constructor(bench, chip) {
    this.bench = bench;
    this.chip = chip;
    /** @type {HTMLElement|null} */
    this.ghost = null;
    /** @type {{node: Element, edit: object}|null} */
    this.target = null;
  }

  /** @param {object} where @returns {Edit} */
  edit(where) {
    return { kind: "lay-swatch", swatch: this.chip.dataset.lays, ...where };
  }

  /** @param {PointerEvent} at */
  move(at) {
    this.ghost ??= ghostOf(this.chip);
    this.ghost.style.left = `${at.clientX}px`;
    this.ghost.style.top = `${at.clientY}px`;
    const next = targetAt(this.bench, at);
    if (JSON.stringify(next?.edit) === JSON.stringify(this.target?.edit)) return;
    this.target?.node.classList.remove(HERE);
    this.target = next;
    next?.node.classList.add(HERE);
    this.bench.stage.preview(next ? this.edit(next.edit) : null);
  }

  /** @param {boolean} keep */
  end(keep) {
    this.ghost?.remove();
    this.target?.node.classList.remove(HERE);
    this.bench.hold(false);
    if (keep && this.target) this.bench.post(this.edit(this.target.edit));
    else this.bench.stage.preview(null);
  }
}

/** @param {Bench} bench */
export function startLaying(bench) {
  byId("sheet").addEventListener("pointerdown", (event) => {
    const chip = closest(event, "[data-lays]");
    if (!chip || event.button) return;
    const laying = new Laying(bench, chip);
    bench.hold(true);
    follow(event, {
      from: DRAG_FROM_PX,
      move: (at) => laying.move(at),
      done: (_at, moved) => laying.end(moved),
      back: () => laying.end(false),
    });
  });
}
