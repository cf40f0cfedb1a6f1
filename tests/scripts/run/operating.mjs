/** Operates pieces as the tables say, for a test that does the same elsewhere: JSON in, what came of it out. */
import { readFileSync } from "node:fs";
import { Machine, STILL, moved, shownAs } from "../../../src/obrell/web/static/js/trial/machine.js";

/** @typedef {import("../../../src/obrell/web/static/js/trial/machine.js").Piece} Piece */

const { rules, traces, sources, times } = JSON.parse(readFileSync(0, "utf8"));
const machine = new Machine(rules);

/** @param {{pieces: Object<string, Piece>, numbers: Object<string, [number, number]>, events: any[]}} trace */
function run({ pieces, numbers, events }) {
  let standing = Object.fromEntries(
    Object.keys(pieces).map((id) => [id, { ...STILL, number: numbers[id][0], share: numbers[id][1] }]),
  );
  return events.map(({ id, ...event }) => {
    const { after, said } = machine.operate(pieces, standing, id, event);
    standing = after;
    const looks = Object.fromEntries(Object.entries(after).map(([one, now]) => [one, shownAs(pieces[one], now)]));
    return { after, said, looks };
  });
}

/** @param {any} source @param {number} time */
const done = (source, time) =>
  moved(source, time).map(({ placement, reading, amount }) => [placement, reading, amount]);
const did = sources.map((/** @type {any} */ one) => times.map((/** @type {number} */ time) => done(one, time)));
process.stdout.write(JSON.stringify({ ran: traces.map(run), did }));
