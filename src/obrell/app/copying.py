"""Copies of a control with changes, put into its kit."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial

from obrell.core.document.resolve import palette
from obrell.core.edit.admission import check_drawable
from obrell.core.edit.variants import Variant, varied
from obrell.core.errors import BadValue, ObrellError, Refused
from obrell.store.kits import Kits

MOST = 50


def copies(
    kits: Kits, kit: str, control: str, variants: Sequence[Variant], *, follow: bool = False
) -> tuple[str, ...]:  # fmt: skip
    """All of them in one step, or none: a copy that cannot be made is named. Their ids. They ``follow`` the control
    but for what is other in them."""
    if not variants:
        raise Refused("Give at least one copy a name.")
    if len(variants) > MOST:
        raise Refused(f"{MOST} copies are the most that are made at once.")
    source, index = kits.control(kit, control).control, kits.index(kit)
    colours = palette(index)
    for variant in variants:
        try:
            check_drawable(index, varied(variant, source, "new", palette=colours), source)
        except ObrellError as error:
            raise BadValue(f"“{variant.name}”: {error}") from error
    makes = [(control, partial(varied, variant, source, palette=colours, follows=follow)) for variant in variants]
    return kits.add_copies(kit, makes)
