"""Limits of a drilled hole as data: speeds and feeds of each layer, heat, twist, thrust, chips, coolant, size, burr, life."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np

from cutting.operations.frame import common_limits
from cutting.operations.frame.outcome import Bound, Severity
from cutting.operations.frame.rule import Rule
from cutting.operations.frame.toughness import toughness_asked
from cutting.operations.holes.drill.numbers import Numbers
from cutting.operations.holes.drill.setup import HoleFeature
from cutting.tooling.drills import reamer_lead
from cutting.wear.drilling import feed_row
from cutting.working import Line, in_words, line
from cutting.working.line import COMMON

MINIMUM_CHIP = 0.25  # of the edge's radius, below which a lip only rubs (common practice)
LEAST_SPEED = 0.35  # of the book's lowest that still cuts well (common practice)
TWIST_SURE, BUCKLING_SURE = 2.0, 2.5
FLOOR_GIVES = 0.1  # mm that a free floor may give (common practice)
WANTED_FLOW = 0.6  # l/min for each mm of diameter, least that is wanted through the tool (common practice)
HARD_DEEP = 3.0  # diameters that hardened steel is drilled deep (common practice)
DEEP = 10.0  # diameters from which a hole wants a pilot
# share of the feed at which a drill may enter a leaning face, up to so many degrees; beyond only a flat point may (common practice)
LEANS = ((3.0, 1.0), (8.0, 0.5), (15.0, 0.3))
FLAT_POINT, FLAT_MOST, FLAT_SHARE = 178.0, 45.0, 0.3
CURVED = 8.0  # ° that a curved face counts as (common practice)
BROKEN_EXIT = {True: 0.7, False: 0.5}  # share of the feed where the exit is broken: high-speed steel forgives, carbide chips


REAMED = (0.05, 0.012, 0.25, 0.02)  # least and most that a reamer takes on the diameter: mm, and for each mm of it (common practice)
CORED = (0.04, 0.6)  # shares of the diameter that a core drill takes (common practice)


BELOW_LEAD = 1.0  # mm that a hole is free below the chamfer of its reamer (common practice)
STEEPEST = 0.05  # of the feed, on what no drill should enter


def deeper_for_reamer(diameter: float) -> float:
    """How much deeper than it is reamed a blind hole must be drilled [mm]: the chamfer cuts no full size (common practice)."""
    return reamer_lead(diameter) + BELOW_LEAD


def allowances(diameter: Any, reams: Any) -> tuple[Any, Any]:
    """Least and most [mm] that an enlarging tool of a diameter [mm] takes on it: a reamer some tenths, a core drill a share."""
    least = np.where(reams, REAMED[0] + REAMED[1] * 0.5 * diameter, CORED[0] * diameter)
    return least, np.where(reams, REAMED[2] + REAMED[3] * diameter, CORED[1] * diameter)


def entry_share(entry_angle: float, curved: bool, point_angle: Any) -> Any:
    """Largest share of the feed with which a drill of a point angle [°] may enter; 0.05 where it may not."""
    angle = max(entry_angle, CURVED if curved else 0.0)
    usual = next((share for most, share in LEANS if angle <= most), STEEPEST)
    flat = FLAT_SHARE if angle <= FLAT_MOST else STEEPEST
    return np.where(np.asarray(point_angle) >= FLAT_POINT, max(usual, flat), usual)


def broken_exit_of(feature: HoleFeature) -> bool:
    """Whether the lips leave the metal one after the other."""
    return (feature.through and feature.exit_angle > 3.0) or feature.cross_hole > 0.0


def broken_exit(x: Numbers) -> bool:
    """The same, of one set-up's numbers."""
    return broken_exit_of(x.setup.feature)


def exit_share(forgives: bool) -> float:
    """Largest share of the feed at a broken exit; of high-speed steel, which forgives, a little more."""
    return BROKEN_EXIT[forgives]


