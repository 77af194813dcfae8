"""Dialects of the shop's own: read by entry, tried on a sample, and as good as those that ship."""

from __future__ import annotations

import random
from typing import Any

import pytest

from cutting.errors import CuttingError
from cutting.machine.machines import find_machine
from cutting.motion.moves import Frame
from cutting.program import check, dialects, execute, write
from cutting.program.own import NUMBERS, as_data, dialect_of, sample
from tests.core.test_program import planned, programs

OWN: dict[str, Any] = {
    **as_data(dialects()[0]), "name": "shop lathe", "title": "the shop's own lathe", "per_turn": "G95", "per_minute": "G94", "clamp": "G92",
    "thread": "G33", "thread_lead": "K", "dwell": "X", "dwell_in": 1, "numbered": 5, "decimals": 4, "comment": ["; ", ""], "end": "M2",
    "tool": "T{number}",
}  # fmt: skip


@pytest.mark.parametrize("shipped", dialects(), ids=[one.name for one in dialects()])
def test_what_ships_is_read_from_its_own_data(shipped: Any) -> None:
    assert dialect_of(as_data(shipped)) == shipped


def test_any_own_dialect_reads_back_its_sample_and_every_plan() -> None:
    """Drawn at random within their bounds: what is written is read back without a finding."""
    rng, kinds = random.Random(7), sorted({kind for kind, _, _ in programs()})
    lathe, centre = find_machine("two-axis lathe"), find_machine("machining centre")
    for _ in range(40):
        turns = rng.random() < 0.6
        data = as_data(dialects()[0 if turns else 1])
        data |= {name: rng.randint(low, high) for name, (low, high) in NUMBERS.items()}
        data |= rng.choice(({"per_turn": "G95", "per_minute": "G94"}, {"per_turn": "G99", "per_minute": "G98"}))
        data |= {"thread": rng.choice(("G32", "G33")), "thread_lead": rng.choice("FKE"), "cycles": rng.random() < 0.5}
        data |= {"comment": rng.choice((["(", ")"], ["; ", ""])), "diameter": turns and rng.random() < 0.5, "dwell": rng.choice("PXFU")}
        data["dwell_in"] = rng.choice((1, 1000))
        if data["per_turn"] == "G99" and not turns:
            data["cycles"] = False  # on a mill they say where a cycle comes back to
        own = dialect_of(data)
        path = sample(turns)
        for inch in (False, True):
            assert check(execute(write(path, own, "sample", inch=inch), own, path.start), lathe if turns else centre, path) == (), data
        kind = rng.choice(kinds)
        setup, path = planned(kind)
        if (path.frame is Frame.TURNED) == turns:
            assert check(execute(write(path, own, kind), own, path.start), setup.machine, path) == (), (kind, data)


@pytest.mark.parametrize(
    ("changed", "field"),
    [
        ({"decimals": 9}, "decimals"), ({"decimals": True}, "decimals"), ({"per_turn": "X95"}, "per_turn"),
        ({"per_minute": "G95"}, "per_minute"), ({"thread": "G76"}, "thread"), ({"tool": "T1"}, "tool"),
        ({"tool": "{number.__class__}"}, "tool"), ({"comment": ["#", ""]}, "comment"),
        ({"comment": "("}, "comment"), ({"start": ["GO"]}, "start"), ({"start": ["G40"] * 20}, "start"), ({"turns": 1}, "turns"),
        ({"name": ""}, "name"), ({"title": "x" * 200}, "title"), ({"colour": "red"}, "colour"), ({"dwell": "Q"}, "dwell"),
    ],
)  # fmt: skip
def test_an_entry_out_of_bounds_is_named(changed: dict[str, Any], field: str) -> None:
    with pytest.raises(CuttingError) as refused:
        dialect_of(OWN | changed)
    assert refused.value.field == field
    missing = {name: value for name, value in OWN.items() if name != "clamp"}
    with pytest.raises(CuttingError) as lacking:
        dialect_of(missing)
    assert lacking.value.field == "clamp"
