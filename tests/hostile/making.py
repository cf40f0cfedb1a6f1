"""Files that mean harm, made from a seed: as they come from broken programs, and as they come from people.

Every maker gives the same bytes for the same number. The first numbers are the worst that is known, the others are
at random: a sound file with bytes, numbers or pieces changed, or a file grown from the grammar.
"""

from __future__ import annotations

import io
import json
import random
import struct
import zlib
from collections.abc import Callable
from functools import cache
from typing import Any

import brotli
from fontTools.pens.ttGlyphPen import TTGlyphPen
from fontTools.ttLib import TTFont
from PIL import Image

from obrell.core.interchange.kit_file import write_kit
from obrell.core.text.fonts import FONT_FOLDER
from obrell.samples.wendmere_lock import wendmere_lock


@cache
def sound_kit() -> bytes:
    """Few controls of the sample kit, which show all that there is: states, readings, text, pictures of textures."""
    kit = wendmere_lock()
    return write_kit(kit.evolve(controls=tuple(one for one in kit.controls if one.id in {"c1", "c2", "c4"})))


NUMBERS = (
    "0", "-1", "1e308", "-1e308", "nan", "inf", "1e-300", "5000", "2100", "0.0000001", "99999999999", "1-2", ".", "1e",
    "1" * 400, "50%", "1em", "-0", "4096", "16384.5", "３",
)  # fmt: skip
TRANSFORMS = (
    "translate(1em)", "translate(1-2)", "scale(0)", "scale(1e200)", "rotate(90deg)", "skewX(90)", "matrix(1 0 0 1)",
    "matrix(0 0 0 0 0 0)", "rotate(1e308)", "scale(-1)", "translate(NaN)", "foo(1)", "rotate(", "",
)  # fmt: skip
PAINTS = ("red", "none", "url(#g)", "url(#none) blue", "rgb(1,2)", "rgba(1 2 3 / 50%)", "#12", "currentColor")
ELEMENTS = (
    "g", "path", "rect", "circle", "ellipse", "line", "polyline", "polygon", "use", "symbol", "defs", "clipPath",
    "linearGradient", "radialGradient", "stop", "svg", "text", "image", "a", "switch",
)  # fmt: skip
FORMS = (("PNG", "RGBA"), ("PNG", "P"), ("PNG", "L"), ("JPEG", "RGB"), ("WEBP", "RGBA"), ("JPEG", "CMYK"))
EXTREMES = (b"\xff\xff\xff\xff", b"\0\0\0\0", b"\x7f\xff\xff\xff", b"\x80\0\0\0")


def svg(body: str, attributes: str = 'viewBox="0 0 100 100"') -> bytes:
    return f'<svg xmlns="http://www.w3.org/2000/svg" {attributes}>{body}</svg>'.encode()


def worst_svgs() -> list[Callable[[], bytes]]:
    rng = random.Random(1)

    def star(count: int) -> str:
        return "M" + " ".join(f"{rng.random() * 200:.2f} {rng.random() * 200:.2f}" for _ in range(count)) + "Z"

    def linked(n: int) -> str:
        return f'<linearGradient id="g{n}" href="#g{n + 1}"/><rect fill="url(#g{n})" width="4" height="4"/>'

    def uses(groups: int, count: int) -> bytes:
        return svg(f'<g id="a">{"<g/>" * groups}</g>' + '<use href="#a"/>' * count)

    return [
        lambda: svg(f'<path d="M0 0{"h1" * 1_000_000}"/>'),
        lambda: svg(f'<path d="{star(1500)}"/>'),
        lambda: svg(f'<path d="{star(4900)}"/>'),
        lambda: svg(f'<path d="M0 0{"l1 1" * 990_000}"/>'),
        lambda: uses(15_000, 1),
        lambda: uses(9_000, 200),
        lambda: svg(
            '<g id="a0"><rect width="1" height="1"/></g>'
            + "".join(f'<g id="a{n}">{f"""<use href="#a{n - 1}"/>""" * 2}</g>' for n in range(1, 40))
            + '<use href="#a39"/>'
        ),
        lambda: svg("<g>" * 3000 + "</g>" * 3000),
        lambda: svg(f'<path d="M0 0{"a1 1 0 0 1 1 1" * 4000}"/>'),
        lambda: svg('<rect width="5000" height="10"/><circle r="2100"/>'),
        lambda: svg('<path stroke="#000" fill="none" stroke-dasharray="0.01" d="M0 0H900V900"/>'),
        lambda: svg(f'<polygon points="{"1,1 " * 900_000}"/>'),
        lambda: svg("<text>" + "x" * 3_000_000 + "</text>"),
        lambda: svg("<style>" + "a{}" * 900_000 + "</style><rect width='3' height='3'/>"),
        lambda: b'<!DOCTYPE x [<!ENTITY a "aaaa">]>' + svg("&a;"),
        lambda: svg(
            '<clipPath id="c">'
            + '<rect width="9" height="9"/>' * 900
            + "</clipPath>"
            + '<rect width="9" height="9" clip-path="url(#c)"/>' * 900
        ),
        lambda: svg('<linearGradient id="g" href="#g"/>' + '<rect width="9" height="9" fill="url(#g)"/>' * 4000),
        lambda: svg("".join(map(linked, range(3000)))),
        lambda: svg('<rect width="9" height="9" transform="' + "rotate(1)" * 300_000 + '"/>'),
        lambda: svg('<rect width="9" height="9" style="' + "a:b;" * 900_000 + '"/>'),
    ]


