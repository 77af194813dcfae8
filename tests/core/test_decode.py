"""The decoder under whatever people type, and what the machine's own numbers say."""

from __future__ import annotations

import contextlib
import string

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from cutting.errors import CuttingError
from cutting.exchange.columns import read_numbers
from cutting.machine.machines import find_machine, machines
from cutting.tooling.decode import decode
from cutting.tooling.designations.parts import UnreadableDesignation
from cutting.tooling.items import holders, inserts
from cutting.tooling.records import TOOL_KINDS, identity, properties, study
from cutting.workpiece.hardness import SCALES, read_hardness

CODES = st.one_of(
    st.text(max_size=24),
    st.text(string.ascii_uppercase + string.digits + " .-", min_size=3, max_size=18),
    st.sampled_from(["CNMG 120408", "DCLNL 16-4D", "S25T-SCLCR 09", "16 ER 1.5 ISO", "CNGA 120408 T01020 B"]).flatmap(
        lambda code: st.tuples(st.integers(0, len(code) - 1), st.sampled_from(string.ascii_uppercase + string.digits)).map(
            lambda change: code[: change[0]] + change[1] + code[change[0] + 1 :]
        )
    ),
)


@settings(max_examples=400)
@given(CODES)
def test_whatever_is_typed_is_explained_or_refused(text: str) -> None:
    """No text breaks the decoder; what it explains, it explains again the same from its own spelling."""
    try:
        found = decode(text)
    except UnreadableDesignation:
        return  # refused in the one way that there is; anything else fails the test
    assert found.parts
    again = decode(found.designation)
    assert again.designation == found.designation
    assert again.seat == found.seat
    assert again.edges == found.edges


@given(st.text(max_size=16))
def test_no_hardness_and_no_list_breaks_its_reader(text: str) -> None:
    with contextlib.suppress(CuttingError):
        value, scale = read_hardness(text)
        assert value >= 0
        assert scale in SCALES
    with contextlib.suppress(CuttingError):
        assert all(number > 0 for number in read_numbers(text, "list"))


def test_every_shipped_code_is_one_that_the_decoder_explains() -> None:
    for insert in inserts():
        found = decode(insert.designation)
        assert found.designation == insert.designation
        assert found.drawing is not None
        if insert.tipped_edges is None and found.edges is not None:  # tips are the stock's, a round insert is counted by depth
            assert found.edges == insert.edges, insert.name
    for holder in holders():
        assert decode(holder.designation).designation == holder.designation


@pytest.mark.parametrize(
    ("kind", "designation", "given_properties", "says"),
    [
        ("turning insert", "CNMG 432", {}, {"IC": 12.7, "S": 4.76, "RE": 0.8, "CEDC": 4}),
        ("turning insert", "CNGA 120408 T01020 A", {}, {"CEDC": 1}),
        ("laydown threading insert", "22 IR 8 UN", {}, {"TP": 3.175, "CEDC": 3}),
        ("turning holder", "DCLNL 16-4D", {"OHN": 30.0}, {"KAPR": 95, "H": 25.4, "LF": 152.4}),
        ("boring bar", "A16R-SCLCR 09", {"DMIN1": 20.0}, {"DCONMS": 16, "OAL": 200}),
        ("grooving insert", "own  code", {"CW": 3.0, "CEDC": 2.0}, {}),
    ],
)
def test_a_study_says_what_the_designation_fixes(
    kind: str, designation: str, given_properties: dict[str, float], says: dict[str, float]
) -> None:
    found, added = study(kind, designation, given_properties)
    for symbol, value in says.items():
        assert found.says[symbol] == pytest.approx(value)
    assert added == {symbol: value for symbol, value in given_properties.items() if symbol not in found.says}
    again, added_again = study(kind, designation, {**given_properties, **dict(found.says)})
    assert (again.designation, added_again) == (found.designation, added)  # what it says may stand beside it


def test_kinds_carry_known_properties_and_identities_ignore_spelling() -> None:
    for kind in TOOL_KINDS.values():
        assert set(kind.required) <= set(kind.properties) <= set(properties())
    assert identity("turning insert", "CNMG 120408", "Middle", "P20 CVD") == identity("turning insert", "cnmg-120408", "middle", "p20-cvd")


def test_power_and_torque_go_together() -> None:
    # definition: M = 9549·P/n, from P = 2π·n·M/60; a motor's curve loses the efficiency
    for machine in machines():
        speeds = np.linspace(max(machine.speed_min, 1), machine.speed_max, 9)
        assert machine.spindle_torque(speeds) * speeds / 9549.3 == pytest.approx(machine.spindle_power(speeds))
    lathe = find_machine("two-axis lathe")
    assert float(lathe.spindle_torque(955)) == pytest.approx(110, rel=0.001)  # 11 kW at 955 1/min
    unit = find_machine("feed-drilling unit")
    assert unit.fixed
    assert unit.geared
    assert not unit.turns
    assert not find_machine("geared lathe").fixed