def _entry(x: Numbers) -> Any:
    f = x.setup.feature
    spotted = f.entry.value == "spotted"
    return entry_share(0.0 if spotted else f.entry_angle, f.entry.value == "curved", x.tool.own["point_angle"])


def _exit(x: Numbers) -> Any:
    return np.where(x.tool.hss, BROKEN_EXIT[True], BROKEN_EXIT[False])


def _asked_tolerance(x: Numbers) -> Any:
    """What is left of the tolerance for the hole to be wider than the drill."""
    size = x.setup.feature.diameter
    return size.nominal + (size.upper_deviation or 0.0) - x.tool.own["diameter"]


def _toleranced(x: Numbers) -> bool:
    return x.setup.feature.diameter.upper_deviation is not None


def worn_torque(x: Numbers) -> Line:
    """The worn lips' torque and what the margins rub."""
    worn = x.setup.house.wear_factor
    if x.layers.count > 1:  # what rubs in the layers above is still there
        return line("{wear}·{torque} + {margins_so_far}", wear=worn, torque=x.lip_torque, margins_so_far=x.margin_torque)
    return line("{wear}·{torque} + {margin_torque}", wear=worn, torque=x.lip_torque, margin_torque=x.margin_torque)


def worn_thrust(x: Numbers) -> Line:
    """The worn drill's thrust."""
    worn = x.setup.house.wear_factor
    return line("{wear}·{thrust}", wear=worn, thrust=x.thrust / worn)


def surely(x: Numbers) -> Line:
    """Holes that a drill makes as surely as the house asks."""
    sure = x.setup.house.change_probability(x.setup.goal)
    return line(
        "{half_of_them_last}·(−log2({sure}))^(1/{weibull_shape})", half_of_them_last=x.holes, sure=sure, weibull_shape=x.weibull_shape
    )


