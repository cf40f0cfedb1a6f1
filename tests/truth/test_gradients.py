"""Gradients against float64 formulas at every pixel's centre."""

import itertools
import math

import numpy as np
import pytest

from obrell.core.colour.spaces import from_hex, from_oklab, to_oklab
from obrell.core.geometry.plane import Rect, Similarity
from obrell.core.paint.fills import pigment
from obrell.core.raster.layers import Coverage, Layer, PixelBox
from obrell.core.raster.paint import paint
from obrell.core.values.paints import Conic, Linear, Radial, Stop

BOX = PixelBox(0, 0, 90, 70)
LOCAL = Rect(-30, -20, 30, 20)
PLACES = [Similarity(1.0, 0, 45, 35), Similarity(1.5, 30, 40, 33), Similarity(0.8, -115, 50, 30)]
STOPS = (
    Stop(position=0.1, colour="#ff2010", opacity=0.3),
    Stop(position=0.4, colour="#20c0f0", midpoint=0.3),
    Stop(position=0.9, colour="#101820", opacity=0.8),
)


def painted(fill, place):
    target = Layer.clear(BOX)
    whole = Coverage(BOX, np.ones((BOX.height, BOX.width), np.float32))
    paint(target, whole, pigment(fill, LOCAL, place), 1.0, 0)
    return target.planes


def local_points(place):
    y, x = np.mgrid[0 : BOX.height, 0 : BOX.width] + 0.5
    dx, dy = x - place.dx, y - place.dy
    angle = math.radians(place.turn)
    return (
        (math.cos(angle) * dx + math.sin(angle) * dy) / place.scale,
        (-math.sin(angle) * dx + math.cos(angle) * dy) / place.scale,
    )


def ramp(fill, t):
    """Premultiplied colours, mixed in the fill's space, bent by the colour-hint formula."""
    oklab = fill.space == "oklab"

    def row(stop):
        rgb = from_hex(stop.colour)
        values = to_oklab(rgb) if oklab else rgb
        return np.array([*(v * stop.opacity for v in values), stop.opacity])

    result = np.empty((4, *t.shape))
    result[:] = row(fill.stops[0])[:, None, None]
    for a, b in zip(fill.stops, fill.stops[1:], strict=False):
        share = np.clip((t - a.position) / (b.position - a.position), 0, 1)
        share = share ** (math.log(0.5) / math.log(a.midpoint))
        mixed = row(a)[:, None, None] + share * (row(b) - row(a))[:, None, None]
        result = np.where(t >= a.position, mixed, result)
    if oklab:
        flat = result.reshape(4, -1).T
        rgb = [np.clip(from_oklab(tuple(p[:3] / p[3])), 0, 1) * p[3] if p[3] > 0 else (0, 0, 0) for p in flat]
        result[:3] = np.array(rgb).T.reshape(3, *t.shape)
    return result


@pytest.mark.parametrize("place", PLACES, ids=["upright", "turned", "back"])
@pytest.mark.parametrize("space", ["srgb", "oklab"])
@pytest.mark.parametrize("angle", [0, 90, 180, 37])
def test_linear(place, space, angle):
    fill = Linear(stops=STOPS, space=space, angle=angle)
    x, y = local_points(place)
    dx, dy = math.sin(math.radians(angle)), -math.cos(math.radians(angle))
    length = abs(LOCAL.width * dx) + abs(LOCAL.height * dy)
    want = ramp(fill, (x * dx + y * dy) / length + 0.5)
    assert np.abs(painted(fill, place) - want).max() < 0.05 / 255


@pytest.mark.parametrize("place", PLACES, ids=["upright", "turned", "back"])
@pytest.mark.parametrize("bend", [0.3, 0.5])
def test_radial_elliptical_and_off_centre(place, bend):
    stops = tuple(stop.evolve(midpoint=bend) for stop in STOPS)
    fill = Radial(stops=stops, centre_x=0.3, centre_y=0.8, radius_x=0.6, radius_y=0.9)
    x, y = local_points(place)
    u = (x - (LOCAL.left + 0.3 * LOCAL.width)) / (0.6 * LOCAL.width)
    v = (y - (LOCAL.top + 0.8 * LOCAL.height)) / (0.9 * LOCAL.height)
    assert np.abs(painted(fill, place) - ramp(fill, np.hypot(u, v))).max() < 0.05 / 255