def any_svg(rng: random.Random) -> bytes:
    def number() -> str:
        return rng.choice(NUMBERS) if rng.random() < 0.4 else f"{rng.uniform(-50, 150):.3f}"

    def path() -> str:
        return "".join(
            rng.choice("MmLlHhVvCcSsQqTtAaZz?") + " ".join(number() for _ in range(rng.randrange(8)))
            for _ in range(rng.randrange(1, 30))
        )

    def attributes() -> str:
        wanted = {
            "x": number(),
            "y": number(),
            "width": number(),
            "height": number(),
            "r": number(),
            "rx": number(),
            "ry": number(),
            "cx": number(),
            "points": " ".join(number() for _ in range(9)),
            "d": path(),
            "fill": rng.choice(PAINTS),
            "stroke": rng.choice(["#000", "none", "url(#g)"]),
            "stroke-width": number(),
            "opacity": number(),
            "stroke-dasharray": f"{number()} {number()}",
            "transform": rng.choice(TRANSFORMS),
            "clip-path": rng.choice(["url(#c)", "url(#a)", "none"]),
            "id": rng.choice(["a", "b", "c", "g"]),
            "href": rng.choice(["#a", "#b", "#x"]),
            "style": f"fill:{number()};stroke-width:{number()}",
            "display": rng.choice(["none", "inline"]),
        }
        chosen = rng.sample(sorted(wanted), rng.randrange(9))
        return " ".join(f'{name}="{wanted[name]}"' for name in chosen)

    def element(depth: int) -> str:
        name = rng.choice(ELEMENTS)
        inner = "".join(element(depth + 1) for _ in range(rng.randrange(4))) if depth < 5 else ""
        return f"<{name} {attributes()}>{inner}</{name}>"

    box = " ".join(number() for _ in range(4))
    return svg("".join(element(0) for _ in range(rng.randrange(1, 6))), f'viewBox="{box}" width="{number()}"')


@cache
def plain_font() -> bytes:
    """A shipped font as TrueType."""
    font = TTFont(FONT_FOLDER / "hanken-grotesk" / "latin.woff2")
    font.flavor = None
    target = io.BytesIO()
    font.save(target)
    return target.getvalue()


def nested_glyphs(levels: int, times: int) -> bytes:
    """A font in which each letter is made of ``times`` of the one before."""
    font = TTFont(io.BytesIO(plain_font()), recalcBBoxes=False)
    for table in ("gvar", "fvar", "HVAR", "MVAR", "STAT", "avar", "GSUB", "GPOS", "GDEF"):
        if table in font:
            del font[table]
    letters = [font.getBestCmap()[ord("a") + n] for n in range(levels)]
    pen = TTGlyphPen(None)
    pen.moveTo((0, 0))
    for x, y in ((0, 9), (9, 9), (9, 0)):
        pen.lineTo((x, y))
    pen.closePath()
    font["glyf"][letters[0]] = boxed(pen.glyph())
    for one, before in zip(letters[1:], letters, strict=False):
        pen = TTGlyphPen(font["glyf"])
        for n in range(times):
            pen.addComponent(before, (1, 0, 0, 1, n * 7, n * 3))
        font["glyf"][one] = boxed(pen.glyph())
    target = io.BytesIO()
    font.save(target)
    return target.getvalue()


def boxed(glyph: Any) -> Any:
    """A glyph that says where it lies without being measured."""
    glyph.xMin = glyph.yMin = 0
    glyph.xMax = glyph.yMax = 9
    return glyph


