"""Which tool material for this job: what each can do here, and what each costs per piece, with the reason."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass

from cutting.errors import require_between
from cutting.machine.condition import FORBIDDEN, NOTES
from cutting.machine.machines import Machine
from cutting.money.cost import insert_edge_cost, operation_cost, optimum_life_for_cost, solid_tool_cost
from cutting.operations.turned.case import MINIMUM_SPEED
from cutting.tables import Row, read_table
from cutting.wear.life import speed_for_life, taylor_life
from cutting.wear.reference import life_law
from cutting.workpiece.hardness import told
from cutting.workpiece.materials import Work

LEAST_LIFE = 5.0  # min: shorter lives are not planned (common practice)
BRITTLE = frozenset({"ceramic", "cermet", "cbn", "pcd"})
CRAWL = 0.35  # of the law's own speed, below which Taylor's line is not used


@dataclass(frozen=True)
class Task:
    """One cylinder to turn: mm, mm/rev; `pieces` in the batch."""

    diameter: float
    length: float
    feed_per_rev: float
    depth_of_cut: float
    pieces: int = 50
    interrupted: bool = False

    def check(self) -> None:
        """Raise `OutOfRange` for what cannot be."""
        require_between("diameter", self.diameter, 0.5, 3000, "mm")
        require_between("length", self.length, 0.1, 20_000, "mm")
        require_between("feed_per_rev", self.feed_per_rev, 0.005, 3, "mm/rev")
        require_between("depth_of_cut", self.depth_of_cut, 0.01, 30, "mm")
        require_between("pieces", self.pieces, 1, 10_000_000)


@dataclass(frozen=True)
class MaterialOffer:
    """One tool material for the task. Money per edge and piece, life min, seconds; None where it is not run here."""

    name: str
    hardness_guide: str
    strengths: str
    limits: str
    suits: bool
    reason: str
    edge_cost: float
    edge_note: str
    change_minutes: float
    cutting_speed: float | None = None
    life: float | None = None
    seconds: float | None = None
    cost: float | None = None
    parts_per_edge: float | None = None
    edges_for_batch: int | None = None
    working: tuple[str, ...] = ()


def compare_tool_materials(
    work: Work, machine: Machine, task: Task, prices: Mapping[str, tuple[float, str]] | None = None
) -> tuple[MaterialOffer, ...]:
    """Every tool material for a task, the cheapest per piece first, those that do not suit last.

    `prices` maps a row's name to (cost of one edge, where it is from); others use the table's usual prices.
    Speed is the cheapest one by Gilbert's life, held by the spindle. Raises `OutOfRange`.
    """
    task.check()
    found = [_offer(row, work, machine, task, (prices or {}).get(row["name"])) for row in read_table("advice/tool_materials.csv")]
    return tuple(sorted(found, key=lambda offer: (not offer.suits, offer.cost if offer.cost is not None else math.inf)))


def _offer(row: Row, work: Work, machine: Machine, task: Task, price: tuple[float, str] | None) -> MaterialOffer:
    edge, note = price or _usual_edge(row)
    change = row.number("change_minutes")
    what = (row["name"], row["hardness_guide"], row["strengths"], row["limits"])
    law = life_law(work.material.speed_row, row["tool_class"])
    if law is None:
        reason = f"{row['limits'].split(';')[0]}; no starting speed in group {work.material.group.number}"
        return MaterialOffer(*what, False, reason, edge, note, change)
    thickness = law.reference_feed * task.feed_per_rev / _reference_feed(work, row["tool_class"])
    shared = (law.reference_speed, row.number("speed_share") * work.hardness_speed_factor * work.material.speed_factor)
    rest = (
        law.taylor_exponent,
        law.reference_feed,
        thickness,
        law.feed_exponent,
        law.reference_depth,
        task.depth_of_cut,
        law.depth_exponent,
    )
    life = max(float(optimum_life_for_cost(law.taylor_exponent, change, edge, machine.rate)), LEAST_LIFE)
    wanted = float(speed_for_life(life, *shared, *rest))
    reachable = math.pi * task.diameter * machine.top_speed / 1000.0
    speed = min(wanted, reachable)
    life = float(taylor_life(*shared, speed, *rest))
    seconds = 60.0 * math.pi * task.diameter * task.length / (1000.0 * speed * task.feed_per_rev)
    parts = life * 60.0 / seconds
    cost = float(operation_cost(machine.rate, seconds, 0.0, change, edge, parts))
    least = MINIMUM_SPEED[row["tool_class"]]
    working = (
        f"speed {speed:.0f} m/min: Gilbert's cheapest life gives {wanted:.0f}, the spindle reaches {reachable:.0f} at Ø{task.diameter:g}",
        f"time {seconds:.1f} s = 60·π·{task.diameter:g}·{task.length:g}/(1000·{speed:.0f}·{task.feed_per_rev:g})",
        f"life {life:.0f} min, {parts:.1f} pieces per edge",
        f"cost {cost:.3f} = {machine.rate:g}/3600·({seconds:.1f} + 60·{change:g}/{parts:.1f}) + {edge:.2f}/{parts:.1f}",
    )
    suits, reason = _verdict(row, work, machine, task, speed, min(least, CRAWL * law.reference_speed))
    return MaterialOffer(
        *what, suits, reason, edge, note, change, speed, life, seconds, cost, parts, math.ceil(task.pieces / parts), working
    )


def _usual_edge(row: Row) -> tuple[float, str]:
    price, lives, regrind = row.number("price"), row.number("lives"), row.number("regrind_price")
    if regrind:
        return float(solid_tool_cost(price, lives - 1, regrind)), f"{price:g} and {lives - 1:g} regrinds at {regrind:g}, usual prices"
    return float(insert_edge_cost(price, lives)), f"{price:g} over {lives:g} edges, usual prices"


def _reference_feed(work: Work, tool_class: str) -> float:
    for row in read_table("wear/starting_speeds.csv"):
        if row["group"] == work.material.speed_row and row["tool_class"] == tool_class:
            return row.number("feed_per_rev")
    raise AssertionError("a life law has its row")


def _verdict(row: Row, work: Work, machine: Machine, task: Task, speed: float, least: float) -> tuple[bool, str]:
    """Whether it suits, and the one reason that decides (common practice, no source)."""
    tool = row["tool_class"]
    if tool in FORBIDDEN[machine.condition]:
        return False, f"{machine.name} is {machine.condition}: {NOTES[machine.condition].split(':')[0]}"
    if task.interrupted and tool in BRITTLE and not (tool == "cbn" and work.material.group.letter == "H"):
        return False, "the cut is interrupted: shock breaks it"
    if tool == "hss" and work.hardness > 350:
        return False, f"{told(work.hardness)} is too hard for it"
    if speed < least:
        return False, f"the spindle gives {speed:.0f} m/min at Ø{task.diameter:g}; below {least:.0f} it rubs and tears"
    if task.feed_per_rev < 0.06 and tool == "carbide" and row["name"] != "brazed carbide":
        return True, "thin chip: only with a sharp, ground edge"
    return True, row["strengths"]
