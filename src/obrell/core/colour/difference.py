"""How different two colours look: CIEDE2000 (CIE 142; Sharma, Wu and Dalal 2005)."""

from __future__ import annotations

from obrell.core.workspace import remembered


@remembered(65536)
def ciede2000(one: str, other: str) -> float:
    """The difference between two ``#rrggbb``, 0 for none; 1 is hardly seen."""
    if one == other:
        return 0.0
    # Read where it is first asked for: nothing that is drawn needs it.
    from coloraide import Color

    return float(Color(one).delta_e(Color(other), method="2000"))
