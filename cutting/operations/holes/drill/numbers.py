"""The numbers of a drilled hole, layer by layer, over one drill or many: force, heat, chips, size, life and money."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from cutting.belief.beliefs import spread_of
from cutting.mechanics import drill_body, drilling, force, heat
from cutting.mechanics.ring import ring_torque
from cutting.motion.clock import around_seconds, rapid_seconds
from cutting.motion.places import between_seconds
from cutting.motion.trace import CLEAR
from cutting.operations.frame.chance import kept_in_hand
from cutting.operations.frame.jaws import held_torque
from cutting.operations.frame.money import Spent, spend
from cutting.operations.frame.over_passes import of_one, over_passes
from cutting.operations.holes.drill.setup import DrillSetup, HoleEntry, Pecks
from cutting.operations.holes.drill.tool import Array, DrillTool
from cutting.operations.holes.shared import reached
from cutting.operations.holes.shared.layers import Layers, layer_numbers
from cutting.operations.holes.shared.pecks import (
    BROKEN_BULK,
    LEAST,
    MOST_GAIN,
    NEXT,
    free_depth,
    peck_times,
    wanted_pressure,
)
from cutting.wear import life, spread
from cutting.working import Silent

DRILLING_FORM = 1.2  # Tschätsch's correction of the specific force for drilling
APPROACH, BREAK_THROUGH = 1.0, 1.0  # mm at feed before and behind the metal
CORNER_IN = 0.5  # mm that the corner is in before a slower entry ends
OF_ITS_SIZE = 0.01  # of its nominal diameter that a tool differs at the most to count as of its size
CHAMFERED = 3.0  # s for each chamfer with a tool of its own (common practice)
BETWEEN_HOLES = 1.2  # s from one hole to the next (common practice)
HEATS_DRY, HEATS_WET = 0.03, 0.01  # of the rise that each diameter of depth adds (common practice)
DRY_MARGINS = 1.6  # × what margins rub without coolant (common practice)
FIBRES = 0.45  # of the life that a row promises: fibres round every lip but a diamond (common practice)
ROUNDED = 1.5  # of a metal's wear, that each share of the fibres' adds to it (common practice: a hundred holes with plain carbide)
ROW_LIFE = 15.0  # min for which the law of life is written
RUNS_OUT = (1.0, 0.3)  # power of the excess of runout by which carbide and high-speed steel lose life (common practice)
PACKS_UP = 0.02  # chance a hole that a drill whose chips just pack jams (common practice)
JAMS_FROM = 0.85
PECK_SPARE = 0.005  # of the flutes, so that rounding leaves no doubt
OPENED = 0.98  # of its Ø: a hole that is opened leaves the lips at least that ring
OVERSIZE = 0.4  # of its scatter that a drill cuts over its own Ø in a clean metal, twice that in one that sticks (common practice)
FREELY = 1.6  # index 100 up to 0.6 of what the flutes carry, 0 from 1.6
LEAST_CHIPS = 0.05  # of a whole hole's chips, however wide it was before
WASHED = 1.2  # times the depth that its full pressure lifts chips from
WITHDRAWN = 1.25  # times a usual peck: after each the flutes are empty
SOFT_AT = 0.9  # of what an edge stands at its book speed: a drill wears before it softens


@dataclass(frozen=True)
class Numbers(Spent):
    """What limits and results read; by layer (..., layers), else (..., 1); N, N·m, kW, mm, K, bar, s."""

    setup: Any
    tool: DrillTool
    layers: Layers
    spindle_speed: Array
    cutting_speed: Array
    feed_set: Array
    feed: Array
    feed_rate: Array
    chip_thickness: Array
    specific_force: Array
    lip_torque: Array
    torque: Array  # worn, with the margins
    margin_torque: Array
    lip_thrust: Array
    thrust: Array  # worn
    power: Array
    available: Array
    temperature: Array  # °C at the corner, by comparison
    tool_life: Array
    weibull_shape: Array
    wear: Array  # by layer: share of a drill's life that a hole takes
    holes: Array  # that a drill lasts, median
    sure_holes: Array  # that it lasts as surely as the house asks
    book_low: Array
    book_high: Array
    packing: Array  # share of the depth that its flutes stand
    pressure_wanted: Array
    pecks: Array
    peck_seconds: Array
    chip_index: Array
    width: Array  # of the tolerance that it reaches
    roughness: Array
    position: Array
    straightness: Array
    burr: Array
    buckling: Array
    twist: Array
    opens: Array  # thrust that parts the last plies of each layer
    floor: Array
    diameter_cut: Array  # by layer, mm: what the hole measures
    held: Array  # torque that the jaws hold, 0 where none grip

    @property
    def strokes_taken(self) -> int:
        """How often the drill comes in."""
        return 1 + int(np.max(self.pecks))


def numbers(setup: DrillSetup, tool: DrillTool, speed: Any, feed: Any, record: Silent, stepped: bool = True) -> Numbers:
    """Everything computed at speeds [m/min] and feeds [mm/rev]; `stepped`: as the machine's gears have them."""
    f, s, machine, worn = setup.feature, setup.settings, setup.machine, setup.house.wear_factor
    layers, own = layer_numbers(setup.layers, f.through), tool.own
    diameter, angle, flutes, web = own["diameter"], own["point_angle"], own["flutes"], own["web"]
    faster, more = _ratios(setup)
    drive = machine.drive() if stepped else machine.drive().smooth
    n = drive.at(np.asarray(speed) * faster, diameter)
    fed = drive.fed(np.asarray(feed) * more, by_hand=setup.from_tailstock)
    v = np.pi * diameter * n / 1000.0
    h = record(drilling.lip_chip_thickness, feed_per_rev=fed, flutes=flutes, point_angle=angle)
    kc = record(
        force.specific_cutting_force,
        specific_force_1=layers.specific_force_1,
        chip_thickness=h,
        force_exponent=layers.force_exponent,
        rake_factor=1.0,
        wear_factor=1.0,
        form_factor=DRILLING_FORM,
        note="kc1.1 and mc of the layer",
    )
    pilot = np.minimum(f.pilot, OPENED * diameter)
    lip_torque = record(ring_torque, specific_force=kc, feed_per_rev=fed, diameter=diameter, inner_diameter=pilot, note="of the sharp lips")
    lips = record(drilling.lip_thrust, specific_force=kc, feed_per_rev=fed, diameter=diameter, inner_diameter=pilot, point_angle=angle)
    share = own["chisel_share"] if setup.learned.chisel_share is None else setup.learned.chisel_share
    chisel = np.where(pilot >= web, 0.0, share)
    thrust = worn * record(drilling.drill_thrust, lip_thrust=lips, chisel_share=chisel, note="sharp; limits add wear")
    rubbed = _margins(setup, layers, lip_torque, diameter, record)
    torque = worn * lip_torque + rubbed
    in_layer, total = _seconds(setup, layers, tool, n, fed)
    pecks = _pecks(setup, layers, tool)
    lasts = _lasting(setup, layers, tool, v, fed, record)
    wear = _rounded_by_fibres(layers, in_layer / 60.0 / lasts)
    used_hole = over_passes(wear, np.add)
    if setup.learned.growth is not None and worn > 1.0:  # what was seen on this drill in these layers stands before the law
        a, b = setup.learned.growth
        used_hole = np.broadcast_to(((worn - 1.0) / a) ** (-1.0 / b), used_hole.shape)
    shape = record(spread.weibull_shape, coefficient_of_variation=over_passes(tool.coefficient_of_variation))
    probability = setup.house.change_probability(setup.goal)
    packing, pressure = packing_of(setup, layers, tool)
    packing = record.of("chips", packing)
    jams = PACKS_UP * np.clip((packing - JAMS_FROM) / (1.0 - JAMS_FROM), 0.0, 1.0) ** 2
    engaged = f.count * total
    out = setup.depth + APPROACH + CLEAR + drilling.cone_length(diameter, angle) + (BREAK_THROUGH if f.through else 0.0)
    each = pecks.seconds + rapid_seconds(CLEAR, machine) + rapid_seconds(out, machine)
    idle = around_seconds(machine) + f.count * each + between_seconds(machine, f.circle, f.count)
    if f.chamfer:  # by another tool where it has no step
        idle = idle + np.where(own["step"] >= f.chamfer - 1e-9, 0.0, around_seconds(machine) + f.count * CHAMFERED)
    money = spend(setup, engaged, idle, f.count * used_hole, shape, own["life_price"], 1.0 - (1.0 - jams) ** f.count, record)
    at_end = setup.depth / diameter * (HEATS_WET if (machine.pressure(s.coolant) or 0.0) > 0 else HEATS_DRY) * (tool.pressure <= 0)
    # a drill or reamer of the hole's size, some hundredths off its nominal, is told in the hole's own step of diameters (ISO 286)
    wide = np.where(np.abs(diameter - f.diameter.nominal) <= OF_ITS_SIZE * f.diameter.nominal, f.diameter.nominal, diameter)
    width = reached.tolerance_width(wide, own["it"] + _worse(setup, tool))
    over = np.where(layers.laminate, 0.0, width * OVERSIZE * (1.0 + layers.adhesion)) - _springs_back(layers, diameter)
    return Numbers(
        **money, setup=setup, tool=tool, layers=layers,
        spindle_speed=n, cutting_speed=v, feed_set=over_passes(np.asarray(feed, float)), feed=fed, feed_rate=fed * n,
        chip_thickness=h, specific_force=kc, lip_torque=lip_torque, torque=torque, margin_torque=rubbed, lip_thrust=lips, thrust=thrust,
        power=torque * n / 9549.3, available=record.of("power", machine.spindle_power(n)),
        temperature=_temperature(layers, tool, kc, v, h, at_end, record),
        tool_life=over_passes(total) / 60.0 / used_hole, weibull_shape=shape,
        wear=wear,
        holes=1.0 / used_hole, sure_holes=spread.life_quantile(probability, shape) / used_hole,
        book_low=tool.speed_low * tool.speed_factor, book_high=tool.speed_high * tool.speed_factor,
        packing=packing, pressure_wanted=pressure, pecks=pecks.count, peck_seconds=pecks.seconds,
        chip_index=100.0 * np.clip(FREELY - packing, 0.0, 1.0),
        width=width + 2.0 * s.offset, roughness=record.of("finish", _finish(tool, fed, layers)),
        position=reached.position(own["type_position"], f.entry is not HoleEntry.FLAT or f.pilot > 0, f.entry_angle, tool.runout),
        straightness=setup.depth * own["type_straightness"] / 1000.0 * (0.5 if setup.turns_part else 1.0),
        burr=record.of("burr", reached.burr_height(fed * s.exit_feed, layers.ductility, angle)) * _left_open(layers, f.through),
        buckling=record.of(
            "strength", drill_body.buckling_force(own["modulus"], drill_body.drill_second_moment(diameter), own["flute_length"])
        ),
        twist=record.of("strength", drill_body.twist_strength(diameter, own["shear"])),
        opens=record.of("plies", layers.push_out),
        floor=record.of("give", drill_body.floor_deflection(over_passes(thrust), f.span / 2.0, layers.modulus, setup.depth))
        if f.span
        else np.zeros(1),
        diameter_cut=diameter + over + 2.0 * s.offset,
        held=held_torque(setup, n if setup.turns_part else np.zeros_like(n), setup.holding.grip_diameter, record),
    )  # fmt: skip


