"""A control with other words in its texts, as it stands on a panel."""

from __future__ import annotations

from collections.abc import Mapping
from functools import partial

from obrell.core.document.model import Control
from obrell.core.document.states import settle
from obrell.core.edit.base import Surroundings
from obrell.core.edit.values import Change, SetValues
from obrell.core.shapes import Text
from obrell.core.values.base import canonical
from obrell.core.workspace import OfObject


def with_words(control: Control, words: Mapping[str, str]) -> Control:
    """The control with other words in its texts, by their ids; what is no text of it any more is left out."""
    texts = {part.id for part in control.parts if isinstance(part.shape, Text)}
    changes = tuple(Change(path=f"parts/{name}/shape/words", value=text) for name, text in words.items())
    changes = tuple(one for one in changes if one.path.split("/")[1] in texts)
    if not changes:
        return control
    return _WORDED.get(control, canonical(dict(words)), partial(_worded, control, changes))


_WORDED = OfObject[Control](64)


def _worded(control: Control, changes: tuple[Change, ...]) -> Control:
    return settle(SetValues(changes=changes).apply(control, Surroundings()))
