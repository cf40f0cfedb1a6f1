/** Handles of the open effect's gradient on the art: ends or centre, radii, angle, and every stop on its line. */
import { svg, toCanvas } from "./marks.js";

const STEP_DEGREES = 15;
const ARM = 0.42;
const BEYOND_PX = 16;

/** A place on the canvas in a part's own space. */
function toOwn(part, x, y) {
  const angle = (-part.turn * Math.PI) / 180;
  const [dx, dy] = [x - part.x, y - part.y];
  return [Math.cos(angle) * dx - Math.sin(angle) * dy, Math.sin(angle) * dx + Math.cos(angle) * dy];
}

const way = (degrees) => [Math.sin((degrees * Math.PI) / 180), -Math.cos((degrees * Math.PI) / 180)];
const degreesOf = (x, y) => ((Math.atan2(x, -y) * 180) / Math.PI + 360) % 360;
const round = (value) => Math.round(value * 1000) / 1000;

export class Gradients {
  constructor(marks) {
    this.marks = marks;
  }

  /** The open gradient as the stage shows it: while it is dragged, with what is dragged. */
  get now() {
    const { gradient } = this.marks.bench.state;
    return gradient && { ...gradient, ...(this.live || {}) };
  }

  /** The line that stops lie on, in the part's own space: from and to. */
  #line(gradient) {
    const [left, top, right, bottom] = gradient.box;
    const [width, height] = [right - left, bottom - top];
    if (gradient.kind === "linear") {
      const [x, y] = way(gradient.angle);
      const half = (Math.abs(width * x) + Math.abs(height * y)) / 2;
      const [cx, cy] = [(left + right) / 2, (top + bottom) / 2];
      const ends = [-1, 1].map((side) => 2 * half * (gradient.offset + (side * gradient.scale) / 2));
      const [from, to] = ends.map((away) => [cx + x * away, cy + y * away]);
      return { from, to, centre: [cx, cy], half, ends };
    }
    const centre = [left + gradient.centre_x * width, top + gradient.centre_y * height];
    if (gradient.kind === "radial") {
      return {
        from: centre, to: [centre[0] + gradient.radius_x * width, centre[1]], centre,
        down: [centre[0], centre[1] + gradient.radius_y * height],
      };
    }
    const arm = ARM * Math.min(width, height);
    const [x, y] = way(gradient.start);
    return { from: centre, to: [centre[0] + x * arm, centre[1] + y * arm], centre, arm };
  }

  #stopAt(gradient, line, at) {
    if (gradient.kind !== "conic") return [0, 1].map((axis) => line.from[axis] + (line.to[axis] - line.from[axis]) * at);
    const [x, y] = way(gradient.start + 360 * at);
    return [line.centre[0] + x * line.arm, line.centre[1] + y * line.arm];
  }

  draw(part) {
    const gradient = this.now;
    if (!part || !gradient || gradient.part !== part.id) return;
    const line = this.#line(gradient);
    const place = ([x, y]) => this.marks.stage.toScreen(...toCanvas(part, x, y));
    const dot = (at, name, fill) => {
      const [x, y] = place(at);
      this.marks.svg.append(svg("circle", { class: "ramp-dot", cx: x, cy: y, r: fill ? 5 : 6.5, "data-gradient": name, ...(fill ? { fill } : {}) }));
    };
    /** Ends are taken hold of a little beyond the stop that lies there. */
    const beyond = (end, name) => {
      const [[x, y], [fx, fy]] = [place(end), place(name === "from" ? line.to : line.from)];
      const away = Math.hypot(x - fx, y - fy) || 1;
      const [bx, by] = [x + ((x - fx) / away) * BEYOND_PX, y + ((y - fy) / away) * BEYOND_PX];
      this.marks.svg.append(svg("path", { class: "ramp-line", d: `M${x} ${y}L${bx} ${by}` }));
      this.marks.svg.append(svg("circle", { class: "ramp-dot", cx: bx, cy: by, r: 6.5, "data-gradient": name }));
    };
    const [from, to] = [place(line.from), place(line.to)];
    this.marks.svg.append(svg("path", { class: "ramp-line", d: `M${from}L${to}${line.down ? `M${from}L${place(line.down)}` : ""}` }));
    if (gradient.kind !== "linear") dot(line.centre, "centre");
    beyond(line.to, "to");
    if (line.down) beyond(line.down, "down");
    if (gradient.kind === "linear") beyond(line.from, "from");
    gradient.stops.forEach(([at, colour], index) => dot(this.#stopAt(gradient, line, at), `stop ${index}`, colour));
  }

  /** @returns {boolean} whether a handle was taken */
  press(event) {
    const name = event.target.dataset.gradient;
    const part = this.marks.bench.part;
    if (!name || !part) return false;
    const start = this.now;
    this.marks.follow(event, (dx, dy, keys) => {
      const point = toOwn(part, ...this.marks.stage.toLogical(keys.clientX === undefined ? event : keys));
      this.live = this.#changed(start, name, point, keys.shiftKey);
      const changes = Object.entries(this.live).flatMap(([field, value]) => (field === "stops"
        ? value.map(([at], index) => ({ path: `${start.path}/stops/${index}/position`, value: at })).filter((_, index) => `stop ${index}` === name)
        : [{ path: `${start.path}/${field}`, value }]));
      return { kind: "set", changes };
    }, () => {
      this.live = null;
    });
    return true;
  }

  #changed(gradient, name, [x, y], steps) {
    const line = this.#line(gradient);
    const [left, top, right, bottom] = gradient.box;
    const [dx, dy] = [x - line.centre[0], y - line.centre[1]];
    const turned = (degrees) => round(steps ? (Math.round(degrees / STEP_DEGREES) * STEP_DEGREES) % 360 : degrees);
    if (name === "centre") return { centre_x: round((x - left) / (right - left)), centre_y: round((y - top) / (bottom - top)) };
    if (name === "down") return { radius_y: Math.max(0.01, round(Math.abs(dy) / (bottom - top))) };
    if (name === "from" || (name === "to" && gradient.kind === "linear")) {
      const side = name === "from" ? -1 : 1;
      const angle = turned(degreesOf(side * dx, side * dy));
      const [ux, uy] = way(angle);
      const half = (Math.abs((right - left) * ux) + Math.abs((bottom - top) * uy)) / 2 || 1;
      const away = (dx * ux + dy * uy) / (2 * half);
      const other = line.ends[name === "from" ? 1 : 0] / (2 * line.half || 1);
      const [low, high] = name === "from" ? [away, other] : [other, away];
      return { angle, scale: Math.max(0.02, round(high - low)), offset: round((high + low) / 2) };
    }
    if (name === "to") {
      if (gradient.kind === "radial") return { radius_x: Math.max(0.01, round(Math.abs(dx) / (right - left))) };
      return { start: turned(degreesOf(dx, dy)) };
    }
    const index = Number(name.split(" ")[1]);
    const along = [line.to[0] - line.from[0], line.to[1] - line.from[1]];
    const share = gradient.kind === "conic" ? ((degreesOf(dx, dy) - gradient.start + 360) % 360) / 360
      : ((x - line.from[0]) * along[0] + (y - line.from[1]) * along[1]) / (along[0] ** 2 + along[1] ** 2 || 1);
    const [low, high] = [gradient.stops[index - 1]?.[0] ?? 0, gradient.stops[index + 1]?.[0] ?? 1];
    const at = round(Math.min(high, Math.max(low, share)));
    return { stops: gradient.stops.map((stop, number) => (number === index ? [at, stop[1]] : stop)) };
  }
}
