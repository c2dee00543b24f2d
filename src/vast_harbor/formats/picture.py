"""Pictures as telephones send them: checked, scaled down, without what a camera adds, its place above all."""

import io
import re
import warnings
from dataclasses import dataclass

from PIL import Image, ImageOps, UnidentifiedImageError

from vast_harbor.phrases import phrase

FORMATS = ("JPEG", "PNG", "WEBP")
LARGEST_BYTES = 8_000_000
# Points of a picture: of a JPEG, and of those that are unfolded in full, at four bytes each.
MOST_PIXELS, MOST_UNFOLDED = 60_000_000, 25_000_000
# Longest side of what is kept, and of its preview [px].
LARGE_PX, SMALL_PX = 1600, 320
# Markers of a JPEG that hold its picture and nothing else: the density, tables, frame and scan.
JFIF, SCAN = b"\xff\xe0", b"\xff\xda"
BARE = (JFIF, SCAN, b"\xff\xdb", b"\xff\xc0", b"\xff\xc1", b"\xff\xc2", b"\xff\xc4", b"\xff\xdd")


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
                # Its head says how large it is. A JPEG is unfolded in a smaller size, the others in full.
                most = MOST_PIXELS if opened.format == "JPEG" else MOST_UNFOLDED
                if opened.width * opened.height > most:
                    raise PictureError(phrase("files.picture.pixels", most=f"{most / 1e6:.0f}"))
                opened.draft("RGB", (LARGE_PX, LARGE_PX))
                plain = opened if opened.mode in ("RGB", "RGBA", "L", "LA") else opened.convert("RGBA")
                plain.thumbnail((LARGE_PX, LARGE_PX))
                turned = ImageOps.exif_transpose(plain)
    except PictureError:
        raise
    except (UnidentifiedImageError, Image.DecompressionBombError, Image.DecompressionBombWarning) as error:
        raise PictureError(phrase("files.picture.kind")) from error
    except (OSError, ValueError, SyntaxError) as error:
        raise PictureError(phrase("files.picture.broken")) from error
    large = Image.new("RGB", turned.size, "white")
    clear = turned.convert("RGBA")
    large.paste(clear, mask=clear.getchannel("A"))
    small = large.copy()
    small.thumbnail((SMALL_PX, SMALL_PX))
    return Picture(large.width, large.height, _jpeg(large), _jpeg(small))


def cleaned(data: bytes) -> bytes:
    """A JPEG that comes back from an archive: as it is where nothing but a picture is in it, else made anew.

    Raises:
        PictureError: as for :func:`picture`.
    """
    made = picture(data)
    return data if _is_bare(data) and max(made.width, made.height) <= LARGE_PX else made.large


def _is_bare(data: bytes) -> bool:
    """Whether a file is a JPEG as this program writes it: its tables and one scan, and nothing before,
    between or behind.

    Source: ITU-T T.81, annex B.
    """
    at = 2
    if data[:at] != b"\xff\xd8":
        return False
    while True:
        marker, length = data[at : at + 2], int.from_bytes(data[at + 2 : at + 4])
        plain = marker != JFIF or (length, data[at + 4 : at + 9]) == (16, b"JFIF\0")
        if marker not in BARE or not plain:
            return False
        at += 2 + length
        if marker == SCAN:
            break
    end = data.find(b"\xff\xd9", at)
    # In the scan itself a marker is a restart, or none: it is followed by a nought.
    return end == len(data) - 2 and re.search(rb"\xff[^\x00\xd0-\xd7]", data[at:end]) is None


def _jpeg(image: Image.Image) -> bytes:
    out = io.BytesIO()
    image.save(out, "JPEG", quality=84, optimize=True)
    return out.getvalue()
