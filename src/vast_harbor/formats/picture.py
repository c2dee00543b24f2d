"""Pictures as telephones send them: checked, scaled down, without what a camera adds, its place above all."""

import io
import warnings
from dataclasses import dataclass

from PIL import Image, ImageOps, UnidentifiedImageError

from vast_harbor.phrases import phrase

FORMATS = ("JPEG", "PNG", "WEBP")
LARGEST_BYTES, MOST_PIXELS = 8_000_000, 60_000_000
# Longest side of what is kept, and of its preview [px].
LARGE_PX, SMALL_PX = 1600, 320
# What a JPEG says of itself that tells nothing of its owner.
PLAIN = {"jfif", "jfif_version", "jfif_unit", "jfif_density"}


class PictureError(ValueError):
    """It cannot be kept; the message is for the owner."""


@dataclass(frozen=True, slots=True)
class Picture:
    """A picture as it is kept.

    Attributes:
        width, height: of the large one [px].
        large, small: JPEG.
    """

    width: int
    height: int
    large: bytes
    small: bytes


def picture(data: bytes) -> Picture:
    """A picture ready to be kept; only its pixels are, turned as the camera was held.

    Args:
        data: content of the file.

    Raises:
        PictureError: too large, no picture, or one of another kind.
    """
    if len(data) > LARGEST_BYTES:
        raise PictureError(
            phrase("files.picture.size", size=f"{len(data) / 1e6:.0f}", most=f"{LARGEST_BYTES / 1e6:.0f}")
        )
    try:
        with warnings.catch_warnings():
            # A small file that unfolds to a huge picture.
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            with Image.open(io.BytesIO(data), formats=FORMATS) as opened:
                if opened.width * opened.height > MOST_PIXELS:
                    raise PictureError(phrase("files.picture.pixels"))
                opened.draft("RGB", (LARGE_PX, LARGE_PX))
                turned = ImageOps.exif_transpose(opened)
    except PictureError:
        raise
    except (UnidentifiedImageError, Image.DecompressionBombError, Image.DecompressionBombWarning) as error:
        raise PictureError(phrase("files.picture.kind")) from error
    except (OSError, ValueError, SyntaxError) as error:
        raise PictureError(phrase("files.picture.broken")) from error
    flat = Image.new("RGB", turned.size, "white")
    clear = turned.convert("RGBA")
    flat.paste(clear, mask=clear.getchannel("A"))
    large, small = flat.copy(), flat
    large.thumbnail((LARGE_PX, LARGE_PX))
    small.thumbnail((SMALL_PX, SMALL_PX))
    return Picture(large.width, large.height, _jpeg(large), _jpeg(small))


def cleaned(data: bytes) -> bytes:
    """A JPEG that comes back from an archive: as it is where nothing but a picture is in it, else made anew.

    Raises:
        PictureError: as for :func:`picture`.
    """
    made = picture(data)
    with Image.open(io.BytesIO(data)) as opened:
        # What this program writes holds nothing beside the pixels and their density.
        plain = opened.format == "JPEG" and set(opened.info) <= PLAIN and not opened.getexif()
        if plain and max(opened.size) <= LARGE_PX:
            return data
    return made.large


def _jpeg(image: Image.Image) -> bytes:
    out = io.BytesIO()
    image.save(out, "JPEG", quality=84, optimize=True)
    return out.getvalue()
