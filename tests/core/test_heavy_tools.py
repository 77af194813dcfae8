"""Heavy boring tools: which way each change moves, what is refused, what the remedies bring."""

from __future__ import annotations

import math
import random
from dataclasses import replace
from itertools import pairwise
from typing import Any

import numpy as np
import pytest
from shapely import box, union_all

from cutting.advice.contests import advise
from cutting.doors.command_line import main
from cutting.doors.heavy_tool_form import read_heavy_tool, written
from cutting.doors.json_form import SHIPPED, read_request, read_setup
from cutting.errors import CuttingError
from cutting.machine.machines import find_machine, machines
from cutting.motion.clock import clock
from cutting.motion.swept import swept
from cutting.operations.holes.heavy_bore import rebuild
from cutting.operations.holes.heavy_bore.evaluate import MODEL, explore
from cutting.operations.holes.heavy_bore.numbers import coaxialities, torque_over, zone
from cutting.operations.holes.heavy_bore.path import path
from cutting.operations.holes.heavy_bore.setup import BoringChain
from cutting.operations.registry import evaluate_quickly
from cutting.tooling.heavy.solids import Segment, body_materials, mass_of
from cutting.workpiece.bores import read_bores, with_units
from cutting.workpiece.bores import written as bores_written
from tests.core.heavy import EXAMPLES, figure, form_of, heavy, limits_of, numbers_of


@pytest.mark.parametrize(
    ("why", "change", "name", "sign"),
    [
        ("a thicker tube is heavier", {"segments": {1: {"inner": "70 mm"}}}, "mass", 1),
        ("and tilts more", {"segments": {1: {"inner": "70 mm"}}}, "moment", 1),
        ("hollow arms are lighter", {"segments": {2: {"share": "45"}}}, "mass", -1),
        ("and carry it nearer to the gripper", {"segments": {2: {"share": "45"}}}, "lever", -1),
        ("and swing higher", {"segments": {2: {"share": "45"}}}, "frequency", 1),
        ("and are sooner up to speed", {"segments": {2: {"share": "45"}}}, "spin_up", -1),
        ("more arms turn harder", {"segments": {2: {"arms": 4}}}, "inertia", 1),
        ("aluminium is light", {"segments": {1: {"material": "aluminium"}}}, "mass", -1),
        ("a softer seat swings lower", {"tool": {"holder": "HSK-A63 flange"}, "segments": {2: {"start": "197 mm"}}}, "frequency", -1),
        ("faster is more unbalance force", {"settings": {"cutting_speed": "700 m/min"}}, "unbalance_force", 1),
        ("and permits less", {"settings": {"cutting_speed": "700 m/min"}}, "permissible", -1),
        ("off the axis is more", {"tool": {"eccentricity": "20"}}, "unbalance", 1),
        ("a finer grade permits less", {"tool": {"balance_grade": "2.5"}}, "permissible", -1),
        ("more allowance is more torque", {"steps": {0: {"allowance": "1.2 mm"}}}, "torque", 1),
        ("more feed is more torque", {"settings": {"feed_per_rev": "0.3 mm/rev"}}, "torque", 1),
        ("and a shorter pass", {"settings": {"feed_per_rev": "0.3 mm/rev"}}, "engaged_time", -1),
        ("more edges share the chip", {"steps": {1: {"inserts": 4}}}, "edge_price", 1),
        ("worse steps of a tool are a wider zone", {"tool": {"between_steps": "0.006 mm"}}, "coaxiality", 1),
        ("wider outlets leave less for the others", {"steps": {0: {"outlet_diameter": "4 mm"}}}, "wanting", 1),
        ("a smaller corner marks deeper", {"steps": {2: {"nose_radius": "0.4 mm"}}}, "roughness", 1),
        ("a dearer insert is a dearer piece", {"tool": {"insert_price": "40"}}, "operation_cost", 1),
        ("faster edges last less", {"settings": {"cutting_speed": "700 m/min"}}, "median_parts", -1),
        ("a tool that comes slowly up to speed takes longer", {"segments": {2: {"arms": 12}}}, "chip_to_chip", 1),
    ],
)
def test_what_a_change_must_do(why: str, change: dict[str, Any], name: str, sign: int) -> None:
    def of(**sections: Any) -> float:
        x = numbers_of(**sections)
        return -float(x.flow[1]) if name == "wanting" else figure(x, name)

    assert sign * (of(**change) - of()) > 1e-9, why


