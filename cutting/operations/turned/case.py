"""The numbers of a case: everything that does not change while speed, feed and depth are varied."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.errors import CuttingError
from cutting.mechanics.chatter import natural_frequency
from cutting.mechanics.deflection import SHANK_MODULUS, round_second_moment, shank_second_moment, tool_deflection
from cutting.mechanics.heat import cook_temperature_rise
from cutting.mechanics.tool_setting import reach_angle
from cutting.money.cost import insert_edge_cost
from cutting.motion.clock import rapid_seconds
from cutting.motion.trace import CLEAR
from cutting.operations.frame.setup import Skin
from cutting.operations.turned.part import PartBeam, part_beam
from cutting.operations.turned.setup import Setup
from cutting.operations.turned.surface import Surface
from cutting.tooling.crib import Crib, crib_of_one
from cutting.tooling.items import Grade
from cutting.tooling.roles import Index
from cutting.wear.life import LIGHT_GAIN
from cutting.wear.reference import life_law, speed_factors

Array = NDArray[np.float64]

SKIN_VARIATION = {Skin.CLEAN: 0.0, Skin.BAR: 0.0, Skin.FORGED: 0.05, Skin.CAST: 0.06, Skin.WELD: 0.12, Skin.HARDENED: 0.08}
# a loose spindle shakes the edge: more scatter of life (common practice)
WORN_VARIATION = {"new": 0.0, "sound": 0.0, "worn": 0.08}
# the heat that a tool material stands, as the speed at which an edge would last about six minutes
HEAT_SPEED = 1.25
BEAM_MASS = 0.24  # of a cantilever's mass swings at its end (33/140, Rayleigh)
KNOCKED_VARIATION = 0.08  # more spread of edge life in an interrupted cut (common practice)
TOUGH_ENOUGH = 0.7  # toughness from which an edge does not scatter by chipping
CRAWL = 0.35  # of the law's own speed, below which Taylor's line is not used
STICKY_CURLS = 0.4  # less curl that a metal needs where its chip sticks and thickens


@dataclass(frozen=True)
class Cutter:
    """Numbers of one pair of insert and holder, or of many: every array has shape (pairs, 1) or (1,)."""

    nose_radius: Array
    cutting_edge_angle: Array
    included_angle: Array
    reach_angle: Array  # steepest descent that the minor edge follows
    clearance: Array
    inscribed_circle: Array
    thickness: Array
    edge_length: Array
    depth_share: Array
    round_shape: Array
    sides: Array
    edges: Array
    price: Array
    holder_price: Array
    shape_strength: Array
    negative: Array
    shank_height: Array
    shank_second_moment: Array
    side_stiffness: Array  # of shank and post along the feed, N/mm
    side_frequency: Array  # Hz
    overhang: Array
    rake: Array
    edge_radius: Array
    light_gain: Array  # how far a light cut moves the speed: not under weld
    wiper: Array
    breaker: Array
    geometry_strength: Array
    toughness: Array
    heat_factor: Array
    side_use: Array  # 1 where the grade is made for another letter of ISO 513
    window_normals: Array
    window_centre: Array
    reference_speed: Array
    speed_factor: Array
    reference_feed: Array
    reference_depth: Array
    taylor_exponent: Array
    feed_exponent: Array
    depth_exponent: Array
    coefficient_of_variation: Array
    minimum_speed: Array
    # of a bar: how it gives at its tip along the radius [mm/N], swings [Hz] and is damped; outside a shank does not give that way
    bar_compliance: Array
    bar_frequency: Array
    bar_damping: Array
    bar_reach: Array  # mm that it may stand out
    shank_modulus: Array
    least_bore: Array
    book: Array  # supplier's spans: speed, feed, depth, each least and largest; nan where there is none

    def take(self, keep: Any) -> Cutter:
        """The pairs of an index or a mask."""
        return Cutter(**{name: getattr(self, name)[keep] for name in self.__dataclass_fields__})

    @staticmethod
    def of(single: Sequence[Cutter]) -> Cutter:
        """Many pairs of single ones, shape (pairs, 1)."""
        return Cutter(**{name: np.stack([getattr(one, name) for one in single]) for name in Cutter.__dataclass_fields__})


@dataclass(frozen=True)
class Case:
    """Numbers of work, machine, feature and holding, all plain floats."""

    setup: Setup
    facing: bool
    ductility: float
    pressure: float
    top_speed: float
    beam: PartBeam
    frequency: float  # of the part at its weakest place, Hz
    sticky: float = 0.0  # how far big chips are the trouble, 0 to 1
    many: bool = False  # a ranking: the set-up's own insert is only a stand-in

    @property
    def travel_idle(self) -> float:
        """Seconds per pass that do not cut: off the surface and back; approach and over-travel at feed are counted with the cut."""
        s = self.setup
        back = s.feature.length if not self.facing else (s.feature.start_diameter - s.feature.end_diameter.nominal) / 2
        return float(sum(rapid_seconds([CLEAR, back + APPROACH], s.machine)))

    def compliance(self, before: Any, after: Any) -> Array:
        """Deflection of the part per newton at the worst place of the cut [mm/N], turning from one diameter to another [mm]."""
        if self.setup.inside:  # the outside stays as it is
            before = after = np.full(1, WHOLE)
        return self.beam.spring(before, after)

    @property
    def hard(self) -> bool:
        """Hardened work: it shears cleanly, without built-up edge and without pits."""
        return self.setup.work.material.group.letter == "H"

    @property
    def curl_need(self) -> float:
        """Ductility as the breaker window reads it: sticky metals do not ask for the bigger chips that ductile ones do."""
        return self.ductility * (1.0 - STICKY_CURLS * self.sticky)


NEGATIVE_SEAT = 6.0  # degrees by which a negative insert is tilted
STEEL, POST_LENGTH = 7.85e-6, 40.0  # kg/mm³; shank in its clamp that swings with the tip, mm (common practice)
SWINGING = 0.2427  # of its mass swings with the tip of a bar that is held at one end: (3/3.516²)
WHOLE = 1e6  # mm: a cut that takes nothing off the outside
APPROACH = 2.0  # mm in front of and behind each pass at feed
# useful lower end of speed: below it carbide tears and builds up edge in ductile metals (common practice)
MINIMUM_SPEED = {"carbide": 50.0, "cermet": 80.0, "ceramic": 100.0, "cbn": 60.0, "pcd": 100.0, "hss": 3.0}


@lru_cache(maxsize=64)  # map, limits and remedies ask for the same set-up again
def case_of(setup: Setup) -> Case:
    """Collect what stays the same. Raises `OutOfRange` from the setup's own checks."""
    setup.check()
    machine = setup.machine
    clamp = setup.settings.spindle_clamp or np.inf
    beam = part_beam(setup)
    facing = setup.surface is Surface.FACE
    end = setup.feature.start_diameter if facing else WHOLE if setup.inside else setup.feature.turned_diameter
    frequency = beam.frequency(end)
    pressure = machine.pressure(setup.settings.coolant) or 0.0
    return Case(setup, facing, setup.work.material.ductility, pressure, min(machine.top_speed, clamp), beam, frequency, _sticky(setup))


