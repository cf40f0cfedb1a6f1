"""What is brought in from outside, read and kept: SVG drawings, pictures, fonts."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import PurePath

from obrell.core.document.model import KitFont
from obrell.core.edit import Edit
from obrell.core.edit.insert import InsertParts
from obrell.core.edit.kits import KitIndex, with_favourite, with_font
from obrell.core.edit.pictures import AddPicture, FillWithPicture, PinReference
from obrell.core.files import file_id
from obrell.core.interchange.fonts import read_font
from obrell.core.interchange.pictures import read_picture
from obrell.core.interchange.svg.reader import read_svg
from obrell.core.text.fonts import load
from obrell.core.values.fields import MOST_OF_NAME
from obrell.store.kits import Kits


@dataclass(frozen=True, slots=True)
class Brought:
    """The edit that puts in what was read, the files it needs, and what was left out, in words."""

    edit: Edit
    files: tuple[bytes, ...] = ()
    left_out: str = ""


def drawing(kits: Kits, kit: str, svg: str, name: str) -> Brought:
    """The parts of an SVG; the pictures in it are kept."""
    read = read_svg(svg, {font.name: font.file for font in kits.index(kit).fonts})
    left = ", ".join(f"{what} ({count})" if count > 1 else what for what, count in read.left_out.items())
    edit = InsertParts(parts=read.parts, name=printable(name)[:MOST_OF_NAME] or "Drawing")
    return Brought(edit, read.files, f"Not understood and left out: {left}" if left else "")


def picture(content: bytes, name: str, use: str, path: str) -> Brought:
    """A picture, to be put in as a part, as the ``fill`` at a path, or pinned as the ``reference``."""
    kept = read_picture(content)
    file = file_id(kept)
    called = printable(PurePath(name).stem)[:60] or "Picture"
    edits: dict[str, Callable[[], Edit]] = {
        "reference": lambda: PinReference(file=file), "fill": lambda: FillWithPicture(path=path, file=file),
    }  # fmt: skip
    return Brought(edits.get(use, lambda: AddPicture(file=file, name=called))(), (kept,))


def font(kits: Kits, kit: str, content: bytes) -> KitFont:
    """A font brought into the kit."""
    read = read_font(content)
    kept = KitFont(file=file_id(read.content), name=read.name)
    label = f"Brought in the font “{read.name}”"
    kits.change_index(kit, lambda index: with_font(index, kept), label, (read.content,))
    return kept


def favourite(kits: Kits, kit: str, name: str) -> None:
    """A font made a favourite, or no longer one."""

    def changed(index: KitIndex) -> KitIndex:
        return with_favourite(index, name)

    kits.change_index(kit, changed, f"Favourite: {load(name).name}")


def printable(name: str) -> str:
    """What a file is called, as a name."""
    return "".join(c for c in name if c.isprintable()).strip()
