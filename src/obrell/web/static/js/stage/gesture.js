/**
 * Drags on the stage: an edit shown while it moves, held to a way by keys, posted when it is let go.
 *
 * @typedef {import("./types.js").Bench} Bench
 * @typedef {import("./types.js").Pull} Pull
 */
import { follow } from "../ui/drags.js";

const DRAG_FROM_PX = 3;
const CONSTRAINING = ["Shift", "Alt"];

/**
 * @param {Bench} bench
 * @param {PointerEvent} event
 * @param {Pull} edit
 * @param {(moved: boolean) => void} after
 */
export function shape(bench, event, edit, after) {
  const { stage } = bench;
  const start = stage.toLogical(event);
  let last = event;
  let begun = false;
  /** The edit as it stands. @param {PointerEvent|KeyboardEvent} keys */
  const shown = (keys) => {
    const [x, y] = stage.toLogical(last);
    const { shiftKey, altKey } = keys;
    const { clientX, clientY } = last;
    return edit(x - start[0], y - start[1], { shiftKey, altKey, from: start, clientX, clientY });
  };
  follow(event, {
    from: DRAG_FROM_PX,
    move: (at) => {
      last = at;
      begun = true;
      stage.preview(shown(at));
    },
    key: (at) => {
      if (!begun || !CONSTRAINING.includes(at.key)) return;
      at.preventDefault();
      stage.preview(shown(at));
    },
    done: (at, moved) => {
      last = at;
      const made = moved ? shown(at) : null;
      if (made) bench.post(made).then(() => after(true));
      else after(false);
    },
    back: () => {
      stage.preview(null);
      after(false);
    },
  });
}
