/**
 * Dragging in the sheet and the strip: what is dragged is shown while it moves, kept when it is let go, taken back by
 * Escape.
 *
 * @typedef {{preview: (edit: object|null) => void}} Stage
 * @typedef {{hold: (on: boolean) => void, refresh: () => Promise<void>, stage: Stage}} Bench
 */

/**
 * @param {Bench} bench
 * @param {(at: PointerEvent) => void} move
 * @param {(moved: boolean) => void} keep
 */
export function dragged(bench, move, keep) {
  let moved = false;
  /** @param {PointerEvent} at */
  const on = (at) => {
    moved = true;
    move(at);
  };
  const end = () => {
    window.removeEventListener("pointermove", on);
    window.removeEventListener("pointerup", up);
    window.removeEventListener("pointercancel", back);
    window.removeEventListener("keydown", escape, true);
    bench.hold(false);
  };
  const up = () => {
    end();
    keep(moved);
  };
  const back = () => {
    end();
    bench.stage.preview(null);
    bench.refresh();
  };
  /** @param {KeyboardEvent} at */
  const escape = (at) => {
    if (at.key !== "Escape") return;
    at.stopPropagation();
    back();
  };
  bench.hold(true);
  window.addEventListener("pointermove", on);
  window.addEventListener("pointerup", up);
  window.addEventListener("pointercancel", back);
  window.addEventListener("keydown", escape, true);
}
