"""Which label is told of while a colour is chosen."""

from obrell.app.reading import reading
from obrell.core.document.resolve import resolve
from obrell.core.shapes import Box, Text
from tests.making import KIT, control, part, solid


def shown(*parts):
    return resolve(KIT, control(*parts, width=260, height=60))


def body(colour, name, x=80, width=150):
    return part(Box(width=width, height=50), solid(colour), x=x, name=name)


def text(colour, name, x):
    return part(Text(words="HI", size=20), solid(colour), x=x, name=name)


def told(here, name):
    """What is called of a part by its name."""
    (part,) = (one.id for one in here.control.parts if one.name == name)
    found = reading(here, part, 0, None)
    return found and found.name


def test_contrast_is_told_of_the_weakest_label_that_a_colour_lies_under():
    under, beside = body("#808080", "p1"), body("#000000", "p5", x=220, width=30)
    weak, strong, far = text("#909090", "p2", 30), text("#000000", "p3", 110), text("#050505", "p4", 210)
    here = shown(beside, far, under, weak, strong)
    assert [told(here, name) for name in ("p1", "p2", "p3", "p5")] == ["p2", "p2", "p3", "p4"]


def test_a_label_that_is_hidden_or_lies_below_is_none_but_one_of_the_same_colour_is():
    under, weak = body("#808080", "p1"), text("#909090", "p2", 30)
    assert told(shown(under, weak, body("#202020", "p6")), "p1") is None
    assert told(shown(weak, under), "p1") is None
    assert told(shown(under, text("#808080", "p2", 30)), "p1") == "p2"
