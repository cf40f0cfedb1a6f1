"""Letters of a text with a look of their own, and fonts brought in."""

from io import BytesIO

import pytest
from fontTools.subset import Options, Subsetter
from fontTools.ttLib import TTFont
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.edit import Surroundings, applied, read_edit
from obrell.core.errors import BadDocument, BadValue, Refused, TooLarge
from obrell.core.interchange import fonts
from obrell.core.interchange.fonts import read_font
from obrell.core.shapes import Text
from obrell.core.shapes.kinds.text import Run
from obrell.core.text.fonts import FONT_FOLDER, load
from tests.making import KEEPER, control, layer, part, resolved, solid

LORA = (FONT_FOLDER / "lora" / "latin.woff2").read_bytes()


def advance(text):
    return text.frame().width


def test_runs_that_look_as_the_rest_change_nothing():
    whole = Text(words="Hail boat", size=20)
    cut = whole.evolve(runs=(whole.plain_run(0, 4),))
    assert advance(cut) == pytest.approx(advance(whole), abs=0.2)
    assert cut.baseline() == whole.baseline()


def test_runs_have_their_own_size_weight_and_tracking():
    text = Text(words="ab ab", size=20)
    big = text.evolve(runs=(text.plain_run(0, 2).evolve(size=40, rise=3),))
    small, large = (shape.path().bounds() for shape in (text, big))
    assert large.height > small.height * 1.6
    assert big.lines()[0].pieces[1].setting == text.evolve(words=" ab").lines()[0].pieces[0].setting
    wide = text.evolve(runs=(text.plain_run(0, 2).evolve(tracking=5),))
    assert advance(wide) == pytest.approx(advance(text.evolve(runs=(text.plain_run(0, 2),))) + 10)
    two = Text(words="Boat\nqueue", size=20)
    assert two.evolve(runs=(two.plain_run(5, 10).evolve(size=10),)).frame().height == pytest.approx(10 * 1.2 + 20)


def test_scaling_a_text_scales_its_runs():
    text = Text(words="ab", size=20, runs=(Run(start=0, end=1, size=10, rise=2),))
    twice = text.stretched(2, 2)
    assert (twice.size, twice.runs[0].size, twice.runs[0].rise) == pytest.approx((40, 20, 4))


@given(
    st.text("ab", min_size=1, max_size=8), st.text("ab", min_size=1, max_size=8), st.integers(0, 7), st.integers(1, 8)
)
def test_runs_stay_in_order_whatever_is_typed(old, new, start, length):
    end = min(len(old), start + length)
    if start >= end:
        return
    text = Text(words=f"x{old}", runs=(Run(start=start, end=end),)).evolve(words=f"x{new}")
    for run in text.runs:
        assert 0 <= run.start < run.end <= len(text.words)


def test_runs_go_along_when_words_change_around_them():
    text = Text(words="one two three", runs=(Run(start=4, end=7),))

    def styled(words):
        changed = text.evolve(words=words)
        return [changed.words[run.start : run.end] for run in changed.runs]

    assert styled("one and two three") == ["two"]
    assert styled("one twofold three") == ["twofold"]
    assert styled("one twx three") == ["twx"]
    assert styled("one, three") == []


def test_a_run_in_its_own_colour_has_no_fringe_of_the_paint_below():
    text = Text(words="II", size=40, runs=(Run(start=1, end=2, size=40, coloured=True, colour="#00ff00"),))
    shown = layer(resolved(part(text, solid("#ff0000")))).planes
    halves = shown[:, :, :40].sum(axis=(1, 2)), shown[:, :, 40:].sum(axis=(1, 2))
    assert halves[0][1] == 0
    assert halves[1][0] == 0
    assert halves[1][1] == pytest.approx(halves[1][3], rel=1e-5)


def test_styling_cuts_older_runs():
    text = part(Text(words="abcdef", runs=(Run(start=0, end=6, size=30),)))
    styled = read_edit({"kind": "style-letters", "part": "p1", "start": 2, "end": 4}).apply(
        control(text), Surroundings()
    )
    runs = styled.parts[0].shape.runs
    assert [(run.start, run.end, run.size) for run in runs] == [(0, 2, 30), (2, 4, 30), (4, 6, 30)]
    plain = read_edit({"kind": "plain-letters", "part": "p1", "run": 1}).apply(styled, Surroundings())
    assert [(run.start, run.end) for run in plain.parts[0].shape.runs] == [(0, 2), (4, 6)]
    with pytest.raises(Refused, match="Select the letters"):
        read_edit({"kind": "style-letters", "part": "p1", "start": 3, "end": 3}).apply(styled, Surroundings())


