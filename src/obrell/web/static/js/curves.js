/** Drawn curves of the sheet: points are added, dragged and taken out where they stand. */
const AIR = 4;
const SIZE = 108;

/** @param {object} bench */
export function startCurves(bench) {
  const sheet = document.getElementById("sheet");
  const share = (value) => Math.round(Math.min(1, Math.max(0, value)) * 100) / 100;

  function place(curve, event) {
    const box = curve.getBoundingClientRect();
    const x = ((event.clientX - box.left) / box.width) * SIZE - AIR;
    const y = ((event.clientY - box.top) / box.height) * SIZE - AIR;
    return { x: share(x / 100), y: share(1 - y / 100) };
  }

  sheet.addEventListener("pointerdown", (event) => {
    const curve = event.target.closest(".curve");
    if (!curve || event.button !== 0) return;
    event.preventDefault();
    const points = JSON.parse(curve.dataset.points).map(([x, y]) => ({ x, y }));
    const path = `${curve.dataset.path}/points`;
    let index = event.target.dataset.point === undefined ? -1 : Number(event.target.dataset.point);
    if (index >= 0 && event.detail > 1) {
      if (points.length > 2) bench.set(path, points.filter((_, number) => number !== index));
      return;
    }
    if (index < 0) index = points.push(place(curve, event)) - 1;
    const edit = () => bench.setting(path, points);
    const move = (at) => {
      points[index] = place(curve, at);
      bench.stage.preview(edit());
      const dot = curve.querySelector(`[data-point="${index}"]`);
      dot?.setAttribute("cx", points[index].x * 100);
      dot?.setAttribute("cy", 100 - points[index].y * 100);
    };
    bench.hold(true);
    window.addEventListener("pointermove", move);
    window.addEventListener("pointerup", () => {
      window.removeEventListener("pointermove", move);
      bench.hold(false);
      bench.post(edit());
    }, { once: true });
  });
}
