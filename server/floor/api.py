"""Look up machines, read pasted lists of speeds and feeds, draw power and torque, compare tool materials on a machine."""

from __future__ import annotations

import itertools
from typing import Annotated, Any, Literal

import numpy as np
from django.http import HttpRequest
from ninja import Router
from pydantic import Field

from cutting.advice.tool_materials import Task, compare_tool_materials
from cutting.errors import OutOfRange
from cutting.exchange.columns import read_numbers
from cutting.machine.condition import NOTES
from cutting.machine.machines import Machine as CoreMachine
from cutting.machine.spindle import DRIVEN, SUB
from cutting.quantities import Asked, display, read_asked
from cutting.workpiece.materials import deliver
from server.crib.models import Grade, Tool
from server.floor.models import Machine
from server.schema import Schema
from server.sentences import Sentence
from server.shop import shop
from server.units import DisplayOut, Point, TickOut, Units, ticks
from server.words import asked

router = Router()
Efficiency = asked("efficiency", low=0.2, high=1)
Pieces = asked("pieces", "count", 1, 10_000_000, unit="pieces", whole=True)


class MachineFact(Schema):
    """A fact of a machine with its source."""

    label: str
    display: DisplayOut


class SpindleOut(Schema):
    """A spindle of a machine: what it turns, and with how much. `id` is the record of a further one; the first stands in the machine's."""

    id: int | None
    name: str
    title: str
    turns: str
    interface: Sentence
    facts: list[DisplayOut]
    steps: str
    coolant: list[str]
    source: str


class MachineSheet(Schema):
    """A machine with its facts, curves and who uses it."""

    id: int
    name: str
    description: str
    condition: str
    condition_note: str
    turns: bool
    power_curve: list[Point]
    curve_at: str
    spindle_curve: list[Point]
    torque_curve: list[Point]
    axes: Axes
    speeds: list[float]
    feeds: list[DisplayOut]
    steps_note: str
    coolant: list[str]
    spindles: list[SpindleOut]
    places: list[Sentence]
    abilities: list[str]
    facts: list[MachineFact]
    source: str


class PastedIn(Schema):
    """A power curve as it was pasted."""

    text: str = Field(max_length=20_000)


class NumbersOut(Schema):
    """The numbers that a pasted curve was read as."""

    numbers: list[float]
    note: str


SLOWEST = 0.1  # 1/min


class CurveIn(Schema):
    """A power curve being drawn: [speed, power] points."""

    points: list[Annotated[list[Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)]], Field(min_length=2, max_length=2)]] = Field(
        min_length=2, max_length=60
    )
    curve_at: Literal["spindle", "motor"] = "spindle"
    efficiency: Efficiency = 0.8
    units: Units = "mm"


class Axes(Schema):
    """Tops (1/min, kW, N·m) and marks of the axes that power and torque are drawn on."""

    speed_top: float
    power_top: float
    torque_top: float
    speed: list[TickOut]
    power: list[TickOut]
    torque: list[TickOut]


class CurveOut(Schema):
    """Power and torque over speed."""

    spindle: list[Point]
    torque: list[Point]
    axes: Axes
    note: str


class TaskIn(Schema):
    """A cylinder to turn, with its entries as typed."""

    material: str = Field(max_length=120)
    machine: str = Field(max_length=80)
    diameter: str = Field(max_length=40)
    length: str = Field(max_length=40)
    feed_per_rev: str = Field(max_length=40)
    depth_of_cut: str = Field(max_length=40)
    pieces: Pieces = 50
    interrupted: bool = False
    units: Literal["mm", "inch"] = "mm"


TASK = {
    "diameter": Asked("diameter", "length"),
    "length": Asked("length", "length"),
    "feed_per_rev": Asked("feed", "feed_per_rev"),
    "depth_of_cut": Asked("depth", "length"),
}


class OfferOut(Schema):
    """One tool material for the task, with its economics and the one reason."""

    name: str
    hardness_guide: str
    strengths: str
    limits: str
    suits: bool
    reason: str
    edge_cost: DisplayOut
    edge_note: str
    change_minutes: float
    cutting_speed: DisplayOut | None
    life: DisplayOut | None
    seconds: DisplayOut | None
    cost: DisplayOut | None
    cost_value: float | None
    parts_per_edge: str
    edges_for_batch: int | None
    working: list[str]


@router.get("/machines", response=list[MachineSheet])
def list_machines(request: HttpRequest, archived: bool = False, units: Units = "mm") -> list[dict[str, Any]]:
    """The machines of the shop."""
    return [_sheet(row, units) for row in Machine.objects.filter(archived_at__isnull=not archived).prefetch_related("spindles")]


