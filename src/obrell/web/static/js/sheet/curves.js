/** Drawn curves of the sheet: points are added, dragged, nudged and taken out where they stand. */
import { dragged } from "../ui/drags.js";

const AIR = 4;
const SIZE = 108;
const MOST = 256;
const WAYS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] };

const share = (value) => Math.round(Math.min(1, Math.max(0, value)) * 1000) / 1000;

/** @param {object} bench */
export function startCurves(bench) {
  const sheet = document.getElementById("sheet");

  const pointsOf = (curve) => JSON.parse(curve.dataset.points).map(([x, y]) => ({ x, y }));
  const pathOf = (curve) => `${curve.dataset.path}/points`;
  const numberOf = (node) => (node.dataset.point === undefined ? -1 : Number(node.dataset.point));

  function place(curve, event) {
    const box = curve.getBoundingClientRect();
    const x = ((event.clientX - box.left) / box.width) * SIZE - AIR;
    const y = ((event.clientY - box.top) / box.height) * SIZE - AIR;
    return { x: share(x / 100), y: share(1 - y / 100) };
  }

  /** Keep the points, and the focus on the one meant, wherever it stands among them now. What is done next is done to
   *  these points, whether the server has answered by then or not. */
  async function keep(curve, points, point) {
    const { id } = curve;
    const sorted = [...points].sort((one, other) => one.x - other.x);
    curve.dataset.points = JSON.stringify(sorted.map(({ x, y }) => [x, y]));
    if (!(await bench.set(pathOf(curve), points))) return;
    const index = sorted.indexOf(point);
    document.getElementById(`${id}-${Math.max(0, index)}`)?.focus({ preventScroll: true });
  }

  function without(curve, index) {
    const points = pointsOf(curve);
    if (points.length > 2)
      keep(
        curve,
        points.filter((_, number) => number !== index),
        points[Math.max(0, index - 1)],
      );
    else bench.complain("A curve has at least two points.");
  }

  function added(curve, index) {
    const points = pointsOf(curve);
    const [one, next] = [points[index], points[index + 1] ?? points[index - 1]];
    const point = { x: share((one.x + next.x) / 2), y: share((one.y + next.y) / 2) };
    if (points.length < MOST) keep(curve, [...points, point], point);
    else bench.complain(`A curve has at most ${MOST} points.`);
  }

  sheet.addEventListener("pointerdown", (event) => {
    const curve = event.target.closest(".curve");
    if (!curve || event.button !== 0) return;
    event.preventDefault();
    let index = numberOf(event.target);
    if (index >= 0 && event.detail > 1) {
      without(curve, index);
      return;
    }
    const points = pointsOf(curve);
    const isNew = index < 0;
    if (isNew) index = points.push(place(curve, event)) - 1;
    else event.target.focus({ preventScroll: true });
    const dot = curve.querySelector(`[data-point="${index}"]`);
    dragged(
      bench,
      (at) => {
        points[index] = place(curve, at);
        bench.stage.preview(bench.setting(pathOf(curve), points));
        dot?.setAttribute("cx", points[index].x * 100);
        dot?.setAttribute("cy", 100 - points[index].y * 100);
      },
      (moved) => {
        if (moved || isNew) keep(curve, points, points[index]);
      },
    );
  });

  sheet.addEventListener("keydown", (event) => {
    const curve = event.target.closest(".curve");
    const index = numberOf(event.target);
    if (!curve || index < 0) return;
    const way = WAYS[event.key];
    if (way) {
      const points = pointsOf(curve);
      const by = 0.01 * (event.shiftKey ? 10 : 1) * (event.altKey ? 0.1 : 1);
      points[index] = { x: share(points[index].x + way[0] * by), y: share(points[index].y + way[1] * by) };
      keep(curve, points, points[index]);
    } else if (event.key === "Delete" || event.key === "Backspace") without(curve, index);
    else if (event.key === "Enter") added(curve, index);
    else return;
    event.preventDefault();
    event.stopPropagation();
  });
}