@pytest.mark.parametrize("seed", range(20))
def test_segments_weigh_what_the_whole_weighs(seed: int) -> None:
    """Cut anywhere, a body's mass, moment and inertia stay; a heavier step never lightens it."""
    chance = random.Random(seed)
    metal = chance.choice(list(body_materials().values()))
    outer = chance.uniform(40, 200)
    arms = chance.choice([0, 3, 4])
    whole = Segment("body", chance.uniform(20, 60), chance.uniform(30, 250), outer, chance.uniform(0, 0.8) * outer, metal,
                    chance.uniform(0.3, 1), arms, 0.2 * outer)  # fmt: skip
    cut = chance.uniform(0.1, 0.9) * whole.length
    halves = [replace(whole, length=cut), replace(whole, start=whole.start + cut, length=whole.length - cut)]
    one, two = mass_of([whole]), mass_of(halves)
    assert (two.mass, two.lever, two.inertia) == pytest.approx((one.mass, one.lever, one.inertia), rel=1e-9)
    more = mass_of([replace(whole, share=min(1.0, whole.share + 0.1))])
    assert more.mass >= one.mass
    hollow = mass_of([replace(whole, inner=whole.inner / 2)])
    assert hollow.mass > one.mass or whole.inner == 0


def test_what_is_cut_together_adds_up() -> None:
    """Seat 14, bore 25 and bearing 24 long end together: by hand, when the seat begins the two others are in the cut."""
    x = numbers_of()
    seat, bore, bearing = x.step_torque
    assert list(x.enters) == pytest.approx([11.0, 0.0, 0.0])  # edges at 218, 243 and 298: the last runs 1 mm out of its bore
    stroke, over = torque_over(x)
    assert over[0] == pytest.approx(bore + bearing)
    assert float(x.torque[0]) == over.max() == pytest.approx(seat + bore + bearing)
    assert stroke[-1] == pytest.approx(25.0)
    for step, bored, cuts, torque in zip(x.setup.steps, x.setup.feature.bores, x.cutting_force, x.step_torque, strict=True):
        assert torque == pytest.approx(cuts * (bored.diameter.nominal - step.allowance / 2) / 2000)
    apart = numbers_of(feature={"bores": "200 H6 x 4 at 10 / 120 H7 x 25 / 62 H6 x 2 at 69"})  # the bearing is out before the seat is in
    assert float(apart.torque[0]) == pytest.approx(bore + max(seat, bearing))


def test_steps_that_do_not_stand_as_the_floors_lie_end_short() -> None:
    assert not limits_of()["reaches"].broken
    moved = limits_of(steps={1: {"at": "242 mm"}})["reaches"]
    assert moved.broken
    assert moved.value == pytest.approx(1.0)
    assert "Ø120" in moved.label
    beyond = numbers_of(steps={2: {"at": "301 mm"}})  # through: it runs out further
    assert float(beyond.short.max()) == pytest.approx(0.0)


def test_each_bore_is_told_from_what_was_there() -> None:
    """By hand: 0.6 and 0.5 mm on the diameter are made for; the bores whose edges come first are told first."""
    told = evaluate_quickly(heavy()).passes
    assert [(one.from_diameter, one.to_diameter, one.depth) for one in told] == [
        pytest.approx((119.4, 120.0, 0.3)),
        pytest.approx((61.5, 62.0, 0.25)),
        pytest.approx((199.4, 200.0, 0.3)),
    ]


