"""What a value is called by itself, as the list of what was done says it."""

from __future__ import annotations

NOUNS = {
    "across": "place across",
    "aligned by its": "alignment",
    "arrow at": "arrow",
    "at": "place",
    "at least": "least length",
    "bent by": "bend",
    "by": "distance",
    "clipped to": "clip",
    "copies turn along": "turning of copies",
    "down": "place down",
    "down to": "depth",
    "drawn as": "form",
    "falls": "way of falling",
    "follow light": "following of the light",
    "from": "direction",
    "gradient runs": "way of the gradient",
    "high": "height",
    "how": "way",
    "inside by": "rule of what lies inside",
    "its": "measure of the mask",
    "laid over the": "span",
    "lies": "place",
    "locked": "lock",
    "masked by": "kind of mask",
    "mixed in": "colour space",
    "moved across": "offset across",
    "moved by": "offset",
    "moved down": "offset down",
    "moves with the part": "moving along",
    "over": "sweep",
    "plus": "distance",
    "raised by": "raise",
    "reaches the backdrop": "reach to the backdrop",
    "rises": "rise",
    "runs to": "direction",
    "shown": "showing",
    "spacing grows to": "growth of spacing",
    "tinted by the ground": "tint by the ground",
    "texture rises": "rise of the texture",
    "texture runs to": "direction of the texture",
    "towards": "direction",
    "turned": "turn",
    "wide": "width",
}
"""What a value is called where its title only makes sense in its sentence."""


def noun_of(title: str) -> str:
    """A field's title as a thing that can change."""
    return NOUNS.get(title, title)