def one_of(x: Numbers, k: int, setup: DrillSetup) -> Numbers:
    """The numbers of one of many drills, in its own set-up."""
    own: dict[str, Any] = dict(of_one(x, k))
    return replace(x, setup=setup, tool=x.tool.take(k), **own)


def _ratios(setup: DrillSetup) -> tuple[Any, Any]:
    """Speed and feed of each layer over those that are set."""
    s = setup.settings
    if not s.per_layer:
        return 1.0, 1.0
    speeds, feeds = (np.array(values) for values in zip(*s.per_layer, strict=True))
    return speeds / s.cutting_speed, feeds / s.feed_per_rev


def _margins(setup: DrillSetup, layers: Layers, lip_torque: Array, diameter: Array, record: Silent) -> Array:
    """Torque of the margins [N·m] when the corner reaches the end of each layer: what rubs in those above is still there."""
    dry = DRY_MARGINS if (setup.machine.pressure(setup.settings.coolant) or 0.0) <= 0 else 1.0
    own = record(
        drilling.margin_torque,
        torque=lip_torque,
        margin_share=layers.margin_share * dry,
        margin_depth=layers.thickness,
        diameter=diameter,
        note="at the end of the layer, with those above",
    )
    return np.asarray(np.cumsum(own, axis=-1)) if layers.count > 1 else np.asarray(own)


