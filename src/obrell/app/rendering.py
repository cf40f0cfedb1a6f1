"""One control as a file: how it is seen, and what that comes to in a format."""

from __future__ import annotations

from dataclasses import dataclass

from obrell.core.document.editions import at_density, in_editions
from obrell.core.document.model import REGULAR, REST, Control, KitSettings
from obrell.core.document.readings import Readings
from obrell.core.document.resolve import DAY, resolve
from obrell.core.document.transitions import Between, moment
from obrell.core.errors import Refused
from obrell.core.formats import Format, Job
from obrell.core.formats.svg.pictured import USUAL_DENSITY
from obrell.core.geometry.plane import Rect
from obrell.core.raster.png import encode
from obrell.core.render.between import draw_between
from obrell.core.render.compose import Frame, canvas_box


@dataclass(frozen=True, slots=True)
class Seen:
    """At which size, in which state and colourway, all by their ids, and at which readings a control is seen; where
    it ``came`` from another state, ``after`` so many ms."""

    size: str = REGULAR
    state: str = REST
    colourway: str = DAY
    readings: Readings = ()
    came: str | None = None
    after: float = 0.0


def file_of(settings: KitSettings, control: Control, form: Format, seen: Seen, density: float | None) -> bytes:
    """A file of all of the canvas at a density, 1 when none is said; of what a scalable one embeds, ``USUAL_DENSITY``
    then. At a density that has art of its own it is of that. Raises ``NoSuchThing`` for what the control has not, and
    ``Refused`` for a moment at which two looks lie over each other, where that is not asked for as pixels."""
    own = 1.0 if form.scalable else density or 1.0
    shown = in_editions(control, (seen.size,)) if form.scalable else at_density(control, own, seen.size)
    now = _now(settings, shown, seen)
    frame = Frame(own, canvas_box(now.first, own))
    if now.only is None:
        if form.kind != "png":
            words = "At that moment two looks lie over each other, which only a picture can show. Write it as .png."
            raise Refused(words)
        return encode(draw_between(now, frame), own)
    canvas = shown.canvas
    job = Job(now.only, Rect(0, 0, canvas.width, canvas.height), frame.region, own, density or USUAL_DENSITY)
    return form.make(job, form.options())


def _now(settings: KitSettings, control: Control, seen: Seen) -> Between:
    if seen.came is None:
        there = resolve(settings, control, seen.state, seen.colourway, seen.readings)
        return Between(there, there, 1.0)
    return moment(settings, control, seen.came, seen.state, seen.after, seen.colourway, seen.readings)
