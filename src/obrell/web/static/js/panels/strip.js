/** The build-up strip: its steps, what each changes as a heat map and costs; before and after in halves. */
import { dragged } from "../ui/drags.js";
import { ask, typing } from "../ui/page.js";
import { showWhenReady } from "../ui/pictures.js";

const IDLE_MS = 700;
const DRAG_FROM_PX = 6;

/** The open effect, or the selected parts, or all of them, by their paths. @returns {string[]} */
export function meant(bench) {
  const { selected, effect, scene } = bench.state;
  if (effect) return [`parts/${selected[0]}/effects/${effect}`];
  return (selected.length ? selected : scene.parts.map((part) => part.id)).map((id) => `parts/${id}`);
}

/** The edit that hides what stands at paths; null when there are none. */
export function hiding(paths) {
  return paths.length
    ? { kind: "set", changes: paths.map((path) => ({ path: `${path}/visible`, value: false })) }
    : null;
}

/** Hovering a step shows the art up to it, a press opens its effect, a drag moves it, its eye hides it. */
export function startStrip(bench) {
  const strip = document.getElementById("strip");
  const path = (id) => `parts/${bench.state.selected[0]}/effects/${id}`;
  let pulled = false;

  const show = (button) => {
    const steps = [...strip.querySelectorAll(".build")];
    const later = steps.slice(steps.indexOf(button) + 1).filter((step) => !("hidden" in step.dataset));
    bench.stage.preview(hiding(later.map((step) => path(step.dataset.open))));
  };

  /** Let go over another step, the effect takes its place. */
  function drag(from, start) {
    let over = null;
    const move = (at) => {
      if (!pulled && Math.abs(at.clientX - start.clientX) < DRAG_FROM_PX) return;
      pulled = true;
      bench.stage.preview(null);
      from.classList.add("held");
      over?.classList.remove("over");
      over = document.elementFromPoint(at.clientX, at.clientY)?.closest(".build") || null;
      if (over !== from) over?.classList.add("over");
    };
    dragged(bench, move, () => {
      over?.classList.remove("over");
      from.classList.remove("held");
      const to = over !== from && over?.dataset.open;
      if (to) bench.post({ kind: "move-effect", part: bench.state.selected[0], effect: from.dataset.open, to });
    });
  }

  strip.addEventListener("pointerover", (event) => {
    const button = event.target.closest(".build");
    if (button && !event.buttons) show(button);
  });
  // Sideways by the wheel; an end that is not the last is shown faded.
  const ends = () => {
    const list = strip.querySelector("ol");
    if (!list) return;
    list.classList.toggle("before", list.scrollLeft > 1);
    list.classList.toggle("after", list.scrollLeft + list.clientWidth < list.scrollWidth - 1);
  };
  strip.addEventListener(
    "wheel",
    (event) => {
      const list = strip.querySelector("ol");
      if (!list || list.scrollWidth <= list.clientWidth) return;
      event.preventDefault();
      list.scrollLeft += event.deltaX + event.deltaY;
    },
    { passive: false },
  );
  strip.addEventListener("scroll", ends, true);
  window.addEventListener("resize", ends);
  bench.element.addEventListener("shown", ends);

  strip.addEventListener("pointerleave", () => bench.stage.preview(null));
  strip.addEventListener("focusin", (event) => event.target.matches(".build:focus-visible") && show(event.target));
  strip.addEventListener("focusout", () => bench.stage.preview(null));
  strip.addEventListener("pointerdown", (event) => {
    const button = event.target.closest(".build");
    pulled = false;
    if (button?.dataset.open && event.button === 0) drag(button, event);
  });
  strip.addEventListener("click", async (event) => {
    const { seen } = event.target.closest("[data-seen]")?.dataset || {};
    if (seen) bench.set(seen, event.target.closest("[data-seen]").getAttribute("aria-pressed") !== "true");
    const button = event.target.closest(".build");
    if (!button?.dataset.open || pulled) return;
    await bench.select(bench.state.selected, button.dataset.open);
    document.querySelector(".eff.open")?.scrollIntoView({ block: "nearest" });
  });
}