def test_two_stops_at_one_place_make_an_edge_one_pixel_wide():
    stops = (
        Stop(position=0, colour="#000000"), Stop(position=0.5, colour="#000000"),
        Stop(position=0.5, colour="#ffffff"), Stop(position=1, colour="#ffffff"),
    )  # fmt: skip
    edge = painted(Linear(stops=stops, angle=90), Similarity(1.0, 0, 45.25, 35))[0, 30]
    assert list(edge[43:48]) == pytest.approx([0, 0, 0.75, 1, 1])


@pytest.mark.parametrize("place", PLACES, ids=["upright", "turned", "back"])
def test_a_focus_is_where_the_ramp_begins(place):
    """SVG 2, section 14.2.3: the ramp's t is the share of the way from the focus to the ellipse, found here by
    halving."""
    fill = Radial(stops=STOPS, centre_x=0.4, centre_y=0.6, radius_x=0.6, radius_y=0.5, focus_x=0.5, focus_y=-0.4)
    x, y = local_points(place)
    u = (x - (LOCAL.left + 0.4 * LOCAL.width)) / (0.6 * LOCAL.width) - 0.5
    v = (y - (LOCAL.top + 0.6 * LOCAL.height)) / (0.5 * LOCAL.height) + 0.4
    low, high = np.zeros_like(u), np.full_like(u, 100.0)
    for _ in range(60):
        middle = (low + high) / 2
        beyond = np.hypot(0.5 + u * middle, -0.4 + v * middle) >= 1
        low, high = np.where(beyond, low, middle), np.where(beyond, middle, high)
    assert np.abs(painted(fill, place) - ramp(fill, 1 / high)).max() < 0.1 / 255


def test_a_focus_at_the_centre_changes_nothing():
    fill = Radial(stops=STOPS, centre_x=0.4, radius_x=0.6)
    nearly = fill.evolve(focus_x=1e-9)
    assert np.abs(painted(fill, PLACES[1]) - painted(nearly, PLACES[1])).max() < 0.05 / 255


def conic(*stops, **values):
    return Conic(stops=tuple(Stop(position=p, colour=c) for p, c in stops), centre_x=0.45, centre_y=0.4, **values)


EDGED = {
    "several in one pixel": Linear(angle=90, stops=tuple(
        Stop(position=0.3 + quarters / 240, colour=c)
        for quarters, c in (
            (0, "#ff0000"), (0, "#00ff00"), (1, "#00ff00"), (1, "#0000ff"), (2, "#0000ff"), (2, "#ffffff"),
        )
    )),
    "slanted": Linear(angle=37, stops=tuple(
        Stop(position=p, colour=c) for p, c in ((0, "#000000"), (0.5, "#404040"), (0.5, "#ffffff"), (1, "#a0ffff"))
    )),
    "repeated": Linear(angle=63, scale=0.13, spread="repeated", stops=(
        Stop(position=0, colour="#ff0000"), Stop(position=1, colour="#0000ff"),
    )),
    "mirrored": Linear(angle=20, scale=0.2, spread="mirrored", stops=tuple(
        Stop(position=p, colour=c) for p, c in ((0, "#ff0000"), (0.4, "#ff0000"), (0.4, "#0000ff"), (1, "#3030ff"))
    )),
    "rings": Radial(spread="repeated", radius_x=0.2, radius_y=0.2, turn=30, stops=tuple(
        Stop(position=p, colour=c) for p, c in ((0, "#000000"), (0.5, "#000000"), (0.5, "#ffffff"), (1, "#ffffff"))
    )),
    "wedges": conic((0, "#ff0000"), (0.3, "#ff0000"), (0.3, "#00ff00"), (0.7, "#0000ff"), (1, "#ffffff")),
    "no seam": conic((0, "#ff0000"), (0.5, "#0000ff"), (1, "#ff0000"), start=40),
}  # fmt: skip


