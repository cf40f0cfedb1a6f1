/**
 * What words do: each carries its action as a data attribute, in the sheet and among all commands.
 * Actions only say which edit is meant; what it means is decided by the server.
 */
import { say, showKeys } from "../ui/page.js";

/** Where the parts copied last are kept, for every control. */
export const COPIED = "obrell/parts";

/** Where the effects copied last are kept. */
const EFFECTS = "obrell/effects";
/** By how much parts may differ in size and still be taken as alike, as a share. */
const SAME_SIZE = 0.02;

/** @param {object} bench */
export function startActions(bench) {
  const { marks } = bench;
  const chosen = () => bench.state.selected;
  const field = (id) => document.getElementById(id);
  const flipped = (path, now) => bench.set(path, !now);

  function reorder(by) {
    const part = bench.partOf(chosen()[0]);
    const beside = bench.state.scene.parts.filter((other) => other.within === part.within);
    const next = beside[beside.indexOf(part) + by];
    if (next) bench.post({ kind: "reorder", part: part.id, to: next.id });
  }

  /** Copied effects put on what is chosen; where that is of another size, their lengths can be made to fit it. */
  async function pasteEffects(instead) {
    const { effects = [], extent } = JSON.parse(localStorage.getItem(EFFECTS) || "{}");
    if (!effects.length) {
      bench.complain("Copy effects first: of a part, or one of them where it is open.");
      return;
    }
    const edit = { kind: "paste-effects", parts: chosen(), effects, instead };
    const state = await bench.post(edit);
    const others = chosen().some((id) => Math.abs(bench.partOf(id).extent / extent - 1) > SAME_SIZE);
    if (!state || !extent || !others) return;
    const fit = async () => {
      await bench.step("undo");
      bench.post({ ...edit, made_for: extent });
    };
    say(`${state.said}, as large as on a part of another size.`, { words: "Fit their lengths to this one", act: fit });
  }

  const doings = {
    duplicate: () => bench.post({ kind: "duplicate", parts: chosen() }),
    remove: () => bench.post({ kind: "remove", parts: chosen() }),
    "centre-across": () => bench.post({ kind: "centre", parts: chosen(), down: false }),
    "centre-down": () => bench.post({ kind: "centre", parts: chosen(), across: false }),
    "centre-both": () => bench.post({ kind: "centre", parts: chosen() }),
    group: () => bench.post({ kind: "group", parts: chosen() }),
    combine: ({ mode }) => bench.post({ kind: "combine", parts: chosen(), mode }),
    repeat: ({ way }) => bench.post({ kind: "repeat", parts: chosen(), way }),
    "outline-lines": () => bench.post({ kind: "outline-lines", parts: chosen() }),
    "to-path": () => bench.post({ kind: "to-path", parts: chosen() }),
    flip: ({ way }) => bench.post({ kind: "flip", parts: chosen(), across: way === "across" }),
    "copy-effects": () => {
      const part = bench.state.clip.find((one) => one.id === chosen()[0]);
      localStorage.setItem(EFFECTS, JSON.stringify({ effects: part.effects, extent: bench.partOf(part.id).extent }));
      const count = part.effects.length;
      say(`Copied ${count} effect${count === 1 ? "" : "s"} of ${part.name}`);
    },
    "paste-effects": () => pasteEffects(false),
    "paste-effects-instead": () => pasteEffects(true),
    "paste-instead": () => {
      const copied = localStorage.getItem(COPIED);
      if (copied) bench.post({ kind: "paste", parts: JSON.parse(copied), instead: chosen() });
      else bench.complain("Copy parts first: what was copied is put in place of the selection.");
    },
    crop: () => marks.crop(chosen()[0]),
    spread: () => bench.post({ kind: "spread", part: chosen()[0] }),
    "take-apart": () => bench.post({ kind: "take-apart", part: chosen()[0] }),
    fit: () => bench.post({ kind: "fit-around", body: chosen()[0], inner: chosen()[1] }),
    rename: () => field(`name-${chosen()[0]}`).select(),
    hide: () => flipped("parts/*/visible", bench.partOf(chosen()[0]).visible),
    lock: () => flipped("parts/*/locked", bench.partOf(chosen()[0]).locked),
    forward: () => reorder(1),
    back: () => reorder(-1),
    "select-all": () => bench.select(bench.state.scene.parts.map((part) => part.id)),
    keys: showKeys,
  };

  const effects = {
    duplicate: (of) => bench.post({ kind: "duplicate-effect", ...of }),
    remove: (of) => bench.post({ kind: "remove-effect", ...of }),
    copy: ({ effect }) => {
      const part = bench.state.clip.find((one) => one.id === chosen()[0]);
      const found = part.effects.find((one) => one.id === effect);
      localStorage.setItem(EFFECTS, JSON.stringify({ effects: [found], extent: bench.part.extent }));
      say("Copied one effect");
    },
    forward: (of) => bench.post({ kind: "move-effect", ...of, by: 1 }),
    back: (of) => bench.post({ kind: "move-effect", ...of, by: -1 }),
    hide: () => field("eff-eye").click(),
  };

  const acts = {
    draw: ({ draw }) => {
      if (draw === "icon") bench.openIcons();
      else if (draw === "picture") bench.choosePicture();
      else marks.take(draw);
    },
    bring: ({ bring }) => bench.choosePicture(bring),
    bringFill: ({ bringFill }) => bench.choosePicture("fill", bringFill),
    looks: () => bench.openLooks(),
    letters: () => bench.styleLetters(),
    points: ({ points }) => marks.points.command(points),
    do: (data) => doings[data.do](data),
    effectDo: ({ effectDo }) => effects[effectDo]({ part: chosen()[0], effect: bench.state.effect }),
    addEffect: ({ addEffect }) => bench.post({ kind: "add-effect", part: chosen()[0], effect: addEffect }),
    open: ({ open }) => bench.select(chosen(), bench.state.effect === open ? "" : open),
    toggle: ({ toggle }, node) => flipped(toggle, node.getAttribute("aria-pressed") === "true"),
    switch: ({ path }, node) => flipped(path, node.getAttribute("aria-pressed") === "true"),
    copy: ({ copy }) => {
      bench.copyNumber = copy === bench.copyNumber ? "" : copy;
      bench.refresh();
    },
    choose: ({ choose, path }) => bench.set(path, choose),
    anchor: ({ anchor }) => {
      bench.anchor = anchor === bench.anchor ? "" : anchor;
      bench.refresh();
    },
    align: ({ align }) => {
      const [axis, edge] = align.split(" ");
      bench.post({
        kind: "align",
        parts: chosen(),
        axis,
        edge,
        to: field("align-to").value,
        by: field("align-by").value,
      });
    },
    space: ({ space }) =>
      bench.post({ kind: "distribute", parts: chosen(), axis: space, gap: field("space-gap").value || null }),
    ground: ({ ground }) => ground !== bench.state.stands && bench.set("stands", ground),
    edit: ({ edit, with: holder }) => {
      const parts = holder === "parts" ? { parts: chosen() } : {};
      if (parts.parts && !parts.parts.length) bench.complain("Select parts first.");
      else bench.post({ ...JSON.parse(edit), ...parts });
    },
    press: ({ press }) => {
      const node = document.querySelector(press);
      if (node.matches("input")) node.focus();
      else node.click();
    },
    fill: async ({ fill }) => {
      const found = () => document.querySelector(`[data-form=${fill}]`);
      if (!found()) await bench.refresh();
      const form = found();
      if (!form) return;
      const folded = form.closest("details");
      if (folded) folded.open = true;
      form.scrollIntoView({ block: "nearest" });
      form.elements[0].focus();
      form.elements[0].select?.();
    },
  };

  /** Do what a word says. @param {HTMLElement} node @returns {boolean} whether it says anything */
  bench.act = (node) => {
    const name = Object.keys(acts).find((key) => node.dataset[key] !== undefined);
    if (name) acts[name](node.dataset, node);
    return Boolean(name);
  };
  bench.do = (name) => doings[name]({});
}
