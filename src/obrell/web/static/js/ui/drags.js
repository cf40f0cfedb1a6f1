/**
 * One way to follow the pointer, for every drag there is: on the stage, in the sheet and in the strip.
 *
 * @typedef {{preview: (edit: null) => void}} Stage
 * @typedef {{hold: (on: boolean) => void, refresh: () => Promise<void>, stage: Stage}} Bench
 *
 * @typedef {object} Track
 * @property {(at: PointerEvent) => void} move once it went far enough, and from then on
 * @property {(at: PointerEvent, moved: boolean) => void} [done] let go
 * @property {() => void} [back] taken away by the system, or by Escape
 * @property {(at: KeyboardEvent) => void} [key] another key went down or up
 * @property {number} [from] px until it counts as moved
 */

/** @type {("keydown"|"keyup")[]} */
const KEYS = ["keydown", "keyup"];

/**
 * Follow the pointer from a press on until it is let go; where it is followed to is the window's, whatever lies there.
 *
 * @param {{clientX: number, clientY: number}} start
 * @param {Track} track
 */
export function follow(start, track) {
  let moved = false;
  const end = new AbortController();
  const { signal } = end;
  /** @param {PointerEvent} at */
  const move = (at) => {
    const far = Math.hypot(at.clientX - start.clientX, at.clientY - start.clientY);
    if (!moved && far < (track.from ?? 0)) return;
    moved = true;
    track.move(at);
  };
  const back = () => {
    end.abort();
    track.back?.();
  };
  /** @param {PointerEvent} at */
  const up = (at) => {
    end.abort();
    track.done?.(at, moved);
  };
  /** @param {KeyboardEvent} at */
  const key = (at) => {
    if (at.key !== "Escape") track.key?.(at);
    else if (at.type === "keydown") {
      at.stopPropagation();
      back();
    }
  };
  window.addEventListener("pointermove", move, { signal });
  window.addEventListener("pointerup", up, { signal });
  window.addEventListener("pointercancel", back, { signal });
  for (const name of KEYS) window.addEventListener(name, key, { signal, capture: true });
}

/**
 * Dragging in the sheet and the strip, which stay as they are meanwhile: shown while it moves, kept when it is let go,
 * taken back by Escape.
 *
 * @param {Bench} bench
 * @param {{clientX: number, clientY: number}} start
 * @param {(at: PointerEvent) => void} move
 * @param {(moved: boolean) => void} keep
 * @param {{from?: number, back?: () => void}} [more]
 */
export function dragged(bench, start, move, keep, { from = 0, back } = {}) {
  bench.hold(true);
  follow(start, {
    from,
    move,
    done: (_at, moved) => {
      bench.hold(false);
      keep(moved);
    },
    back: () => {
      bench.hold(false);
      bench.stage.preview(null);
      if (back) back();
      else bench.refresh();
    },
  });
}
