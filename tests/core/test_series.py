"""Tools that come in series: what a shop would find in its drawers, and nothing in them that stands alone."""

from __future__ import annotations

from itertools import pairwise

import numpy as np
import pytest

from cutting.operations.holes.drill.limits import allowances
from cutting.operations.threads.shared.core_hole import hole_window
from cutting.tables import Row, read_table
from cutting.tooling.bought import shipped
from cutting.tooling.drills import DRILL_KINDS
from cutting.tooling.series import in_series
from cutting.tooling.taps import TAP_KINDS

DRILLS = [one for kind in DRILL_KINDS for one in shipped(kind)]
OPENS = [one for one in DRILLS if one.type.opens]
CHUCKS = shipped("drill chuck")


def test_every_tenth_from_one_to_thirteen_is_there_in_high_speed_steel() -> None:
    there = {round(one.diameter, 1) for one in OPENS if one.grade.tool_class == "hss"}
    assert not [size for size in np.arange(1.0, 13.05, 0.1).round(1) if size not in there]


@pytest.mark.parametrize("name", ["jobber", "stub", "short carbide", "carbide 5xD", "taper shank", "indexable 3xD", "reamer"])
def test_a_larger_tool_of_a_series_is_longer_and_not_cheaper(name: str) -> None:
    """Invented prices follow the trade's: they rise with the size."""
    made = [one for one in DRILLS if one.designation.startswith(name) and "through" not in one.designation]
    by_grade = [sorted((one for one in made if one.grade is grade), key=lambda one: one.diameter) for grade in {one.grade for one in made}]
    for series in by_grade:
        for small, large in pairwise([one for one in series if one.source != "invented for the demo" or len(series) > 20]):
            assert large.reach >= 0.85 * small.reach, (small.name, large.name)
            assert large.price >= 0.6 * small.price, (small.name, large.name)


def test_carbide_is_dearer_than_high_speed_steel_of_its_size() -> None:
    for size in (3.0, 5.0, 8.0, 10.0, 12.0):
        price = {one.designation.rsplit(" ", 1)[0]: one.price for one in OPENS if one.diameter == size and "split" not in one.designation}
        assert price["short carbide"] > 3.0 * price["jobber"]


def test_no_tool_waits_for_another_that_is_not_there() -> None:
    """A chuck for every shank, a drill for every reamer, a hole for every tap."""
    for one in DRILLS:
        assert any(chuck.takes(one) for chuck in CHUCKS), one.name
    sizes = np.array(sorted({one.diameter for one in OPENS}))
    for one in (drill for drill in DRILLS if drill.type.enlarges):
        least, most = allowances(one.diameter, one.type.reams)
        assert ((one.diameter - sizes >= least) & (one.diameter - sizes <= most)).any(), one.name
    for tap in (one for kind in TAP_KINDS for one in shipped(kind)):
        low, high = hole_window(tap.thread, tap.type.forms)
        assert ((sizes >= low - 1e-6) & (sizes <= high + 1e-6)).any(), tap.name


def test_a_size_that_stands_in_a_table_of_its_own_is_not_made_twice() -> None:
    like = next(row for row in read_table("tooling/drills.csv") if row["designation"] == "jobber 10.2")
    every = [row for row in read_table("tooling/drills.csv") if row["kind"] != "drill chuck"]
    more = [row for row in read_table("tooling/threading.csv") if "tap" in row["kind"]]
    made = in_series((*every, *more))
    names = [(row["designation"], row["grade"]) for row in made]
    assert len(names) == len(set(names)) > 900
    assert ("jobber 10.2", "HSS bright") not in names
    grown = next(row for row in made if row["designation"] == "jobber 10.3")
    assert float(like["LU"]) - 2 < float(grown["LU"]) < float(like["LU"]) + 2
    assert isinstance(grown, Row)


def test_inch_drawers_hold_fractions_numbers_and_letters() -> None:
    """ASME B94.11M: #7 5.1054, F 6.5278 mm; the hole for 1/4-20 is a #7, for 5/16-18 an F; 1/4 in and 6.35 mm are one drill."""
    jobbers = {one.designation: one.diameter for one in OPENS if one.designation.startswith("jobber")}
    assert jobbers["jobber #7"] == pytest.approx(5.1054)
    assert jobbers["jobber letter F"] == pytest.approx(6.5278, abs=1e-4)
    assert jobbers["jobber 13/64 in"] == pytest.approx(5.1594, abs=1e-4)
    sizes = np.array(list(jobbers.values()))
    assert not [k for k in range(3, 33) if np.abs(sizes - 25.4 * k / 64).min() > 0.005]
    quarter = [one for one in OPENS if abs(one.diameter - 6.35) < 0.005 and one.designation.startswith("short carbide")]
    assert len({one.grade.name for one in quarter}) == len(quarter)


def test_stainless_and_hard_metal_have_carbide_made_for_them() -> None:
    for letter in "PMNH":
        sizes = {one.diameter for one in OPENS if one.grade.tool_class == "carbide" and one.grade.main_letter == letter}
        assert {3.0, 6.0, 8.0, 10.0, 12.0} <= sizes, letter


def test_a_taper_fits_its_drill_and_a_thin_drill_is_thrown_away() -> None:
    """ISO 235: Morse 1 to Ø14, 2 to Ø23, 3 to Ø32, 4 to Ø50. Common practice: below 5 mm nobody regrinds high-speed steel."""
    series = in_series((*read_table("tooling/drills.csv"), *read_table("tooling/threading.csv")))
    tapers = {float(row["DC"]): row["ADINTMS"] for row in series if row["designation"].startswith("taper shank")}
    for size, taper in (
        (13.75, "Morse 1"),
        (14.25, "Morse 2"),
        (23.0, "Morse 2"),
        (23.25, "Morse 3"),
        (31.5, "Morse 3"),
        (33.0, "Morse 4"),
    ):
        assert tapers[size] == taper
    reground = {float(row["DC"]): float(row["NORGMX"]) for row in series if row["designation"].startswith("jobber")}
    assert reground[4.9] == 0
    assert reground[5.1] > 0
    shanks = {float(row["DC"]): float(row["DCONMS"]) for row in series if row["designation"].startswith("short carbide")}
    assert (shanks[6.0], shanks[6.1], shanks[10.1]) == (6.0, 8.0, 12.0)
