/**
 * The build-up strip: its steps, what each changes as a heat map, and costs.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 */
import { all, byId, closest, matches } from "../ui/dom.js";
import { dragged } from "../ui/drags.js";
import { hiding } from "./meant.js";
import { ask } from "../ui/page.js";
import { showWhenReady } from "../ui/pictures.js";

const IDLE_MS = 700;
const DRAG_FROM_PX = 6;

/** Hovering a step shows the art up to it, a press opens its effect, a drag moves it, its eye hides it. */
class Strip {
  /** @param {Bench} bench */
  constructor(bench) {
    this.bench = bench;
    this.strip = byId("strip");
    this.pulled = false;
    this.#listenToLooking();
    this.strip.addEventListener("pointerdown", (event) => {
      const button = closest(event, ".build");
      this.pulled = false;
      if (button?.dataset.open && event.button === 0) this.#drag(button, event);
    });
    this.strip.addEventListener("click", (event) => this.#click(event));
    startSideways(bench, this.strip);
  }

  #listenToLooking() {
    const { bench, strip } = this;
    strip.addEventListener("pointerover", (event) => {
      const button = closest(event, ".build");
      if (button && !event.buttons) this.#show(button);
    });
    strip.addEventListener("pointerleave", () => bench.stage.preview(null));
    strip.addEventListener("focusin", (event) => {
      const button = closest(event, ".build");
      if (button && matches(event, ".build:focus-visible")) this.#show(button);
    });
    strip.addEventListener("focusout", () => bench.stage.preview(null));
  }

  /** The art without what comes after a step. @param {HTMLElement} button */
  #show(button) {
    const steps = all(".build", this.strip);
    const later = steps.slice(steps.indexOf(button) + 1).filter((step) => !("hidden" in step.dataset));
    const [part] = this.bench.state.selected;
    this.bench.stage.preview(hiding(later.map((step) => `parts/${part}/effects/${step.dataset.open}`)));
  }

  /** Let go over another step, the effect takes its place. @param {HTMLElement} from @param {PointerEvent} start */
  #drag(from, start) {
    const { bench } = this;
    /** @type {HTMLElement|null} */
    let over = null;
    /** @param {PointerEvent} at */
    const move = (at) => {
      this.pulled = true;
      bench.stage.preview(null);
      from.classList.add("held");
      over?.classList.remove("over");
      over = document.elementFromPoint(at.clientX, at.clientY)?.closest(".build") || null;
      if (over !== from) over?.classList.add("over");
    };
    const keep = () => {
      over?.classList.remove("over");
      from.classList.remove("held");
      const to = over !== from && over?.dataset.open;
      if (to) bench.post({ kind: "move-effect", part: bench.state.selected[0], effect: from.dataset.open, to });
    };
    dragged(bench, start, move, keep, { from: DRAG_FROM_PX });
  }

  /** @param {MouseEvent} event */
  async #click(event) {
    const eye = closest(event, "[data-seen]");
    if (eye?.dataset.seen) this.bench.set(eye.dataset.seen, eye.getAttribute("aria-pressed") !== "true");
    const button = closest(event, ".build");
    if (!button?.dataset.open || this.pulled) return;
    await this.bench.select(this.bench.state.selected, button.dataset.open);
    document.querySelector(".eff.open")?.scrollIntoView({ block: "nearest" });
  }
}

/** @param {Bench} bench */
export function startStrip(bench) {
  new Strip(bench);
}

/** Sideways by the wheel; an end that is not the last is shown faded.
 * @param {Bench} bench @param {HTMLElement} strip */
function startSideways(bench, strip) {
  const ends = () => {
    const list = strip.querySelector("ol");
    if (!list) return;
    list.classList.toggle("before", list.scrollLeft > 1);
    list.classList.toggle("after", list.scrollLeft + list.clientWidth < list.scrollWidth - 1);
  };
  /** @param {WheelEvent} event */
  const turn = (event) => {
    const list = strip.querySelector("ol");
    if (!list || list.scrollWidth <= list.clientWidth) return;
    event.preventDefault();
    list.scrollLeft += event.deltaX + event.deltaY;
  };
  strip.addEventListener("wheel", turn, { passive: false });
  strip.addEventListener("scroll", ends, true);
  window.addEventListener("resize", ends);
  bench.element.addEventListener("shown", ends);
}

/** @param {Bench} bench */
export function startHeat(bench) {
  const strip = byId("strip");
  let hot = false;
  let timer = 0;

  function show() {
    strip.querySelector("#heat")?.setAttribute("aria-pressed", String(hot));
    for (const image of all("img[data-heat]", strip)) {
      const { heat, plain = "" } = image.dataset;
      if (image instanceof HTMLImageElement) showWhenReady(image, (hot && heat) || plain);
    }
    clearTimeout(timer);
    if (hot) timer = window.setTimeout(measure, IDLE_MS);
    else for (const label of all(".build small", strip)) label.textContent = "";
  }

  async function measure() {
    const part = strip.querySelector("ol")?.dataset.part;
    if (!part) return;
    const answer = await ask(`${bench.api.base}/costs?${new URLSearchParams({ part, ...bench.stage.drawn })}`);
    if (!answer.ok || strip.querySelector("ol")?.dataset.part !== part) return;
    const { ms } = await answer.json();
    all(".build small", strip).forEach((label, step) => {
      label.textContent = `${ms[step] < 0.05 ? "0" : ms[step].toFixed(1)} ms`;
    });
  }

  strip.addEventListener("click", (event) => {
    if (!matches(event, "#heat")) return;
    hot = !hot;
    show();
  });
  bench.element.addEventListener("shown", show);
}