def _sticky(setup: Setup) -> float:
    """Dense or sticky metals (heat-resistant, titanium, austenitic): there a bigger chip is no easier chip (common practice)."""
    material = setup.work.material
    return float(np.clip((material.adhesion - 0.5) / 0.4, 0.0, 1.0)) if material.group.letter in "MS" else 0.0


def cutters(setup: Setup, crib: Crib, insert_index: Index, holder_index: Index) -> Cutter:
    """The numbers of pairs, read from the crib's columns; shape (pairs, 1).

    Pairs whose tool material has no starting speed in this group get a speed of nan: advice excludes them by name,
    a single evaluation refuses them.
    """
    inserts, holders = crib.insert_columns, crib.holder_columns
    material = setup.work.material
    laws = [life_law(material.speed_row, g.tool_class) for g in crib.grades]
    pressure = setup.machine.pressure(setup.settings.coolant) or 0.0
    factors = [
        np.prod([f.factor for f in speed_factors(setup.work, g, pressure, setup.holding.interrupted, setup.skin, setup.holding.weak)])
        for g in crib.grades
    ]
    grade, geometry = inserts.grade[insert_index], inserts.geometry[insert_index]

    def of_grade(values: list[float]) -> Array:
        return np.array(values, float)[grade][:, None]

    def of_geometry(values: list[float]) -> Array:
        return np.array(values, float)[geometry][:, None]

    def law(name: str) -> Array:
        return of_grade([getattr(found, name) if found else np.nan for found in laws])

    def insert(values: Array) -> Array:
        return values[insert_index][:, None]

    def holder(values: Array) -> Array:
        return values[holder_index][:, None]

    negative = holder(holders.negative.astype(float))
    major, included = holder(holders.cutting_edge_angle) + (setup.settings.swivel or 0.0), insert(inserts.included_angle)
    minor = np.where(insert(inserts.round_shape.astype(float)) > 0, 90.0, reach_angle(major, included))
    overhang = holder(holders.overhang)
    if setup.settings.overhang is not None or setup.inside:
        overhang = np.full_like(overhang, setup.overhang)
    width, height = holder(holders.shank_width), holder(holders.shank_height)
    post = max(setup.machine.post_stiffness * setup.machine.rigidity, 1.0) * 1e3
    side = 1.0 / (1.0 / post + overhang**3 / (3.0 * SHANK_MODULUS * shank_second_moment(height, width)))
    mass = STEEL * width * height * (BEAM_MASS * overhang + POST_LENGTH)
    round_bar = round_second_moment(height) if setup.inside else shank_second_moment(width, height)
    bar_give = tool_deflection(1.0, overhang, round_bar, holder(holders.modulus)) + 1.0 / post
    swings = holder(holders.density) * 1e-6 * np.pi / 4.0 * height**2 * SWINGING * overhang
    extra = (KNOCKED_VARIATION if setup.holding.interrupted else 0.0) + SKIN_VARIATION[setup.skin] + WORN_VARIATION[setup.machine.condition]
    brittle_scatter = [0.1 * max(0.0, TOUGH_ENOUGH - g.toughness) for g in crib.grades]
    return Cutter(
        nose_radius=insert(inserts.nose_radius),
        # fed away from the chuck, the minor edge leads; that of a left-hand holder is made to go that way
        cutting_edge_angle=np.where(holder(holders.left.astype(float)) > 0, major, np.clip(minor, 1.0, 180.0 - 1.0))
        if setup.away
        else major,
        included_angle=included,
        reach_angle=minor,
        clearance=np.where(negative > 0, NEGATIVE_SEAT, insert(inserts.clearance))
        if setup.settings.relief is None
        else np.full_like(included, setup.settings.relief),
        inscribed_circle=insert(inserts.inscribed_circle),
        thickness=insert(inserts.thickness),
        edge_length=insert(inserts.edge_length),
        depth_share=insert(inserts.depth_share),
        round_shape=insert(inserts.round_shape.astype(float)),
        sides=insert(inserts.sides),
        edges=insert(inserts.edges),
        price=insert(inserts.price),
        holder_price=holder(holders.price),
        shape_strength=insert(inserts.shape_strength),
        negative=negative,
        shank_height=height,
        shank_second_moment=round_bar,
        side_stiffness=side,
        side_frequency=natural_frequency(side, mass),
        overhang=overhang,
        rake=of_geometry([g.groove_rake for g in crib.geometries]) - NEGATIVE_SEAT * negative,
        light_gain=np.full_like(overhang, 1.0 if setup.skin is Skin.WELD else LIGHT_GAIN),
        edge_radius=of_geometry([g.edge_radius / 1000 for g in crib.geometries]),
        wiper=of_geometry([float(g.wiper) for g in crib.geometries]),
        breaker=of_geometry([float(g.breaker) for g in crib.geometries]),
        geometry_strength=of_geometry([g.strength for g in crib.geometries]),
        toughness=of_grade([g.toughness for g in crib.grades]),
        side_use=of_grade([float(g.main_letter != material.group.letter) for g in crib.grades]),
        heat_factor=of_grade([_heat_factor(g, material.group.letter) for g in crib.grades]),
        window_normals=np.array([w.normals for w in crib.windows])[geometry][:, None],
        window_centre=np.array([w.centre for w in crib.windows])[geometry][:, None],
        reference_speed=law("reference_speed"),
        speed_factor=of_grade([float(f) for f in factors]),
        reference_feed=law("reference_feed"),
        reference_depth=law("reference_depth"),
        taylor_exponent=law("taylor_exponent"),
        feed_exponent=law("feed_exponent"),
        depth_exponent=law("depth_exponent"),
        coefficient_of_variation=law("coefficient_of_variation") + extra + of_grade(brittle_scatter),
        minimum_speed=of_grade([useful_speed(setup, g.tool_class) for g in crib.grades]),
        bar_compliance=bar_give if setup.inside else np.zeros_like(bar_give),
        bar_frequency=natural_frequency(1.0 / bar_give, swings),
        bar_damping=holder(holders.damping),
        bar_reach=holder(holders.reach) * height,
        shank_modulus=holder(holders.modulus),
        least_bore=holder(holders.least_bore),
        book=crib.book_columns(material.group.number)[insert_index][:, None],
    )


