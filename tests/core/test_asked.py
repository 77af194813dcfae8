"""The one reader of typed numbers: what it takes, what it asks about, what it refuses; and nothing in between."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from cutting.errors import AmbiguousQuantity, CuttingError, OutOfRange, UnreadableQuantity
from cutting.quantities import Asked, read_asked, refuse_long

MONEY = Asked("target", "money", 0, 1e6)
PIECES = Asked("pieces", "count", 1, 10_000_000, unit="pieces", whole=True)
SIZE = Asked("measured", "length", 0, 3150, above=True)


@pytest.mark.parametrize(
    ("text", "asked", "value"),
    [("1,50", MONEY, 1.5), ("45,80", MONEY, 45.8), ("1.500", MONEY, 1.5), ("1 500", MONEY, 1500), ("1.250,5", MONEY, 1250.5),
     ("5 €", MONEY, 5), ("50 pieces", PIECES, 50), (" 60 ", PIECES, 60), ("2 min", Asked("time", "duration", 0), 120),
     ("1-3/8 in", SIZE, 34.925), ("12 h", Asked("alone", low=0, high=168, unit="h"), 12)],
)  # fmt: skip
def test_numbers_as_people_type_them(text: str, asked: Asked, value: float) -> None:
    assert read_asked(text, asked) == pytest.approx(value)


@pytest.mark.parametrize(
    ("text", "asked", "error"),
    [("C45", MONEY, UnreadableQuantity), ("5 apples", MONEY, UnreadableQuantity), ("", MONEY, UnreadableQuantity),
     (True, MONEY, UnreadableQuantity), (math.nan, MONEY, UnreadableQuantity), ("-5", MONEY, OutOfRange), ("1e9", MONEY, OutOfRange),
     ("2,5", PIECES, UnreadableQuantity), ("0", PIECES, OutOfRange), ("0", SIZE, OutOfRange), ("50 kg", PIECES, UnreadableQuantity),
     ([1], MONEY, UnreadableQuantity), (None, MONEY, UnreadableQuantity), ("12 kg", Asked("x", "length", unit="kg"), UnreadableQuantity)],
)  # fmt: skip
def test_what_is_no_such_number_is_refused_with_its_bound(text: str, asked: Asked, error: type[CuttingError]) -> None:
    with pytest.raises(error) as refused:
        read_asked(text, asked, field="batch.pieces")
    assert refused.value.field == "batch.pieces"
    if error is OutOfRange:
        assert refused.value.bound == asked.bound


def test_the_ambiguous_one_is_asked_about_with_the_readings_that_may_stand() -> None:
    with pytest.raises(AmbiguousQuantity) as money:
        read_asked("1,500", MONEY)
    assert money.value.readings == ("1.500", "1500")
    with pytest.raises(AmbiguousQuantity) as pieces:
        read_asked("1,500", PIECES)
    assert pieces.value.readings == ("1500",)  # half a piece is none


def test_a_reading_beside_its_size_is_no_riddle() -> None:
    assert read_asked("49,003", SIZE, near=49.0) == 49.003
    assert read_asked("Ø49,003 mm", SIZE, near=49.0) == 49.003
    assert read_asked("1,929", SIZE, "inch", near=49.0) == pytest.approx(1.929 * 25.4)
    with pytest.raises(AmbiguousQuantity):
        read_asked("49,003", SIZE)
    with pytest.raises(AmbiguousQuantity):
        read_asked("1,929", SIZE, near=49.0)  # in mm neither lies near


@given(st.floats(0, 999_999).map(lambda value: round(value, 2)))
def test_comma_and_point_say_the_same(value: float) -> None:
    text = f"{value:.2f}"
    assert read_asked(text, MONEY) == read_asked(text.replace(".", ","), MONEY) == value


def test_bounds_are_kept_on_the_bound_itself() -> None:
    assert Asked("x", low=1, high=2).holds(1)
    assert Asked("x", low=1, high=2).holds(2)
    assert not Asked("x", low=1, high=2, above=True).holds(1)
    assert Asked("x", "length", 0, 5, above=True).bound == "above 0 to 5 mm"
    assert Asked("x", low=3).bound == "at least 3"
    with pytest.raises(CuttingError, match="121 characters; maximum 120"):
        refuse_long("n" * 121, 120, "name")
    assert refuse_long("n" * 120, 120, "name")