def test_setting_takes_up_some_hundredths() -> None:
    """Common practice: cartridges are set within some hundredths of a millimetre, not within a tenth."""
    assert [limits_of(steps={1: {"at": f"{243 - off} mm"}})["reaches"].broken for off in (0.03, 0.1)] == [False, True]


def test_the_tool_takes_what_its_steps_leave() -> None:
    """π/4·(D² − d²)·L of plane geometry for every ring, and the seconds of its path those of the numbers, slow spindle or not."""
    setup = heavy()
    x = MODEL.quickly(setup)
    rings = [
        (bore.near, bore.far, bore.diameter.nominal, bore.diameter.nominal - step.allowance)
        for bore, step in zip(setup.feature.bores, setup.steps, strict=True)
    ]
    metal = union_all([box(rough / 2.0, -far, 150.0, -near) for near, far, _, rough in rings])
    volume = sum(math.pi / 4 * (size**2 - rough**2) * (far - near) for near, far, size, rough in rings)
    assert swept(path(x), metal).volume == pytest.approx(volume, rel=1e-3)
    weak = replace(setup, machine=replace(setup.machine, power_curve=((10.0, 0.02), (8000.0, 0.02))))
    for one in (setup, weak):
        x = MODEL.quickly(one)
        assert clock(path(x), one.machine).total == pytest.approx(float(x.engaged_time[0] + x.idle_time[0]), abs=0.2)
    assert float(x.spin_up[0]) > 5.0


def test_edges_last_as_the_row_says() -> None:
    """Taylor: at the row's middle speed and feed the widest step's edges last the row's 15 min in the cut."""
    x = numbers_of(settings={"feed_per_rev": "0.45 mm/rev"})  # 0.15 for each of three edges
    middle = float((x.tool.speed_low[0] + x.tool.speed_high[0]) / 2.0 * x.tool.speed_factor[0])
    x = numbers_of(settings={"feed_per_rev": "0.45 mm/rev", "cutting_speed": f"{middle} m/min"})
    cut = 60.0 * 14.0 / float(x.feed_rate[0])
    slower = [60.0 * 25.0 / float(x.feed_rate[0]) / 60.0 / 15.0 * (120 / 200) ** 2]
    assert cut / 60.0 / 15.0 == pytest.approx(float(x.engaged_time[0] / 60.0 / x.tool_life[0]), rel=1e-3)
    assert slower[0] < cut / 60.0 / 15.0


def test_the_map_reaches_beyond_book_and_setting() -> None:
    found, setup = explore(heavy()), heavy()
    high = float(MODEL.quickly(setup).book_high[0])
    assert 1.15 * high < found.across[-1] < 1.6 * high
    assert found.at == (setup.settings.cutting_speed, setup.feed)
    top = max(cell[3] for cell in found.sound)
    assert top == pytest.approx(0.5, rel=0.06)  # of two edges a quarter of a millimetre each
    far = explore(heavy(settings={"cutting_speed": "1500 m/min"}))
    assert 1.15 * 1500 < far.across[-1] < 1.6 * 1500
    assert {one.name for one in found.edges} >= {"book_speed", "book_feed"}


def test_edges_in_pairs_hold_each_other() -> None:
    """Common practice: one edge alone pushes the tool aside, several cancel most of it, pads carry the rest."""
    forms = {count: float(numbers_of(steps={1: {"inserts": count}}).cylindricity[1]) for count in (1, 2, 4)}
    assert forms[1] > 1.4 * forms[2]
    assert forms[2] > forms[4]
    assert float(numbers_of(steps={1: {"pads": 3}}).cylindricity[1]) < forms[2]


