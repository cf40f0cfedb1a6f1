/** The ramp in the sheet: stops are dragged, nudged, added by a click, removed. */
import { dragged } from "../ui/drags.js";

/** @param {object} bench */
export function startRamp(bench) {
  const sheet = document.getElementById("sheet");
  let current = 0;

  const rampOf = (node) => node.closest(".ramp");
  const share = (rail, event) => {
    const box = rail.getBoundingClientRect();
    return Math.round(Math.min(1, Math.max(0, (event.clientX - box.left) / box.width)) * 1000) / 1000;
  };

  function show() {
    for (const ramp of sheet.querySelectorAll(".ramp")) {
      const stops = [...ramp.querySelectorAll(".stop")];
      current = Math.min(current, stops.length - 1);
      stops.forEach((stop, index) => {
        stop.style.left = `${Number(stop.dataset.at) * 100}%`;
        stop.classList.toggle("cur", index === current);
      });
      ramp.querySelectorAll(".stops li").forEach((row, index) => row.classList.toggle("cur", index === current));
    }
  }

  function moved(ramp, index, position) {
    const path = `${ramp.dataset.path}/stops/${index}/position`;
    return { kind: "set", changes: [{ path, value: position }] };
  }

  sheet.addEventListener("pointerdown", (event) => {
    const stop = event.target.closest(".stop");
    const rail = event.target.closest(".rail");
    if (!rail || event.button !== 0) return;
    event.preventDefault();
    const ramp = rampOf(rail);
    if (!stop) {
      bench.post({ kind: "add-stop", path: ramp.dataset.path, position: share(rail, event) });
      return;
    }
    current = Number(stop.dataset.index);
    stop.focus({ preventScroll: true });
    show();
    let position = null;
    dragged(
      bench,
      (at) => {
        position = share(rail, at);
        stop.style.left = `${position * 100}%`;
        bench.stage.preview(moved(ramp, stop.dataset.index, position));
      },
      (any) => any && bench.post(moved(ramp, stop.dataset.index, position)),
    );
  });

  sheet.addEventListener("keydown", (event) => {
    const stop = event.target.closest(".stop");
    if (!stop) return;
    const ramp = rampOf(stop);
    const index = Number(stop.dataset.index);
    const step = { ArrowLeft: -1, ArrowRight: 1, ArrowDown: -1, ArrowUp: 1 }[event.key];
    if (step) {
      const by = (step / 100) * (event.shiftKey ? 10 : 1) * (event.altKey ? 0.1 : 1);
      const position = Math.min(1, Math.max(0, Math.round((Number(stop.dataset.at) + by) * 1000) / 1000));
      bench.post(moved(ramp, index, position));
    } else if (event.key === "Delete" || event.key === "Backspace") {
      bench.post({ kind: "remove-stop", path: ramp.dataset.path, index });
    } else return;
    event.preventDefault();
    event.stopPropagation();
  });

  sheet.addEventListener("dblclick", (event) => {
    const stop = event.target.closest(".stop");
    if (stop) rampOf(stop).querySelectorAll(".stops .colour")[Number(stop.dataset.index)]?.click();
  });

  sheet.addEventListener("click", (event) => {
    const ramp = event.target.closest(".ramp");
    if (!ramp) return;
    const path = ramp.dataset.path;
    const doing = event.target.closest("[data-ramp]")?.dataset.ramp;
    const drop = event.target.closest("[data-drop-stop]");
    if (drop) bench.post({ kind: "remove-stop", path, index: Number(drop.dataset.dropStop) });
    if (doing === "reverse") bench.post({ kind: "reverse-stops", path });
    if (doing === "copy") bench.post({ kind: "copy-stop", path, index: current });
    if (doing === "jitter") bench.post({ kind: "jitter-stops", path, seed: Math.floor(Math.random() * 1e9) });
    if (doing === "space") bench.post({ kind: "space-stops", path });
    if (doing === "seam") bench.post({ kind: "close-seam", path });
    if (doing === "turn") bench.post({ kind: "turn-gradient", path, degrees: 90 });
    if (doing === "add") {
      const places = [...ramp.querySelectorAll(".stop")].map((stop) => Number(stop.dataset.at));
      const here = places[current];
      const next = places[current + 1] ?? places[current - 1];
      bench.post({ kind: "add-stop", path, position: (here + next) / 2 });
    }
  });

  bench.element.addEventListener("shown", show);
}
