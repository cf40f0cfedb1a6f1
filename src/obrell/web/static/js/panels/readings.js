/**
 * Readings: looked at while their sliders are moved; what is set by hand then is what it is at that number.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 */
import { all, byId, closest } from "../ui/dom.js";

/** How long a slider rests until the sheet is written anew. */
const REST_MS = 120;

/** @param {Bench} bench */
export function startReadings(bench) {
  const sheet = byId("sheet");
  sheet.addEventListener("input", (event) => {
    const slider = closest(event, "[data-reading]", HTMLInputElement);
    if (!slider) return;
    bench.stage.readings[slider.dataset.reading ?? ""] = Number(slider.value);
    const shown = slider.parentElement?.querySelector("output");
    if (shown) shown.textContent = slider.value;
    bench.stage.request();
  });
  /** @type {ReturnType<typeof setTimeout>|undefined} */
  let timer;
  sheet.addEventListener("change", (event) => {
    if (!closest(event, "[data-reading]")) return;
    clearTimeout(timer);
    timer = setTimeout(() => bench.refresh(), REST_MS);
  });
  // Its arrows are the slider's own, and move nothing on the stage.
  sheet.addEventListener("keydown", (event) => {
    if (closest(event, "[data-reading]") && event.key !== "Escape" && !event.ctrlKey) event.stopPropagation();
  });
  bench.element.addEventListener("shown", () => keep(bench));
  keep(bench);
}

/** Readings that are new begin where they do; those that are gone are forgotten. @param {Bench} bench */
function keep({ stage, state }) {
  const now = Object.entries(state.readings).map(([name, value]) => [name, stage.readings[name] ?? value]);
  stage.readings = Object.fromEntries(now);
  // An answer from before does not take a slider back.
  for (const slider of all("[data-reading]", byId("sheet")))
    if (slider instanceof HTMLInputElement) slider.value = String(stage.readings[slider.dataset.reading ?? ""]);
}
