"""What a tool would have to be, by the sizes that the feature asks of it: geometry of the slot and the hole, read off the set-up."""

from __future__ import annotations

import pytest

from cutting import read_setup
from cutting.advice.wanted import wanted_tool
from cutting.operations.registry import evaluate
from cutting.process.outline import part_after, stages_from
from cutting.workpiece.solid import Blank
from tests.core.every_kind import EVERY_KIND


@pytest.mark.parametrize(
    ("kind", "words", "record"),
    [
        # a bar is parted to its middle: Ø40 wants 20 mm, and a cutting range twice what the blade reaches
        ("cut off", "reaches 20 mm", {"CDX": "22", "CUTDIA": "44", "OHN": "24"}),
        ("face groove", "reaches 8 mm", {"CDX": "10"}),
        ("drill", "Ø8.5 mm that reaches 30 mm", {"DC": "8.5", "LU": "32"}),
        # a bar must enter the bore that is there and come out behind its depth
        ("bore", "enters Ø59 mm and reaches 60 mm", {"DMIN1": "59", "OHX": "62"}),
        ("tap", "threads 15 mm deep", {"LU": "17"}),
    ],
)
def test_a_wanted_tool_reaches_what_the_feature_is_deep(kind: str, words: str, record: dict[str, str]) -> None:
    wanted = wanted_tool(read_setup(EVERY_KIND[kind]))
    assert words in wanted.words.metric
    assert record.items() <= wanted.record.items()


def test_a_groove_wants_half_of_what_it_takes_off_the_diameter() -> None:
    setup = read_setup(EVERY_KIND["groove"])
    deep = float(wanted_tool(setup).words.metric.rsplit("reaches ", 1)[1].split()[0])
    assert setup.feature.floor.target + 2.0 * deep == pytest.approx(setup.feature.diameter)
    assert float(wanted_tool(setup).record["CDX"]) > deep  # and a little more, to come out of it


def test_the_picture_of_a_facing_cut_steps_down_by_its_depth() -> None:
    setup = read_setup(EVERY_KIND["face"])
    outcome = evaluate(setup)
    stages = stages_from(part_after(Blank(57.0, 60.0, 0.0), []), setup, outcome.passes)
    tips = [one.tip for one in stages]
    assert len(tips) == len(outcome.passes)
    assert tips[0][0] - tips[-1][0] == pytest.approx(sum(one.depth for one in outcome.passes[1:]))
    for stage, one in zip(stages, outcome.passes, strict=True):
        places = {round(place, 6) for place, _ in stage.band}
        assert max(places) - min(places) == pytest.approx(one.depth)
        assert 0.0 < stage.tip[1] < 57.0 / 2.0
        assert min(radius for _, radius in stage.band) == 0.0