def _seconds(setup: DrillSetup, layers: Layers, tool: DrillTool, n: Array, fed: Array) -> tuple[Array, Array]:
    """Seconds in each layer and of a whole hole: approach, cone and break-through with it, slower where entry or exit ask for it."""
    s, cone = setup.settings, drilling.cone_length(tool.own["diameter"], tool.own["point_angle"])
    rate = fed * n
    metal = 60.0 * layers.thickness / rate
    first, last = rate[..., :1], rate[..., -1:]
    over = cone + (BREAK_THROUGH if setup.feature.through else 0.0)
    slowed = (cone + CORNER_IN) * (1.0 / s.entry_feed - 1.0)
    leaving = s.exit_feed if setup.feature.breaks_out else 1.0
    ways = 60.0 * ((APPROACH + slowed) / first + over / (last * leaving))
    gaps = 60.0 * float(layers.gap.sum()) / over_passes(rate, np.minimum)
    return metal, over_passes(metal, np.add) + ways + gaps


def _pecks(setup: DrillSetup, layers: Layers, tool: DrillTool) -> Any:
    s = setup.settings
    if s.pecks is Pecks.NONE:
        return peck_times(np.zeros(1), 1.0, 1.0, 1.0, setup.machine, True)
    first, following, least = peck_sizes(setup, layers, tool)
    return peck_times(setup.depth, first, following, least, setup.machine, s.pecks is Pecks.CLEAR)


