/** Keys of the bench: what they mean depends on what is in hand. */
import { byId, closest } from "../ui/dom.js";
import { choosing, typing, undoKey } from "../ui/page.js";
import { Burst } from "../ui/burst.js";

/** @param {import("../ui/types.js").Bench} bench */
export function startKeys(bench) {
  const burst = new Burst(bench);
  document.addEventListener("keydown", (event) => onKey(bench, burst, event));
}

/** @type {Object<string, [number, number]>} */
const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
/** From one handle, or one part, to the next. @type {Object<string, 1|-1>} */
const WAYS = { ".": 1, ",": -1, PageUp: 1, PageDown: -1 };
/** Keys that only change what others mean. */
const HELD = ["Shift", "Control", "Alt", "Meta", "CapsLock"];
const REMOVING = ["Delete", "Backspace"];
/** Letters of commands for what is selected. */
const OF_PARTS = { d: "duplicate", k: "linked-copy" };
const NOTHING_SELECTED = "Select a part first.";
/** @param {string} key @returns {HTMLElement|null} */
const drawKey = (key) => document.querySelector(`#sheet [data-draw][data-key="${CSS.escape(key)}"]`);
/**
 * Whether keys mean something else: text that is typed, or a dialog.
 *
 * @param {import("../ui/types.js").Bench} bench
 * @param {KeyboardEvent} event
 */
const busy = (bench, event) =>
  typing(event) || choosing(event) || document.querySelector("dialog[open]") || bench.chooser.open;

/**
 * What a key does on the Bench: undo first, then what goes with Control, then what is in hand.
 *
 * @param {import("../ui/types.js").Bench} bench
 * @param {Burst} burst
 * @param {KeyboardEvent} event
 */
function onKey(bench, burst, event) {
  if (!ARROWS[event.key] && !HELD.includes(event.key)) burst.end();
  const way = undoKey(event);
  if (way && !typing(event)) {
    event.preventDefault();
    bench.step(way);
  } else if (!busy(bench, event)) meant(bench, burst, event);
}

/** @param {import("../ui/types.js").Bench} bench @param {Burst} burst @param {KeyboardEvent} event */
function meant(bench, burst, event) {
  if (event.ctrlKey || event.metaKey) withControl(bench, event);
  else if (event.altKey && !ARROWS[event.key]) return;
  else if ([led, walked, removed, commanded].some((means) => means(bench, event, burst))) event.preventDefault();
  else if (closest(event, "select") && event.key.length === 1) event.preventDefault();
}

/** @param {import("../ui/types.js").Bench} bench @param {KeyboardEvent} event */
function withControl(bench, event) {
  const letter = event.key.toLowerCase();
  if (letter === "x" && bench.state.clip.length && document.execCommand("copy")) bench.do("remove");
  if (letter !== "a") return;
  event.preventDefault();
  bench.do("select-all");
}

/**
 * Arrows lead the pen, move points, or move parts: pressed one after the other, all of it is one step.
 *
 * @param {import("../ui/types.js").Bench} bench
 * @param {KeyboardEvent} event
 * @param {Burst} burst
 */
function led(bench, event, burst) {
  const { marks, state } = bench;
  const arrow = ARROWS[event.key];
  if (!arrow || closest(event, "[role=slider], [role=listbox], summary, .menu")) return false;
  const far = event.shiftKey ? 10 : 1;
  const [dx, dy] = [arrow[0] * far, arrow[1] * far];
  const parts = state.selected;
  const handle = marks.walk.edit;
  if (marks.tool === "pen") marks.pen.lead(dx, dy);
  else if (handle) burst.add(marks.walk.at, dx, dy, handle);
  else if (marks.points.chosen.size) burst.add(marks.points.list.join(), dx, dy, (x, y) => marks.points.moved(x, y));
  else if (parts.length) burst.add(parts.join(), dx, dy, (x, y) => ({ kind: "move", parts, dx: x, dy: y }));
  else if (closest(event, "#stage")) bench.complain(NOTHING_SELECTED);
  else return false;
  return true;
}

/**
 * Delete takes out the last point, the chosen points, the open effect, or parts; Enter ends what is drawn, or names
 * what is selected.
 *
 * @param {import("../ui/types.js").Bench} bench
 * @param {KeyboardEvent} event
 * @returns {boolean}
 */
function removed(bench, event) {
  const { marks, state } = bench;
  const removing = REMOVING.includes(event.key);
  const { selected, effect } = state;
  const free = !closest(event, "button, summary, a, [role=button], [role=slider]");
  if (marks.tool === "pen" && (event.key === "Enter" || event.key === "Backspace")) marks.pen.key(event.key);
  else if (removing && marks.points.chosen.size) marks.points.command("remove");
  else if (removing && selected.length) takeAway(bench, selected[0], effect);
  else if (removing) bench.complain(NOTHING_SELECTED);
  else if (event.key === "Enter" && free && selected.length === 1) bench.do("rename");
  else return false;
  return true;
}

/** What Delete takes: the effect that is open, else the parts. @param {import("../ui/types.js").Bench} bench
 * @param {string} part @param {string} effect */
function takeAway(bench, part, effect) {
  if (effect) bench.post({ kind: "remove-effect", part, effect });
  else bench.do("remove");
}

/**
 * From handle to handle, and from part to part.
 *
 * @param {import("../ui/types.js").Bench} bench
 * @param {KeyboardEvent} event
 */
function walked(bench, event) {
  const { walk } = bench.marks;
  const way = WAYS[event.key];
  if (!way || bench.marks.tool || closest(event, "[role=slider], [role=listbox]")) return false;
  if (event.key.startsWith("Page")) walk.part(way, event.shiftKey);
  else walk.step(way);
  return true;
}

/**
 * Escape, and the letters of commands and tools.
 *
 * @param {import("../ui/types.js").Bench} bench
 * @param {KeyboardEvent} event
 * @returns {boolean}
 */
function commanded(bench, event) {
  /** @type {Object<string, () => void>} */
  const letters = { a: () => bench.openFinder(), m: () => bench.openLooks(), Escape: () => leave(bench) };
  for (const [letter, name] of Object.entries(OF_PARTS))
    letters[letter] = () => (bench.state.selected.length ? bench.do(name) : bench.complain(NOTHING_SELECTED));
  const key = event.key === "Escape" ? event.key : event.key.toLowerCase();
  const tool = drawKey(key);
  const command = letters[key] || (tool && (() => bench.act(tool)));
  command?.();
  return Boolean(command);
}

/**
 * Escape leaves the innermost of what is in hand: a menu, a list, a tool, an open effect, a group, the selection.
 *
 * @param {import("../ui/types.js").Bench} bench
 */
function leave(bench) {
  const { marks, state } = bench;
  const menu = document.querySelector("details.menu[open]");
  const piled = byId("piled");
  if (menu instanceof HTMLDetailsElement) menu.open = false;
  else if (!piled.hidden) piled.hidden = true;
  else if (marks.walk.at) marks.walk.leave();
  else if (marks.tool) marks.take("");
  else if (marks.points.chosen.size) marks.points.choose([]);
  else if (marks.cropping) marks.crop("");
  else if (state.effect) bench.select(state.selected, "");
  else if (marks.inner) marks.enter(bench.partOf(marks.inner)?.within);
  else bench.select([]);
}
