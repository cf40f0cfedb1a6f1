/**
 * What words do: each carries its action as a data attribute, in the sheet and among all commands.
 * Actions only say which edit is meant; what it means is decided by the server.
 *
 * @typedef {import("../ui/types.js").Bench} Bench
 * @typedef {import("../ui/types.js").Edit} Edit
 * @typedef {import("../ui/types.js").ScenePart} ScenePart
 * @typedef {(data: DOMStringMap, node: HTMLElement) => unknown} Act
 * @typedef {Object<string, Act>} Acts
 */
import { byId } from "../ui/dom.js";
import { COPIED, pasteClip } from "./clipboard.js";
import { drawEditions } from "./editions.js";
import { alsoIn, draw, postDrawn } from "./states.js";
import { say, showKeys } from "../ui/page.js";

/** Where the effects copied last are kept. */
const NOT_HERE = "That cannot be done with what is selected.";
const EFFECTS = "obrell/effects";
/** By how much parts may differ in size and still be taken as alike, as a share. */
const SAME_SIZE = 0.02;

/** @param {string} id */
const field = (id) => /** @type {HTMLInputElement} */ (byId(id));
/** @param {HTMLElement} node */
const pressed = (node) => node.getAttribute("aria-pressed") === "true";
/** @param {Bench} bench */
const chosen = (bench) => bench.state.selected;
/** The first that is selected, as it is copied. @param {Bench} bench */
const copyOf = (bench) => bench.state.clip.find((one) => one.id === chosen(bench)[0]);

/** Whether a combination leaves its pieces where they are, as it was said beside it. */
const keepsPieces = () => {
  const said = document.getElementById("keep-pieces");
  return said instanceof HTMLInputElement && said.checked;
};

/** What is done to all selected parts at once. @param {Bench} bench @returns {Acts} */
const together = (bench) => {
  /** @param {string} kind @param {object} [more] */
  const post = (kind, more = {}) => bench.post({ kind, parts: chosen(bench), ...more });
  const first = () => bench.partOf(chosen(bench)[0]);
  return {
    duplicate: () => post("duplicate"),
    "linked-copy": () => post("linked-copy"),
    remove: () => post("remove"),
    "centre-across": () => post("centre", { down: false }),
    "centre-down": () => post("centre", { across: false }),
    "centre-both": () => post("centre"),
    group: () => post("group"),
    combine: ({ mode }) => post("combine", { mode, keep: keepsPieces() }),
    repeat: ({ way }) => post("repeat", { way }),
    "outline-lines": () => post("outline-lines"),
    "to-path": () => post("to-path"),
    flip: ({ way }) => post("flip", { across: way === "across" }),
    "paste-effects": () => pasteEffects(bench, false),
    "paste-effects-instead": () => pasteEffects(bench, true),
    "paste-instead": () => pasteInstead(bench),
    "to-front": () => post("to-end", { way: "front" }),
    "to-back": () => post("to-end", { way: "back" }),
    "like-last": () => bench.used.give(chosen(bench)),
    plain: () => post("plain-look"),
    hide: () => bench.set("parts/*/visible", !first()?.visible),
    lock: () => bench.set("parts/*/locked", !first()?.locked),
    "select-all": () => bench.select(bench.state.scene.parts.map((part) => part.id)),
    keys: showKeys,
  };
};

/** What is done to one part, the first that is selected. @param {Bench} bench @returns {Acts} */
const alone = (bench) => {
  const first = () => chosen(bench)[0];
  return {
    "copy-effects": () => copyEffects(bench),
    crop: () => bench.marks.crop(first()),
    spread: () => bench.post({ kind: "spread", part: first() }),
    "take-apart": () => bench.post({ kind: "take-apart", part: first() }),
    rename: () => {
      const named = document.getElementById(`v-parts-${first()}-shape-words`) ?? byId(`name-${first()}`);
      if (named instanceof HTMLInputElement || named instanceof HTMLTextAreaElement) named.select();
    },
    forward: () => reorder(bench, 1),
    back: () => reorder(bench, -1),
  };
};

