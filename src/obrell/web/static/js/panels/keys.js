/** Keys of the bench: what they mean depends on what is in hand. */
import { typing, undoKey } from "../ui/page.js";
import { Burst } from "./burst.js";

/** @param {object} bench */
export function startKeys(bench) {
  const burst = new Burst(bench);
  document.addEventListener("keydown", (event) => onKey(bench, burst, event));
}

const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
/** Keys that only change what others mean. */
const HELD = ["Shift", "Control", "Alt", "Meta", "CapsLock"];
const REMOVING = ["Delete", "Backspace"];
const drawKey = (key) => document.querySelector(`#sheet [data-draw][data-key="${CSS.escape(key)}"]`);
/** Whether keys mean something else: text that is typed, or a dialog. */
const busy = (bench, event) => typing(event) || document.querySelector("dialog[open]") || bench.chooser.open;

/** What a key does on the Bench: undo first, then what goes with Control, then what is in hand. */
function onKey(bench, burst, event) {
  const way = undoKey(event);
  if (!ARROWS[event.key] && !HELD.includes(event.key)) burst.end();
  if (way && !typing(event)) {
    event.preventDefault();
    bench.step(way);
    return;
  }
  if (busy(bench, event)) return;
  if (event.ctrlKey || event.metaKey) {
    withControl(bench, event);
    return;
  }
  if (event.altKey && !ARROWS[event.key]) return;
  const done = led(bench, burst, event) || removed(bench, event) || commanded(bench, event);
  if (done) event.preventDefault();
}

function withControl(bench, event) {
  const letter = event.key.toLowerCase();
  if (letter === "x" && bench.state.clip.length && document.execCommand("copy")) bench.do("remove");
  if (letter !== "a") return;
  event.preventDefault();
  bench.do("select-all");
}

/** Arrows lead the pen, move points, or move parts: pressed one after the other, all of it is one step. */
function led(bench, burst, event) {
  const { marks, state } = bench;
  const arrow = ARROWS[event.key];
  if (!arrow || event.target.closest?.("[role=slider], [role=listbox], summary, .menu")) return false;
  const [dx, dy] = arrow.map((way) => way * (event.shiftKey ? 10 : 1));
  const parts = state.selected;
  if (marks.tool === "pen") marks.pen.lead(dx, dy);
  else if (marks.points.chosen.size) burst.add(marks.points.list.join(), dx, dy, (x, y) => marks.points.moved(x, y));
  else if (parts.length) burst.add(parts.join(), dx, dy, (x, y) => ({ kind: "move", parts, dx: x, dy: y }));
  else return false;
  return true;
}

/** Delete takes out the last point, the chosen points, or parts; Enter ends what is drawn, or names what is selected.
 *  @returns {boolean} */
function removed(bench, event) {
  const { marks, state } = bench;
  const removing = REMOVING.includes(event.key);
  const free = !event.target.closest?.("button, summary, a, [role=button], [role=slider]");
  if (marks.tool === "pen" && (event.key === "Enter" || event.key === "Backspace")) marks.pen.key(event.key);
  else if (removing && marks.points.chosen.size) marks.points.command("remove");
  else if (removing && state.selected.length) bench.do("remove");
  else if (event.key === "Enter" && free && state.selected.length === 1) bench.do("rename");
  else return false;
  return true;
}

/** Escape, and the letters of commands and tools. @returns {boolean} */
function commanded(bench, event) {
  const letters = { a: () => bench.openFinder(), m: () => bench.openLooks(), Escape: () => leave(bench) };
  if (bench.state.selected.length) {
    letters.d = () => bench.do("duplicate");
    letters.k = () => bench.do("linked-copy");
  }
  const key = event.key === "Escape" ? event.key : event.key.toLowerCase();
  const tool = drawKey(key);
  const command = letters[key] || (tool && (() => bench.act(tool)));
  command?.();
  return Boolean(command);
}

/** Escape leaves the innermost of what is in hand: a menu, a list, a tool, an open effect, a group, the selection. */
function leave(bench) {
  const { marks, state } = bench;
  const menu = document.querySelector("details.menu[open]");
  const piled = document.getElementById("piled");
  if (menu) menu.open = false;
  else if (!piled.hidden) piled.hidden = true;
  else if (marks.tool) marks.take("");
  else if (marks.points.chosen.size) marks.points.choose([]);
  else if (marks.cropping) marks.crop("");
  else if (state.effect) bench.select(state.selected, "");
  else if (marks.inner) marks.enter(bench.partOf(marks.inner)?.within);
  else bench.select([]);
}
