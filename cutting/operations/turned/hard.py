"""Hard turning in place of grinding: zone temperature, finish and size drift per piece, and the money of both."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from cutting.errors import CuttingError
from cutting.mechanics.heat import cook_temperature_rise, zone_temperature
from cutting.operations.frame.over_passes import last_pass
from cutting.operations.turned.book import book_start
from cutting.operations.turned.physics import Cut
from cutting.operations.turned.run import run
from cutting.operations.turned.setup import Setup
from cutting.operations.turned.surface import Surface
from cutting.sizing.drift import drift_per_piece, nose_recession, wear_limit
from cutting.workpiece.hardness import refuse_uncovered, rockwell
from cutting.workpiece.materials import Work
from cutting.workpiece.tempering import gives_way_at

HARD_FROM = 45.0  # HRC
STANDS = {"cbn": 1200.0, "ceramic": 1100.0, "cermet": 950.0, "carbide": 900.0, "hss": 600.0, "pcd": 700.0}  # °C (common practice)
DEEPEST = 0.5  # mm, a hard-turning cut stays shallow (common practice)
TOLERANCE_USED = 0.5  # share of the tolerance that wear may use before the edge or the offset changes
STANDS_ELSE = 900.0  # °C, carbide
KNOCKED = 0.45  # toughness that CBN wants in an interrupted cut (common practice: low content, binder)
COLD = 0.85  # of the heat that softens the chip


@dataclass(frozen=True)
class Grinding:
    """The present way, as the user gives it: seconds and wheel money per piece, rate per hour."""

    seconds: float
    rate: float
    wheel: float = 0.0

    @property
    def cost(self) -> float:
        return self.rate / 3600.0 * self.seconds + self.wheel


@dataclass(frozen=True)
class HardTurning:
    """What hard turning would do: temperatures °C, drift µm per piece, money per piece."""

    applies: bool
    hardness: float | None  # HRC
    zone: float
    softens: float
    stands: float
    roughness: float
    drift: float
    wear_land: float  # mm, at the end of an edge's life
    parts_by_size: float
    parts_by_life: float
    parts: float
    cost: float
    seconds: float
    edge_cost: float
    grinding_cost: float | None
    grinding_seconds: float | None
    saving: float | None
    saving_per_batch: float | None
    says: tuple[str, ...]


def hard_turning(setup: Setup, grinding: Grinding | None = None) -> HardTurning:
    """Judge a set-up as hard turning, against grinding where its time and cost are given. Raises `CuttingError`."""
    done = run(setup, setup.silent)
    cutter = done.cutter
    work, tool = setup.work, setup.insert.grade
    hardness = _rockwell(work)
    hard = work.material.group.letter == "H" or (hardness is not None and hardness >= HARD_FROM)
    start = book_start(cutter, done.chip_thickness, done.depth_of_cut)
    reference = cook_temperature_rise(
        done.specific_force, work.material.heat_capacity, start, done.chip_thickness, work.material.diffusivity
    )
    softens = gives_way_at(work.material)
    zone = last_pass(zone_temperature(softens, done.temperature_rise, reference))
    stands = tool.temperature_limit or STANDS.get(tool.tool_class, STANDS_ELSE)
    life_parts = last_pass(done.change_parts)
    land = wear_limit(work.material.group.letter)
    drift = float(drift_per_piece(nose_recession(land, last_pass(cutter.clearance)), last_pass(done.median_parts)))
    tolerance = setup.feature.end_diameter.tolerance
    size_parts = max(TOLERANCE_USED * tolerance / drift, 1.0) if tolerance and setup.surface is Surface.OUTSIDE else np.inf
    cost, seconds = last_pass(done.operation_cost), last_pass(done.operation_time)
    saving = grinding.cost - cost if grinding else None
    return HardTurning(
        hard,
        hardness,
        zone,
        softens,
        stands,
        last_pass(done.roughness),
        1000.0 * drift,
        land,
        float(size_parts),
        life_parts,
        float(min(size_parts, life_parts)),
        cost,
        seconds,
        last_pass(done.edge_cost),
        grinding.cost if grinding else None,
        grinding.seconds if grinding else None,
        saving,
        saving * setup.batch.pieces if saving is not None else None,
        tuple(_says(setup, done, hard, zone, softens, stands, float(size_parts), life_parts)),
    )


def _says(setup: Setup, done: Cut, hard: bool, zone: float, softens: float, stands: float, by_size: float, by_life: float) -> list[str]:
    tool, interrupted = setup.insert.grade, setup.holding.interrupted
    if not hard:
        return [f"The work is below {HARD_FROM:.0f} HRC: this is ordinary turning, grinding may still be compared."]
    found = []
    if tool.tool_class not in ("cbn", "ceramic"):
        found.append(f"{tool.name} is no edge for hard work: CBN, or ceramic in a steady cut.")
    if tool.tool_class == "cbn" and interrupted and tool.toughness < KNOCKED:
        found.append("Interrupted: a CBN grade with less CBN and a tougher binder, and a chamfered edge, live longer here.")
    if tool.tool_class == "ceramic" and interrupted:
        found.append("Interrupted: ceramic breaks, take CBN.")
    if zone < COLD * softens:
        found.append(f"Too cool: the zone at about {zone:.0f} °C leaves the chip hard. More speed softens the chip, not the edge.")
    elif zone > stands:
        found.append(f"Too hot: about {zone:.0f} °C against {stands:.0f} °C that the edge stands. Less speed.")
    else:
        found.append(f"The chip is soft at about {zone:.0f} °C and the edge, good for {stands:.0f} °C, is not.")
    if float(np.max(done.depth_of_cut)) > DEEPEST:
        found.append(f"Deeper than {DEEPEST} mm: hard turning takes 0.05 to 0.3 mm, leave the rest to soft turning.")
    if by_size < by_life:
        found.append(
            f"Size, not wear, ends the edge: after {by_size:.0f} pieces half the tolerance is used, unless the offset is corrected."
        )
    return found


def _rockwell(work: Work) -> float | None:
    """HRC, None where the table of ISO 18265 does not reach."""
    try:
        refuse_uncovered(work.material.group)
    except CuttingError:
        return None
    return rockwell(work.hardness)