/** @param {Bench} bench @param {1|-1} by */
function reorder(bench, by) {
  const part = bench.partOf(chosen(bench)[0]);
  if (!part) return;
  const beside = bench.state.scene.parts.filter((other) => other.within === part.within);
  const next = beside[beside.indexOf(part) + by];
  if (next) bench.post({ kind: "reorder", part: part.id, to: next.id });
  else bench.complain(`${part.name} lies ${by > 0 ? "in front of" : "behind"} all others already.`);
}

/** @param {Bench} bench */
function pasteInstead(bench) {
  const copied = localStorage.getItem(COPIED);
  if (copied) pasteClip(bench, JSON.parse(copied), chosen(bench));
  else bench.complain("Copy parts first: what was copied is put in place of the selection.");
}

/** @param {Bench} bench */
function copyEffects(bench) {
  const part = copyOf(bench);
  if (!part?.effects) return;
  const { extent } = bench.partOf(part.id) ?? {};
  localStorage.setItem(EFFECTS, JSON.stringify({ effects: part.effects, extent, origins: bench.state.swatches }));
  const count = part.effects.length;
  say(`Copied ${count} effect${count === 1 ? "" : "s"} of ${part.name}`);
}

/**
 * Copied effects put on what is chosen; where that is of another size, their lengths can be made to fit it.
 *
 * @param {Bench} bench @param {boolean} instead
 */
async function pasteEffects(bench, instead) {
  const { effects = [], extent, origins = [] } = JSON.parse(localStorage.getItem(EFFECTS) || "{}");
  if (!effects.length) {
    bench.complain("Copy effects first: of a part, or one of them where it is open.");
    return;
  }
  const edit = { kind: "paste-effects", parts: chosen(bench), effects, instead, origins };
  const state = await bench.post(edit);
  /** @param {string} id */
  const isOther = (id) => Math.abs((bench.partOf(id)?.extent ?? extent) / extent - 1) > SAME_SIZE;
  if (!state || !extent || !chosen(bench).some(isOther)) return;
  const fit = async () => {
    await bench.step("undo");
    bench.post({ ...edit, made_for: extent });
  };
  say(`${state.said}, as large as on a part of another size.`, { words: "Fit their lengths to this one", act: fit });
}

/** What is done to the effect that is open.
 * @param {Bench} bench @returns {Object<string, (of: {part: string, effect: string}) => unknown>} */
const effectDoings = (bench) => ({
  duplicate: (of) => bench.post({ kind: "duplicate-effect", ...of }),
  remove: (of) => bench.post({ kind: "remove-effect", ...of }),
  copy: ({ effect }) => {
    const found = copyOf(bench)?.effects?.find((one) => one.id === effect);
    localStorage.setItem(
      EFFECTS,
      JSON.stringify({ effects: [found], extent: bench.part?.extent, origins: bench.state.swatches }),
    );
    say("Copied one effect");
  },
  forward: (of) => bench.post({ kind: "move-effect", ...of, by: 1 }),
  back: (of) => bench.post({ kind: "move-effect", ...of, by: -1 }),
  hide: () => field("eff-eye").click(),
});

/** Words that open or begin something. @param {Bench} bench @returns {Acts} */
const openings = (bench) => ({
  draw: ({ draw = "", values = "{}" }) => {
    if (draw === "icon") bench.openIcons();
    else if (draw === "picture") bench.choosePicture();
    else bench.marks.take(draw, JSON.parse(values));
  },
  bring: ({ bring }) => bench.choosePicture(bring === "reference" ? bring : "part"),
  bringFill: ({ bringFill }) => bench.choosePicture("fill", bringFill),
  looks: () => bench.openLooks(),
  aside: ({ aside = "" }) => bench.openAside(aside),
  letters: () => bench.styleLetters(),
  points: ({ points = "" }) => bench.marks.points.command(points),
  open: ({ open }) => bench.select(chosen(bench), bench.state.effect === open ? "" : open),
  press: ({ press = "" }) => {
    const node = document.querySelector(press);
    if (!(node instanceof HTMLElement)) bench.complain(NOT_HERE);
    else if (node.matches("input, .num, details[open] > summary")) node.focus();
    else node.click();
  },
  fill: ({ fill = "" }) => openForm(bench, fill),
});