def test_a_font_that_was_brought_in_sets_words_as_the_same_font_shipped():
    kept = read_font(LORA)
    assert kept.name == "Lora"
    own = Text(words="Sluice", font=KEEPER.keep(kept.content), size=30, weight=500)
    assert own.path() == Text(words="Sluice", font="Lora", size=30, weight=500).path()


def test_plain_and_static_fonts_are_read_too():
    tables = TTFont(BytesIO(LORA))
    cutter = Subsetter(Options(layout_features=[]))
    cutter.populate(text="Sluice")
    cutter.subset(tables)
    del tables["fvar"]
    del tables["gvar"]
    tables.flavor = None
    file = BytesIO()
    tables.save(file)
    kept = read_font(file.getvalue())
    font = load(KEEPER.keep(kept.content))
    assert font.lightest == font.heaviest
    assert font.missing("Slab") == ["a", "b"]


@pytest.mark.parametrize(
    "content", [b"", b"<svg/>", LORA[:400], b"\x00\x01\x00\x00" + b"\xff" * 60, b"wOF2" + b"\xff" * 90]
)
def test_what_is_no_font_is_refused_with_words(content):
    with pytest.raises(BadDocument, match="font"):
        read_font(content)


def test_fonts_that_unpack_beyond_measure_are_refused(monkeypatch):
    monkeypatch.setattr(fonts, "MAX_UNPACKED_BYTES", 1000)
    with pytest.raises(TooLarge, match="unpacks"):
        read_font.function(LORA)


def test_weights_are_limited_to_what_the_font_has():
    oswald = part(Text(words="Lock", font="Oswald", weight=500), solid("#000000"))
    edit = {"kind": "set", "changes": [{"path": "parts/p1/shape/weight", "value": 900}]}
    with pytest.raises(BadValue, match="Oswald has weights from 200 to 700"):
        read_edit(edit).apply(control(oswald), Surroundings())
    heavy = part(Text(words="Lock", font="Hanken Grotesk", weight=900), solid("#000000"))
    other = {"kind": "set", "changes": [{"path": "parts/p1/shape/font", "value": "Oswald"}]}
    assert read_edit(other).apply(control(heavy), Surroundings()).parts[0].shape.weight == 700
    kept = part(Text(words="Lock", font="Oswald", weight=900), solid("#000000"))
    size = {"kind": "set", "changes": [{"path": "parts/p1/shape/size", "value": 20}]}
    assert read_edit(size).apply(control(kept), Surroundings()).parts[0].shape.size == 20


def test_a_light_of_its_own_keeps_the_height_of_the_kits():
    edit = {"kind": "set", "changes": [{"path": "light/direction", "value": 30}]}
    lit = read_edit(edit).apply(control(part(Text(), solid("#000000"))), Surroundings(light=300, height=62)).light
    assert (lit.direction, lit.height) == (30, 62)


@pytest.mark.parametrize(("name", "new"), [("size", 17), ("weight", 300), ("tracking", 2)])
def test_letters_keep_only_what_differs(name, new):
    here = control(part(Text(words="Open gate", size=14, weight=500), solid("#111111"), x=40, y=30))
    cut = applied(read_edit({"kind": "style-letters", "part": "p1", "start": 0, "end": 4}), here, Surroundings())

    def set_to(shown, path, value):
        return applied(read_edit({"kind": "set", "changes": [{"path": path, "value": value}]}), shown, Surroundings())

    bolder = set_to(cut, "parts/p1/shape/runs/0/weight", 800)
    (run,) = set_to(bolder, f"parts/p1/shape/{name}", new).parts[0].shape.runs
    assert getattr(run, name) == (800 if name == "weight" else new)
    assert run.weight == 800
    (along,) = set_to(cut, f"parts/p1/shape/{name}", new).parts[0].shape.runs
    assert getattr(along, name) == new
