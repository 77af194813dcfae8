"""What a remedy says it sets is what was tried: read back in the JSON form, it gives the same figures, in every kind."""

from __future__ import annotations

import math
from typing import Any

import pytest

from cutting.doors.json_form import read_setup
from cutting.operations.registry import KINDS
from tests.core.every_kind import EVERY_KIND
from tests.core.holes import DEEP, STACK
from tests.core.slots import BORE_RING, RING, form
from tests.core.thread_setups import SPINDLE, TURN

THROUGH = form(EVERY_KIND["drill"], feature={"through": True, "depth": "20 mm"})
FORMS: dict[str, dict[str, Any]] = {
    **EVERY_KIND,
    "through": THROUGH,
    "on a slope": form(THROUGH, feature={"entry_angle": 20}),
    "deep": DEEP,
    "stack": STACK,
    "ring": RING,
    "bore ring": BORE_RING,
    "spindle tap": SPINDLE,
    "outside thread": TURN,
    "finished": form(EVERY_KIND["mill hole"], settings={"finish": 0.2}),
    "pecked": form(EVERY_KIND["drill"], settings={"pecks": "to clear chips"}),
}


@pytest.mark.parametrize("name", FORMS)
def test_a_change_tried_is_the_change_said(name: str) -> None:
    base = FORMS[name]
    setup = read_setup(base)
    model = KINDS[setup.operation].model
    tried = [*model.changes(model.quickly(setup)), *model.quicker(setup)]
    for one in tried:
        if set(one.patch) <= {"settings", "feature", "holding", "tool"}:
            said, done = model.quickly(read_setup(form(base, **one.patch))), model.quickly(one.setup)
            for figure in ("operation_cost", "operation_time", "engaged_time", "edge_cost"):
                assert getattr(said, figure) == pytest.approx(getattr(done, figure), rel=2e-3), (one.text.metric, figure)


def test_half_the_feed_at_exit_is_offered_where_a_drill_breaks_out_and_leaves_less_burr() -> None:
    drill = KINDS["drill"].model

    def offered(**sections: Any) -> dict[str, Any]:
        x = drill.quickly(read_setup(form(THROUGH, **sections)))
        return {one.text.metric: one.setup for one in drill.changes(x)}

    half = offered()["half the feed at exit"]
    assert float(drill.quickly(half).burr[0]) < float(drill.quickly(read_setup(THROUGH)).burr[0])
    assert "half the feed at exit" not in offered(settings={"exit_feed": 0.5})
    assert "half the feed at exit" not in offered(feature={"through": False})


@pytest.mark.parametrize(("pilot", "area"), [(0.0, 16.0**2), (8.0, 16.0**2 - 8.0**2)])
def test_a_mill_that_goes_straight_down_cuts_all_round(pilot: float, area: float) -> None:
    """Its end is engaged over half a turn whatever hole is there, and takes away the ring that is left of its circle."""
    sized = {"diameter": "16 mm", "flat": True, "pilot": pilot}
    mill = KINDS["mill hole"].model
    x = mill.quickly(read_setup(form(EVERY_KIND["mill hole"], feature=sized, settings={"path": "plunge", "pitch": None})))
    assert float(x.engagement[0]) == 180.0
    assert 1000.0 * float(x.removal[0] / x.feed_rate[0]) == pytest.approx(math.pi / 4.0 * area, rel=0.02)
    if pilot:
        round_it = mill.quickly(read_setup(form(EVERY_KIND["mill hole"], feature={"pilot": 18})))
        assert float(round_it.engagement[0]) < 180.0
