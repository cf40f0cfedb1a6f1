/** Choices of another part: the page knows all parts, so their names are not sent with every choice. */
import { all } from "../ui/dom.js";

/**
 * @param {HTMLSelectElement} choice
 * @param {{id: string, name: string}[]} parts back to front
 * @param {string[]} selected
 */
function offer(choice, parts, selected) {
  const before = choice.value;
  const own = "butSelected" in choice.dataset ? selected : [choice.dataset.partsBut];
  const fixed = [...choice.options].filter(({ value }) => value === "None");
  const others = [...parts].reverse().filter(({ id }) => !own.includes(id));
  choice.replaceChildren(...fixed, ...others.map(({ id, name }) => new Option(name, id)));
  if ([...choice.options].some(({ value }) => value === before)) choice.value = before;
}

/** @param {import("../ui/types.js").Bench} bench */
export function startOffering(bench) {
  const show = () => {
    for (const choice of all("#sheet [data-parts-but]"))
      if (choice instanceof HTMLSelectElement) offer(choice, bench.state.scene.parts, bench.state.selected);
  };
  bench.element.addEventListener("shown", show);
}
