"""Pictures brought in: PNG, JPEG and WebP."""

from __future__ import annotations

import warnings
from io import BytesIO

from PIL import Image, ImageCms, ImageOps, UnidentifiedImageError

from obrell.core.door import reads
from obrell.core.errors import BadDocument, TooLarge
from obrell.core.interchange.limits import MAX_PICTURE_BYTES, MAX_PICTURE_PIXELS

FORMATS = ("PNG", "JPEG", "WEBP")
ORIENTATION = 0x0112
MOST_SEGMENTS = 4000
LARGE_PIXELS = 4_000_000
"""From here on a file is packed quickly rather than small."""
MAX_KEPT_BYTES = 20_000_000
"""What a kit file can carry of one picture."""
MOST = f"{MAX_PICTURE_PIXELS // 1_000_000} million"
TOO_LARGE = f"A picture file can have at most {MAX_PICTURE_BYTES // 1_000_000} MB."
PLAIN_MODES = ("L", "LA", "RGB", "RGBA", "P")


@reads("picture", "Reading this picture", most=MAX_PICTURE_BYTES, words=TOO_LARGE)
def read_picture(content: bytes) -> bytes:
    """The picture as it is kept: an sRGB PNG or JPEG, upright, its first frame, nothing in the file but that; of a
    picture that is kept already the same bytes. Raises ``BadDocument`` or ``TooLarge`` in words."""
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")
            return _kept(content)
    except Image.DecompressionBombError as error:
        raise TooLarge(f"This picture is too large; {MOST} pixels are the most.") from error
    except UnidentifiedImageError as error:
        raise BadDocument("This is not a PNG, JPEG or WebP picture.") from error
    except (OSError, SyntaxError, ValueError, EOFError) as error:
        raise BadDocument("This picture breaks off or is damaged.") from error


def _kept(content: bytes) -> bytes:
    with Image.open(BytesIO(content), formats=FORMATS) as picture:
        width, height = picture.size
        if width * height > MAX_PICTURE_PIXELS:
            raise TooLarge(f"This picture has {width} × {height} px; {MOST} pixels are the most.")
        profile = picture.info.get("icc_profile")
        upright = picture.getexif().get(ORIENTATION, 1) == 1
        still = getattr(picture, "n_frames", 1) == 1
        picture.load()
        plain = upright and still and not profile and picture.mode in PLAIN_MODES
        if plain and picture.format == "JPEG" and _segments(content) <= MOST_SEGMENTS:
            return content
        if plain and picture.format == "PNG":
            return _as_png(picture)
        return _as_png(_in_srgb(ImageOps.exif_transpose(picture) or picture, profile))


def _segments(content: bytes) -> int:
    """How many segments a JPEG file has, its scans too; every one costs time whenever it is read."""
    return content.count(b"\xff") - content.count(b"\xff\x00")


def _in_srgb(picture: Image.Image, profile: bytes | None) -> Image.Image:
    if not profile or picture.mode not in ("RGB", "RGBA"):
        return picture.convert("RGBA")
    try:
        source = ImageCms.ImageCmsProfile(BytesIO(profile))
        converted = ImageCms.profileToProfile(picture, source, ImageCms.createProfile("sRGB"))
    except ImageCms.PyCMSError:
        return picture.convert("RGBA")
    return (converted or picture).convert("RGBA")


def _as_png(picture: Image.Image) -> bytes:
    """The pixels alone, with what a palette needs."""
    bare = picture.copy()
    bare.info = {name: value for name, value in picture.info.items() if name == "transparency"}
    file = BytesIO()
    large = picture.width * picture.height > LARGE_PIXELS
    bare.save(file, "PNG", compress_level=1 if large else 6)
    if file.tell() > MAX_KEPT_BYTES:
        raise TooLarge(
            f"This picture would take {file.tell() / 1e6:.0f} MB; {MAX_KEPT_BYTES // 1_000_000} MB are the most."
        )
    return file.getvalue()