def packed_bomb(size: int) -> bytes:
    """A WOFF2 whose tables are ``size`` zeros."""
    packer = brotli.Compressor(quality=5, lgwin=24)
    chunk = bytes(1 << 20)
    packed = b"".join(packer.process(chunk) for _ in range(size >> 20)) + packer.finish()
    directory = bytes([0x01]) + bytes([0x8F, 0xFF, 0xFF, 0xFF, 0x7F])
    lengths = (48 + len(directory) + len(packed), 1, 0, size & 0xFFFFFFFF, len(packed), 1, 0, 0, 0, 0, 0, 0)
    header = struct.pack(">4sIIHHIIHHIIIII", b"wOF2", 0x00010000, *lengths)
    return bytes(header + directory + packed)


def worst_fonts() -> list[Callable[[], bytes]]:
    return [
        lambda: nested_glyphs(10, 8),
        lambda: nested_glyphs(6, 40),
        lambda: nested_glyphs(3, 200),
        lambda: packed_bomb(256 << 20),
        lambda: b"wOF2" + bytes(200),
        lambda: b"OTTO" + b"\xff" * 3000,
        lambda: b"\x00\x01\x00\x00" + struct.pack(">H", 65535) + bytes(90),
        lambda: b"true",
        lambda: plain_font() * 40,
    ]


def chunked(kind: bytes, content: bytes) -> bytes:
    return struct.pack(">I", len(content)) + kind + content + struct.pack(">I", zlib.crc32(kind + content))


def png(width: int, height: int, data: bytes, *more: bytes) -> bytes:
    head = chunked(b"IHDR", struct.pack(">IIBBBBB", width, height, 8, 6, 0, 0, 0))
    return b"\x89PNG\r\n\x1a\n" + head + b"".join(more) + chunked(b"IDAT", data) + chunked(b"IEND", b"")


def worst_pictures() -> list[Callable[[], bytes]]:
    def empty_lines(width: int, height: int) -> bytes:
        return zlib.compress(bytes(height * (1 + 4 * width)), 1)

    def jpeg(side: int, **values: object) -> bytes:
        target = io.BytesIO()
        Image.new("RGB", (side, side), "#8090a0").save(target, "JPEG", **values)
        return target.getvalue()

    def scans() -> bytes:
        """A progressive JPEG with its last scan three thousand times."""
        whole = jpeg(1500, progressive=True)
        last = whole.rindex(b"\xff\xda")
        return whole[:last] + whole[last:-2] * 3000 + whole[-2:]

    return [
        lambda: png(8, 8, zlib.compress(bytes(8 * 33)), chunked(b"tEXt", b"") * 1_000_000),
        lambda: png(8, 8, zlib.compress(bytes(8 * 33)), chunked(b"IDAT", b"") * 1_000_000),
        lambda: png(4800, 4800, empty_lines(4800, 4800)),
        lambda: png(60_000, 60_000, b""),
        lambda: png(100, 100, zlib.compress(bytes(200_000_000), 1)),
        lambda: png(8, 8, b""),
        scans,
        lambda: jpeg(4800),
        lambda: png(
            8, 8, zlib.compress(bytes(8 * 33)), chunked(b"iCCP", b"x\0\0" + zlib.compress(bytes(100_000_000), 1))
        ),
        lambda: png(
            8, 8, zlib.compress(bytes(8 * 33)), chunked(b"zTXt", b"x\0\0" + zlib.compress(bytes(100_000_000), 1))
        ),
    ]