def test_warmth_is_set_off() -> None:
    """At 20 °C the target; warmer by what the part will shrink, so that back at 20 °C it is the target again."""
    cold, warm = (numbers_of(settings={"temperature": t}) for t in ("20", "30"))
    assert not cold.grown.any()
    assert float(cold.set_to[0]) == pytest.approx(200.0145)
    assert float(warm.set_to[0] - warm.grown[0]) == pytest.approx(float(cold.set_to[0]), abs=1e-4)
    assert limits_of(settings={"temperature_known": "3"})["warmth"].broken


def test_links_of_a_chain_add_as_squares() -> None:
    assert float(zone(0.003, 0.004)) == pytest.approx(0.010)
    one, two, apart = (wide for _, wide in coaxialities(0.003, BoringChain()))
    assert one < two < apart
    assert limits_of(feature={"coaxiality": "0.005 mm"})["coaxiality"].broken
    ways = rebuild.ways(heavy())
    assert [row.fits for row in ways] == [True, True, False]
    assert ways[1].more_seconds > 4.0
    assert ways[2].more_seconds > ways[1].more_seconds + 30.0  # a second clamping takes its while (common practice)
    assert [row.places for row in ways] == [1, 2, 2]


def rebuilt(name: str, **sections: Any) -> dict[str, rebuild.Rebuilt]:
    return {one.text: one for one in rebuild.rebuilt(heavy(name, **sections), machines())}


def test_the_rebuilt_are_tools_that_were_run() -> None:
    found = rebuilt("cup-tool-solid")
    assert not found["body of aluminium"].broken
    before = figure(numbers_of("cup-tool-solid"), "moment")
    assert found["body of printed steel"].moment < 0.6 * before
    assert found["bodies bored to tubes"].setup.heavy_tool.whole.mass < 16
    assert found["a seventh shorter"].moment < before
    assert "two tools: this one without its widest step" in found
    split = found["two tools: this one for its widest step alone"]
    narrow = found["two tools: this one without its widest step"].setup.heavy_tool
    whole, widest = heavy("cup-tool-solid").heavy_tool, max(step.diameter for step in narrow.steps)
    # what stands on the holder keeps its width; what reaches further out goes down to the widest bore that is left
    assert narrow.segments[0].outer == whole.segments[0].outer
    assert all(one.outer <= widest + 1e-6 for one in narrow.segments if one.start > whole.holder.face + 0.1)
    assert split.coaxiality > found["body of aluminium"].coaxiality
    for one in found.values():  # taking it gives what it said
        again = read_heavy_tool(written(one.setup.heavy_tool))
        assert (again.whole.mass, again.whole.lever) == pytest.approx(
            (one.setup.heavy_tool.whole.mass, one.setup.heavy_tool.whole.lever), rel=1e-4
        )
    arms = next(one for one in heavy().heavy_tool.segments if one.arms)
    hollow = rebuilt("cup-tool")["hollow arms"].setup.heavy_tool
    assert 0.4 < 1.0 - (heavy().heavy_tool.whole.mass - hollow.whole.mass) / arms.mass < 0.5  # a good half goes (common practice)
    short, tool = rebuilt("cup-tool")["a seventh shorter"].setup.heavy_tool, heavy().heavy_tool
    assert [b.at - a.at for a, b in pairwise(short.steps)] == pytest.approx([b.at - a.at for a, b in pairwise(tool.steps)])
    assert tool.length - short.length == pytest.approx(0.15 * (218.0 - 39.0))
    assert (short.segments[0].length, short.segments[-1].length) == pytest.approx((0.85 * 22.0, 60.0))
    assert rebuilt("cup-tool")["hollow arms"].moment < figure(numbers_of(), "moment")
    row = next(k for k, one in enumerate(tool.segments) if one.arms)
    nearly, more = (rebuilt("cup-tool", segments={row: {"share": share}}) for share in (45.5, 47))
    assert "hollow arms" not in nearly, "there is nothing to take out"
    assert "hollow arms" in more
    small = {"machine": "machining centre", "tool": {"holder": "BT40 flange"}, "segments": {2: {"start": "202 mm"}}}
    assert any(one.broken for one in limits_of(**small, settings={"coolant": "flood"}).values())
    assert any("on horizontal centre" in text for text in rebuilt("cup-tool", machine="machining centre", settings={"coolant": "flood"}))


