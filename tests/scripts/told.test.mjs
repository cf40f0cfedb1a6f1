/** What the page puts together of answers: whole ones, differences, answers that cross, and forgotten ones. */
import assert from "node:assert/strict";
import { test } from "node:test";
import { changeOf, listAfter, sceneOf, Told } from "../../src/obrell/web/static/js/ui/told.js";

const list = (...keys) => ({ order: keys, items: Object.fromEntries(keys.map((key) => [key, `<li>${key}</li>`])) });
const start = () =>
  new Told({
    token: "t0",
    facts: { name: "Key", version: 1 },
    blocks: { top: "<p/>" },
    lists: { parts: list("a", "b") },
  });
const parcel = (token, from, rest) => ({ token, from, facts: {}, blocks: {}, lists: {}, ...rest });

test("a list keeps what did not change, and forgets what its order leaves out", () => {
  const before = list("a", "b", "c");
  const after = listAfter(before, { items: { b: "<li>B</li>" }, order: ["c", "b"] });
  assert.deepEqual(after, { order: ["c", "b"], items: { c: "<li>c</li>", b: "<li>B</li>" } });
  assert.deepEqual(listAfter(before), before);
});

test("what brings one list to another is what differs, whichever lists they are", () => {
  const lists = [
    list(),
    list("a"),
    list("a", "b"),
    list("b", "a"),
    listAfter(list("a", "b"), { items: { a: "<li>A</li>" } }),
  ];
  for (const before of lists)
    for (const after of lists) assert.deepEqual(listAfter(before, changeOf(before, after)), after);
  assert.deepEqual(changeOf(lists[2], lists[2]), { items: {} });
});

test("a difference is laid over what it was made for", () => {
  const told = start();
  const known = told.with(
    parcel("t1", "t0", { facts: { version: 2 }, lists: { parts: { items: { b: "<li>B</li>" } } } }),
  );
  assert.deepEqual(known.facts, { name: "Key", version: 2 });
  assert.deepEqual(known.blocks, { top: "<p/>" });
  assert.deepEqual(known.lists.parts.items, { a: "<li>a</li>", b: "<li>B</li>" });
});

test("answers that cross are each laid over what they were made for", () => {
  const told = start();
  told.shown = told.with(parcel("t1", "t0", { facts: { version: 2 } }));
  const late = told.with(parcel("t2", "t0", { facts: { version: 3, name: "Lamp" } }));
  assert.deepEqual(late.facts, { version: 3, name: "Lamp" });
});

test("a whole answer forgets all that was there", () => {
  const known = start().with(parcel("t9", "", { facts: { version: 7 } }));
  assert.deepEqual([known.facts, known.blocks, known.lists], [{ version: 7 }, {}, {}]);
});

test("what is made for something forgotten is nothing", () => {
  const told = start();
  assert.equal(told.with(parcel("t1", "other", {})), null);
  for (let number = 1; number <= 20; number += 1) told.with(parcel(`n${number}`, "", {}));
  assert.equal(told.with(parcel("t2", "t0", {})), null);
});

test("parts stand in their order in the scene", () => {
  const parts = { order: ["b", "a"], items: { a: { id: "a" }, b: { id: "b" } } };
  assert.deepEqual(sceneOf({ canvas: [1, 2] }, parts), { canvas: [1, 2], parts: [{ id: "b" }, { id: "a" }] });
});
