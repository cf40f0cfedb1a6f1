/** What holds while a key or a button is held down, and what is snapped to. */
import { typing } from "../ui/page.js";
import { hiding, meant } from "./strip.js";

/** Held keys and buttons: without the effect, and without any marks. */
export function startHolds(bench) {
  const bare = (on) => bench.stage.element.classList.toggle("bare", on);
  let holding = false;
  const plain = (on) => {
    if (on === holding) return;
    holding = on;
    document.getElementById("without").classList.toggle("on", on);
    if (!on) {
      bench.stage.preview(null);
      return;
    }
    bench.stage.preview(hiding(meant(bench)));
  };
  const apart = (on) => {
    if (on === bench.stage.apart) return;
    bench.stage.apart = on;
    document.getElementById("apart").classList.toggle("on", on);
    bench.stage.request();
  };
  const loose = (on) => {
    bench.marks.loose = on;
  };
  const holds = { w: plain, h: bare, o: apart, n: loose };
  document.addEventListener("keydown", (event) => {
    if (!typing(event) && !event.ctrlKey && !event.metaKey && !event.repeat) holds[event.key.toLowerCase()]?.(true);
  });
  document.addEventListener("keyup", (event) => holds[event.key.toLowerCase()]?.(false));
  window.addEventListener("blur", () => {
    for (const hold of Object.values(holds)) hold(false);
  });
  for (const [id, hold] of [
    ["without", plain],
    ["bare", bare],
    ["apart", apart],
  ]) {
    const button = document.getElementById(id);
    button.addEventListener("pointerdown", () => hold(true));
    for (const end of ["pointerup", "pointerleave", "pointercancel"]) button.addEventListener(end, () => hold(false));
  }
}

/** Which kinds of things to snap to; kept for this browser. */
export function startSnaps(bench) {
  const box = document.getElementById("snaps");
  const off = new Set(JSON.parse(localStorage.getItem("snaps off") || "[]"));
  const show = () => {
    const fields = [...box.querySelectorAll("[data-snap]")];
    for (const field of fields) field.checked = !off.has(field.dataset.snap);
    bench.marks.kinds = fields.map((field) => field.dataset.snap).filter((kind) => !off.has(kind));
  };
  box.addEventListener("change", (event) => {
    const { snap } = event.target.dataset;
    if (!off.delete(snap)) off.add(snap);
    localStorage.setItem("snaps off", JSON.stringify([...off]));
    show();
  });
  show();
}
