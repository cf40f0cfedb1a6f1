/**
 * Live values: typed, dragged sideways, changed by keys and wheel. Enter keeps, Escape restores.
 * What a typed text means is decided by the server.
 */
import { startDials } from "./dials.js";

const DRAG_FROM_PX = 3;
const SETTLE_MS = 700;

/** A number as people read it: up to two decimals, and three where it has no more. */
function shownNumber(value) {
  const fine = Math.round(value * 1e3) / 1e3;
  return String(Math.abs(fine - value) < 1e-9 ? fine : Math.round(value * 100) / 100);
}

/** @param {object} bench */
export function startValues(bench) {
  const sheet = document.getElementById("sheet");
  let settle = 0;
  let changing = null;

  const number = (node) => Number(node.dataset.value);
  const factorOf = (event) => (event.shiftKey ? 10 : 1) * (event.altKey ? 0.1 : 1);

  function limited(node, value) {
    const least = node.dataset.least === undefined ? -Infinity : Number(node.dataset.least);
    const most = node.dataset.most === undefined ? Infinity : Number(node.dataset.most);
    const fine = Math.round(value * 1e6) / 1e6;
    const open = least === 0 && node.dataset.path.match(/(width|height|radius_[xy]|size)$/) && fine <= 0;
    return open ? Number(node.dataset.step) * 0.1 : Math.min(most, Math.max(least, fine));
  }

  /** Write a value into every slot and slider of its path. */
  function write(path, value) {
    for (const node of sheet.querySelectorAll(`[data-path="${CSS.escape(path)}"]`)) {
      if (node.matches(".num")) {
        node.dataset.value = value;
        node.textContent = shownNumber(value * node.dataset.factor + Number(node.dataset.shift || 0));
        node.setAttribute("aria-valuenow", node.textContent);
      } else if (node.matches("[type=range]")) node.value = value;
      else if (node.matches(".dial")) node.querySelector(".hand").setAttribute("transform", `rotate(${value})`);
    }
  }

  /** Show a value on the stage without saving it. */
  function preview(node, value) {
    const path = node.dataset.path;
    if (!changing || changing.path !== path) changing = { path, before: Number(node.dataset.before ?? number(node)) };
    changing.value = value;
    write(path, value);
    bench.stage.preview(bench.setting(path, value));
  }

  function keep() {
    clearTimeout(settle);
    if (!changing) return;
    const { path, value, before } = changing;
    changing = null;
    if (value !== before) bench.set(path, value);
    else bench.stage.preview(null);
  }

  function restore() {
    clearTimeout(settle);
    if (!changing) return;
    write(changing.path, changing.before);
    changing = null;
    bench.stage.preview(null);
  }

  function nudge(node, steps, event) {
    preview(node, limited(node, number(node) + steps * Number(node.dataset.step) * factorOf(event)));
    clearTimeout(settle);
    settle = setTimeout(keep, SETTLE_MS);
  }

  /** Turn a number into a text field. */
  function type(node, first) {
    keep();
    const input = document.createElement("input");
    input.className = "v typing";
    input.id = node.id;
    input.value = first ?? node.textContent;
    input.setAttribute("aria-label", node.getAttribute("aria-label"));
    const away = node.cloneNode(true);
    node.replaceWith(input);
    input.focus();
    if (first === undefined) input.select();
    let done = false;
    bench.hold(true);
    const finish = async (save) => {
      if (done) return;
      done = true;
      const text = input.value.trim();
      if (!save || text === away.textContent) {
        input.replaceWith(away);
        bench.hold(false);
        if (!save) away.focus();
        return;
      }
      bench.complain("");
      try {
        const { path, shift } = away.dataset;
        const edit = { kind: "type", path, text, shift: Number(shift || 0), ...bench.scope(path) };
        const state = await bench.read(await bench.api.edit(edit, bench.selection));
        bench.hold(false);
        bench.show(state);
        bench.stage.request();
      } catch (error) {
        bench.complain(error.message);
        input.classList.add("bad");
        done = false;
      }
    };
    input.addEventListener("keydown", (event) => {
      event.stopPropagation();
      if (event.key === "Enter") finish(true);
      if (event.key === "Escape") {
        bench.complain("");
        finish(false);
      }
    });
    input.addEventListener("blur", () => finish(!input.classList.contains("bad")));
    input.addEventListener("input", () => input.classList.remove("bad"));
  }

  startDials(bench, { preview: (node, value) => preview(node, limited(node, value)), keep, restore });

  sheet.addEventListener("pointerdown", (event) => {
    const node = event.target.closest(".num");
    if (!node || event.button !== 0) return;
    event.preventDefault();
    node.focus({ preventScroll: true });
    const start = event.clientX;
    const from = number(node);
    let dragging = false;
    bench.hold(true);
    node.setPointerCapture(event.pointerId);
    const move = (at) => {
      if (!dragging && Math.abs(at.clientX - start) < DRAG_FROM_PX) return;
      dragging = true;
      const steps = Math.round((at.clientX - start) / 2);
      preview(node, limited(node, from + steps * Number(node.dataset.step) * factorOf(at)));
    };
    const cancel = (at) => {
      if (at.key === "Escape") {
        at.stopPropagation();
        restore();
        end();
      }
    };
    const end = () => {
      bench.hold(false);
      node.removeEventListener("pointermove", move);
      node.removeEventListener("pointerup", up);
      node.removeEventListener("pointercancel", cancelled);
      document.removeEventListener("keydown", cancel, true);
    };
    const up = () => {
      end();
      if (dragging) keep();
      else type(node);
    };
    const cancelled = () => {
      restore();
      end();
    };
    node.addEventListener("pointermove", move);
    node.addEventListener("pointerup", up);
    node.addEventListener("pointercancel", cancelled);
    document.addEventListener("keydown", cancel, true);
  });

  sheet.addEventListener("keydown", (event) => {
    const node = event.target.closest(".num");
    if (!node) return;
    const steps = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key];
    if (steps) nudge(node, steps, event);
    else if (event.key === "Enter") changing ? keep() : type(node);
    else if (event.key === "Escape" && changing) restore();
    else if (/^[0-9.(+*/\-−]$/.test(event.key) && !event.ctrlKey && !event.metaKey) type(node, event.key);
    else return;
    event.preventDefault();
    event.stopPropagation();
  });

  sheet.addEventListener(
    "wheel",
    (event) => {
      const node = event.target.closest(".num");
      if (!node || document.activeElement !== node) return;
      event.preventDefault();
      nudge(node, Math.sign(event.deltaX + event.deltaY) * -1, event);
    },
    { passive: false },
  );

  sheet.addEventListener("focusout", (event) => {
    if (event.target.closest(".num") && changing && !event.target.hasPointerCapture?.(1)) keep();
  });

  sheet.addEventListener("input", (event) => {
    const slider = event.target.closest("[type=range]");
    if (slider) {
      const node = document.getElementById(slider.dataset.for);
      preview(node, limited(node, Number(slider.value)));
    }
    const words = event.target.closest(".words");
    if (words && words.value) {
      bench.stage.preview({ kind: "set", changes: [{ path: words.dataset.path, value: words.value }] });
    }
  });

  sheet.addEventListener("change", async (event) => {
    const field = event.target;
    if (field.matches("[type=range]")) keep();
    else if (field.matches("select.v") && field.value === "differ") return;
    else if (field.matches("select.v")) {
      bench.set(field.dataset.path, field.value === "None" ? null : field.value);
    } else if (field.matches("input[data-path], textarea[data-path]") && field.dataset.path) {
      const kept = await bench.set(field.dataset.path, field.value.trim());
      if (!kept) document.getElementById(field.id)?.classList.add("bad");
    }
  });

  sheet.addEventListener("keydown", (event) => {
    const field = event.target;
    if (!field.matches("input.entitle, .words")) return;
    event.stopPropagation();
    if (event.key === "Enter" && !event.shiftKey) {
      event.preventDefault();
      field.blur();
    }
    if (event.key === "Escape") {
      field.value = field.defaultValue;
      bench.stage.preview(null);
      field.blur();
    }
  });
}
