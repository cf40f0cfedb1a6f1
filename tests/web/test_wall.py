"""The Wall's routes: a thousand controls without reading one of them, what is found said on the tile."""

import pytest
from fastapi.testclient import TestClient
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.document.model import MAX_CONTROLS, Control, Swatch
from obrell.core.effects import Outline
from obrell.core.shapes import Box, Icon, Text
from obrell.core.values.colours import SwatchLink
from obrell.core.values.paints import Solid
from obrell.samples.wendmere_lock import wendmere_lock
from obrell.store.documents import Documents
from obrell.web.app import create_app
from obrell.web.wall import MOST_HIGH_PX, Art
from tests.making import control, kit, part, solid

COUNT = 1000


@pytest.fixture
def client(tmp_path):
    return TestClient(create_app(tmp_path / "kits.db"), base_url="http://localhost")


def test_a_thousand_controls_are_shown_without_reading_them(client, monkeypatch):
    assert COUNT <= MAX_CONTROLS
    one = control(part(Box(width=30, height=20), solid("#204060")))
    many = tuple(one.evolve(id=f"c{number}", name=f"Key {number}") for number in range(1, COUNT + 1))
    client.app.state.kits.import_kit(kit(*many))
    read = []
    monkeypatch.setattr(Documents, "read", spy(Documents.read, read))
    monkeypatch.setattr(Documents, "find", lambda self, kind, hash_: None)
    shown = client.get("/kits/test-kit").text
    assert shown.count('class="tile"') == shown.count('loading="lazy"') == COUNT
    assert "Key 1000" in shown
    assert Control not in read


def spy(real, seen):
    def call(self, kind, hash_, body):
        seen.append(kind)
        return real(self, kind, hash_, body)

    return call


@given(st.integers(1, 8192), st.integers(1, 8192), st.sampled_from([235.0, 940.0]))
def test_art_is_shown_at_true_size_or_whole_with_its_scale(width, height, room):
    art = Art.of(width, height, room)
    fits = width <= room and height <= MOST_HIGH_PX
    assert fits == (art.scale == 1) == ("%" not in art.words)
    assert art.width <= room
    assert art.height <= MOST_HIGH_PX
    assert art.width * height == pytest.approx(art.height * width)


def test_a_tile_says_what_is_found(client):
    kits = client.app.state.kits
    kits.import_kit(wendmere_lock())
    assert client.get("/kits/wendmere-lock/controls/c1/found").text.strip() == ""
    cut = part(Box(width=78, height=30), solid("#204060"), Outline(id="e2", place="outside", width=4))
    out = part(Box(width=9, height=9), solid("#204060"), x=-40)
    kits.import_kit(kit(control(cut, out)))
    said = client.get("/kits/test-kit/controls/c1/found").text
    assert "2 found" in said
    assert "The canvas cuts the outline of Part." in said
    assert 'href="/kits/test-kit/controls/c1"' in said
    assert client.get("/kits/test-kit/controls/c9/found").status_code == 404


def test_the_bench_says_what_is_found_in_bar_column_and_line(client):
    cut = part(Box(width=78, height=30), solid("#204060"), Outline(id="e2", place="outside", width=4))
    out = part(Box(width=9, height=9), solid("#204060"), x=-40)
    client.app.state.kits.import_kit(kit(control(cut, out)))
    parcel = client.get("/kits/test-kit/controls/c1/blocks").json()
    assert [one["words"] for one in parcel["facts"]["found"]] == ["The canvas cuts the outline of Part."]
    assert [cure["words"] for cure in parcel["facts"]["found"][0]["cures"]] == ["Move it inside", "Grow the canvas"]
    column = " ".join(parcel["blocks"]["edges"].split())
    assert "“Part” lies off the canvas" in column
    assert "Move it onto the canvas" in column
    assert "found-mark" in parcel["lists"]["parts"]["items"]["p2"]
    assert "found-mark" not in parcel["lists"]["parts"]["items"]["p1"]


LABELLED = (
    part(Box(width=60, height=30), solid("#204060")), part(Text(words="Go", size=12), solid("#f0f0f0"), x=30),
    part(Icon(icon="anchor", width=12, height=12), solid("#204060"), x=60),
)  # fmt: skip