/** @param {object} bench */
export function startHeat(bench) {
  const strip = document.getElementById("strip");
  let hot = false;
  let timer = 0;

  function show() {
    strip.querySelector("#heat")?.setAttribute("aria-pressed", String(hot));
    for (const image of strip.querySelectorAll("img[data-heat]")) {
      showWhenReady(image, (hot && image.dataset.heat) || image.dataset.plain);
    }
    clearTimeout(timer);
    if (hot) timer = setTimeout(measure, IDLE_MS);
    else for (const label of strip.querySelectorAll(".build small")) label.textContent = "";
  }

  async function measure() {
    const part = strip.querySelector("ol")?.dataset.part;
    if (!part) return;
    const answer = await ask(`${bench.api.base}/costs?part=${part}`);
    if (!answer.ok || strip.querySelector("ol")?.dataset.part !== part) return;
    const { ms } = await answer.json();
    strip.querySelectorAll(".build small").forEach((label, step) => {
      label.textContent = `${ms[step] < 0.05 ? "0" : ms[step].toFixed(1)} ms`;
    });
  }

  strip.addEventListener("click", (event) => {
    if (event.target.id !== "heat") return;
    hot = !hot;
    show();
  });
  bench.element.addEventListener("shown", show);
}

/** The art before and after the open effect, or the selection's whole look, in two halves with a line to drag. */
export function startHalves(bench) {
  const { stage } = bench;
  const before = document.getElementById("before");
  const line = document.getElementById("halves-line");
  const button = document.getElementById("halves");
  let on = false;
  let share = 0.5;
  let waiting = false;

  function place() {
    const width = stage.element.clientWidth;
    const at = Math.round(width * share);
    line.style.left = `${at}px`;
    line.hidden = before.hidden = !on;
    const box = stage.canvas.getBoundingClientRect();
    const own = stage.element.getBoundingClientRect();
    before.style.clipPath = `inset(0 ${Math.max(0, box.right - own.left - at)}px 0 0)`;
    stage.canvas.style.clipPath = on ? `inset(0 0 0 ${Math.max(0, at - (box.left - own.left))}px)` : "";
  }

  /** Ask for the art without the effect once, and keep that picture beside the art. */
  function capture() {
    const bare = hiding(meant(bench));
    if (!on || waiting || stage.edit || !bare) return;
    waiting = true;
    stage.preview(bare);
    const wanted = stage.seq + (stage.again ? 1 : 0);
    const kept = (event) => {
      if (!stage.edit || event.detail.seq < wanted) return;
      stage.removeEventListener("frame", kept);
      before.width = stage.canvas.width;
      before.height = stage.canvas.height;
      before.getContext("2d").drawImage(stage.canvas, 0, 0);
      before.style.cssText = stage.canvas.style.cssText;
      before.className = stage.canvas.className;
      waiting = false;
      stage.preview(null);
      place();
    };
    stage.addEventListener("frame", kept);
  }

  function toggle() {
    on = !on;
    button.setAttribute("aria-pressed", String(on));
    if (on) capture();
    place();
  }

  button.addEventListener("click", toggle);
  stage.addEventListener("look", () => {
    if (on) setTimeout(capture, 150);
    place();
  });
  bench.element.addEventListener("shown", () => on && setTimeout(capture, 50));
  line.addEventListener("pointerdown", (event) => {
    event.stopPropagation();
    line.setPointerCapture(event.pointerId);
    const move = (at) => {
      const own = stage.element.getBoundingClientRect();
      share = Math.min(0.98, Math.max(0.02, (at.clientX - own.left) / own.width));
      place();
    };
    line.addEventListener("pointermove", move);
    line.addEventListener("pointerup", () => line.removeEventListener("pointermove", move), { once: true });
  });
  line.addEventListener("keydown", (event) => {
    const way = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (!way) return;
    event.stopPropagation();
    event.preventDefault();
    share = Math.min(0.98, Math.max(0.02, share + way * (event.shiftKey ? 0.1 : 0.01)));
    place();
  });
  document.addEventListener("keydown", (event) => {
    if (event.key === "v" && !typing(event) && !event.target.closest("dialog") && !event.ctrlKey && !event.metaKey)
      toggle();
  });
}