_RULES: tuple[Rule[Numbers], ...] = (
    Rule("reach", "reach", "length", Bound.UPPER, Severity.HARD, "iso-13399",
         "The flutes must stay open at the hole's mouth: the usable length is the deepest hole.",
         lambda x: (x.setup.depth, None, x.tool.own["reach"])),
    common_limits.book_speed("Shares of the turning speed by type of drill: both lips stand in the heat of the hole.", contour=True),
    Rule("useful_speed", "minimum speed", "cutting_speed", Bound.LOWER, Severity.SOFT, "common-practice",
         "Far below the recommended speed an edge builds up, the wall tears and carbide chips.",
         lambda x: (x.cutting_speed, LEAST_SPEED * x.book_low, None), contour=True),
    Rule("book_feed", "recommended feed", "feed_per_rev", Bound.WINDOW, Severity.HARD, "common-practice",
         "A share of the diameter by metal and type of drill.",
         lambda x: (x.feed, x.tool.feed_low, x.tool.feed_high), contour=True, free_below=True),
    Rule("useful_feed", "minimum feed", "feed_per_rev", Bound.LOWER, Severity.SOFT, "common-practice",
         "Far below the recommended feed the lips rub, the metal hardens and the chip does not break.",
         lambda x: (x.feed, x.tool.own["type_least_feed"] * x.tool.feed_low, None), contour=True),
    Rule("reamer_feed", "minimum feed, reamer", "feed_per_rev", Bound.LOWER, Severity.SOFT, "common-practice",
         "Fed less than its window a reamer rubs: the hole comes out tight or torn, and the lands wear.",
         lambda x: (x.feed, x.tool.feed_low, None), (), lambda x: x.tool.own["type_reams"] > 0, contour=True),
    Rule("minimum_chip", "min. chip thickness", "small_length", Bound.LOWER, Severity.HARD, "brammertz-1961",
         "A chip thinner than a quarter of the edge's radius is not cut: the drill rubs, hardens and heats.",
         lambda x: (1000.0 * x.chip_thickness, MINIMUM_CHIP * x.tool.own["type_edge_radius"], None), ("chip_thickness",), contour=True,
         ends=lambda x: line("1000·{chip_thickness}", chip_thickness=x.chip_thickness)),
    Rule("corner_heat", "corner heat, °C", "number", Bound.UPPER, Severity.HARD, "cook-1973",
         "The corner runs fastest and is cooled last; beyond its limit it goes soft. By comparison, scaled to the recommended speed.",
         lambda x: (x.temperature, None, x.tool.softening), ("specific_force", "temperature_rise"),
         lambda x: ~x.layers.laminate, contour=True,
         ends=lambda x: in_words("20 °C and the rise, scaled so that the recommended speed stands; hotter where no coolant comes")),
    Rule("push_out", "delamination thrust", "force", Bound.UPPER, Severity.HARD, "hocheng-dharan-1990",
         "Where nothing holds the last plies, the chisel edge pushes them off before it cuts them.",
         lambda x: (x.thrust, None, x.opens), ("lip_thrust", "thrust"), lambda x: np.isfinite(x.layers.push_out),
         contour=True, ends=worn_thrust),
    Rule("twist", "drill torque, worn", "torque", Bound.UPPER, Severity.HARD, "common-practice",
         "Half of the torque that twists the fluted body off.",
         lambda x: (x.torque, None, x.twist / TWIST_SURE), ("specific_force", "torque", "margin_torque"), contour=True, ends=worn_torque,
         bound_ends=lambda x: line("{twists_off_at}/{sure}", COMMON, twists_off_at=x.twist, sure=TWIST_SURE)),
    Rule("chuck_grip", "toolholder torque", "torque", Bound.UPPER, Severity.HARD, "common-practice",
         "A shank that slips is scored and pulled out at break-through.",
         lambda x: (x.torque, None, x.tool.grip / x.setup.house.grip_safety), ("torque", "margin_torque"), contour=True,
         spare=common_limits.house_grip, ends=worn_torque, bound_ends=common_limits.chuck_keeps),
    Rule("jaw_grip", "grip torque", "torque", Bound.UPPER, Severity.HARD, "vdi-3106",
         "The part must not turn in its jaws under the drill; where it turns they lose grip with speed.",
         lambda x: (x.torque, None, x.held / x.setup.house.grip_safety), ("torque", "margin_torque"),
         lambda x: x.setup.machine.jaw_force > 0, contour=True,
         spare=common_limits.house_grip, ends=worn_torque, bounded=("grip_torque",), bound_ends=common_limits.grip_kept(lambda x: x.held)),
    common_limits.spindle_power(
        "The spindle must drive the worn drill with what its margins rub.", "specific_force", "torque", "margin_torque", contour=True,
        ends=common_limits.power_of_torque),
    Rule("machine_thrust", "axis thrust", "force", Bound.UPPER, Severity.HARD, "machine-data",
         "What the feed drive, the nose-piece or the hand behind it can push.",
         lambda x: (x.thrust, None, x.setup.machine.axial_force), ("lip_thrust", "thrust"),
         lambda x: x.setup.machine.axial_force > 0, contour=True, ends=worn_thrust),
    Rule("buckling", "buckling thrust", "force", Bound.UPPER, Severity.HARD, "euler",
         "A slender drill bows out before its point is guided; the hole starts askew or the drill breaks.",
         lambda x: (x.thrust, None, x.buckling / BUCKLING_SURE), ("lip_thrust", "thrust"), contour=True, ends=worn_thrust,
         bound_ends=lambda x: line("{bows_out_at}/{sure}", COMMON, bows_out_at=x.buckling, sure=BUCKLING_SURE)),
    Rule("feed_drive", "axis feed rate", "feed_rate", Bound.UPPER, Severity.HARD, "machine-data", "The axis moves no faster.",
         lambda x: (x.feed_rate, None, x.setup.machine.feed_rate_max), (), lambda x: not x.setup.machine.gear_set),
    Rule("floor_gives", "floor deflection", "length", Bound.UPPER, Severity.SOFT, "roark",
         "A floor that springs away lets the drill snatch as it breaks through: support it.",
         lambda x: (x.floor, None, FLOOR_GIVES), ("lip_thrust", "thrust"), lambda x: x.setup.feature.span > 0,
         ends=lambda x: in_words("a plate held at its edge under the thrust in its middle")),
    Rule("packing", "flute packing", "share", Bound.UPPER, Severity.HARD, "common-practice",
         "Loose chips take 4 to 15 times the room of the metal: they flow out, are washed out, or the drill comes back before they pack.",
         lambda x: (100.0 * x.packing, None, 100.0)),
    Rule("through_flow", "flow through the tool", "flow", Bound.LOWER, Severity.SOFT, "bernoulli",
         "About a litre a minute for each millimetre of diameter carries the chips; what the pump gives at these outlets.",
         lambda x: (x.tool.flow, WANTED_FLOW * x.tool.own["diameter"], None), (),
         lambda x: (x.tool.flow > 0) & (x.setup.depth > 3.0 * x.tool.own["diameter"])),
    Rule("least_pressure", "coolant pressure", "pressure", Bound.LOWER, Severity.HARD, "common-practice",
         "A gun drill has one lip and a straight flute: only coolant under pressure through it brings the chips out and its pads wet.",
         lambda x: (x.tool.pressure, x.tool.own["type_least_pressure"], None), (), lambda x: x.tool.own["type_least_pressure"] > 0),
    Rule("entry", "feed at the entry", "share", Bound.UPPER, Severity.HARD, "common-practice",
         "On a leaning or curved face only a part of the lips cuts and pushes the drill aside: half or a third of the feed until the"
         " corner is in; beyond 15° a spot face, or a flat point.",
         lambda x: (100.0 * x.setup.settings.entry_feed, None, 100.0 * _entry(x)), (),
         lambda x: x.setup.feature.entry_angle > 0 or x.setup.feature.entry.value == "curved"),
    Rule("broken_exit", "feed at the exit", "share", Bound.UPPER, Severity.HARD, "common-practice",
         "Where the lips leave one after the other the drill is thrown: half of the feed; carbide chips, high-speed steel forgives.",
         lambda x: (100.0 * x.setup.settings.exit_feed, None, 100.0 * _exit(x)), (), broken_exit),
    Rule("allowance", "stock, on Ø", "length", Bound.WINDOW, Severity.HARD, "common-practice",
         "Too little and it rubs and polishes, too much and it cuts wide and tears: some tenths for a reamer, more for a core drill.",
         lambda x: (x.tool.own["diameter"] - x.setup.feature.pilot, *allowances(x.tool.own["diameter"], x.tool.own["type_reams"] > 0)), (),
         lambda x: (x.tool.own["type_enlarges"] > 0) & (x.setup.feature.pilot > 0)),
    Rule("flat_floor", "point angle, flat floor", "angle", Bound.LOWER, Severity.HARD, "common-practice",
         "A point leaves its cone at the floor; a flat one, or an end mill, does not.",
         lambda x: (x.tool.own["point_angle"], FLAT_POINT, None), (), lambda x: x.setup.feature.flat and not x.setup.feature.through),
    Rule("tolerance", "hole oversize", "length", Bound.UPPER, Severity.HARD, "iso-286",
         "The width that this type of drill usually reaches, with its runout, must fit into what the tolerance leaves above its size.",
         lambda x: (x.width, None, np.maximum(_asked_tolerance(x), 1e-4)), (), _toleranced),
    Rule("finish", "finish Ra", "small_length", Bound.UPPER, Severity.HARD, "common-practice", "What the drawing asks for on the wall.",
         lambda x: (x.roughness, None, x.setup.feature.roughness), (), lambda x: x.setup.feature.roughness is not None),
    Rule("position", "position, zone Ø", "length", Bound.UPPER, Severity.HARD, "common-practice",
         "How far the hole lies off its place: the drill's wandering at the start, a leaning entry, runout.",
         lambda x: (x.position, None, x.setup.feature.position), (), lambda x: x.setup.feature.position is not None),
    Rule("straightness", "straightness", "length", Bound.UPPER, Severity.HARD, "common-practice",
         "How far the hole runs off over its depth.",
         lambda x: (x.straightness, None, x.setup.feature.straightness), (), lambda x: x.setup.feature.straightness is not None),
    Rule("burr", "burr at the exit, worn", "length", Bound.UPPER, Severity.SOFT, "ko-dornfeld-1996",
         "Less feed at the exit, a sharper corner, a flatter point or a backing plate lower it.",
         lambda x: (x.burr[..., -1:], None, x.setup.feature.burr), (), lambda x: x.setup.feature.burr is not None, contour=True),
    Rule("runout", "runout at the corner", "length", Bound.UPPER, Severity.SOFT, "common-practice",
         "Of chuck and spindle together: carbide chips where one lip does the work of two; high-speed steel forgives.",
         lambda x: (x.tool.runout, None, x.tool.own["type_runout"])),
    Rule("offset", "drill off-centre", "length", Bound.UPPER, Severity.SOFT, "common-practice",
         "A standing drill beside the axis cuts wide and conical and breaks its corner.",
         lambda x: (x.setup.settings.offset, None, np.where(x.tool.hss, 0.1, 0.03)), (), lambda x: x.setup.settings.offset > 0),
    Rule("hard_deep", "depth in hard metal, L/D", "times_diameter", Bound.UPPER, Severity.SOFT, "common-practice",
         "Solid carbide drills hardened steel to about three diameters: deeper, drill it before it is hardened, or erode it.",
         lambda x: (x.setup.depth / x.tool.own["diameter"], None, HARD_DEEP), (),
         lambda x: feed_row(x.setup.work.material) == "hardened"),
    Rule("deep_start", "unpiloted depth, L/D", "times_diameter", Bound.UPPER, Severity.SOFT, "common-practice",
         "From ten diameters on a pilot of the same or a flatter point, 1.5 to 2 deep, keeps the drill from walking and whipping.",
         lambda x: (x.setup.depth / x.tool.own["diameter"], None, DEEP), (),
         lambda x: x.setup.feature.pilot <= 0 and x.setup.feature.entry.value != "spotted"),
    Rule("letters", "grade suitability", "share", Bound.UPPER, Severity.SOFT, "iso-513",
         "One drill through several materials is made for some of them: in the others it wears sooner.",
         lambda x: (np.where(x.tool.serves, 0.0, 101.0), None, 100.0), (), lambda x: x.layers.count > 1),
    Rule("toughness", "edge toughness", "number", Bound.LOWER, Severity.SOFT, "common-practice",
         "A broken exit, a loose machine and skin chip brittle edges.",
         lambda x: (x.tool.toughness, toughness_asked(x.setup, 1.0, 0.25 if broken_exit(x) else 0.0), None)),
    Rule("count", "reliable holes, per drill", "count", Bound.LOWER, Severity.SOFT, "weibull-1951",
         "As surely as the house asks, every drill makes as many as are asked of it.",
         lambda x: (x.sure_holes, float(x.setup.feature.asked_holes or 0), None), ("tool_life", "weibull_shape"),
         lambda x: x.setup.feature.asked_holes is not None, ends=surely),
    common_limits.life("drill"),
    common_limits.secure(),
)  # fmt: skip


def _in_layer(x: Numbers, layer: int) -> str:
    return f"{layer + 1} {x.setup.layers[layer].name}"


RULES: tuple[Rule[Numbers], ...] = tuple(replace(one, where=_in_layer) for one in _RULES)
