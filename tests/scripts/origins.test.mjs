/** Swatches that copied things follow, in the kit they come to. */
import assert from "node:assert/strict";
import { test } from "node:test";
import { swatchesIn, unboundIn } from "../../src/obrell/web/static/js/panels/origins.js";

const parts = [
  { effects: [{ fill: { colour: { swatch: "tarn", tint: 20 } } }, { colour: { swatch: "rush", own: null } }] },
  { effects: [{ colour: { swatch: "signal", own: "#ff0000" } }, { colour: "#123456" }] },
];
const origins = [
  { id: "tarn", role: "main", colour: "#1f8a92" },
  { id: "rush", role: "reeds", colour: "#7a8b3c" },
];

test("swatches are found wherever they are followed, not where a colour is its own", () => {
  assert.deepEqual([...swatchesIn(parts)], ["tarn", "rush"]);
  assert.deepEqual([...swatchesIn(null)], []);
});

test("what has neither its swatch nor one of its role here is said", () => {
  const heather = { id: "heather", role: "main", colour: "#8a4fb0" };
  assert.equal(unboundIn(parts, origins, origins), "");
  assert.match(unboundIn(parts, origins, [heather]), /like rush: what followed it is its own/);
  assert.match(unboundIn(parts, origins, []), /like tarn, rush: what followed them is its own/);
});