def single_cutter(setup: Setup) -> Cutter:
    """The numbers of the setup's own tool, shape (1,). Raises `CuttingError` where insert and holder or grade do not go."""
    return _single_cutter(setup.with_cut(1.0, 1.0))  # they know nothing of speed and feed, which a nudge moves


@lru_cache(maxsize=512)
def _single_cutter(setup: Setup) -> Cutter:
    crib = crib_of_one(setup.insert, setup.holder)
    left, right = crib.places
    if not len(left):
        raise CuttingError("tool.holder", f"{setup.holder.designation} does not take {setup.insert.designation}.")
    pair = cutters(setup, crib, left, right)
    if np.isnan(pair.reference_speed).any():
        group = setup.work.material.group
        raise CuttingError(
            "tool.insert",
            f"no starting speed for {setup.insert.grade.tool_class} in group {group.number} ({group.description}): "
            "the trade does not run it there.",
        )
    return pair.take(0)


def edge_cost(cutter: Cutter, depth: Any) -> Array:
    """Cost of one edge; a round insert is indexed by the arc that the depth [mm] uses."""
    radius = cutter.inscribed_circle / 2.0
    arc = np.degrees(np.arccos(np.clip(1.0 - np.asarray(depth) / radius, -1.0, 1.0))) + 10.0
    edges = np.where(cutter.round_shape > 0, np.maximum(np.floor(360.0 / arc), 1.0) * cutter.sides, cutter.edges)
    return np.asarray(insert_edge_cost(cutter.price, edges, cutter.holder_price))


def _heat_factor(grade: Grade, letter: str) -> float:
    """Of the rise that the group's row stands; a grade in its main letter is what that row is meant for."""
    return max(grade.heat_factor, 1.0) if grade.main_letter == letter else grade.heat_factor


def standing_heat(case: Case, cutter: Cutter) -> Array:
    """The rise [K], on Cook's scale, that the tool material stands in this metal: at 1.25 of its reference speed."""
    work = case.setup.work
    specific = work.specific_force_1 * cutter.reference_feed ** (-work.material.force_exponent)
    speed = HEAT_SPEED * cutter.reference_speed
    rise = cook_temperature_rise(specific, work.material.heat_capacity, speed, cutter.reference_feed, work.material.diffusivity)
    return rise * cutter.heat_factor


def useful_speed(setup: Setup, tool_class: str) -> float:
    """Speed [m/min] below which this tool material tears the set-up's metal."""
    lowest = MINIMUM_SPEED[tool_class]
    law = life_law(setup.work.material.speed_row, tool_class)
    # metals that carbide itself cuts slowly have no built-up edge to outrun
    return min(lowest, CRAWL * law.reference_speed) if law else lowest
