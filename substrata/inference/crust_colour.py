"""The colour of a crust from a photo: a sheet of white paper, or a grey card, tells the light, the crust its lightness beside it.

A camera's numbers are linearised (IEC 61966-2-1), the paper is brought to what white paper reflects, and the crust's luminance is
told as CIE lightness L* (CIE 15). A picture that cannot tell is refused: blown out, no paper, no picture. What is kept of it is cut
to size and carries nothing but its pixels.
"""

from __future__ import annotations

import io
from dataclasses import dataclass
from typing import Literal

import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageOps, UnidentifiedImageError

from substrata.base.errors import FormulaError
from substrata.base.tables.table_reader import constant
from substrata.ingredients.library import Floats

Mask = NDArray[np.bool_]
Reference = Literal["paper", "grey card"]
MOST_BYTES = 25_000_000
MOST_PIXELS = 60_000_000  # before anything is decoded: a small file may hold a picture that fills the memory
STORED_SIDE, _ANALYSED_SIDE = 1280, 640
_FORMATS = ("JPEG", "PNG", "WEBP")
# Luminance of what the light is read off: white office paper has 0.84 to 0.90, a photographer's grey card 0.18 (from memory).
REFLECTS = {"paper": 0.86, "grey card": 0.18}
_BLOCK = 16  # pixels of a side
_BLOWN = 252
_LEAST_BLOCKS = 6


@dataclass(frozen=True, kw_only=True)
class CrustColour:
    """What a photo tells."""

    lightness: float  # L* of the crust
    error: float  # 90 % half-range
    evenness: float  # standard deviation over the crust, L*
    paper_share: float  # of the picture that is paper
    text: str


@dataclass(frozen=True, kw_only=True)
class Photo:
    """A photo that was read."""

    colour: CrustColour
    jpeg: bytes  # cut to size, without its metadata


def read_photo(data: bytes, *, at: tuple[float, float] | None = None, reference: Reference = "paper") -> Photo:
    """Read a crust's colour off a photo.

    Args:
        data: of the file.
        at: where the reference lies, as shares of width and height; None looks for white paper.
        reference: what lies there.

    Returns:
        The photo with the crust's lightness, L*.

    Raises:
        FormulaError: when it is no picture, too large, or cannot tell.
    """
    picture = _opened(data)
    analysed = picture.copy()
    analysed.thumbnail((_ANALYSED_SIDE, _ANALYSED_SIDE))
    colour = colour_of(np.asarray(analysed, dtype=float), at=at, reference=reference)
    stored = picture.copy()
    stored.thumbnail((STORED_SIDE, STORED_SIDE))
    plain = Image.fromarray(np.asarray(stored))  # pixels alone: place, time and camera stay behind
    out = io.BytesIO()
    plain.save(out, "JPEG", quality=85)
    return Photo(colour=colour, jpeg=out.getvalue())


def _opened(data: bytes) -> Image.Image:
    if len(data) > MOST_BYTES:
        raise _refused(
            "the photo is too large",
            f"{len(data) / 1e6:.0f} MB",
            f"up to {MOST_BYTES / 1e6:.0f} MB",
            "send a smaller one",
        )
    try:
        picture = Image.open(io.BytesIO(data), formats=_FORMATS)
    except (UnidentifiedImageError, OSError, ValueError, Image.DecompressionBombError) as error:
        raise _refused(
            "this file is not a photo", "another kind of file", "JPEG, PNG or WebP", "take a photo"
        ) from error
    width, height = picture.size
    if width * height > MOST_PIXELS or min(width, height) < 4 * _BLOCK:
        raise _refused(
            "the photo size cannot be read",
            f"{width} × {height}",
            f"{4 * _BLOCK} pixels a side, up to {MOST_PIXELS / 1e6:.0f} megapixels",
            "take another photo",
        )
    try:
        picture.draft("RGB", (STORED_SIDE, STORED_SIDE))
        return ImageOps.exif_transpose(picture).convert("RGB")
    except (OSError, ValueError, SyntaxError, Image.DecompressionBombError) as error:
        raise _refused(
            "the photo is broken", "a file that ends too soon", "a whole picture", "take another photo"
        ) from error


def colour_of(pixels: Floats, *, at: tuple[float, float] | None = None, reference: Reference = "paper") -> CrustColour:
    """Return the colour of the crust in a picture.

    Args:
        pixels: sRGB, 0 to 255, shape (height, width, 3).
        at: where the reference lies, as shares of width and height; None looks for white paper.
        reference: what lies there.

    Raises:
        FormulaError: when the picture cannot tell.
    """
    if at is None and reference != "paper":
        raise _refused(
            "a gray card cannot be found automatically",
            "a photo without a touch",
            "a touch on the card",
            "tap the card in the photo",
        )
    blown: Mask = np.max(pixels, axis=-1) >= _BLOWN
    linear = _linear(pixels / 255)
    blocks, spread, lost = _blocks(linear, blown)
    white = _paper_blocks(blocks, spread, lost, at)
    light = np.median(blocks[white], axis=0)
    if light.max() < constant("photo_dark_paper") * REFLECTS[reference] / REFLECTS["paper"]:
        raise _refused("the photo is too dark", "paper that is hardly lit", "daylight, no flash", "take it at a window")
    corrected = blocks / light * REFLECTS[reference]
    luminance = corrected @ np.array([0.2126, 0.7152, 0.0722])
    crust = _crust_blocks(corrected, luminance, white)
    # Blocks across its rim are half board: they would make every crust uneven.
    within = crust & (spread < constant("photo_across"))
    crust = within if within.sum() >= _LEAST_BLOCKS else crust
    if float(lost[crust].mean()) > 0.2:
        raise _refused(
            "the crust is overexposed",
            "white spots without color",
            "an even light without glare",
            "turn the crust away from the light",
        )
    lightness = _lightness(luminance[crust])
    uneven = float(np.std(blocks[white].sum(axis=-1)) / np.mean(blocks[white].sum(axis=-1)))
    error = float(np.hypot(constant("photo_base_error"), 100 * uneven / 3))
    value, evenness = float(np.median(lightness)), float(np.std(lightness))
    return CrustColour(
        lightness=value,
        error=1.645 * error,
        evenness=evenness,
        paper_share=float(white.mean()),
        text=f"L* {value:.0f} ± {1.645 * error:.0f}, {'even' if evenness < 6 else 'uneven'}",
    )


