"""SVG text as a tree of elements. Nothing outside of the text is fetched; entities are refused, and size, depth
and count of elements are limited before any of them is drawn."""

from __future__ import annotations

from collections.abc import Iterator
from xml.etree.ElementTree import Element, ParseError
from xml.parsers.expat import errors

from defusedxml import DefusedXmlException
from defusedxml.ElementTree import fromstring

from obrell.core.errors import BadDocument, TooLarge

MAX_ELEMENTS = 20_000
MAX_DEPTH = 60
NAMED = frozenset({"script", "foreignObject"})
"""Never drawn, but said to be left out."""
NEVER_DRAWN = NAMED | {
    "", "defs", "clipPath", "mask", "marker", "pattern", "symbol", "linearGradient", "radialGradient", "filter",
    "style", "title", "desc", "metadata", "cursor", "view", "stop",
}  # fmt: skip
"""Elements that are nothing by themselves; the empty name is of those that are not SVG."""
_FAULTS = {
    errors.codes[errors.XML_ERROR_SYNTAX]: "there is text that is not XML",
    errors.codes[errors.XML_ERROR_NO_ELEMENTS]: "it ends before its first element",
    errors.codes[errors.XML_ERROR_INVALID_TOKEN]: "a character stands where it is not allowed",
    errors.codes[errors.XML_ERROR_UNCLOSED_TOKEN]: "an element is not closed",
    errors.codes[errors.XML_ERROR_TAG_MISMATCH]: "an element is closed by the tag of another one",
    errors.codes[errors.XML_ERROR_DUPLICATE_ATTRIBUTE]: "an attribute is there twice",
    errors.codes[errors.XML_ERROR_JUNK_AFTER_DOC_ELEMENT]: "something follows after its end",
    errors.codes[errors.XML_ERROR_UNDEFINED_ENTITY]: "it names an entity that is not known",
    errors.codes[errors.XML_ERROR_UNBOUND_PREFIX]: "a prefix is not declared",
}
SVG, XLINK = "http://www.w3.org/2000/svg", "http://www.w3.org/1999/xlink"


def parsed(text: str) -> Element:
    """The root of an SVG; raises ``BadDocument`` or ``TooLarge`` in words."""
    try:
        root: Element = fromstring(text.strip().lstrip("\ufeff"), forbid_dtd=False, forbid_entities=True)
    except DefusedXmlException as error:
        raise BadDocument("This SVG defines entities or refers to files outside, which is not read.") from error
    except (ParseError, ValueError, RecursionError, LookupError) as error:
        where = f" in line {error.position[0]}" if isinstance(error, ParseError) else ""
        raise BadDocument(f"This is not well-formed SVG: {_why(error)}{where}.") from error
    if name_of(root) != "svg":
        raise BadDocument("This is not an SVG: it does not begin with an svg element.")
    for count, (_, depth) in enumerate(_walk(root)):
        if count > MAX_ELEMENTS:
            raise TooLarge(f"This SVG has more than {MAX_ELEMENTS} elements.")
        if depth > MAX_DEPTH:
            raise TooLarge(f"This SVG is nested more than {MAX_DEPTH} deep.")
    return root


def _why(error: Exception) -> str:
    """Return the parser's reason in plain words, without the position."""
    return _FAULTS.get(error.code, "its XML is broken") if isinstance(error, ParseError) else "it cannot be read"


def name_of(element: Element) -> str:
    """The local name of an element of SVG, or of no namespace; empty for all others."""
    tag = element.tag if isinstance(element.tag, str) else ""
    space, _, name = tag.rpartition("}")
    return name if space in ("", "{" + SVG) else ""


def href_of(element: Element) -> str:
    """What an element refers to; the attribute without a namespace wins (SVG 2, section 16.1.1)."""
    return element.get("href") or element.get(f"{{{XLINK}}}href") or ""


def _walk(root: Element) -> Iterator[tuple[Element, int]]:
    waiting = [(root, 0)]
    while waiting:
        element, depth = waiting.pop()
        yield element, depth
        waiting.extend((child, depth + 1) for child in element)
