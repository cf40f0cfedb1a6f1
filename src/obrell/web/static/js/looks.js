/** Looks: materials and effects shown on the selected part, tried on the stage by hovering. */
import { ask, say, wordsOf } from "./page.js";

/** @param {object} bench */
export function startLooks(bench) {
  const panel = document.getElementById("looks");
  const field = (id) => document.getElementById(id);
  const post = (path, body) => ask(path, { method: "POST", headers: { "content-type": "application/json" }, body: JSON.stringify(body) });

  async function show() {
    const part = bench.state.selected[0];
    const answer = await ask(`${bench.api.base}/looks?part=${part}`);
    const text = await answer.text();
    if (!answer.ok) {
      bench.complain(wordsOf(text));
      return false;
    }
    const kept = [...panel.querySelectorAll("input")].map((input) => [input.id || input.name, input.value, input.checked]);
    const within = panel.contains(document.activeElement);
    const typing = document.activeElement?.closest("#looks-save");
    const scrolled = panel.scrollTop;
    panel.innerHTML = text;
    panel.scrollTop = scrolled;
    for (const [name, value, checked] of kept) {
      const input = panel.querySelector(`input[id="${name}"], input[name="${name}"]`);
      if (input) [input.value, input.checked] = [value, checked];
    }
    if (typing) panel.querySelector("#looks-save input").focus();
    else if (within) panel.focus({ preventScroll: true });
    return true;
  }

  const editOf = (button) => (button.dataset.version
    ? { kind: "use-version", parts: bench.state.selected, number: Number(button.dataset.version) }
    : button.dataset.fill
    ? { kind: "paint-with", parts: bench.state.selected, fill: JSON.parse(button.dataset.fill) }
    : button.dataset.lay
    ? { kind: "lay-material", parts: bench.state.selected, material: button.dataset.lay, scaled: field("looks-scaled").checked, linked: field("looks-linked").checked }
    : { kind: "add-effect", part: bench.state.selected[0], effect: button.dataset.try });

  function close() {
    panel.hidden = true;
    bench.stage.preview(null);
  }

  bench.openLooks = async () => {
    if (!bench.state.selected.length) bench.complain("Select a part first.");
    else if (await show()) {
      panel.hidden = false;
      panel.querySelector("[data-lay]")?.focus();
    }
  };

  for (const [enter, leave] of [["pointerover", "pointerout"], ["focusin", "focusout"]]) {
    panel.addEventListener(enter, (event) => {
      const button = event.target.closest("[data-lay], [data-try], [data-version], [data-fill]");
      if (button && (enter === "pointerover" || button.matches(":focus-visible"))) bench.stage.preview(editOf(button));
    });
    panel.addEventListener(leave, () => bench.stage.preview(null));
  }
  panel.addEventListener("click", async (event) => {
    const button = event.target.closest("button");
    if (!button) return;
    if (button.id === "looks-close") close();
    else if (button.dataset.lay || button.dataset.try || button.dataset.version || button.dataset.fill) {
      const kept = await bench.post(editOf(button));
      if (kept) await show();
    } else if (button.dataset.dropMaterial) {
      await post(`/kits/${bench.kit}/materials/${button.dataset.dropMaterial}/remove`, {});
      show();
    } else if (button.dataset.edit) {
      await bench.post({ ...JSON.parse(button.dataset.edit), parts: bench.state.selected });
      show();
    }
  });
  panel.addEventListener("submit", async (event) => {
    event.preventDefault();
    const name = event.target.elements.name.value;
    const answer = await post(`${bench.api.base}/materials`, { part: bench.state.selected[0], name, scaled: field("looks-scaled").checked });
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
  panel.addEventListener("keydown", (event) => {
    if (event.key !== "Escape") return;
    event.stopPropagation();
    close();
    bench.stage.element.focus();
  });
  bench.element.addEventListener("shown", () => {
    if (!panel.hidden && bench.state.selected.length === 0) close();
  });
}