def flutes_filled(setup: DrillSetup) -> float:
    """Share of the depth that its flutes stand, up to which a peck fills them: where they begin to jam, or as surely as is asked."""
    spread = max(spread_of(setup.belief("chips", metal), "chips", setup.operation) for metal in setup.metals)
    return min(JAMS_FROM, float(kept_in_hand(setup.aimed_chance, spread)) - PECK_SPARE)


def peck_sizes(setup: DrillSetup, layers: Layers, tool: DrillTool) -> tuple[Any, Any, Any]:
    """First, next and least peck [mm]: as set, or as far as the flutes stand."""
    s = setup.settings
    usual = flutes_filled(setup) * free_flutes(setup, layers, tool)
    return s.first_peck or usual, s.next_peck or NEXT * usual, s.least_peck or LEAST * usual


def free_flutes(setup: DrillSetup, layers: Layers, tool: DrillTool) -> Array:
    """Depth [mm] that the flutes stand; a pilot has taken a share of the metal already."""
    diameter = tool.own["diameter"]
    left = np.maximum(1.0 - (np.minimum(setup.feature.pilot, diameter) / diameter) ** 2, LEAST_CHIPS)
    return free_depth(diameter, tool.own["type_flute"], layers.mean_bulk * left)


def packing_of(setup: DrillSetup, layers: Layers, tool: DrillTool) -> tuple[Array, Array]:
    """How much of the depth that the flutes stand is asked of them at any feed, and the pressure [bar] that would wash the chips out."""
    s, own, depth = setup.settings, tool.own, setup.depth
    free = free_flutes(setup, layers, tool)
    wanted = wanted_pressure(depth, own["diameter"])
    washed = WASHED * depth * np.minimum(tool.pressure / wanted, 1.0)
    if s.pecks is Pecks.CLEAR:
        first, following, _ = peck_sizes(setup, layers, tool)
        asked = np.maximum(np.minimum(first, depth) / free, np.where(first < depth, following / (WITHDRAWN * NEXT * free), 0.0))
        return np.minimum(asked, depth / np.maximum(washed, 1e-9)), wanted
    if s.pecks is Pecks.BREAK:
        free = free * np.clip(layers.mean_bulk / BROKEN_BULK, 1.0, MOST_GAIN)
    return depth / np.maximum(free, washed), wanted


