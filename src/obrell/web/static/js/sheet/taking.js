/**
 * A colour taken from the art: the next press on the stage says from where.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 */
import { saidBy } from "../ui/dom.js";
import { ask, wordsOf } from "../ui/page.js";

/** The colour of the picture under the pointer. @param {Bench} bench @param {PointerEvent} event */
export async function seenAt(bench, event) {
  const found = bench.stage.colourAt(event);
  if (!found) throw new Error("There is nothing drawn there.");
  return found;
}

/**
 * The colour that the part under the pointer is painted with itself, whatever lies over it.
 *
 * @param {Bench} bench @param {PointerEvent} event @returns {Promise<string>}
 */
export async function paintedAt(bench, event) {
  const [x, y] = bench.stage.toLogical(event);
  const part = bench.marks.hits.hit(x, y);
  if (!part) throw new Error("There is no part there.");
  const place = new URLSearchParams({ part: part.id, x: String(x), y: String(y), ...bench.stage.drawn });
  const answer = await ask(`${bench.api.base}/own-colour?${place}`);
  if (!answer.ok) throw new Error(wordsOf(await answer.text()));
  return (await answer.json()).hex;
}

/**
 * Wait for a press on the stage.
 *
 * @param {HTMLElement} stage
 * @returns {Promise<PointerEvent|null>} null when Escape called it off
 */
function pressOn(stage) {
  return new Promise((resolve) => {
    const over = new AbortController();
    const options = { signal: over.signal, capture: true };
    /** @param {Event} event @param {PointerEvent|null} press */
    const end = (event, press) => {
      event.stopPropagation();
      event.preventDefault();
      over.abort();
      stage.classList.remove("taking");
      resolve(press);
    };
    stage.classList.add("taking");
    stage.addEventListener("pointerdown", (event) => end(event, event), options);
    document.addEventListener("keydown", (event) => event.key === "Escape" && end(event, null), options);
  });
}

/**
 * Read the colour at the next press on the stage.
 *
 * @param {import("./colour_field.js").ColourField} field that reads it
 * @param {Bench} bench
 * @param {(bench: Bench, event: PointerEvent) => Promise<string>} colourAt
 */
export async function takeInto(field, bench, colourAt) {
  const press = await pressOn(bench.stage.element);
  if (!press) return;
  field.hex.blur();
  try {
    await field.read("hex", await colourAt(bench, press));
  } catch (error) {
    field.fault.textContent = saidBy(error);
  }
}
