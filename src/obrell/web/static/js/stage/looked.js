/** How the art is looked at: in which colourway and state, at which readings, on the way from where. */
export class Looked extends EventTarget {
  constructor() {
    super();
    /** The colourway that the art is looked at in. */
    this.colourway = new URLSearchParams(location.search).get("colourway") ?? "day";
    /** Colours of swatches that are tried, by their ids. @type {Object<string, string>} */
    this.colours = {};
    /** The state that is drawn, and others that what is done is done in too. */
    this.state = new URLSearchParams(location.search).get("state") ?? "rest";
    /** The size and the art for a density that are drawn, by their ids with commas between. */
    this.editions = new URLSearchParams(location.search).get("editions") ?? "";
    /** @type {string[]} */
    this.also = [];
    /** The numbers that readings are at, by their ids. @type {Object<string, number>} */
    this.readings = {};
    /** The state that a movement to it is looked at from, and how many ms it has gone on; it has ended when none. */
    this.came = "";
    this.time = Infinity;
    /** The state that is shown while it is tried, which may not be there yet. */
    this.tried = "";
    /** Whether it is shown where that differs from rest. */
    this.against = false;
    /** Whether every part has a colour of its own. */
    this.apart = false;
  }

  /** What of the control is drawn. */
  get drawn() {
    return { state: this.state, editions: this.editions };
  }

  /** The colourway and the state that are looked at, and where what is done is done. */
  get seen() {
    const readings = Object.entries(this.readings).map(([name, value]) => `${name}:${value}`);
    const { colourway, came } = this;
    return { colourway, ...this.drawn, came, also: this.also.join(","), readings: readings.join(",") };
  }

  /** What a frame shows. */
  get looked() {
    const { seen, colours, tried, apart, against } = this;
    const moves = Number.isFinite(this.time) && !tried;
    const moment = moves ? { came: this.came, time: this.time } : { came: "", time: 0 };
    return { ...seen, colours, state: tried || this.state, ...moment, apart, against };
  }
}
