"""What every kind of file promises: its words, what it is asked with, how it is made and measured."""

from __future__ import annotations

from abc import ABC, abstractmethod
from dataclasses import dataclass
from typing import ClassVar

from obrell.core.document.resolve import Resolved
from obrell.core.geometry.plane import Rect
from obrell.core.raster.layers import PixelBox
from obrell.core.render.cache import PixelCache
from obrell.core.values.base import Value


@dataclass(frozen=True, slots=True)
class Job:
    """What is to be in a file: a box of a control, logical px, and where that lies on the device grid of a density."""

    shown: Resolved
    box: Rect
    pixels: PixelBox
    density: float
    embedded: float
    """The density of pictures in a file that is scalable itself."""
    cache: PixelCache | None = None
    """What was drawn for other files, kept."""


class Options(Value):
    """What a kind can be asked for beside; every field a switch whose title says what it does,
    and whose description what that means for the files."""


class Format(ABC):
    """Base of the kinds of files."""

    kind: ClassVar[str]
    """Its name, and how its files end."""
    rank: ClassVar[int] = 0
    label: ClassVar[str]
    heading: ClassVar[str]
    """What such files are, in a word."""
    said: ClassVar[str]
    """What goes on after its label where it is ordered."""
    scalable: ClassVar[bool] = False
    """Whether one file does for all densities."""
    packed: ClassVar[bool] = False
    """Whether it is compressed already."""
    options: ClassVar[type[Options]] = Options

    @abstractmethod
    def make(self, job: Job, options: Options) -> bytes:
        """The content of a file; the same for the same job."""

    @abstractmethod
    def measure(self, content: bytes) -> tuple[float, float]:
        """Width and height that a file says it has, its own px."""