def _linear(srgb: Floats) -> Floats:
    """IEC 61966-2-1."""
    result: Floats = np.where(srgb <= 0.04045, srgb / 12.92, ((srgb + 0.055) / 1.055) ** 2.4)
    return result


def _lightness(luminance: Floats) -> Floats:
    """CIE 15: L* of a luminance relative to white.

    >>> [round(v, 1) for v in _lightness(np.array([0.184, 1.0])).tolist()]
    [50.0, 100.0]

    Returns:
        L*, 0..100.
    """
    y = np.clip(luminance, 0, 1.1)
    result: Floats = np.where(y > 216 / 24389, 116 * np.cbrt(y) - 16, y * 24389 / 27)
    return result


def _blocks(linear: Floats, blown: Mask) -> tuple[Floats, Floats, Floats]:
    """Means, spreads over means, and blown shares of blocks; shapes (rows, columns, 3), (rows, columns), (rows, columns)."""
    rows, columns = linear.shape[0] // _BLOCK, linear.shape[1] // _BLOCK
    cut = linear[: rows * _BLOCK, : columns * _BLOCK].reshape(rows, _BLOCK, columns, _BLOCK, 3)
    means = cut.mean(axis=(1, 3))
    grey = cut.mean(axis=-1)
    spread = grey.std(axis=(1, 3)) / np.maximum(grey.mean(axis=(1, 3)), 1e-6)
    lost = blown[: rows * _BLOCK, : columns * _BLOCK].reshape(rows, _BLOCK, columns, _BLOCK).mean(axis=(1, 3))
    return means, spread, lost


def _paper_blocks(blocks: Floats, spread: Floats, lost: Floats, at: tuple[float, float] | None) -> Mask:
    """Which blocks are paper: plain, and as bright as the brightest plain ones; or as what was touched."""
    grey = blocks.mean(axis=-1)
    plain = (spread < max(constant("photo_plain"), float(np.quantile(spread, 0.2)))) & (lost < 0.3)
    if at is not None:
        row = min(int(at[1] * grey.shape[0]), grey.shape[0] - 1)
        column = min(int(at[0] * grey.shape[1]), grey.shape[1] - 1)
        if lost[row, column] >= 0.3:
            raise _refused(
                "the paper is overexposed",
                "no tone left in it",
                "paper that looks gray, not white, in the picture",
                "use less light",
            )
        here: Mask = plain & (np.abs(grey - grey[row, column]) < 0.12 * grey[row, column])
        here[row, column] = True
        return here
    if not plain.any():
        if float((lost >= 0.3).mean()) > 0.05:
            raise _refused(
                "the photo is overexposed", "no tone left in its bright parts", "an even light", "less light, no flash"
            )
        raise _no_paper()
    top = float(np.quantile(grey[plain], 0.97))
    white: Mask = plain & (grey > 0.86 * top)
    if lost[grey >= top].mean() > 0.5 if (grey >= top).any() else False:
        raise _refused(
            "the photo is overexposed", "no tone left in its bright parts", "an even light", "less light, no flash"
        )
    values = grey[white]
    if white.sum() < _LEAST_BLOCKS or float(values.std() / values.mean()) > constant("photo_even_paper"):
        raise _no_paper()
    return white


def _crust_blocks(corrected: Floats, luminance: Floats, white: Mask) -> Mask:
    """Which blocks are crust: in the middle of the picture, and as warm as baked things are."""
    rows, columns = luminance.shape
    y, x = np.mgrid[0:rows, 0:columns]
    middle = ((y + 0.5) / rows - 0.5) ** 2 + ((x + 0.5) / columns - 0.5) ** 2 < 0.42**2
    red, _, blue = np.moveaxis(corrected, -1, 0)
    warm = red > blue * (1 + constant("photo_apart"))
    crust: Mask = middle & ~white & warm & (luminance < 0.8)
    if crust.sum() < _LEAST_BLOCKS:
        raise _refused(
            "no crust is seen",
            "nothing warm in the middle",
            "the crust in the middle, paper beside it",
            "take the photo from above",
        )
    return crust


def _no_paper() -> FormulaError:
    return _refused(
        "no white paper is seen",
        "a picture without it",
        "a sheet of white paper beside the crust",
        "add a sheet of paper, or tap it in the photo",
    )


def _refused(what: str, got: str, allowed: str, remedy: str) -> FormulaError:
    return FormulaError(what, got=got, allowed=allowed, remedy=remedy, field="photo")