@router.post("/read-list", response=NumbersOut)
def read_pasted_list(request: HttpRequest, payload: PastedIn) -> dict[str, Any]:
    """Speeds or feeds as pasted from a plate, a page or a spreadsheet: sorted, doubles dropped."""
    numbers = read_numbers(payload.text, "list")
    kept = sorted(set(numbers))
    steps = [b / a for a, b in itertools.pairwise(kept)]
    step = f", steps of about {np.median(steps):.2f}" if steps else ""
    dropped = f", {len(numbers) - len(kept)} doubles dropped" if len(numbers) != len(kept) else ""
    return {"numbers": kept, "note": f"{len(kept)} steps from {kept[0]:g} to {kept[-1]:g}{step}{dropped}" if kept else "no number found"}


@router.post("/curve", response=CurveOut)
def draw_curve(request: HttpRequest, payload: CurveIn) -> dict[str, Any]:
    """Power and torque at the spindle for a curve that is being edited; nothing is saved."""
    points = sorted((n, p) for n, p in payload.points)
    if not points or points[-1][0] <= 0:
        raise OutOfRange("points", "a curve wants points of speed and power, one above 0 rpm at least.", "[rpm, kW]")
    if slow := [n for n, _ in points if 0 < n < SLOWEST]:  # no spindle creeps like this, and torque grows without end
        raise OutOfRange("points", f"{slow[0]:g} rpm is slower than any spindle.", f"0, or from {SLOWEST:g} rpm")
    share = payload.efficiency if payload.curve_at == "motor" else 1.0
    spindle = [(n, p * share) for n, p in points]
    torque = [(n, 9549.3 * p / n) for n, p in _dense(spindle) if n > 0]
    best = max(torque, key=lambda point: point[1], default=(0.0, 0.0))
    top = max(spindle, key=lambda point: point[1])
    note = f"most torque {best[1]:.0f} N·m at {best[0]:.0f} rpm; full power {top[1]:.1f} kW from {top[0]:.0f} 1/min"
    return {
        "spindle": [list(p) for p in spindle],
        "torque": [list(p) for p in torque],
        "axes": _axes(spindle, torque, payload.units),
        "note": note,
    }


@router.post("/tool-materials", response=list[OfferOut])
def tool_materials(request: HttpRequest, payload: TaskIn) -> list[dict[str, Any]]:
    """Why high-speed steel, carbide, cermet, ceramic, CBN or PCD for a task, with price, edges, life and change time."""
    library = shop().library
    work, machine = deliver(library.material(payload.material)), library.machine(payload.machine)

    system = "inch" if payload.units == "inch" else "metric"
    read = {name: read_asked(getattr(payload, name), wanted, system, name) for name, wanted in TASK.items()}
    task = Task(**read, pieces=payload.pieces, interrupted=payload.interrupted)
    return [_offer(o) for o in compare_tool_materials(work, machine, task, _crib_prices(work.material.group.letter))]


def _crib_prices(letter: str) -> dict[str, tuple[float, str]]:
    """The cheapest edge that the crib stocks per tool material for this group."""
    found: dict[str, tuple[float, str]] = {}
    names = {"carbide": "coated carbide", "cermet": "cermet", "ceramic": "ceramic", "cbn": "CBN", "pcd": "PCD", "hss": "high-speed steel"}
    for tool_class, name in names.items():
        grades = list(Grade.objects.filter(tool_class=tool_class, letters__contains=letter).values_list("pk", flat=True))
        rows = Tool.objects.filter(kind="turning insert", archived_at=None, grade_id__in=grades, edge_price__gt=0)
        row = rows.order_by("edge_price").first() if grades else None
        if row is not None:
            found[name] = (row.edge_price, f"{row.name}, from the crib")
    return found


def _dense(points: list[tuple[float, float]]) -> list[tuple[float, float]]:
    speeds = np.unique(np.concatenate([np.linspace(points[0][0], points[-1][0], 60), [n for n, _ in points]]))
    return list(zip(speeds.tolist(), np.interp(speeds, [n for n, _ in points], [p for _, p in points]).tolist(), strict=True))


def _axes(spindle: list[tuple[float, float]], torque: list[tuple[float, float]], units: Units) -> dict[str, Any]:
    system = "inch" if units == "inch" else "metric"
    tops = {
        "speed": max(1.03 * max(n for n, _ in spindle), 1.0),
        "power": max(1.15 * max(p for _, p in spindle), 0.1),
        "torque": max(1.15 * max((m for _, m in torque), default=1.0), 1.0),
    }
    kinds = {"speed": "spindle_speed", "power": "power", "torque": "torque"}
    marks = {name: ticks(tops[name], kind, system, 5) for name, kind in kinds.items()}
    return {**{f"{name}_top": top for name, top in tops.items()}, **marks}


