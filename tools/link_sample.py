"""Write down how the colours of the sample kit follow its swatches, for ``obrell/samples/links.py``.

``python -m tools.link_sample`` prints the module; what it is made of is the sample kit without them.
"""

from __future__ import annotations

from obrell.core.document.resolve import palette
from obrell.core.edit.colours import literals_of, proposals
from obrell.core.values.colours import SwatchLink
from obrell.samples.wendmere_lock import unlinked_lock

MOST_REMAINS = 2.5
"""CIEDE2000 up to which a colour may be changed by that."""
PLAIN = ("#000000", "#ffffff")
"""What stays as it is, whatever the swatches are."""


def main() -> None:
    """Print the module."""
    kit = unlinked_lock()
    counted = literals_of(kit.controls)
    for colour in PLAIN:
        counted.pop(colour, None)
    found = {
        colour: one.match.link
        for one in proposals(counted, palette(kit))
        if one.match.remains <= MOST_REMAINS
        for colour in one.colours
    }
    print('"""How the colours of the sample kit follow its swatches; made by ``python -m tools.link_sample``."""\n')
    print("from obrell.core.values.colours import SwatchLink\n")
    print("LINKS = {")
    for colour in sorted(found):
        print(f'    "{colour}": SwatchLink({_arguments(found[colour])}),')
    print("}")


def _arguments(link: SwatchLink) -> str:
    given = [f'swatch="{link.swatch}"']
    given += [f"{name}={value:g}" for name in ("tint", "chroma", "hue") if (value := getattr(link, name))]
    return ", ".join(given)


if __name__ == "__main__":
    main()
