"""Spindles and seats: an operation runs with the figures of the spindle that it is on."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pytest

from cutting.doors.json_form import read_setup
from cutting.errors import CuttingError
from cutting.machine.machines import find_machine, machines
from cutting.machine.seats import Seats, read_seats
from cutting.mechanics.grip import grip_torque
from cutting.operations.registry import evaluate_quickly

Form = Callable[..., dict[str, Any]]


def test_a_machine_is_as_the_spindle_drives_it() -> None:
    whole = find_machine("mill-turn")
    assert [(one.name, one.turns_part) for one in whole.spindles] == [("main", True), ("sub", True), ("driven", False)]
    assert whole.on("main") is whole.on("") is whole
    sub, driven = whole.on("sub"), whole.on("driven")
    # 15 kW from 1300 1/min on: 9549.3 · 15 / 1300 = 110 N·m, and half of it at twice the speed; slower than that in proportion
    assert float(sub.spindle_torque(1300)) == pytest.approx(110.2, abs=0.1)
    assert float(sub.spindle_power(650)) == pytest.approx(7.5)
    assert sub.top_speed == 4800  # its chuck, below the spindle's 5000
    assert (sub.turns, driven.turns, driven.jaw_force, driven.interface) == (True, False, 0, "ER32")
    assert (sub.name, sub.rate, sub.shank_height) == (whole.name, whole.rate, whole.shank_height)  # the machine is one
    assert find_machine("machining centre").spindles[0].name == "tool"


def test_the_same_cut_on_the_weaker_spindle_uses_more_of_it(form: Form) -> None:
    given = form(machine="mill-turn", settings={"cutting_speed": 160, "feed_per_rev": 0.28, "depth_of_cut": 2, "coolant": "flood"})
    main, sub = (evaluate_quickly(read_setup({**given, "spindle": name})) for name in ("main", "sub"))
    power = [next(limit for limit in one.limits if limit.name == "spindle_power") for one in (main, sub)]
    assert power[0].value == power[1].value
    assert power[0].utilisation < power[1].utilisation
    assert evaluate_quickly(read_setup(given)) == main


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"machine": "mill-turn", "spindle": "driven"}, "machine"),  # turns the tool, not the part
        ({"machine": "two-axis lathe", "spindle": "sub"}, "spindle"),
        ({"machine": "mill-turn", "spindle": "third"}, "spindle"),
        ({"machine": "mill-turn", "spindle": "sub", "settings": {"coolant": "high"}}, "settings.coolant"),  # does not reach it
    ],
)
def test_what_a_spindle_cannot_do_is_refused_by_name(form: Form, change: dict[str, Any], field: str) -> None:
    given = form()
    for name, value in change.items():
        given[name] = {**given[name], **value} if isinstance(value, dict) else value
    with pytest.raises(CuttingError) as refused:
        evaluate_quickly(read_setup(given))
    assert refused.value.field == field


def test_places_for_tools_have_kind_size_and_count() -> None:
    assert read_seats(("driven position  ER25:6",)) == (Seats("driven position", "ER25", 6),)
    every = {m.name: m.places for m in machines()}
    assert every["mill-turn"] == (Seats("turret position", "25 mm", 24), Seats("driven position", "ER32", 12))
    assert every["geared lathe"][0].kind == "tool post"
    assert every["machining centre"] == (Seats("changer pocket", "BT40", 24),)
    for bad in ("drawer ER25: 6", "driven position ER25", "driven position ER25: 0", "driven position: 6", "changer pocket BT40: 1001"):
        with pytest.raises(CuttingError) as refused:
            read_seats((bad,))
        assert refused.value.field == "seats"


def test_a_power_chuck_keeps_about_a_third_at_its_marked_speed() -> None:
    """EN 1550, from memory; collets, whose jaws weigh little, and slow chucks keep more."""
    for one in (spindle for machine in machines() for spindle in machine.spindles if spindle.jaw_force > 0):
        kept = float(grip_torque(1.0, one.jaw_force, one.jaw_mass, one.jaw_radius, one.chuck_speed_max, 2000.0)) / one.jaw_force
        assert 0.3 < kept < 0.7, one
