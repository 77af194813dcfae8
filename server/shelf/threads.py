"""A thread's sheet: what its words say, its limits, how it is measured, what it is tapped in."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import Router

from cutting.doors.plain import plain as as_plain
from cutting.errors import CuttingError, UnknownName
from cutting.nomenclature import source_label
from cutting.quantities import refuse_long
from cutting.quantities.write import Display, display
from cutting.workpiece.threads.limits import CLASSES, ThreadZone, usual_class
from cutting.workpiece.threads.measuring import TOLD_FROM, engagement, gauges, over_wires
from cutting.workpiece.threads.picture import side
from cutting.workpiece.threads.spelling import looks_like_thread, read_thread, write_thread
from cutting.workpiece.threads.tap_drills import TapDrill, drills_inside, forming_drill, tap_drill
from cutting.workpiece.threads.thread import Thread
from server.schema import Schema
from server.units import DisplayOut

router = Router()
LONGEST = 60  # characters of a thread as people write it


class ThreadFact(Schema):
    """A fact of a thread."""

    label: str
    display: DisplayOut
    source: str


class ZoneOut(Schema):
    """A tolerance zone drawn."""

    diameter: str
    low: DisplayOut | None
    high: DisplayOut | None
    width: DisplayOut | None


class ThreadSide(Schema):
    """One side of a thread with its limits."""

    internal: bool
    title: str
    class_name: str
    classes: list[str]
    source: str
    zones: list[ZoneOut]
    most: list[list[float]]
    least: list[list[float]]
    measuring: list[ThreadFact]


class DrillLine(Schema):
    """A core hole and what it leaves of the thread."""

    diameter: DisplayOut
    name: str
    engagement: str
    full: str
    within: bool
    usual: bool


class ThreadSheet(Schema):
    """A thread with all its sizes."""

    words: str
    name: str
    title: str
    facts: list[ThreadFact]
    sides: list[ThreadSide]
    drills: list[DrillLine]
    drill_note: str
    pitch: float


class ThreadHit(Schema):
    """A search that is meant as a thread: its name and what it is, or what is wrong and what exists; `kind` blank where it is none."""

    kind: str
    name: str
    says: str
    offered: list[str]


@router.get("thread/hit", response=ThreadHit, summary="Whether a search is a thread, and what it says")
def hit(request: HttpRequest, words: str) -> dict[str, Any]:
    """One line for the search."""
    said = refuse_long(words, LONGEST, "words")
    if not looks_like_thread(said):
        return {"kind": "", "name": "", "says": "", "offered": []}
    try:
        found = read_thread(said, "")
    except UnknownName as refused:
        return {"kind": "thread", "name": "", "says": refused.message, "offered": list(refused.suggestions)}
    says = f"{found.of.title}, Ø{found.diameter:.4g} × {found.pitch:.4g} mm, drilled Ø{tap_drill(found).diameter:.4g}"
    return {"kind": "thread", "name": write_thread(found), "says": says, "offered": []}


@router.get("thread", response=ThreadSheet, summary="Thread designation: limits, measuring, tap drills")
def thread(request: HttpRequest, words: str, outside: str = "", inside: str = "") -> dict[str, Any]:
    """The sheet of any spelling; classes blank for those of the words or the usual ones."""
    found = read_thread(refuse_long(words, LONGEST, "words"), "words")
    sides = [_side(found, False, outside), _side(found, True, inside)]
    usual = tap_drill(found)
    more = [one for one in drills_inside(found) if abs(one - usual.diameter) > 1e-6] if found.system == "metric" else []
    drills = [usual, *(_told(found, one) for one in more)]
    sixty = abs(found.angle - 60.0) < 1e-9
    heights = "5/8 H, and of the American full height 3/4 H" if sixty else "of the profile, and of the outside thread's depth"
    note = f"Of the engagement height {heights}: two definitions of one percentage."
    if found.system == "metric" and found.diameter <= 36:
        form = forming_drill(found)
        said = display(form.diameter, "size")
        note += f" Formed instead of cut: {said.metric} ({said.inch}), {form.of_full:.0f} % ({source_label(form.source)})."
    return {
        "words": words,
        "name": write_thread(found),
        "title": found.of.title,
        "facts": _facts(found),
        "sides": sides,
        "drills": [_drill(one, one is usual) for one in drills],
        "drill_note": note,
        "pitch": found.pitch,
    }


def _told(thread: Thread, diameter: float) -> TapDrill:
    return TapDrill(diameter, "", *engagement(thread, diameter), True, "common-practice")


def _drill(one: TapDrill, usual: bool) -> dict[str, Any]:
    return {
        "diameter": display(round(one.diameter, 3), "size"),
        "name": one.name,
        "engagement": f"{one.of_engagement:.0f} %",
        "full": f"{one.of_full:.0f} %",
        "within": one.within,
        "usual": usual,
    }


def _facts(t: Thread) -> list[dict[str, Any]]:
    standard = source_label(t.of.standard)

    def fact(label: str, value: float, kind: str = "size", source: str = standard) -> dict[str, Any]:
        return {"label": label, "display": as_plain(display(round(value, 4), kind)), "source": source}

    per_inch = f"{t.per_inch:.4g} per inch"
    found = [
        {"label": "pitch", "display": as_plain(Display(f"{t.pitch:.4g} mm", f"{t.pitch / 25.4:.5f} in, {per_inch}")), "source": standard},
        fact("major Ø, basic", t.diameter),
        fact("pitch Ø, basic", t.pitch_diameter),
        fact("root Ø outside", t.root_diameter),
        fact("minor Ø inside", t.inside_diameter),
        fact("depth outside", t.outside_depth),
        fact("depth inside", t.inside_depth),
        {"label": "lead angle at the pitch Ø", "display": as_plain(Display(*[f"{t.lead_angle:.2f}°"] * 2)), "source": "atan(lead/(π·d2))"},
        fact("stress area's Ø", t.stress_diameter, source=source_label("iso-898-1")),
    ]
    if t.starts > 1:
        found.insert(1, fact(f"lead, {t.starts} starts", t.lead))
    if t.left_hand:
        found.insert(1, {"label": "hand", "display": as_plain(Display("left", "left")), "source": "as written"})
    return found


def _side(t: Thread, internal: bool, cls: str) -> dict[str, Any]:
    found = side(t, internal, cls)
    own = found.limits
    measuring = [
        {"label": one.name, "display": as_plain(display(round(one.diameter, 4), "size")), "source": f"{one.which} Ø, {one.must}"}
        for one in gauges(t, own)
    ]
    try:
        wires = over_wires(t, own.pitch.middle, None, internal)
        what = "balls" if internal else "wires"
        measuring.append({"label": f"best {what}", "display": as_plain(display(round(wires.wire, 4), "size")), "source": "P/(2·cos α/2)"})
        for label, at in (("largest", own.pitch.high), ("least", own.pitch.low)):
            over = over_wires(t, at or 0.0, None, internal)
            lead = over.lead_correction
            why = f"with {1000 * lead:.1f} µm for the lead" if lead > TOLD_FROM else "by formula"
            place = "between" if internal else "over"
            measuring.append(
                {"label": f"{place} them, {label}", "display": as_plain(display(round(over.measure, 4), "size")), "source": why}
            )
    except CuttingError as refused:
        measuring.append({"label": "wires", "display": as_plain(Display("–", "–")), "source": refused.message})
    zones = (("major", own.major), ("pitch", own.pitch), ("minor", own.minor))
    return {
        "internal": internal,
        "title": "inside" if internal else "outside",
        "class_name": own.class_name or usual_class(t, internal),
        "classes": [one for one in CLASSES.get(t.system, ((), ()))[internal] if one],
        "source": source_label(own.source),
        "zones": [_zone(name, one) for name, one in zones],
        "most": [list(p) for p in found.most],
        "least": [list(p) for p in found.least],
        "measuring": measuring,
    }


def _zone(name: str, zone: ThreadZone) -> dict[str, Any]:
    def told(value: float | None) -> Any:
        return as_plain(display(round(value, 4), "size")) if value is not None else None

    width = display(1000.0 * zone.width, "small_length") if zone.width is not None else None
    return {"diameter": name, "low": told(zone.low), "high": told(zone.high), "width": as_plain(width) if width else None}