def worst_kits() -> list[Callable[[], bytes]]:
    whole = json.loads(sound_kit())

    def kit(change: Callable[[dict[str, Any]], None]) -> bytes:
        copy = json.loads(json.dumps(whole))
        change(copy)
        return json.dumps(copy).encode()

    def crossing(copy: dict[str, Any]) -> None:
        rng = random.Random(3)
        knots = [{"x": rng.uniform(0, 90), "y": rng.uniform(0, 90)} for _ in range(1500)]
        copy["controls"][0]["parts"][0]["shape"] = {"kind": "path", "contours": [{"knots": knots}]}

    def dashes(copy: dict[str, Any]) -> None:
        copy["controls"][0]["parts"][0]["effects"].append({"kind": "outline", "id": "e99", "dash": 0.01, "gap": 0.01})

    def inside(copy: dict[str, Any]) -> None:
        parts = copy["controls"][0]["parts"]
        parts[0]["within"], parts[1]["within"] = parts[1]["id"], parts[0]["id"]
        parts[0]["shape"] = parts[1]["shape"] = {"kind": "group"}

    def copies(copy: dict[str, Any]) -> None:
        parts = copy["controls"][0]["parts"]
        parts[0]["within"], parts[1]["within"] = parts[1]["id"], parts[2]["id"]
        parts[1]["shape"] = parts[2]["shape"] = {"kind": "repeat", "count": 500}

    def follows(copy: dict[str, Any]) -> None:
        one, two = copy["controls"][0]["parts"][:2]
        one["follows"] = [{"path": "x", "source": two["id"], "measure": "left"}]
        two["follows"] = [{"path": "x", "source": one["id"], "measure": "left"}]

    return [
        lambda: kit(crossing),
        lambda: kit(dashes),
        lambda: kit(inside),
        lambda: kit(copies),
        lambda: kit(follows),
        lambda: kit(lambda copy: copy["controls"][0]["parts"][0].update(clip=copy["controls"][0]["parts"][0]["id"])),
        lambda: sound_kit().replace(b"212.0", b"2" * 5000, 1),
        lambda: sound_kit().replace(b"212.0", b"2" * 5000 + b".5", 1),
        lambda: b"[" * 200_000,
        lambda: b'{"a":' * 100_000,
        lambda: b'{"schema_version": 1e999}',
        lambda: b"\xff\xfe{}",
        lambda: kit(lambda copy: copy.update(controls=copy["controls"][:1] * 600)),
        lambda: kit(lambda copy: copy.update(files={"0" * 32: "AAAA" * 5_000_000})),
        lambda: kit(lambda copy: copy.update(name="\u0000")),
        lambda: b'{"controls": ' + b"[" * 60 + b"1," * 4_000_000 + b"1" + b"]" * 60 + b"}",
        lambda: kit(lambda copy: copy["controls"][0].update(parts=copy["controls"][0]["parts"] * 300)),
    ]


