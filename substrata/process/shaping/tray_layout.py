"""TrayLayout pieces on a tray with gaps: circles in rows or staggered, rectangles upright or turned. Positions are drawn to scale."""

from __future__ import annotations

from dataclasses import dataclass
from math import floor, sqrt

_HAIR = 1e-9  # mm, so that an exact fit fits


@dataclass(frozen=True, kw_only=True)
class PlacedPiece:
    """Where one piece lies: its middle, mm from the tray's left upper corner, and its size there."""

    x_mm: float
    y_mm: float
    width_mm: float
    height_mm: float


@dataclass(frozen=True, kw_only=True)
class TrayLayout:
    """Pieces on one tray."""

    way: str  # rows, staggered, upright, turned
    places: tuple[PlacedPiece, ...]

    @property
    def count(self) -> int:
        """How many fit."""
        return len(self.places)


def _across(room: float, size: float, gap: float) -> int:
    """How many of a size fit side by side, with gaps between and half a gap at both rims.

    >>> _across(100, 30, 3), _across(20, 30, 0)
    (3, 0)

    Returns:
        How many fit.
    """
    return max(floor((room + _HAIR) / (size + gap)), 0) if size > 0 else 0


def lay_circles(width_mm: float, height_mm: float, diameter_mm: float, gap_mm: float) -> TrayLayout:
    """Lay the better of rows and staggered rows, along either side.

    Args:
        width_mm: of the tray.
        height_mm: of the tray.
        diameter_mm: of a piece, grown.
        gap_mm: between pieces; half of it is kept to the rim.

    Returns:
        The layout.
    """
    entries = [_rows(width_mm, height_mm, diameter_mm, gap_mm)]
    entries.append(_staggered(width_mm, height_mm, diameter_mm, gap_mm))
    turned = _staggered(height_mm, width_mm, diameter_mm, gap_mm)
    entries.append(
        TrayLayout(
            way="staggered",
            places=tuple(
                PlacedPiece(x_mm=p.y_mm, y_mm=p.x_mm, width_mm=p.width_mm, height_mm=p.height_mm) for p in turned.places
            ),
        )
    )
    return max(entries, key=lambda laying: laying.count)


def _rows(width: float, height: float, d: float, gap: float) -> TrayLayout:
    pitch = d + gap
    across, down = _across(width, d, gap), _across(height, d, gap)
    x_0, y_0 = (width - across * pitch) / 2 + pitch / 2, (height - down * pitch) / 2 + pitch / 2
    places = [
        PlacedPiece(x_mm=x_0 + i * pitch, y_mm=y_0 + j * pitch, width_mm=d, height_mm=d)
        for j in range(down)
        for i in range(across)
    ]
    return TrayLayout(way="rows", places=tuple(places))


def _staggered(width: float, height: float, d: float, gap: float) -> TrayLayout:
    """Rows along the width, each next one half a pitch aside and √3/2 of a pitch further."""
    pitch = d + gap
    full = _across(width, d, gap)
    if full == 0 or height + _HAIR < pitch:
        return TrayLayout(way="staggered", places=())
    step = pitch * sqrt(3) / 2
    rows = 1 + max(floor((height - pitch + _HAIR) / step), 0)
    # With half a pitch to spare the shifted rows hold as many as the others.
    shifted = full if width + _HAIR >= (full + 0.5) * pitch else full - 1
    used = full * pitch + (pitch / 2 if shifted == full and rows > 1 else 0)
    x_0, y_0 = (width - used) / 2 + pitch / 2, (height - pitch - (rows - 1) * step) / 2 + pitch / 2
    places = [
        PlacedPiece(x_mm=x_0 + (i + (row % 2) / 2) * pitch, y_mm=y_0 + row * step, width_mm=d, height_mm=d)
        for row in range(rows)
        for i in range(shifted if row % 2 else full)
    ]
    return TrayLayout(way="staggered", places=tuple(places))


def lay_rectangles(width_mm: float, height_mm: float, a_mm: float, b_mm: float, gap_mm: float) -> TrayLayout:
    """All upright or all turned, whichever holds more; and a strip of turned ones where it is left over.

    Args:
        width_mm: of the tray.
        height_mm: of the tray.
        a_mm: one side of a piece, grown.
        b_mm: its other side.
        gap_mm: between pieces; half of it is kept to the rim.

    Returns:
        The layout.
    """
    ways = [("upright", a_mm, b_mm), ("turned", b_mm, a_mm)]
    entries = []
    for way, a, b in ways:
        across, down = _across(width_mm, a, gap_mm), _across(height_mm, b, gap_mm)
        places = _block(0, 0, across, down, a, b, gap_mm)
        strip = height_mm - down * (b + gap_mm)
        beside = width_mm - across * (a + gap_mm)
        places += _block(0, down * (b + gap_mm), _across(width_mm, b, gap_mm), _across(strip, a, gap_mm), b, a, gap_mm)
        if not _across(strip, a, gap_mm):
            more = _across(beside, b, gap_mm), _across(height_mm, a, gap_mm)
            places += _block(across * (a + gap_mm), 0, *more, b, a, gap_mm)
        entries.append(TrayLayout(way=way, places=tuple(places)))
    return max(entries, key=lambda laying: laying.count)


def _block(x: float, y: float, across: int, down: int, a: float, b: float, gap: float) -> list[PlacedPiece]:
    return [
        PlacedPiece(x_mm=x + (i + 0.5) * (a + gap), y_mm=y + (j + 0.5) * (b + gap), width_mm=a, height_mm=b)
        for j in range(down)
        for i in range(across)
    ]
