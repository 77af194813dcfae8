"""The breaker window: where it stands, how metal, nose, speed and jet move it, and what falls out of it."""

from __future__ import annotations

import itertools

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from cutting.chips.verdict import TOO_SOFT_TO_BREAK, chip_form
from cutting.chips.window import chip_index_of, depth_scale, feed_scale, softest_index, span_at_depth, window_gauge, window_sides
from cutting.tooling.items import geometries

MIDDLE = window_sides(geometries()["middle"].window)


def gauge(feed: float, depth: float, ductility: float = 0.5) -> float:
    return float(window_gauge(feed, depth, MIDDLE.normals, np.array(MIDDLE.centre), 1.0, 1.0, ductility))


def test_the_gauge_is_nothing_in_the_middle_and_one_on_the_edge() -> None:
    assert gauge(*MIDDLE.centre) == 0.0
    for corner in MIDDLE.hull:
        assert gauge(*corner) == pytest.approx(1.0)
    for (f1, a1), (f2, a2) in itertools.pairwise(MIDDLE.hull):
        assert gauge((f1 + f2) / 2, (a1 + a2) / 2) == pytest.approx(1.0)


@given(st.floats(0.5, 6.0), st.floats(0.8, 1.3), st.floats(0.7, 1.4))
def test_the_span_is_where_the_gauge_is_one(depth: float, across: float, along: float) -> None:
    span = span_at_depth(MIDDLE, depth, across, along)
    if span is None:
        middle_feed = MIDDLE.centre[0] * across
        assert window_gauge(middle_feed, depth, MIDDLE.normals, np.array(MIDDLE.centre), across, along, 0.5) > 1.0
        return
    for feed in span:
        level = window_gauge(feed, depth, MIDDLE.normals, np.array(MIDDLE.centre), across, along, 0.5)
        assert float(level) == pytest.approx(1.0, abs=1e-6)


def test_a_window_with_two_corners_is_refused() -> None:
    with pytest.raises(ValueError, match="3 to"):
        window_sides(((0.1, 1.0), (0.2, 2.0)))


@pytest.mark.parametrize(
    ("less", "more"),
    [
        ({"ductility": 0.3}, {"ductility": 0.85}),  # tougher metal wants more feed (nakayama-1962 for the direction)
        ({"nose_radius": 0.4}, {"nose_radius": 1.2}),  # a larger nose thins the chip (common practice)
        ({"cutting_speed": 80}, {"cutting_speed": 300}),  # speed lowers breakability (common practice)
        ({"coolant_pressure": 70}, {"coolant_pressure": 0}),  # a jet breaks sooner (common practice)
    ],
)
def test_what_moves_the_window_to_more_feed(less: dict[str, float], more: dict[str, float]) -> None:
    usual = {"nose_radius": 0.8, "ductility": 0.5, "cutting_speed": 150.0, "coolant_pressure": 0.0}
    assert float(feed_scale(**(usual | less))) < float(feed_scale(**(usual | more)))


def test_the_drawn_window_holds_for_steel_at_the_reference() -> None:
    assert float(feed_scale(0.8, 0.5, 150.0, 0.0)) == pytest.approx(1.0)
    assert float(depth_scale(12.7)) == 1.0
    assert float(depth_scale(9.525)) < 1.0 < float(depth_scale(19.05))


def test_brittle_metal_forgives_thin_chips_but_not_overload() -> None:
    assert gauge(0.1, 2.0, ductility=0.1) < gauge(0.1, 2.0, ductility=0.6)
    assert gauge(0.8, 2.0, ductility=0.1) == pytest.approx(gauge(0.8, 2.0, ductility=0.6))


@pytest.mark.parametrize(
    ("arguments", "code", "verdict"),
    [
        ((0.3, 0.0, 0.0, 0.5, True), "6.2", "breaks"),
        ((0.9, -0.8, 0.0, 0.5, True), "5.2", "breaks"),
        ((0.9, 0.9, 0.0, 0.5, True), "6.1", "breaks"),
        ((1.2, -1.2, 0.0, 0.5, True), "2.1", "strings"),
        ((2.0, -2.0, 0.0, 0.5, True), "2.3", "strings"),
        ((1.3, -0.5, -1.2, 0.5, True), "1.3", "strings"),
        ((1.3, 1.4, 0.0, 0.5, True), "6.1", "packs"),
        ((0.1, 0.0, 0.5, 0.8, False), "1.1", "strings"),
        ((2.0, -2.0, 0.0, 0.05, True), "7", "breaks"),
    ],
)
def test_forms_of_iso_3685(arguments: tuple[float, float, float, float, bool], code: str, verdict: str) -> None:
    # iso-3685 annex G for the classes (from memory): 1 ribbon, 2 tubular, 5 conical helical, 6 arc, 7 elemental
    form = chip_form(*arguments)
    assert (form.code, form.verdict) == (code, verdict)
    assert form.why


def test_the_index_falls_steadily_with_the_gauge() -> None:
    levels = chip_index_of(np.linspace(0, 3, 61))
    assert levels[0] == 100
    assert levels[-1] == 0
    assert np.all(np.diff(levels) <= 0)


def test_a_ribbon_tangles_where_the_cut_is_shallow() -> None:
    """ISO 3685 annex G, forms 1.1 long and 1.3 snarled; which falls where is common practice: a thin ribbon curls up, a wide one runs."""
    shallow, deep = (chip_form(0.5, 0.0, place, 0.6, False) for place in (-0.4, 0.4))
    assert (shallow.code, shallow.length) == ("1.3", "snarled")
    assert (deep.code, deep.length) == ("1.1", "long")


def test_the_softest_metals_break_in_no_groove_and_a_jet_helps() -> None:
    """Steel of middling ductility may break wholly; from pure aluminium on less; a jet gives some of it back."""
    ductility = np.linspace(0.0, 1.0, 41)
    dry = softest_index(ductility, 0.0)
    assert (dry[ductility <= 0.75] == 100.0).all()
    assert (np.diff(dry[ductility >= 0.75]) < 0.0).all()
    assert dry[-1] < TOO_SOFT_TO_BREAK < dry[ductility <= 0.85][-1] < 100.0
    jet = softest_index(ductility, 70.0)
    assert (jet >= dry).all()
    assert jet.max() == 100.0
    assert jet[-1] > dry[-1]
    assert (softest_index(1.0, [0.0, 20.0, 70.0, 150.0])[1:] > softest_index(1.0, [0.0, 20.0, 70.0, 150.0])[:-1]).all()
