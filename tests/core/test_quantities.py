"""What people type is understood, or refused with the unit wanted and both readings."""

from __future__ import annotations

import contextlib

import pytest
from hypothesis import given
from hypothesis import strategies as st

from cutting.errors import AmbiguousQuantity, CuttingError, UnreadableQuantity
from cutting.quantities import KINDS, display, read_dimension, read_quantity, write
from cutting.quantities.retell import in_inch


@pytest.mark.parametrize(
    ("text", "kind", "value"),
    [
        ("0,25", "feed_per_rev", 0.25),
        ("0.25 mm/rev", "feed_per_rev", 0.25),
        (".25", "feed_per_rev", 0.25),
        ("1 200 rpm", "spindle_speed", 1200),
        ("800 1/min", "spindle_speed", 800),
        ("1 400 1/min", "spindle_speed", 1400),
        ("1.250,5 mm", "length", 1250.5),
        ("1,250.5 mm", "length", 1250.5),
        ('1-3/8"', "length", 34.925),
        ("3/4 in", "length", 19.05),
        ("25 µm", "length", 0.025),
        ("2 tenths", "length", 0.00508),
        ("Ø50", "length", 50),
        ("1.6", "small_length", 1.6),
        (0.3, "feed_per_rev", 0.3),
    ],
)
def test_readings(text: str | float, kind: str, value: float) -> None:
    assert read_quantity(text, kind).value == pytest.approx(value)


def test_a_bare_number_is_in_the_system_shown() -> None:
    assert read_quantity("0.011", "feed_per_rev", system="inch").value == pytest.approx(0.2794)
    assert read_quantity("600", "cutting_speed", system="inch").value == pytest.approx(182.88)


def test_an_ambiguous_number_offers_both_readings() -> None:
    with pytest.raises(AmbiguousQuantity) as refused:
        read_quantity("1,500", "length", field="settings.depth_of_cut")
    assert refused.value.readings == ("1.500", "1500")
    assert refused.value.field == "settings.depth_of_cut"


@pytest.mark.parametrize("text", ["", "fast", "12 bananas", "1/0 in", "--3", "1e999", "3 4", "1.2.3", "nan", "∞"])
def test_nonsense_is_refused_with_the_units_wanted(text: str) -> None:
    with pytest.raises(UnreadableQuantity):
        read_quantity(text, "feed_per_rev")


def test_the_wrong_unit_names_the_right_ones() -> None:
    with pytest.raises(UnreadableQuantity, match=r"mm/rev, ipr"):
        read_quantity("200 m/min", "feed_per_rev")


@given(st.text(max_size=20))
def test_no_text_breaks_the_reader(text: str) -> None:
    for read in (lambda: read_quantity(text, "length"), lambda: read_dimension(text)):
        with contextlib.suppress(CuttingError):
            read()


@given(
    st.floats(min_value=0.001, max_value=5000),
    st.sampled_from(["length", "size", "cutting_speed", "force", "power", "duration"]),
    st.sampled_from(["metric", "inch"]),
)
def test_what_is_written_can_be_read_again(value: float, kind: str, system: str) -> None:
    text = write(value, kind, system)
    what = KINDS[kind]
    decimals = what.metric_decimals if system == "metric" else what.inch_decimals
    step = read_quantity(1.0, kind, system=system).value * 10.0 ** -(decimals or 0)
    again = read_quantity(text.replace("\u202f", ""), kind, system=system).value
    # half a step of the digits shown, more where large values drop decimals
    assert again == pytest.approx(value, abs=0.5001 * step + 0.006 * abs(value))


def test_both_systems_without_false_digits() -> None:
    shown = display(0.24, "feed_per_rev")
    assert (shown.metric, shown.inch) == ("0.24 mm/rev", "0.0094 ipr")
    assert display(1111.4, "spindle_speed").metric == "1111 rpm"
    assert [display(pieces, "count").metric for pieces in (0, 0.04, 0.3, 0.97, 12.4)] == ["0", "0.04", "0.3", "1", "12"]


@pytest.mark.parametrize(
    ("value", "kind", "said"),
    [
        # common practice, no source: thous with their zeros; a 64th as the drill index has it; small ones and limits of size to tenths
        (7.12, "length", "0.280 in"), (6.35, "length", "0.250 in"), (25.4 * 5 / 16, "length", "0.3125 in"), (300.0, "length", "11.811 in"),
        (25.4 * 9 / 64, "length", "0.1406 in"), (2.0, "length", "0.0787 in"), (0.0, "length", "0 in"), (9.731, "size", "0.3831 in"),
        (25.4, "size", "1.0000 in"), (-7.12, "length", "-0.280 in"),
    ],
)  # fmt: skip
def test_inches_as_an_inch_shop_writes_them(value: float, kind: str, said: str) -> None:
    assert write(value, kind, "inch") == said