def test_the_changer_names_who_carries_it() -> None:
    carried = {one.machine: one for one in rebuild.carriers(heavy(), machines())}
    assert carried["horizontal centre"].carries
    assert any("takes BT40" in why for why in carried["machining centre"].why)


def test_the_crib_is_ranked_for_the_bores() -> None:
    """What the changer does not carry is a near miss with its numbers; a tool without the steps is none at all."""
    asked = {name: value for name, value in form_of().items() if name not in ("tool", "settings")}
    found = advise(*read_request(asked))
    assert [row.edge for row in found.candidates] == ["Cup tool, hollow arms", "Cup tool, arms"]
    assert [row.edge for row in found.nearly] == ["Cup tool, solid steel"]
    assert found.nearly[0].miss
    for bores in ("201 H6 x 14 / 120 H7 x 25", "200 H6 x 14 / 120 H7 x 25 / 63 H6 x 24 at 69"):  # one step too many; one that is another
        other = advise(*read_request(asked | {"feature": {"bores": bores}}))
        assert not other.candidates
        assert {one.name for one in other.refused} == {"steps"}


@pytest.mark.parametrize(
    ("line", "said"),
    [
        ("200 H6", "is no size with a length"),
        ("200 H6 x 14 / 210 x 20", "not below"),
        ("200 H6 x 14 / 120 x 20 at 5", "inside the one before"),
        ("2 x 14", "outside 5 to 1500"),
        (" / ".join(f"{200 - k} x 1" for k in range(9)), "outside 1 to 8"),
        ("200 H6 x 0", "outside 0.1"),
    ],
)
def test_bores_that_cannot_be_are_refused_by_their_number(line: str, said: str) -> None:
    with pytest.raises(CuttingError, match=said) as refused:
        read_bores(line)
    assert refused.value.field == "feature.bores"


def test_bores_are_written_as_they_are_read() -> None:
    for line in ("200 H6 x 14 / 120 +0.03/0 x 25 / 62 x 24 at 69", "50 x 10"):
        first, again = read_bores(line), read_bores(bores_written(read_bores(line)))
        assert [(one.near, one.far, one.diameter.tolerance) for one in again] == [
            (one.near, one.far, one.diameter.tolerance) for one in first
        ]
    inch = read_bores(with_units("4 H7 x 1.5 / 2 H7 x 1 at 2", "inch"))
    assert [(one.diameter.nominal, one.near, one.far) for one in inch] == [
        pytest.approx((4 * 25.4, 0, 38.1)), pytest.approx((50.8, 50.8, 76.2)),
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"segments": {1: {"inner": "96 mm"}}}, "tool.heavy_tool.segments.1.inner"),
        ({"segments": {1: {"length": "0"}}}, "tool.heavy_tool.segments.1.length"),
        ({"segments": {1: {"material": "cheese"}}}, "tool.heavy_tool.segments.1.material"),
        ({"segments": {1: {"start": "90 mm"}}}, "tool.heavy_tool.segments.1"),
        ({"segments": {4: {"outer": "30 mm", "inner": "10 mm"}}}, "tool.heavy_tool.segments.4"),
        ({"segments": {2: {"width": "0"}}}, "tool.heavy_tool.segments.2.width"),
        ({"segments": {2: {"arms": 99}}}, "tool.heavy_tool.segments.2.arms"),
        ({"segments": {0: {"share": "2"}}}, "tool.heavy_tool.segments.0.share"),
        ({"steps": {0: {"diameter": "wide"}}}, "tool.heavy_tool.steps.0.diameter"),
        ({"steps": {0: {"diameter": "120 mm"}}}, "tool.heavy_tool.steps.1.diameter"),
        ({"steps": {1: {"at": "900 mm"}}}, "tool.heavy_tool.steps.1.at"),
        ({"steps": {1: {"inserts": 0}}}, "tool.heavy_tool.steps.1.inserts"),
        ({"steps": {1: {"allowance": "0"}}}, "tool.heavy_tool.steps.1.allowance"),
        ({"steps": {1: {"colour": "red"}}}, "tool.heavy_tool.steps.1.colour"),
        ({"tool": {"holder": "rope"}}, "tool.heavy_tool.holder"),
        ({"tool": {"grade": "butter"}}, "tool.heavy_tool.grade"),
        ({"tool": {"balance_grade": "0"}}, "tool.heavy_tool.balance_grade"),
        ({"feature": {"bores": "200 H6 x 14 / 120 H7 x 25"}}, "tool.heavy_tool"),
        ({"feature": {"bores": "200 H6 x 14 / 121 H7 x 25 / 62 H6 x 24 at 69"}}, "tool.heavy_tool"),
        ({"machine": "two-axis lathe"}, "machine"),
        ({"settings": {"coolant": "tea"}}, "settings.coolant"),
        ({"settings": {"temperature": "400"}}, "settings.temperature"),
        ({"holding": {"axis": "9 mm"}}, "holding.axis"),
        ({"material": "wood"}, "material"),
        ({"units": "feet"}, "units"),
    ],
)
def test_what_cannot_be_is_refused_by_field(change: dict[str, Any], field: str) -> None:
    with pytest.raises(CuttingError) as refused:
        numbers_of(**change)
    assert refused.value.field == field


