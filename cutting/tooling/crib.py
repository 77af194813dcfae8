"""The crib as columns: inserts and holders as NumPy arrays, so that one tool and twenty thousand use one code."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np
from numpy.typing import NDArray

from cutting.chips.window import WindowSides, window_sides
from cutting.tooling.bars import body_of
from cutting.tooling.designations.letters import CLEARANCES
from cutting.tooling.items import Geometry, Grade, Holder, Insert
from cutting.tooling.roles import Index, Parts
from cutting.tooling.shapes import SHAPES

Array = NDArray[np.float64]


@dataclass(frozen=True)
class InsertColumns:
    """One entry per insert; lengths mm, angles degrees, money per insert."""

    inscribed_circle: Array
    thickness: Array
    nose_radius: Array
    edge_length: Array
    edges: Array
    price: Array
    shape_strength: Array
    depth_share: Array
    round_shape: NDArray[np.bool_]
    sides: Array
    included_angle: Array
    clearance: Array
    geometry: Index
    grade: Index


@dataclass(frozen=True)
class HolderColumns:
    """One entry per holder."""

    cutting_edge_angle: Array
    shank_height: Array
    shank_width: Array
    overhang: Array
    price: Array
    negative: NDArray[np.bool_]
    turns: NDArray[np.bool_]
    faces: NDArray[np.bool_]
    bores: NDArray[np.bool_]
    modulus: Array  # of a bar's body, as the next three
    density: Array
    damping: Array
    reach: Array  # diameters that it may stand out
    least_bore: Array
    right_or_neutral: NDArray[np.bool_]
    left: NDArray[np.bool_]


class Crib:
    """A fixed stock of inserts and holders, indexed once."""

    def __init__(self, inserts: tuple[Insert, ...], holders: tuple[Holder, ...], note: str = "") -> None:
        self.inserts, self.holders = inserts, holders
        self.note = note  # how these were chosen from a larger stock
        self.geometries: list[Geometry] = list(dict.fromkeys(i.geometry for i in inserts))
        grade_by_name: dict[str, Grade] = {i.grade.name: i.grade for i in inserts}
        self.grades = list(grade_by_name.values())
        self._books: dict[int, Array] = {}

    @cached_property
    def windows(self) -> list[WindowSides]:
        return [window_sides(g.window) for g in self.geometries]

    @cached_property
    def insert_columns(self) -> InsertColumns:
        codes = [i.code for i in self.inserts]
        shapes = [SHAPES[c.shape] for c in codes]
        geometry_place = {g: k for k, g in enumerate(self.geometries)}
        grade_place = {g.name: k for k, g in enumerate(self.grades)}
        return InsertColumns(
            inscribed_circle=_floats(c.inscribed_circle for c in codes),
            thickness=_floats(c.thickness for c in codes),
            nose_radius=_floats(c.nose_radius for c in codes),
            edge_length=_floats(c.edge_length for c in codes),
            edges=_floats(i.edges for i in self.inserts),
            price=_floats(i.price for i in self.inserts),
            shape_strength=_floats(s.strength for s in shapes),
            depth_share=_floats(s.depth_share for s in shapes),
            round_shape=np.array([s.letter == "R" for s in shapes], bool),
            sides=_floats(c.sides for c in codes),
            included_angle=_floats(s.included_angle for s in shapes),
            clearance=_floats(CLEARANCES.get(c.clearance, 7.0) for c in codes),
            geometry=np.array([geometry_place[i.geometry] for i in self.inserts], np.intp),
            grade=np.array([grade_place[i.grade.name] for i in self.inserts], np.intp),
        )

    def book_columns(self, group: int) -> Array:
        """Supplier's spans of every insert in a group, (inserts, 6): speed, feed and depth, least and largest; nan for none."""
        if group not in self._books:
            table = np.full((len(self.inserts), 6), np.nan)
            for place, insert in enumerate(self.inserts):
                for window in insert.book:
                    if window.group == group:
                        spans = (window.cutting_speed, window.feed_per_rev, window.depth_of_cut)
                        bounds = [bound for span in spans for bound in (span.minimum, span.maximum)]
                        table[place] = [np.nan if bound is None else bound for bound in bounds]
            self._books[group] = table
        return self._books[group]

    @cached_property
    def holder_columns(self) -> HolderColumns:
        codes = [h.code for h in self.holders]
        return HolderColumns(
            cutting_edge_angle=_floats(c.cutting_edge_angle for c in codes),
            shank_height=_floats(c.shank_height for c in codes),
            shank_width=_floats(c.shank_width for c in codes),
            overhang=_floats(h.overhang for h in self.holders),
            price=_floats(h.price for h in self.holders),
            negative=np.array([c.clearance == "N" for c in codes], bool),
            turns=np.array(["turn" in c.operations for c in codes], bool),
            faces=np.array(["face" in c.operations for c in codes], bool),
            bores=np.array(["bore" in c.operations for c in codes], bool),
            **{name: _floats(getattr(body_of(c.bar), name) for c in codes) for name in ("modulus", "density", "damping", "reach")},
            least_bore=_floats(h.least_bore for h in self.holders),
            right_or_neutral=np.array([c.hand in "RN" for c in codes], bool),
            left=np.array([c.hand == "L" for c in codes], bool),
        )

    @property
    def parts(self) -> Parts:
        return {"insert": self.inserts, "holder": self.holders}

    @cached_property
    def places(self) -> tuple[Index, Index]:
        """Indices of every insert with every holder that takes it."""
        by_seat: dict[tuple[str, str, str], list[int]] = {}
        for place, holder in enumerate(self.holders):
            by_seat.setdefault((holder.code.shape, holder.code.clearance, holder.code.size), []).append(place)
        left: list[int] = []
        right: list[int] = []
        for place, insert in enumerate(self.inserts):
            seats = by_seat.get(seat(insert), [])
            left.extend([place] * len(seats))
            right.extend(seats)
        return np.array(left, np.intp), np.array(right, np.intp)


def seat(insert: Insert) -> tuple[str, str, str]:
    """Shape, clearance and size of the pocket that an insert needs."""
    code = insert.code
    return code.shape, code.clearance, code.size


@lru_cache(maxsize=2048)
def crib_of_one(insert: Insert, holder: Holder) -> Crib:
    """A crib that holds one pair, kept because a set-up is evaluated many times."""
    return Crib((insert,), (holder,))


def _floats(values: Iterable[float]) -> Array:
    return np.fromiter(values, dtype=np.float64)
