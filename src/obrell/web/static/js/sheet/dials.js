/** Dials of angles: turned all the way round by the pointer; where a light can be followed it is marked on them. */
import { byId, closest } from "../ui/dom.js";
import { dragged } from "../ui/drags.js";

const STEP_DEGREES = 15;

/**
 * @param {import("../ui/types.js").Sheeted} bench
 * @param {{preview: (node: HTMLElement, value: number) => void, keep: () => void, restore: () => void}} values
 */
export function startDials(bench, values) {
  const sheet = byId("sheet");

  sheet.addEventListener("pointerdown", (event) => {
    const dial = closest(event, ".dial");
    if (!dial || event.button !== 0) return;
    event.preventDefault();
    const node = byId(dial.dataset.for ?? "");
    node.focus({ preventScroll: true });
    /** @param {PointerEvent} at */
    const turn = (at) => values.preview(node, nearTo(Number(node.dataset.value), angleAt(dial, at)));
    turn(event);
    dragged(bench, event, turn, values.keep, { back: values.restore });
  });

  bench.element.addEventListener("shown", () => {
    const light = bench.state.scene.light;
    for (const sun of sheet.querySelectorAll(".dial .sun")) sun.setAttribute("transform", `rotate(${light})`);
  });
}

/**
 * Degrees clockwise from above, whole ones, or steps of 15 with Shift.
 *
 * @param {Element} dial
 * @param {PointerEvent} event
 */
function angleAt(dial, event) {
  const box = dial.getBoundingClientRect();
  const across = event.clientX - box.left - box.width / 2;
  const down = event.clientY - box.top - box.height / 2;
  const degrees = (Math.atan2(across, -down) * 180) / Math.PI;
  const step = event.shiftKey ? STEP_DEGREES : 1;
  return Math.round(degrees / step) * step;
}

/**
 * The same direction within half a turn of where the value was, from 0 to 360 where it was there.
 *
 * @param {number} before
 * @param {number} degrees
 */
function nearTo(before, degrees) {
  if (before >= 0 && before <= 360) return (degrees + 360) % 360;
  return degrees + 360 * Math.round((before - degrees) / 360);
}