def test_an_empty_tool_and_one_of_arms_alone() -> None:
    whole = form_of()["tool"]["heavy_tool"]
    for section in ("segments", "steps"):
        with pytest.raises(CuttingError) as refused:
            read_heavy_tool(whole | {section: []})
        assert refused.value.field == f"tool.{section}"
    with pytest.raises(CuttingError, match="carries"):
        read_heavy_tool(whole | {"segments": [whole["segments"][2]]})
    with pytest.raises(CuttingError) as refused:
        read_heavy_tool(whole | {"steps": [whole["steps"][0]] * 30})
    assert refused.value.field == "tool.steps"


def test_it_is_solved_at_the_command_line(capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["solve", str(EXAMPLES / "cup-tool.json")]) == 0
    said = capsys.readouterr().out
    assert '"feasible": true' in said
    assert '"changer_moment"' in said


def test_inches_mean_the_same() -> None:
    inch = form_of()
    inch["units"] = "inch"
    inch["tool"]["heavy_tool"]["segments"][1]["length"] = f"{174 / 25.4:.6f}"
    inch["feature"]["bores"] = "200 mm H6 x 14 mm / 120 mm H7 x 25 mm / 62 mm H6 x 24 mm at 69 mm"
    assert read_setup(inch).heavy_tool.whole.mass == pytest.approx(heavy().heavy_tool.whole.mass, rel=1e-5)
    assert heavy().heavy_tool.length == pytest.approx(303.0)


def test_a_machine_without_flood_bores_heavy_work_too() -> None:
    form = form_of()
    dry = replace(SHIPPED, machine=lambda name: replace(find_machine(name), coolant=(("dry", 0.0),)))
    untold = {name: value for name, value in form["settings"].items() if name != "coolant"}
    assert read_setup({**form, "settings": untold}, dry).settings.coolant == "dry"


def test_the_map_has_as_many_feeds_as_speeds_and_holds_the_present_point() -> None:
    from_map = explore(heavy(), cells=12)
    assert len(from_map.across) == len(from_map.up) == 12
    assert from_map.up[0] > 0
    assert from_map.up[-1] >= heavy().feed
    assert np.diff(from_map.up) == pytest.approx(from_map.up[0])


def test_a_good_machine_bores_round_to_three_to_five_micrometres() -> None:
    """Common practice, no source; a shop enters what it measured."""
    assert 0.003 <= BoringChain().machine_round <= 0.005