def conic_share(fill, u, v):
    x, y = u - (LOCAL.left + fill.centre_x * LOCAL.width), v - (LOCAL.top + fill.centre_y * LOCAL.height)
    return (np.degrees(np.arctan2(x, -y)) - fill.start) % 360 / 360


def linear_share(fill, u, v):
    x, y = math.sin(math.radians(fill.angle)), -math.cos(math.radians(fill.angle))
    length = abs(LOCAL.width * x) + abs(LOCAL.height * y)
    start, end = fill.ends
    return ((u * x + v * y) / length + 0.5 - start) / (end - start)


def radial_share(fill, u, v):
    cos, sin = math.cos(math.radians(fill.turn)), math.sin(math.radians(fill.turn))
    across, down = u * cos + v * sin, v * cos - u * sin
    return np.hypot(across / (fill.radius_x * LOCAL.width), down / (fill.radius_y * LOCAL.height))


SHARES = {Linear: linear_share, Radial: radial_share, Conic: conic_share}


def over_pixels(fill, place, fine=24):
    """The mean of the ramp at ``fine`` by ``fine`` places of every pixel."""
    total = np.zeros((4, BOX.height, BOX.width))
    for i in range(fine * fine):
        shift = ((i % fine + 0.5) / fine - 0.5, (i // fine + 0.5) / fine - 0.5)
        moved = Similarity(place.scale, place.turn, place.dx - shift[0], place.dy - shift[1])
        t = SHARES[type(fill)](fill, *local_points(moved))
        if getattr(fill, "spread", "") == "repeated":
            t = t % 1
        elif getattr(fill, "spread", "") == "mirrored":
            t = np.minimum(t % 2, 2 - t % 2)
        total += plain_ramp(fill.stops, t)
    return total / fine**2


def plain_ramp(stops, t):
    """Opaque colours without midpoints; of several stops at one place the last holds from there on."""
    result = np.ones((4, *t.shape))
    result[:3] = np.array(from_hex(stops[0].colour))[:, None, None]
    for a, b in itertools.pairwise(stops):
        width = b.position - a.position
        share = np.clip((t - a.position) / width, 0, 1) if width > 0 else (t >= b.position).astype(float)
        low, high = (np.array(from_hex(stop.colour))[:, None, None] for stop in (a, b))
        result[:3] = np.where(t >= a.position, low + share * (high - low), result[:3])
    return result


@pytest.mark.parametrize("name", EDGED)
@pytest.mark.parametrize("place", PLACES)
def test_edges_are_the_mean_of_the_ramp_over_each_pixel(name, place):
    fill = EDGED[name]
    away = np.abs(painted(fill, place) - over_pixels(fill, place)).max(axis=0)
    if name == "no seam":
        x, y = place.apply(LOCAL.left + fill.centre_x * LOCAL.width, LOCAL.top + fill.centre_y * LOCAL.height)
        away[int(y) - 4 : int(y) + 5, int(x) - 4 : int(x) + 5] = 0
    assert np.quantile(away, 0.995) < 4 / 255
    assert away.max() < 14 / 255


def test_a_pixel_wholly_before_an_edge_keeps_its_own_colour_and_a_closed_conic_has_no_seam():
    edge = Linear(angle=90, stops=tuple(
        Stop(position=p, colour=c) for p, c in ((0, "#000000"), (0.5, "#ff0000"), (0.5, "#0000ff"), (1, "#0000ff"))
    ))  # fmt: skip
    row = painted(edge, Similarity(1.0, 0, 45, 35))[:, 35]
    assert row[0, 44] == pytest.approx(29.5 / 30, abs=1e-6)
    assert (row[0, 45], row[2, 45]) == pytest.approx((0, 1), abs=1e-6)
    closed = conic((0, "#ff0000"), (0.5, "#0000ff"), (1, "#ff0000"))
    seam = painted(closed, Similarity(1.0, 0, 45, 35))[:, 20, 39:44]
    want = over_pixels(closed, Similarity(1.0, 0, 45, 35))[:, 20, 39:44]
    assert np.abs(seam - want).max() < 1 / 255
