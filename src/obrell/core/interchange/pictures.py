"""Pictures brought in: PNG, JPEG and WebP."""

from __future__ import annotations

import warnings
from io import BytesIO

from PIL import Image, ImageCms, ImageOps, UnidentifiedImageError

from obrell.core.errors import BadDocument, TooLarge
from obrell.core.interchange.limits import MAX_PICTURE_BYTES, MAX_PICTURE_PIXELS

FORMATS = ("PNG", "JPEG", "WEBP")
ORIENTATION = 0x0112
PLAIN_MODES = ("L", "LA", "RGB", "RGBA", "P")


def read_picture(content: bytes) -> bytes:
    """The picture as it is kept: an sRGB PNG or JPEG, upright, its first frame. A file that is that
    already is kept byte for byte. Raises ``BadDocument`` or ``TooLarge`` in words."""
    if len(content) > MAX_PICTURE_BYTES:
        raise TooLarge(f"A picture file can have at most {MAX_PICTURE_BYTES // 1_000_000} MB.")
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")
            return _kept(content)
    except (UnidentifiedImageError, Image.DecompressionBombError) as error:
        raise BadDocument("This is not a PNG, JPEG or WebP picture.") from error
    except (OSError, SyntaxError, ValueError, EOFError) as error:
        raise BadDocument("This picture breaks off or is damaged.") from error


def _kept(content: bytes) -> bytes:
    with Image.open(BytesIO(content), formats=FORMATS) as picture:
        width, height = picture.size
        if width * height > MAX_PICTURE_PIXELS:
            most = f"{MAX_PICTURE_PIXELS // 1_000_000} million"
            raise TooLarge(f"This picture has {width} × {height} px; {most} pixels are the most.")
        profile = picture.info.get("icc_profile")
        upright = picture.getexif().get(ORIENTATION, 1) == 1
        still = getattr(picture, "n_frames", 1) == 1
        picture.load()
        if upright and still and not profile and picture.format != "WEBP" and picture.mode in PLAIN_MODES:
            return content
        return _as_png(_in_srgb(ImageOps.exif_transpose(picture) or picture, profile))


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
    file = BytesIO()
    picture.save(file, "PNG")
    return file.getvalue()
