/** What holds while a key or a button is held down, and what is snapped to. */
import { all, byId, closest } from "../ui/dom.js";
import { typing } from "../ui/page.js";
import { hiding, meant } from "./meant.js";

/** @typedef {(on: boolean) => void} Hold whether it is held now */

/**
 * Held keys and buttons: without the effect, and without any marks.
 *
 * @param {import("../ui/types.js").Bench} bench
 */
export function startHolds(bench) {
  /** @type {Hold} */
  const bare = (on) => bench.stage.element.classList.toggle("bare", on);
  let holding = false;
  /** @type {Hold} */
  const plain = (on) => {
    if (on === holding) return;
    holding = on;
    byId("without").classList.toggle("on", on);
    if (!on) {
      bench.stage.preview(null);
      return;
    }
    bench.stage.preview(hiding(meant(bench)));
  };
  /** @type {Hold} */
  const apart = (on) => {
    if (on === bench.stage.apart) return;
    bench.stage.apart = on;
    byId("apart").classList.toggle("on", on);
    bench.stage.request();
  };
  /** @type {Hold} */
  const ties = (on) => {
    if (on === bench.marks.ties) return;
    bench.marks.ties = on;
    byId("ties").classList.toggle("on", on);
    bench.marks.draw();
  };
  /** @type {Hold} */
  const loose = (on) => {
    bench.marks.loose = on;
  };
  listen({ w: plain, h: bare, o: apart, y: ties, n: loose }, { without: plain, bare, apart, ties });
}

/**
 * @param {Object<string, Hold>} keys
 * @param {Object<string, Hold>} buttons by their ids
 */
function listen(keys, buttons) {
  document.addEventListener("keydown", (event) => {
    if (!typing(event) && !event.ctrlKey && !event.metaKey && !event.repeat) keys[event.key.toLowerCase()]?.(true);
  });
  document.addEventListener("keyup", (event) => keys[event.key.toLowerCase()]?.(false));
  window.addEventListener("blur", () => {
    for (const hold of Object.values(keys)) hold(false);
  });
  for (const [id, hold] of Object.entries(buttons)) {
    const button = byId(id);
    button.addEventListener("pointerdown", () => hold(true));
    for (const end of ["pointerup", "pointerleave", "pointercancel"]) button.addEventListener(end, () => hold(false));
  }
}

/**
 * Which kinds of things to snap to; kept for this browser.
 *
 * @param {import("../ui/types.js").Bench} bench
 */
export function startSnaps(bench) {
  const box = byId("snaps");
  const off = new Set(JSON.parse(localStorage.getItem("snaps off") || "[]"));
  const show = () => {
    const fields = all("[data-snap]", box).filter((field) => field instanceof HTMLInputElement);
    for (const field of fields) field.checked = !off.has(field.dataset.snap ?? "");
    bench.marks.kinds = fields.map((field) => field.dataset.snap ?? "").filter((kind) => !off.has(kind));
  };
  box.addEventListener("change", (event) => {
    const snap = closest(event, "[data-snap]")?.dataset.snap;
    if (!snap) return;
    if (!off.delete(snap)) off.add(snap);
    localStorage.setItem("snaps off", JSON.stringify([...off]));
    show();
  });
  show();
}