def _lasting(setup: DrillSetup, layers: Layers, tool: DrillTool, v: Array, fed: Array, record: Silent) -> Array:
    """Minutes in each layer that the drill would last there alone: the shares of its life add up."""
    excess = np.maximum(tool.runout / tool.own["type_runout"], 1.0)
    shaken = excess ** -np.where(tool.hss, RUNS_OUT[1], RUNS_OUT[0])
    # below its recommended speeds an edge is worn by the way that it rubs, not by heat: slower makes no more holes
    heats = np.maximum(v, tool.speed_low * tool.speed_factor)
    lasts = heats / v * tool.own["type_life"] / ROW_LIFE * shaken * np.where(layers.laminate & ~tool.diamond, FIBRES, 1.0)
    minutes = record(
        life.taylor_life,
        reference_speed=(tool.speed_low + tool.speed_high) / 2.0,
        speed_factor=tool.speed_factor * lasts**tool.taylor_exponent,
        cutting_speed=heats,
        taylor_exponent=tool.taylor_exponent,
        reference_feed=tool.reference_feed,
        chip_thickness=fed,
        feed_exponent=tool.feed_exponent,
        reference_depth=1.0,
        depth_of_cut=1.0,
        depth_exponent=0.0,
        light_gain=life.LIGHT_GAIN,
        note="of the layer alone, by its row of speeds, at its lowest where it runs slower; what type, runout, fibres, a slower speed do "
        "to the life is in the speed factor; feed against the middle of its window",
    )
    return np.asarray(minutes)


def _rounded_by_fibres(layers: Layers, wear: Array) -> Array:
    """Shares of a drill's life that a hole takes by layer: the more fibres wear the lips, the sooner they are done in a stack's metals."""
    if not layers.laminate.any() or layers.laminate.all():
        return wear
    fibres = over_passes(np.where(layers.laminate, wear, 0.0), np.add) / over_passes(wear, np.add)
    return np.where(layers.laminate, wear, wear * (1.0 + ROUNDED * fibres))


def _temperature(layers: Layers, tool: DrillTool, kc: Array, v: Array, h: Array, deep: Any, record: Silent) -> Array:
    """The corner's temperature [°C] by comparison: at the book's highest speed and middle feed it stands a tenth below its limit."""
    rise = record(
        heat.cook_temperature_rise,
        specific_force=kc / record.factor("force"),  # the scale is the metal's own: its force cancels
        heat_capacity=layers.heat_capacity,
        cutting_speed=v,
        chip_thickness=h,
        diffusivity=layers.diffusivity,
    )
    usual = tool.reference_feed / tool.own["flutes"] * np.sin(np.radians(tool.own["point_angle"]) / 2.0)
    force_there = DRILLING_FORM * layers.specific_force_1 * usual**-layers.force_exponent
    book = heat.cook_temperature_rise(force_there, layers.heat_capacity, tool.speed_high * tool.speed_factor, usual, layers.diffusivity)
    return np.asarray(heat.zone_temperature(SOFT_AT * tool.softening, rise * (1.0 + deep), book))


def _worse(setup: DrillSetup, tool: DrillTool) -> Array:
    """ISO 286 grades that runout and a leaning entry cost (common practice)."""
    excess = np.maximum(tool.runout / tool.own["type_runout"] - 1.0, 0.0)
    leans = 1.0 if setup.feature.entry_angle > 3.0 else 0.0
    return np.minimum(0.5 * excess, 2.0) + leans


def _finish(tool: DrillTool, fed: Array, layers: Layers) -> Array:
    """Ra [µm] on the wall: what the type usually leaves, more with feed and in metals that stick (common practice)."""
    return over_passes(tool.own["type_finish"] * np.sqrt(fed / tool.reference_feed) * (0.85 + 0.3 * layers.adhesion))


def _left_open(layers: Layers, through: bool) -> Array:
    """1 for a layer that a burr stands on: no laminate, and not the one in which a blind hole ends."""
    leaves = np.where(layers.laminate, 0.0, 1.0)
    if not through:
        leaves[-1] = 0.0
    return leaves


def _springs_back(layers: Layers, diameter: Array) -> Array:
    """How much narrower an elastic layer is behind the drill [mm] (common practice)."""
    return np.where(layers.laminate, 0.002 * diameter, 0.0)
