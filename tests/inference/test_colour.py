"""Colour from photos: synthetic crusts of known lightness under casts of light and noise; and what is no photo."""

import io
import struct
import zlib

import numpy as np
import pytest
from PIL import Image

from substrata.base.errors import FormulaError
from substrata.inference.crust_colour import colour_of, read_photo
from substrata.publishing.printed_page import as_pdf


def luminance_of(lightness):
    """CIE 15, the other way."""
    return ((lightness + 16) / 116) ** 3 if lightness > 8 else lightness * 27 / 24389


def srgb(linear):
    """IEC 61966-2-1."""
    return np.where(linear <= 0.0031308, 12.92 * linear, 1.055 * np.clip(linear, 0, None) ** (1 / 2.4) - 0.055)


def picture(lightness, cast=(1.0, 1.0, 1.0), light=0.8, noise=0.01, seed=1, shade=0.0, paper=True):
    """A round crust on a dark board with a sheet of paper in the corner, 480 × 640."""
    rng = np.random.default_rng(seed)
    y, x = np.mgrid[0:480, 0:640]
    scene = np.full((480, 640, 3), 0.05) * np.array([1.1, 1.0, 0.9])
    crust = ((x - 330) / 190) ** 2 + ((y - 260) / 170) ** 2 < 1
    warm = np.array([1.35, 0.95, 0.5])
    warm = warm / (warm @ np.array([0.2126, 0.7152, 0.0722]))
    grain = 1 + rng.normal(size=(480, 640, 1)) * 0.06
    scene[crust] = (luminance_of(lightness) * warm * grain)[crust]
    if paper:
        scene[10:120, 10:200] = 0.86
    lit = scene * np.array(cast) * light * (1 - shade * x[..., None] / 640)
    return np.clip(255 * srgb(np.clip(lit + rng.normal(size=lit.shape) * noise * lit.clip(0.02), 0, 1)), 0, 255)


CASTS = {"daylight": (1, 1, 1), "bulb": (1.15, 0.95, 0.7), "tube": (0.92, 1.05, 0.95), "window": (0.85, 0.97, 1.15)}


@pytest.mark.parametrize("cast", CASTS.values(), ids=CASTS)
@pytest.mark.parametrize("lightness", [42, 54, 62, 68, 74])
def test_lightness_is_told_within_three_under_any_light(lightness, cast):
    for light, seed in ((0.9, 1), (0.5, 2), (0.25, 3)):
        told = colour_of(picture(lightness, cast, light, seed=seed))
        assert told.lightness == pytest.approx(lightness, abs=3)
        assert abs(told.lightness - lightness) <= told.error + 0.5


def test_paper_can_be_tapped():
    assert colour_of(picture(62), at=(0.1, 0.1)).lightness == pytest.approx(62, abs=3)


@pytest.mark.parametrize("cast", CASTS.values(), ids=CASTS)
def test_a_grey_card_tells_the_light_as_paper_does(cast):
    """A photographer's card reflects 18 % (from memory); taken for paper it would make every crust far too light."""
    scene = picture(62, cast, paper=False)
    y, x = np.mgrid[0:480, 0:640]
    card = (y > 10) & (y < 120) & (x > 10) & (x < 200)
    scene[card] = 255 * srgb(np.clip(0.18 * np.array(cast) * 0.8, 0, 1))
    assert colour_of(scene, at=(0.1, 0.1), reference="grey card").lightness == pytest.approx(62, abs=3)
    with pytest.raises(FormulaError, match="gray card"):
        colour_of(scene, reference="grey card")


def test_a_shade_over_the_picture_widens_the_error():
    even, shaded = (colour_of(picture(62, shade=s), at=(0.1, 0.1)).error for s in (0.0, 0.35))
    assert shaded > even


@pytest.mark.parametrize(
    ("pixels", "what"),
    [
        (picture(62, paper=False), "paper|crust"),
        (picture(62, light=4.0), "overexposed"),
        (picture(62, light=0.02, noise=0), "dark|paper"),
        (np.full((480, 640, 3), 255.0), "overexposed|crust|paper"),
        (np.full((480, 640, 3), 120.0), "crust|paper"),
    ],
    ids=["no paper", "blown out", "dark", "white", "grey"],
)
def test_a_picture_that_cannot_tell_is_refused(pixels, what):
    with pytest.raises(FormulaError, match=what):
        colour_of(pixels)


def jpeg(pixels, **how):
    out = io.BytesIO()
    Image.fromarray(pixels.astype(np.uint8)).save(out, "JPEG", quality=92, **how)
    return out.getvalue()


def test_what_is_kept_is_small_and_says_nothing_of_place_or_time():
    exif = Image.Exif()
    exif[0x0132] = "2026:05:02 07:30:00"
    exif.get_ifd(0x8825)[1] = "N"
    data = jpeg(picture(62).repeat(4, axis=0).repeat(4, axis=1), exif=exif)
    assert b"2026:05:02" in data
    photo = read_photo(data)
    assert photo.colour.lightness == pytest.approx(62, abs=3)
    kept = Image.open(io.BytesIO(photo.jpeg))
    assert max(kept.size) <= 1280
    assert not kept.getexif()
    assert b"2026:05:02" not in photo.jpeg


def bomb():
    """A small PNG that says it is enormous."""

    def chunk(kind, body):
        return struct.pack(">I", len(body)) + kind + body + struct.pack(">I", zlib.crc32(kind + body))

    head = struct.pack(">IIBBBBB", 60_000, 60_000, 8, 2, 0, 0, 0)
    return (
        b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", zlib.compress(b"\0" * 1000)) + chunk(b"IEND", b"")
    )


@pytest.mark.parametrize(
    ("data", "what"),
    [
        (b"", "not a photo"),
        (b"\x00\x00\x00\x20ftypmp42" + b"\0" * 100, "not a photo"),
        (b"<svg/>", "not a photo"),
        (b"\xff" * 26_000_000, "too large"),
        (bomb(), "not a photo|size"),
        (jpeg(picture(62))[:4000], "broken|no photo|paper|crust"),
        (jpeg(picture(62)[:40, :40]), "size"),
    ],
    ids=["empty", "video", "drawing", "40 MB", "bomb", "cut off", "tiny"],
)
def test_what_is_no_photo_is_refused_in_words(data, what):
    as_pdf("<p>A card that was printed before, in the same process</p>")
    with pytest.raises(FormulaError, match=what) as refused:
        read_photo(data)
    assert refused.value.remedy
