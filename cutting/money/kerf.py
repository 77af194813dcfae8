"""What the kerf costs: bar that becomes chips at every piece, and the remnant of every bar."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from cutting.errors import require_between


@dataclass(frozen=True)
class Kerf:
    """Money of the kerf: mm, pieces, money per piece and per year."""

    pieces_per_bar: int
    remnant: float
    bar_price: float
    kerf_per_piece: float
    remnant_per_piece: float
    kerf_per_year: float
    bar_per_piece: float

    @property
    def blank_per_piece(self) -> float:
        """All bar that one piece uses up: itself, its kerf, and its share of the remnant."""
        return self.bar_price / self.pieces_per_bar


def kerf(
    bar_diameter: float, bore: float, bar_length: float, piece_length: float, width: float, remnant: float, price: float, yearly: int
) -> Kerf:
    """Kerf of a bar cut into pieces.

    Bar diameter, bore, bar length, piece length with its facing stock, kerf width and the remnant that the chuck keeps
    [mm]; `price` of one bar; pieces a year. Raises `OutOfRange` where not one piece fits.

    >>> cut = kerf(40.0, 0.0, 3000.0, 27.0, 3.0, 90.0, 60.0, 1000)  # (3000 − 90)/30
    >>> cut.pieces_per_bar, round(cut.kerf_per_piece, 3)
    (97, 0.06)
    """
    require_between("piece_length", piece_length, 0.01, max(bar_length - remnant, 0.0), "mm (bar less remnant)")
    require_between("width", width, 0.0, 40.0, "mm")
    require_between("bore", bore, 0.0, bar_diameter, "mm")
    pieces = int(np.floor((bar_length - remnant) / (piece_length + width) + 1e-9))
    pieces = max(pieces, 1)
    per_millimetre = price / bar_length
    left = bar_length - pieces * (piece_length + width)
    per_kerf = width * per_millimetre
    return Kerf(pieces, left, price, per_kerf, left * per_millimetre / pieces, per_kerf * yearly, piece_length * per_millimetre)


# money a kilogram of bar where the shop has not said what it pays, by the letter of ISO 513 and for some groups of VDI 3323
# (common practice; half and double are met)
USUAL_PRICES = {"P": 2.0, "M": 5.0, "K": 2.5, "N": 6.0, "S": 45.0, "H": 4.0}
OF_GROUP = {1: 1.5, 2: 1.6, 10: 4.0, 11: 4.5, 12: 3.5, 13: 4.0, 26: 9.0, 27: 9.0, 28: 12.0, 29: 8.0}


def usual_price(group: int, letter: str) -> float:
    """Money a kilogram of bar of a group."""
    return OF_GROUP.get(group, USUAL_PRICES[letter])


def bar_price_of(diameter: float, bore: float, length: float, density: float, price_per_kilogram: float) -> float:
    """Price of a bar from its mass: Ø and bore [mm], length [mm], density [g/cm³], price per kg.

    >>> round(bar_price_of(20.0, 0.0, 3000.0, 7.85, 1.8), 2)
    13.32
    """
    return float(np.pi / 4.0 * (diameter**2 - bore**2) * length * density * 1e-6 * price_per_kilogram)