def _sheet(row: Machine, units: Units) -> dict[str, Any]:
    m = row.to_core()
    facts = [
        ("top speed", m.speed_max, "spindle_speed"),
        ("chuck speed", m.chuck_speed_max, "spindle_speed"),
        ("efficiency", 100 * m.efficiency, "share"),
        ("swing", m.swing, "length"),
        ("turning length", m.turning_length, "length"),
        ("bar bore", m.bar_bore, "length"),
        ("x travel", m.x_travel, "length"),
        ("z travel", m.z_travel, "length"),
        ("shank", m.shank_height, "length"),
        ("axis feed rate", m.feed_rate_max, "feed_rate"),
        ("rate per hour", m.rate, "money"),
        ("turret index", m.index_time, "duration"),
        ("edge change", m.edge_change_time, "life"),
        ("handling", m.handling_time, "duration"),
        ("grip force at rest", m.jaw_force, "force"),
        ("pockets", m.pockets, "count"),
        ("max. tool mass, kg", m.changer_mass, "number"),
        ("changer tilting moment", m.changer_moment, "torque"),
        ("changer takes Ø", m.changer_diameter, "length"),
        ("changer takes a length of", m.changer_length, "length"),
        ("thrust of the feed", m.axial_force, "force"),
    ]
    curve = [(n, float(m.spindle_power(n))) for n, _ in m.power_curve]
    torque = [(n, 9549.3 * p / n) for n, p in _dense(curve) if n > 0]
    return {
        "id": row.pk,
        "name": m.name,
        "description": m.description,
        "condition": m.condition,
        "condition_note": NOTES[m.condition],
        "turns": m.turns,
        "power_curve": list(m.power_curve),
        "curve_at": m.curve_at,
        "spindle_curve": curve,
        "torque_curve": torque,
        "axes": _axes(curve, torque, units),
        "speeds": list(m.speeds),
        "feeds": [display(f, "feed_per_rev") for f in m.feeds],
        "steps_note": _steps(m),
        "coolant": _coolant(m.coolant),
        "spindles": _spindles(row, m),
        "places": [one.words for one in m.places],
        "abilities": _abilities(m),
        "facts": [{"label": label, "display": display(value, kind)} for label, value, kind in facts if value],
        "source": m.source,
    }


def _coolant(deliveries: tuple[tuple[str, float], ...]) -> list[str]:
    return [name if pressure == 0 else f"{name}, {pressure:g} bar" for name, pressure in deliveries]


def _spindles(row: Machine, m: CoreMachine) -> list[dict[str, Any]]:
    ids = {one.spindle: one.pk for one in row.spindles.all() if one.archived_at is None}
    return [
        {
            "id": ids.get(one.name) if one.name != m.first else None,
            "name": one.name,
            "title": one.title,
            "turns": "the part" if one.turns_part else "the tool",
            "interface": one.interface,
            "facts": [
                display(max(p for _, p in one.power_curve), "power"),
                display(min(one.speed_max, one.chuck_speed_max), "spindle_speed"),
            ],
            "steps": f"{len(one.speeds)} speeds" if one.speeds else "continuous",
            "coolant": _coolant(one.coolant),
            "source": one.source,
        }
        for one in m.spindles
    ]


def _steps(m: CoreMachine) -> str:
    if m.fixed:
        return "fixed unit: one speed and one feed"
    return f"geared: {len(m.speeds)} speeds, {len(m.feeds)} feeds" if m.geared else "continuous speeds and feeds"


def _abilities(m: CoreMachine) -> list[str]:
    has = (
        (m.turns, "turns"),
        (m.constant_surface_speed, "constant surface speed"),
        (m.has(SUB), "sub-spindle"),
        (m.y_axis, "Y axis"),
        (m.has(DRIVEN), "driven tools"),
        (m.changer_mass > 0, "tool changer"),
    )
    return [name for there, name in has if there]


def _offer(o: Any) -> dict[str, Any]:
    def shown(value: float | None, kind: str) -> Any:
        return None if value is None else display(value, kind)

    return {
        **{
            name: getattr(o, name)
            for name in ("name", "hardness_guide", "strengths", "limits", "suits", "reason", "edge_note", "change_minutes")
        },
        "edge_cost": display(o.edge_cost, "money"),
        "cutting_speed": shown(o.cutting_speed, "cutting_speed"),
        "life": shown(o.life, "life"),
        "seconds": shown(o.seconds, "duration"),
        "cost": shown(o.cost, "money"),
        "cost_value": o.cost,
        "parts_per_edge": "–"
        if o.parts_per_edge is None
        else f"{o.parts_per_edge:.1f}"
        if o.parts_per_edge < 10
        else f"{o.parts_per_edge:.0f}",
        "edges_for_batch": o.edges_for_batch,
        "working": list(o.working),
    }