def damaged(content: bytes, rng: random.Random) -> bytes:
    """A file with some of its bytes changed, taken out, doubled or cut off."""
    changed = bytearray(content)
    for _ in range(rng.choice([1, 2, 8, 64])):
        at, long = rng.randrange(len(changed)), rng.choice([1, 2, 4, 30])
        match rng.randrange(6):
            case 0:
                changed[at] ^= 1 << rng.randrange(8)
            case 1:
                changed[at : at + long] = rng.randbytes(long)
            case 2:
                del changed[at : at + long]
            case 3:
                changed[at:at] = changed[at : at + long] * rng.choice([1, 40])
            case 4:
                changed[at : at + 4] = rng.choice(EXTREMES)
            case _:
                del changed[at + len(changed) // 2 :]
        if not changed:
            return b""
    return bytes(changed)


@cache
def sound_pictures() -> tuple[bytes, ...]:
    made = []
    for form, mode in FORMS:
        target = io.BytesIO()
        Image.effect_mandelbrot((64, 48), (-2, -1, 1, 1), 40).convert(mode).save(target, form)
        made.append(target.getvalue())
    return tuple(made)


SOUND_TEXTS = {
    "swatches": (
        b":root { --tarn: #1f8a92; --lit: var(--tarn); }\n.night { --tarn: oklch(0.4 0.1 200); }",
        b'{"swatches": {"$type": "color", "tarn": {"$value": "#1f8a92"}, "lit": {"$value": "{swatches.tarn}"}, '
        b'"deep": {"$value": {"colorSpace": "oklch", "components": [0.4, 0.1, 200], "alpha": 1}}}}',
        b"#1f8a92 tarn\nchalk: f0ede6;\n", b"palette Lock\n 31 138 146 tarn\n240 237 230 chalk\n",
    ),
    "recording": (b"time,level\n0,1.5\n1,2.5\n2,3\n", b"0;1\n1;2\n", b"1\n2\n3\n", b'0\t"1"\n5\t7\n'),
    "colour": (b"oklch(60% 0.1 200 / 50%)", b"rgb(1 2 3)", b"hsl(200deg 40% 50%)", b"color(display-p3 1 0 0)"),
    "gradient": (
        b"#ffffff80 12%, 30%, rgb(1 2 3 / 20%) 100%", b"red, blue 20% 40%, white", b"oklch(0.5 0.1 20), #000",
    ),
}  # fmt: skip
"""What readers of text take as it is."""
TEXT_PIECES = (
    b"-", b"(", b")", b"{", b"}", b",", b" ", b"\r", b"\n", b"\t", b"\"", b"1e308", b"1" * 400, b"nan", b"-0", b"%",
    b"color-mix(in srgb, ", b"calc(", b"var(--", b"#", b"oklch(", b"lab(", b"\xff", b"\0", b"/*", b"--a:", b"\\",
)  # fmt: skip
TOKEN = '{"a": {"$type": "color", "$value": {"colorSpace": %s, "components": [%s]}}}'


def token(space: str, components: str) -> bytes:
    return (TOKEN % (space, components)).encode()


@cache
def worst_texts(kind: str) -> tuple[bytes, ...]:
    """The worst that is known of readers of text."""
    return {
        "swatches": (
            b"-" * 20_000, b"a" + b" " * 20_000, b"a" + b" " * 1_900_000 + b"x",
            b":root{--a:#fff}" + b"".join(b".c%d{--a:#000}" % n for n in range(26_000)),
            b":root{" + b"".join(b"--a%d:#000;" % n for n in range(60_000)) + b"}",
            b":root{--a:" + b"(" * 900_000 + b"}", b"--a:" + b"{" * 900_000, token('"srgb"', "1" * 400),
            token('""', "1, 2, 3"), token('"oklch"', "1e308, 1e308, 1e308"), token("[]", "{}"),
            b'{"a":' * 900 + b"1" + b"}" * 900, b'{"swatches": [1, 2], "colourways": 3}',
            b'{"a": {"$type": "color", "$value": null, "$extensions": 3}}',
            b"\n".join(b"#%06x c%d" % (n, n) for n in range(150_000)), b"#1f8a92 " + "ſ".encode() * 90_000, b"",
        ),
        "recording": (
            b"1\r2\r3", b"1\r\n2\r\n", b"0," + b"1" * 200_000, b'"' + b"a" * 200_000, b"," * 900_000, b"\n" * 900_000,
            b"1\n" * 400_000, b"1e308\n", b"\0\n1", b"0,nan\n", b'"\n' * 300_000, b"",
        ),
        "colour": (
            b"oklch(1e308 1e308 1e308)", b"lab(1e308 1e308 1e308)", b"lch(1e308 1e308 1e308)", b"(" * 200, b"(" * 500,
            b"color-mix(" * 19, b"color( 1 2 3)", b"color()", b"rgb(" + b"1" * 190 + b")", b"light-dark(red, blue)",
            b"hsl(1e308deg 1e308% 1e308%)", b"#", b"", b"currentcolor",
        ),
        "gradient": (
            b"(" * 4000, b"red " + b"," * 3900, b"red 1e308%, blue", b"," * 4000, b"red," * 990 + b"blue",
            b"/*" * 2000,
            b"oklch(1e308 1e308 1e308), red", b"color-mix(" * 390, b"red " + b"1" * 400 + b"%, blue", b"",
            b"red 1%, 2%, 3%, blue",
        ),
    }[kind]  # fmt: skip


def any_text(kind: str, rng: random.Random) -> bytes:
    """A sound text with pieces put in, taken out or said many times."""
    text = rng.choice(SOUND_TEXTS[kind])
    for _ in range(rng.choice([1, 2, 5])):
        at, piece = rng.randrange(len(text) + 1), rng.choice(TEXT_PIECES)
        text = text[:at] + piece * rng.choice([1, 1, 3, 90]) + text[at + rng.choice([0, 0, 2, 9]) :]
    return text if rng.random() < 0.8 else damaged(text or b"x", rng)


def nth(kind: str, number: int) -> bytes:
    """The file of a kind, by the name of its reader, with a number."""
    rng = random.Random(f"{kind} {number}")
    if kind in SOUND_TEXTS:
        known = worst_texts(kind)
        return known[number] if number < len(known) else any_text(kind, rng)
    kind = "picture" if kind == "picture-colours" else kind
    worst = {"svg": worst_svgs, "font": worst_fonts, "picture": worst_pictures, "kit": worst_kits}[kind]()
    if number < len(worst):
        return worst[number]()
    if kind == "svg":
        return any_svg(rng) if number % 3 else damaged(any_svg(rng), rng)
    if kind == "font":
        sound = plain_font() if number % 2 else (FONT_FOLDER / "comfortaa" / "latin.woff2").read_bytes()
        return damaged(sound, rng)
    if kind == "picture":
        return damaged(rng.choice(sound_pictures()), rng)
    return damaged(sound_kit(), rng)
