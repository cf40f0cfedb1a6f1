/** Handles of the open effect's gradient on the art: ends or centre, radii, focus, angle, every stop on its line. */
import { svg } from "../ui/svg.js";

const BEYOND_PX = 16;

export class Gradients {
  constructor(marks) {
    this.marks = marks;
  }

  /** Where the open gradient lies: while something is dragged, as the server shows it. */
  get now() {
    return this.marks.gradient || this.marks.bench.state.gradient;
  }

  draw(part) {
    const gradient = this.now;
    if (!part || !gradient || gradient.part !== part.id) return;
    const place = ([x, y]) => this.marks.stage.toScreen(x, y);
    const at = Object.fromEntries(Object.entries(gradient.handles).map(([name, point]) => [name, place(point)]));
    const draw = (d) => this.marks.svg.append(svg("path", { class: "ramp-line", d }));
    const dot = ([x, y], name, r, fill = {}) =>
      this.marks.svg.append(svg("circle", { class: "ramp-dot", cx: x, cy: y, r, "data-gradient": name, ...fill }));
    for (const [from, to] of gradient.lines) draw(`M${place(from)}L${place(to)}`);
    /** Ends are taken hold of a little beyond the stop that lies there. */
    for (const [name, inner] of [
      ["to", at.from || at.centre],
      ["down", at.centre],
      ["from", at.to],
    ]) {
      if (!at[name]) continue;
      const [[x, y], [fx, fy]] = [at[name], inner];
      const away = Math.hypot(x - fx, y - fy) || 1;
      const beyond = [x + ((x - fx) / away) * BEYOND_PX, y + ((y - fy) / away) * BEYOND_PX];
      draw(`M${x} ${y}L${beyond}`);
      dot(beyond, name, 6.5);
    }
    if (at.focus) {
      const [x, y] = at.focus;
      draw(`M${x} ${y}v${-BEYOND_PX}`);
      dot([x, y - BEYOND_PX], "focus", 4.5);
    }
    gradient.stops.forEach((fill, number) => dot(at[`stop ${number}`], `stop ${number}`, 5, { fill }));
    /** The centre is a ring, so that what lies in it can be taken hold of too. */
    if (at.centre) dot(at.centre, "centre", 9, { class: "ramp-dot ring" });
  }

  /** @returns {boolean} whether a handle was taken */
  press(event) {
    const handle = event.target.dataset.gradient;
    if (!handle || !this.now) return false;
    const { part, effect, handles } = this.now;
    const [startX, startY] = handles[handle];
    this.marks.follow(event, (dx, dy, keys) => ({
      kind: "move-gradient",
      part,
      effect,
      handle,
      x: startX + dx,
      y: startY + dy,
      steps: keys.shiftKey,
    }));
    return true;
  }
}
