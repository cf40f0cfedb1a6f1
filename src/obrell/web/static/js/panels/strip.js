/** The build-up strip: its steps, what each changes as a heat map and costs; before and after in halves. */
import { dragged, follow } from "../ui/drags.js";
import { hiding, meant } from "./meant.js";
import { ask, typing } from "../ui/page.js";
import { showWhenReady } from "../ui/pictures.js";

const IDLE_MS = 700;
const DRAG_FROM_PX = 6;

/** Hovering a step shows the art up to it, a press opens its effect, a drag moves it, its eye hides it. */
class Strip {
  constructor(bench) {
    this.bench = bench;
    this.strip = document.getElementById("strip");
    this.pulled = false;
    this.#listenToLooking();
    this.strip.addEventListener("pointerdown", (event) => {
      const button = event.target.closest(".build");
      this.pulled = false;
      if (button?.dataset.open && event.button === 0) this.#drag(button, event);
    });
    this.strip.addEventListener("click", (event) => this.#click(event));
    startSideways(bench, this.strip);
  }

  #listenToLooking() {
    const { bench, strip } = this;
    strip.addEventListener("pointerover", (event) => {
      const button = event.target.closest(".build");
      if (button && !event.buttons) this.#show(button);
    });
    strip.addEventListener("pointerleave", () => bench.stage.preview(null));
    strip.addEventListener("focusin", ({ target }) => target.matches(".build:focus-visible") && this.#show(target));
    strip.addEventListener("focusout", () => bench.stage.preview(null));
  }

  /** The art without what comes after a step. */
  #show(button) {
    const steps = [...this.strip.querySelectorAll(".build")];
    const later = steps.slice(steps.indexOf(button) + 1).filter((step) => !("hidden" in step.dataset));
    const [part] = this.bench.state.selected;
    this.bench.stage.preview(hiding(later.map((step) => `parts/${part}/effects/${step.dataset.open}`)));
  }

  /** Let go over another step, the effect takes its place. */
  #drag(from, start) {
    const { bench } = this;
    let over = null;
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

  async #click(event) {
    const eye = event.target.closest("[data-seen]");
    if (eye?.dataset.seen) this.bench.set(eye.dataset.seen, eye.getAttribute("aria-pressed") !== "true");
    const button = event.target.closest(".build");
    if (!button?.dataset.open || this.pulled) return;
    await this.bench.select(this.bench.state.selected, button.dataset.open);
    document.querySelector(".eff.open")?.scrollIntoView({ block: "nearest" });
  }
}

/** @param {object} bench */
export function startStrip(bench) {
  new Strip(bench);
}

/** Sideways by the wheel; an end that is not the last is shown faded. */
function startSideways(bench, strip) {
  const ends = () => {
    const list = strip.querySelector("ol");
    if (!list) return;
    list.classList.toggle("before", list.scrollLeft > 1);
    list.classList.toggle("after", list.scrollLeft + list.clientWidth < list.scrollWidth - 1);
  };
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

const LEAST_SHARE = 0.02;
const NUDGES = { ArrowLeft: -1, ArrowRight: 1 };

/** The art before and after the open effect, or the selection's whole look, in two halves with a line to drag. */
class Halves {
  constructor(bench) {
    this.bench = bench;
    this.stage = bench.stage;
    this.before = document.getElementById("before");
    this.line = document.getElementById("halves-line");
    this.button = document.getElementById("halves");
    this.on = false;
    this.share = 0.5;
    this.waiting = false;
    this.#listen();
  }

  #listen() {
    this.button.addEventListener("click", () => this.toggle());
    this.stage.addEventListener("look", () => {
      if (this.on) setTimeout(() => this.#capture(), 150);
      this.#place();
    });
    this.bench.element.addEventListener("shown", () => this.on && setTimeout(() => this.#capture(), 50));
    this.line.addEventListener("pointerdown", (event) => {
      event.stopPropagation();
      follow(event, { move: (at) => this.#drag(at) });
    });
    this.line.addEventListener("keydown", (event) => {
      const way = NUDGES[event.key];
      if (!way) return;
      event.stopPropagation();
      event.preventDefault();
      this.#moveTo(this.share + way * (event.shiftKey ? 0.1 : 0.01));
    });
    document.addEventListener("keydown", (event) => {
      const elsewhere = typing(event) || event.target.closest("dialog") || event.ctrlKey || event.metaKey;
      if (event.key === "v" && !elsewhere) this.toggle();
    });
  }

  #drag(at) {
    const own = this.stage.element.getBoundingClientRect();
    this.#moveTo((at.clientX - own.left) / own.width);
  }

  #moveTo(share) {
    this.share = Math.min(1 - LEAST_SHARE, Math.max(LEAST_SHARE, share));
    this.#place();
  }

  #place() {
    const { before, line, stage } = this;
    const at = Math.round(stage.element.clientWidth * this.share);
    line.style.left = `${at}px`;
    line.hidden = before.hidden = !this.on;
    const box = stage.canvas.getBoundingClientRect();
    const own = stage.element.getBoundingClientRect();
    before.style.clipPath = `inset(0 ${Math.max(0, box.right - own.left - at)}px 0 0)`;
    stage.canvas.style.clipPath = this.on ? `inset(0 0 0 ${Math.max(0, at - (box.left - own.left))}px)` : "";
  }

  /** Ask for the art without the effect once, and keep that picture beside the art. */
  #capture() {
    const { stage } = this;
    const bare = hiding(meant(this.bench));
    if (!this.on || this.waiting || stage.edit || !bare) return;
    this.waiting = true;
    stage.preview(bare);
    const wanted = stage.seq + (stage.again ? 1 : 0);
    const kept = (event) => {
      if (!stage.edit || event.detail.seq < wanted) return;
      stage.removeEventListener("frame", kept);
      this.#keep();
    };
    stage.addEventListener("frame", kept);
  }

  #keep() {
    const { before, stage } = this;
    before.width = stage.canvas.width;
    before.height = stage.canvas.height;
    before.getContext("2d").drawImage(stage.canvas, 0, 0);
    before.style.cssText = stage.canvas.style.cssText;
    before.className = stage.canvas.className;
    this.waiting = false;
    stage.preview(null);
    this.#place();
  }

  toggle() {
    this.on = !this.on;
    this.button.setAttribute("aria-pressed", String(this.on));
    if (this.on) this.#capture();
    this.#place();
  }
}

/** @param {object} bench */
export function startHalves(bench) {
  new Halves(bench);
}
