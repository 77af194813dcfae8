"""What a process costs by its drivers: limiting cases and directions; the saving adds up whichever driver comes first."""

from __future__ import annotations

from dataclasses import replace

import pytest

from cutting.money.drivers import DRIVERS, Process, pieces_to_match, saving_by_driver

PRESENT = Process(34.0, 27.38, 2, 14, 54.0, 96.2)
PROPOSED = Process(16.0, 12.10, 1, 42, 54.0, 96.2)


def test_an_edge_that_lasts_for_ever_costs_nothing_and_leaves_the_machine() -> None:
    endless = replace(PRESENT, pieces=1e12)
    assert endless.cost == pytest.approx(34.0 * 96.2 / 3600.0)
    assert replace(endless, rate=0.0).cost == pytest.approx(0.0, abs=1e-9)


@pytest.mark.parametrize(("driver", "dearer"), [("seconds", 1), ("price", 1), ("edges", -1), ("pieces", -1), ("change", 1), ("rate", 1)])
def test_more_of_a_driver_moves_the_cost_its_way(driver: str, dearer: int) -> None:
    more = replace(PRESENT, **{driver: 2.0 * getattr(PRESENT, driver)})
    assert (more.cost - PRESENT.cost) * dearer > 0.0
    alone = saving_by_driver(PRESENT, more)
    assert alone[driver] == pytest.approx(PRESENT.cost - more.cost)
    assert all(alone[other] == 0.0 for other in DRIVERS if other != driver)


def test_savings_add_up_and_turn_round_with_the_processes() -> None:
    there, back = saving_by_driver(PRESENT, PROPOSED), saving_by_driver(PROPOSED, PRESENT)
    assert sum(there.values()) == pytest.approx(PRESENT.cost - PROPOSED.cost)
    assert {name: -value for name, value in back.items()} == pytest.approx(there)
    assert there["edges"] < 0.0 < there["pieces"]  # one edge less on the insert costs, three times the pieces saves


def test_what_two_drivers_save_together_is_shared_evenly() -> None:
    """Price halved and pieces doubled act alike on the edge: neither may claim more than the other (symmetry of Shapley's value)."""
    free = Process(0.0, 10.0, 1, 10, 0.0, 0.0)
    found = saving_by_driver(free, replace(free, price=5.0, pieces=20))
    assert found["price"] == pytest.approx(found["pieces"]) == pytest.approx(0.375)


def test_at_the_pieces_that_match_both_cost_the_same() -> None:
    least = pieces_to_match(PRESENT, PROPOSED)
    assert least is not None
    assert replace(PROPOSED, pieces=least).cost == pytest.approx(PRESENT.cost)
    assert pieces_to_match(PRESENT, replace(PROPOSED, seconds=1000.0)) is None
