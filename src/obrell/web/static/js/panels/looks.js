/** Looks: materials, gradients, effects and kept looks, tried on the stage by hovering, and compared side by side. */
import { ask, say, wordsOf } from "../ui/page.js";

/** @param {object} bench */
export function startLooks(bench) {
  const panel = document.getElementById("looks");
  const compare = document.getElementById("compare");
  const field = (id) => document.getElementById(id);
  const post = (path, body) =>
    ask(path, { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(body) });

  /** What the server has of the selected part, for a panel; null when refused. */
  async function fetched(name) {
    const answer = await ask(`${bench.api.base}/${name}?part=${bench.state.selected[0]}`);
    const text = await answer.text();
    if (!answer.ok) {
      bench.complain(wordsOf(text));
      return null;
    }
    return text;
  }

  /** Write the panel anew; what is typed, chosen and unfolded in it by then stays. */
  async function show() {
    const text = await fetched("looks");
    if (text === null) return false;
    const kept = [...panel.querySelectorAll("input, select")].map((input) => [
      input.id || input.name,
      input.value,
      input.checked,
    ]);
    const within = panel.contains(document.activeElement);
    const typing = document.activeElement?.closest("#looks-save");
    const scrolled = panel.scrollTop;
    const open = [...panel.querySelectorAll("details[open]")].map((node) => node.id);
    panel.innerHTML = text;
    for (const id of open) panel.querySelector(`#${id}`)?.setAttribute("open", "");
    panel.scrollTop = scrolled;
    for (const [name, value, checked] of kept) {
      const input = panel.querySelector(`[id="${name}"], [name="${name}"]`);
      if (input) [input.value, input.checked] = [value, checked];
    }
    if (typing) panel.querySelector("#looks-save input").focus();
    else if (within) panel.focus({ preventScroll: true });
    return true;
  }

  /** The edit of a button, with what the panel's own fields and the selection add to it. */
  function editOf(button) {
    const edit = JSON.parse(button.dataset.tried);
    const parts = bench.state.selected;
    const more = {
      "lay-material": () => ({ parts, scaled: field("looks-scaled").checked, linked: field("looks-linked").checked }),
      "paint-with": () => ({ parts, onto: field("looks-onto").value }),
      "use-version": () => ({ parts }),
      "add-effect": () => ({ part: parts[0] }),
    }[edit.kind]();
    return { ...edit, ...more };
  }

  function close() {
    panel.hidden = true;
    bench.stage.preview(null);
  }

  function closeCompared() {
    compare.hidden = true;
    panel.focus({ preventScroll: true });
  }

  bench.openLooks = async () => {
    if (!bench.state.selected.length) bench.complain("Select a part first.");
    else if (await show()) {
      panel.hidden = false;
      panel.querySelector("[data-lay]")?.focus();
    }
  };

  const presses = {
    "looks-close": close,
    "compare-close": closeCompared,
    "compare-open": async () => {
      const text = await fetched("compare");
      if (text === null) return;
      compare.innerHTML = text;
      compare.hidden = false;
      compare.querySelector("button")?.focus();
    },
  };

  /** Taken off the kit's shelf, and offered back. */
  async function dropped(what) {
    const answer = await post(`/kits/${bench.kit}/${what}/remove`, {});
    const text = await answer.text();
    if (!answer.ok) {
      bench.complain(wordsOf(text));
      return;
    }
    bench.offerBack(JSON.parse(text).said, async () => {
      await post(`/kits/${bench.kit}/undo`, {});
      show();
    });
  }

  async function press(button) {
    const { tried, dropMaterial, dropGradient, edit, rule } = button.dataset;
    if (presses[button.id]) {
      presses[button.id]();
      return;
    }
    if (tried) {
      if (!(await bench.post(editOf(button)))) return;
      compare.hidden = true;
    } else if (dropMaterial) await dropped(`materials/${dropMaterial}`);
    else if (dropGradient) await dropped(`gradients/${dropGradient}`);
    else if (rule) {
      const { material, ...change } = JSON.parse(rule);
      await post(`/kits/${bench.kit}/materials/${material}/lengths`, change);
      await bench.refresh();
    } else if (edit) await bench.post({ ...JSON.parse(edit), parts: bench.state.selected });
    else return;
    show();
  }

  for (const [enter, leave] of [
    ["pointerover", "pointerout"],
    ["focusin", "focusout"],
  ]) {
    panel.addEventListener(enter, (event) => {
      const button = event.target.closest("[data-tried]");
      if (button && (enter === "pointerover" || button.matches(":focus-visible"))) bench.stage.preview(editOf(button));
    });
    panel.addEventListener(leave, () => bench.stage.preview(null));
  }
  for (const place of [panel, compare]) {
    place.addEventListener("click", (event) => {
      const button = event.target.closest("button");
      if (button && button.type !== "submit") press(button);
    });
  }
  panel.addEventListener("submit", async (event) => {
    event.preventDefault();
    const name = event.target.elements.name.value;
    const answer = await post(`${bench.api.base}/materials`, {
      part: bench.state.selected[0],
      name,
      scaled: field("looks-scaled").checked,
    });
    const text = await answer.text();
    if (!answer.ok) {
      field("looks-fault").textContent = wordsOf(text);
      return;
    }
    event.target.reset();
    say(JSON.parse(text).said);
    await bench.refresh();
    show();
  });
  const escapes = [
    [
      panel,
      () => {
        close();
        bench.stage.element.focus();
      },
    ],
    [compare, closeCompared],
  ];
  for (const [place, away] of escapes) {
    place.addEventListener("keydown", (event) => {
      if (event.key !== "Escape") return;
      event.stopPropagation();
      away();
    });
  }
  bench.element.addEventListener("shown", () => {
    if (bench.state.selected.length === 0) compare.hidden = true;
    if (!panel.hidden && bench.state.selected.length === 0) close();
  });

  /** Keep the open gradient in the kit, under a name. */
  document.getElementById("sheet").addEventListener("submit", async (event) => {
    const form = event.target.closest("[data-keep-gradient]");
    if (!form) return;
    event.preventDefault();
    const answer = await post(`${bench.api.base}/gradients`, {
      path: form.dataset.keepGradient,
      name: form.elements.name.value,
    });
    const text = await answer.text();
    if (answer.ok) say(JSON.parse(text).said);
    else bench.complain(wordsOf(text));
    if (answer.ok) form.reset();
  });
}
