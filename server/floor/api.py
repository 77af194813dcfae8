"""Look up machines."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import Router, Schema

from cutting.quantities.write import display
from server.floor.models import Machine
from server.units import DisplayOut, Point

router = Router()


class MachineFact(Schema):
    label: str
    display: DisplayOut


class MachineSheet(Schema):
    name: str
    description: str
    condition: str
    power_curve: list[Point]
    curve_at: str
    speeds: list[float]
    feeds: list[DisplayOut]
    coolant: list[str]
    facts: list[MachineFact]
    source: str


@router.get("/machines", response=list[MachineSheet])
def list_machines(request: HttpRequest) -> list[dict[str, Any]]:
    return [_sheet(row) for row in Machine.objects.all()]


def _sheet(row: Machine) -> dict[str, Any]:
    m = row.to_core()
    facts = [
        ("top speed", m.speed_max, "spindle_speed"),
        ("chuck speed", m.chuck_speed_max, "spindle_speed"),
        ("efficiency", 100 * m.efficiency, "share"),
        ("swing", m.swing, "length"),
        ("turning length", m.turning_length, "length"),
        ("bar bore", m.bar_bore, "length"),
        ("shank", m.shank_height, "length"),
        ("feed drive", m.feed_rate_max, "feed_rate"),
        ("rate per hour", m.rate, "money"),
        ("turret index", m.index_time, "duration"),
        ("edge change", m.edge_change_time, "life"),
        ("handling", m.handling_time, "duration"),
        ("grip force at rest", m.jaw_force, "force"),
    ]
    return {
        "name": m.name,
        "description": m.description,
        "condition": m.condition,
        "power_curve": list(m.power_curve),
        "curve_at": m.curve_at,
        "speeds": list(m.speeds),
        "feeds": [display(f, "feed_per_rev") for f in m.feeds],
        "coolant": [name if pressure == 0 else f"{name}, {pressure:g} bar" for name, pressure in m.coolant],
        "facts": [{"label": label, "display": display(value, kind)} for label, value, kind in facts],
        "source": m.source,
    }