@pytest.mark.parametrize(
    ("text", "target", "tolerance"),
    [
        ("49 h9", 48.969, 0.062),
        ("25 ±0.02", 25.0, 0.04),
        ("30 +0.021/0", 30.0105, 0.021),
        ("1.5 in", 38.1, None),
        ("35k6", 35.010, 0.016),
    ],
)
def test_drawing_dimensions(text: str, target: float, tolerance: float | None) -> None:
    read = read_dimension(text)
    assert read.target == pytest.approx(target, abs=6e-4)
    assert read.tolerance == (None if tolerance is None else pytest.approx(tolerance, abs=1e-6))


def test_an_unknown_deviation_names_the_field() -> None:
    with pytest.raises(CuttingError) as refused:
        read_dimension("40 q7", field="feature.end_diameter")
    assert refused.value.field == "feature.end_diameter"


@pytest.mark.parametrize(
    ("text", "ra"),
    [
        # ISO 1302:1992, classes; Rz about four times Ra on turned faces (common practice)
        ("1.6", 1.6), ("Ra 0,8", 0.8), ("N6", 0.8), ("n 7", 1.6), ("N8", 3.2), ("N12", 50.0), ("N1", 0.025), ("Rz 6.3", 1.575),
        ("Rz10", 2.5), ("Rz 16 µm", 4.0), ("Ra 32 µin", 0.8128), ("Rt 10", 2.2),
    ],
)  # fmt: skip
def test_a_finish_is_read_in_the_drawings_own_word(text: str, ra: float) -> None:
    assert read_quantity(text, "roughness").value == pytest.approx(ra)
    if text[:1] in "Nn":  # a class is the same in both systems
        assert read_quantity(text, "roughness", system="inch").value == pytest.approx(ra)


@pytest.mark.parametrize("text", ["N13", "N0", "N6.5", "Ry 6", "Rz"])
def test_a_word_that_is_no_finish_is_refused(text: str) -> None:
    with pytest.raises(CuttingError) as refused:
        read_quantity(text, "roughness", field="feature.roughness")
    assert refused.value.field == "feature.roughness"


@pytest.mark.parametrize(
    ("metric", "inch"),
    [
        ("Depth 0.40 mm is below half the corner radius 1.2 mm.", "Depth 0.0157 in is below half the corner radius 0.0472 in."),
        ("the shaft is 228.6 mm long; the blank has 203.2 mm.", "the shaft is 9.000 in long; the blank has 8.000 in."),
        ("60 is outside 0 to 38 mm, the part's length.", "2.362 is outside 0 to 1.496 in, the part's length."),
        ("feed 0.365 mm/rev at 150 m/min", "feed 0.0144 ipr at 492 sfm"),
        ("12 µm of 62 µm", "472 µin of 2441 µin"),
        ("Ø12.7 on Ø50.8", "Ø0.500 on Ø2.000"),
        ("CNMG 120408 for Ø35 h7, 3 passes, M12, 90°, 1200 rpm", "CNMG 120408 for Ø35 h7, 3 passes, M12, 90°, 1200 rpm"),
        ("C45: 6 mm of 200 N/mm²", "C45: 0.236 in of 29.0 ksi"),
    ],
)
def test_a_sentence_is_told_in_inches(metric: str, inch: str) -> None:
    """By 25.4 mm an inch and 0.3048 m a foot; names, classes and counts stay."""
    assert in_inch(metric) == inch


# a shop reads thousandths of a millimetre and tenths of a thousandth of an inch; money in cents; seconds in tenths (common practice)
SAID = {
    "length": ("12.346 mm", None), "cutting_speed": ("12 m/min", "41 sfm"), "spindle_speed": ("12 rpm", "12 rpm"),
    "money": ("12.35 €", "12.35 €"), "duration": ("12.3 s", "12.3 s"), "power": ("12.3 kW", "16.6 hp"), "mass": ("12.35 kg", "27.22 lb"),
    "pressure": ("12 bar", "179 psi"), "angle": ("12.3 °", "12.3 °"), "share": ("12 %", "12 %"), "life": ("12.3 min", "12.3 min"),
}  # fmt: skip


@pytest.mark.parametrize("kind", SAID)
def test_each_kind_is_told_as_finely_as_people_read_it(kind: str) -> None:
    for system, said in zip(("metric", "inch"), SAID[kind], strict=True):
        if said is not None:
            assert write(12.346, kind, system).replace("\u202f", " ").replace("\u00a0", " ") == said
