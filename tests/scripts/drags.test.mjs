/** One way to follow the pointer: moves from a distance on, keys, letting go, and taking back. */
import assert from "node:assert/strict";
import { beforeEach, test } from "node:test";

/** A window that tells its listeners, as a browser does. */
class Pane extends EventTarget {
  tell(type, values = {}) {
    this.dispatchEvent(Object.assign(new Event(type), values));
  }

  addEventListener(type, listener, options) {
    super.addEventListener(type, listener, { signal: options?.signal });
  }
}

globalThis.window = new Pane();
const { dragged, follow } = await import("../../src/obrell/web/static/js/ui/drags.js");

let told;
const start = { clientX: 10, clientY: 10 };
const track = (more = {}) => ({
  move: ({ clientX }) => told.push(`move ${clientX}`),
  done: (_at, moved) => told.push(`done ${moved}`),
  back: () => told.push("back"),
  ...more,
});

beforeEach(() => {
  told = [];
  globalThis.window = new Pane();
});

test("a move counts from its distance on, and from then on wherever it goes", () => {
  follow(start, track({ from: 5 }));
  for (const clientX of [12, 14, 20, 11]) window.tell("pointermove", { clientX, clientY: 10 });
  window.tell("pointerup");
  assert.deepEqual(told, ["move 20", "move 11", "done true"]);
});

test("let go without a move it was a press", () => {
  follow(start, track({ from: 5 }));
  window.tell("pointerup");
  assert.deepEqual(told, ["done false"]);
});

test("after it is let go nothing is followed any more", () => {
  follow(start, track());
  window.tell("pointerup");
  window.tell("pointermove", { clientX: 50, clientY: 10 });
  window.tell("keydown", { key: "Escape" });
  assert.deepEqual(told, ["done false"]);
});

test("Escape and the system take it back, once", () => {
  for (const [type, values] of [
    ["keydown", { key: "Escape" }],
    ["pointercancel", {}],
  ]) {
    told = [];
    follow(start, track());
    window.tell(type, values);
    window.tell("pointerup");
    assert.deepEqual(told, ["back"]);
  }
});

test("other keys are told while it lasts", () => {
  follow(start, track({ key: ({ key, type }) => told.push(`${type} ${key}`) }));
  window.tell("keydown", { key: "Shift" });
  window.tell("keyup", { key: "Shift" });
  window.tell("keyup", { key: "Escape" });
  assert.deepEqual(told, ["keydown Shift", "keyup Shift"]);
});

test("in the sheet the page is held until it ends, kept or taken back", () => {
  const bench = {
    hold: (on) => told.push(`hold ${on}`),
    refresh: () => told.push("refresh"),
    stage: { preview: (edit) => told.push(`preview ${edit}`) },
  };
  const move = () => told.push("move");
  dragged(bench, start, move, (moved) => told.push(`keep ${moved}`));
  window.tell("pointermove", { clientX: 30, clientY: 10 });
  window.tell("pointerup");
  dragged(bench, start, move, () => told.push("keep"));
  window.tell("keydown", { key: "Escape" });
  assert.deepEqual(told, [
    "hold true",
    "move",
    "hold false",
    "keep true",
    "hold true",
    "hold false",
    "preview null",
    "refresh",
  ]);
});
