/** Keys pressed one after the other are one edit: shown as they come, kept after a pause or at another press. */
import assert from "node:assert/strict";
import { beforeEach, mock, test } from "node:test";

globalThis.window = Object.assign(new EventTarget(), { setTimeout: (act, ms) => setTimeout(act, ms) });
const { Burst } = await import("../../src/obrell/web/static/js/ui/burst.js");

const moved = (dx, dy) => ({ kind: "move", dx, dy });
let posted, shown, burst;

beforeEach(() => {
  [posted, shown] = [[], []];
  burst = new Burst({ post: (edit) => posted.push(edit), stage: { preview: (edit) => shown.push(edit) } });
});

test("all presses come to one edit, shown on the way", () => {
  for (const [dx, dy] of [
    [1, 0],
    [1, 0],
    [0, 10],
  ])
    burst.add("p1", dx, dy, moved);
  assert.deepEqual(posted, []);
  burst.end();
  assert.deepEqual(posted, [moved(2, 10)]);
  assert.deepEqual(shown, [moved(1, 0), moved(2, 0), moved(2, 10)]);
  burst.end();
  assert.equal(posted.length, 1);
});

test("what is moved next begins anew", () => {
  burst.add("p1", 1, 0, moved);
  burst.add("p2", 5, 0, moved);
  burst.end();
  assert.deepEqual(posted, [moved(1, 0), moved(5, 0)]);
});

test("there and back is nothing, and is shown no more", () => {
  burst.add("p1", 1, 0, moved);
  burst.add("p1", -1, 0, moved);
  burst.end();
  assert.deepEqual(posted, []);
  assert.equal(shown.at(-1), null);
});

test("a press of the pointer ends it, and so does a pause", () => {
  mock.timers.enable({ apis: ["setTimeout"] });
  burst.add("p1", 1, 0, moved);
  window.dispatchEvent(new Event("pointerdown"));
  assert.deepEqual(posted, [moved(1, 0)]);
  burst.add("p1", 2, 0, moved);
  mock.timers.tick(5000);
  assert.deepEqual(posted, [moved(1, 0), moved(2, 0)]);
  mock.timers.reset();
});