def in_table(**rows):
    """Fields of the table of copies; ``r0__words__p2`` is a row's words of a part."""
    return {name[1:].replace("__", " ").replace("_", "#"): value for name, value in rows.items()}


def test_copies_with_other_words_icons_and_colours_are_one_step(client):
    kits = client.app.state.kits
    kits.import_kit(kit(control(*LABELLED)))
    place = "/kits/test-kit/controls/c1/variants"
    table = client.get(place).text
    assert 'value="Go"' in table
    assert "#204060" in table
    origin = {"origin": "http://localhost"}
    rows = in_table(
        r0__name="Stop", r0__words__p2="Stop", r0__icons__p3="bell", r0__colours___204060="#AA3300",
        r1__name="", r1__words__p2="Nothing", r2__name="Wait", r2__words__p2="Wait", r2__colours___204060="",
    )  # fmt: skip
    assert client.post(place, data=rows, headers=origin).status_code == 200
    made = [stored.control for stored in kits.controls("test-kit")]
    assert [one.name for one in made] == ["Control", "Stop", "Wait"]
    stop, wait = made[1:]
    assert (stop.parts[1].shape.words, stop.parts[2].shape.icon) == ("Stop", "bell")
    assert [one.effects[0].fill.colour for one in stop.parts] == ["#aa3300", "#f0f0f0", "#aa3300"]
    assert wait.parts[0] == LABELLED[0]
    kits.undo("test-kit")
    assert len(kits.controls("test-kit")) == 1


def test_a_copy_changes_colours_that_follow_a_swatch_and_leaves_the_rest_following(client):
    kits = client.app.state.kits
    swatches = (Swatch(id="tarn", name="tarn", colour="#1f8a92"), Swatch(id="moss", name="moss", colour="#5e8a3a"))
    followed = [
        part(Box(), solid("#204060").evolve(fill=Solid(colour=SwatchLink(swatch=swatch)))).evolve(id=f"p{number}")
        for number, swatch in enumerate(("tarn", "moss"), 1)
    ]
    kits.import_kit(kit(control(*followed)).evolve(swatches=swatches))
    place = "/kits/test-kit/controls/c1/variants"
    assert "#1f8a92" in client.get(place).text
    rows = in_table(r0__name="Red", r0__colours___1f8a92="#AA3300", r0__colours___5e8a3a="#5e8a3a")
    assert client.post(place, data=rows, headers={"origin": "http://localhost"}).status_code == 200
    colours = [one.effects[0].fill.colour for one in kits.controls("test-kit")[1].control.parts]
    assert colours == [SwatchLink(swatch="tarn", own="#aa3300"), SwatchLink(swatch="moss")]


@pytest.mark.parametrize(
    ("rows", "words"),
    [
        ({"r0__name": ""}, "at least one copy a name"),
        ({"r0__name": "A", "r0__colours___204060": "blue"}, "lours"),
        ({"r0__name": "A", "r0__icons__p3": "blurb"}, "“A”"),
        ({"r0__name": "A", "r0__words__p9": "x"}, "“A”"),
        ({"r0__name": "A" * 90}, "ame"),
        ({"r0__shape": "A"}, "not a table"),
        ({f"r{n}__name": "A" for n in range(51)}, "50 copies"),
    ],
)  # fmt: skip
def test_a_table_with_something_wrong_makes_no_copy_at_all(client, rows, words):
    kits = client.app.state.kits
    kits.import_kit(kit(control(*LABELLED)))
    fields = in_table(r77__name="Fine", **rows) if rows != {"r0__name": ""} else in_table(**rows)
    answer = client.post("/kits/test-kit/controls/c1/variants", data=fields, headers={"origin": "http://localhost"})
    assert answer.status_code in (404, 422)
    assert words in answer.json()["words"]
    assert len(kits.controls("test-kit")) == 1


def test_an_empty_kit_says_what_to_do_next_on_the_wall_and_in_deliver(client):
    kit = client.app.state.kits.add_kit("Fresh")
    wall, deliver = (client.get(f"/kits/{kit}{view}").text for view in ("", "/deliver"))
    assert "data-new-control" in wall
    assert "data-ground=" not in wall
    assert "nothing to deliver yet" in deliver
    assert 'id="order"' not in deliver
    assert f'href="/kits/{kit}"' in deliver
