"""Kinds are found by standing in their folder, and each can be reached by a person."""

from pathlib import Path

import pytest

import obrell.core
from obrell.core.effects import EFFECTS, Effect
from obrell.core.registry import kinds_in
from obrell.core.shapes import SHAPES, Container, Shape
from obrell.web.commands import DRAW_WORDS, commands

CORE = Path(obrell.core.__file__).parent


@pytest.mark.parametrize(("folder", "kinds"), [("effects", EFFECTS), ("shapes", SHAPES)])
def test_every_module_of_the_folder_brings_a_kind(folder, kinds):
    modules = {path.stem for path in (CORE / folder / "kinds").glob("*.py")} - {"__init__"}
    assert modules == {kind.__module__.rsplit(".", 1)[1] for kind in kinds.values()}
    assert all(kind.model_fields["kind"].default == name for name, kind in kinds.items())


def test_a_kind_called_like_another_is_told(tmp_path, monkeypatch):
    package = tmp_path / "twokinds"
    package.mkdir()
    (package / "__init__.py").write_text("")
    for name in ("one", "other"):
        (package / f"{name}.py").write_text(
            "from obrell.core.shapes.kinds.box import Box\n"
            f"class {name.title()}(Box):\n    kind: str = 'twice'\n"
        )  # fmt: skip
    monkeypatch.syspath_prepend(tmp_path)
    with pytest.raises(TypeError, match="called the same"):
        kinds_in("twokinds", Shape)


def test_every_kind_can_be_reached_from_the_interface():
    words = {next(iter(command.data.items())) for command in commands() if command.data}
    drawn = {kind.tool.name or name for name, kind in SHAPES.items() if kind.tool is not None}
    assert {("draw", name) for name in drawn} <= words
    assert {("add-effect", name) for name in EFFECTS} <= words
    assert all(kind.tool is not None or issubclass(kind, Container) for kind in SHAPES.values())
    keys = [key.lower() for _, _, key, _ in DRAW_WORDS]
    assert len(set(keys)) == len(keys)
    assert all(issubclass(kind, Effect) for kind in EFFECTS.values())
