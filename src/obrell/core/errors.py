"""Every error the core raises on purpose, as one tree.

``Refused`` is the caller's mistake: something was asked that cannot be done, and the message says
why in a designer's words. ``BadDocument`` is a file or a stored document that cannot be read.
Anything else that escapes is a fault of ours.
"""

GONE = "That is no longer there: it was removed, perhaps in another window. Undo brings it back."


class ObrellError(Exception):
    """Base of the tree; ``str(error)`` is always fit to be shown to a designer."""


class Refused(ObrellError):
    """What was asked cannot be done, and nothing was changed."""


class NoSuchThing(Refused):
    """A part, effect, control or value that is named does not exist (any more)."""


class BadValue(Refused):
    """A value outside its range or of the wrong kind; ``path`` says which one."""

    def __init__(self, message: str, path: str = "") -> None:
        super().__init__(message)
        self.path = path


class TooLarge(Refused):
    """A canvas, picture or file beyond its limit."""


class TookTooLong(TooLarge):
    """Work that was ended because it took longer than it may; ``seconds`` is what it was given."""

    def __init__(self, message: str, seconds: float = 0.0) -> None:
        super().__init__(message)
        self.seconds = seconds


class Broke(Refused):
    """Work aside failed with an unexpected error."""


class Stopped(ObrellError):
    """Long work was stopped by the person who started it."""


class BadDocument(ObrellError):
    """A kit file that is malformed, truncated, of an unknown kind or from a later version."""


class Unreadable(BadDocument):
    """A document that was stored once and cannot be read any more; others are not touched by that."""
