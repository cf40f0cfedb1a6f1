/**
 * Readings: looked at while their sliders are moved; what is set by hand then is what it is at that number.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 */
import { byId, closest } from "../ui/dom.js";

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
  sheet.addEventListener("change", (event) => {
    if (closest(event, "[data-reading]")) bench.refresh();
  });
  bench.element.addEventListener("shown", () => keep(bench));
  keep(bench);
}

/** Readings that are new begin where they do; those that are gone are forgotten. @param {Bench} bench */
function keep({ stage, state }) {
  const now = Object.entries(state.readings).map(([name, value]) => [name, stage.readings[name] ?? value]);
  stage.readings = Object.fromEntries(now);
}