/** A form of the sheet, unfolded and ready to be filled in. @param {Bench} bench @param {string} name */
async function openForm(bench, name) {
  const found = () => document.querySelector(`[data-form=${name}]`);
  if (!found()) await bench.refresh();
  const form = found();
  if (!(form instanceof HTMLFormElement)) {
    bench.complain(NOT_HERE);
    return;
  }
  const folded = form.closest("details");
  if (folded) folded.open = true;
  form.scrollIntoView({ block: "nearest" });
  const [first] = form.elements;
  if (first instanceof HTMLElement) first.focus();
  if (first instanceof HTMLInputElement) first.select();
}

/** Words that set a value, or what is meant by the next one. @param {Bench} bench @returns {Acts} */
const settings = (bench) => ({
  toggle: ({ toggle = "" }, node) => bench.set(toggle, !pressed(node)),
  switch: ({ path = "" }, node) => bench.set(path, !pressed(node)),
  copy: ({ copy = "" }) => {
    bench.copyNumber = copy === bench.copyNumber ? "" : copy;
    bench.refresh();
  },
  choose: ({ choose, path = "" }) => bench.set(path, choose),
  anchor: ({ anchor = "" }) => {
    bench.anchor = anchor === bench.anchor ? "" : anchor;
    bench.refresh();
  },
  colourway: ({ colourway = "" }) => {
    bench.stage.colourway = colourway;
    bench.refresh();
    bench.stage.request();
  },
  draws: ({ draws = "" }) => draw(bench, draws),
  edition: ({ edition = "" }) => drawEditions(bench, edition),
  also: ({ also = "" }) => alsoIn(bench, also),
  ground: ({ ground }) => ground !== bench.state.stands && bench.set("stands", ground),
});

/** Words that post an edit. @param {Bench} bench @returns {Acts} */
const edits = (bench) => ({
  lays: ({ lays }) => {
    const stop = document.querySelector("#sheet .stops li.chosen .colour");
    const where = stop instanceof HTMLElement ? { path: stop.dataset.path } : { parts: chosen(bench) };
    return bench.post({ kind: "lay-swatch", swatch: lays, ...where });
  },
  addEffect: ({ addEffect }) => bench.post({ kind: "add-effect", part: chosen(bench)[0], effect: addEffect }),
  align: ({ align = "" }) => {
    const [axis, edge] = align.split(" ");
    const [to, by] = [field("align-to").value, field("align-by").value];
    bench.post({ kind: "align", parts: chosen(bench), axis, edge, to, by });
  },
  space: ({ space }) =>
    bench.post({ kind: "distribute", parts: chosen(bench), axis: space, gap: field("space-gap").value || null }),
  return: ({ return: path }) => {
    const { state, edition } = bench.state;
    const where = state === "rest" ? { kind: "return-to-regular", edition } : { kind: "return-to-rest", state };
    bench.post({ ...where, ...(path ? { path } : {}) });
  },
  edit: ({ edit = "{}", with: holder }) => {
    const parts = holder === "parts" ? { parts: chosen(bench) } : {};
    const read = { ...JSON.parse(edit), ...parts };
    if (parts.parts && !parts.parts.length) bench.complain("Select parts first.");
    else postDrawn(bench, read);
  },
});

/** @param {Bench} bench */
export function startActions(bench) {
  const doings = { ...together(bench), ...alone(bench) };
  const effects = effectDoings(bench);
  const open = () => ({ part: chosen(bench)[0], effect: bench.state.effect });
  /** @type {Acts} */
  const acts = {
    ...openings(bench),
    ...settings(bench),
    ...edits(bench),
    do: (data, node) => doings[data.do ?? ""](data, node),
    effectDo: ({ effectDo = "" }) => effects[effectDo](open()),
  };

  bench.act = (node) => {
    const name = Object.keys(acts).find((key) => node.dataset[key] !== undefined);
    if (name) acts[name](node.dataset, node);
    return Boolean(name);
  };
  bench.do = (name) => doings[name](bench.element.dataset, bench.element);
}
