"""Numbers that ids are made with."""

from __future__ import annotations

import re
from collections.abc import Iterable
from itertools import count

_NUMBERED = re.compile(r"[a-z]+([0-9]{1,15})")
"""An id that ends with a number. One with more digits is never reached by counting."""
HIGHEST = 10**12
"""Numbers are counted up to here; then the lowest free one is taken."""


def free_number(counter: int, ids: Iterable[str]) -> int:
    """Return the number for the next id: the counter, or one more than the highest number in ``ids`` if the counter
    is behind, as in a file written by hand."""
    taken = {int(found[1]) for ident in ids if (found := _NUMBERED.fullmatch(ident))}
    wanted = max(counter, 1 + max(taken, default=0))
    return wanted if wanted <= HIGHEST else next(free for free in count(1) if free not in taken)
