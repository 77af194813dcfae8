"""What stands on a set-up sheet: per operation the tool, speeds in both units, passes, offsets, checks and cautions."""

from __future__ import annotations

from collections import Counter
from typing import Any

from django.utils.safestring import mark_safe

from cutting.errors import CuttingError
from cutting.mechanics.deflection import Holding
from cutting.operations.frame.outcome import Outcome, Standing
from cutting.operations.frame.setup import Skin
from cutting.operations.registry import explore, kind_of
from cutting.operations.turned.setup import Setup
from cutting.operations.turned.size_control import ledger
from cutting.operations.turned.surface import Surface
from cutting.quantities import display, read_quantity, write
from cutting.quantities.retell import in_inch
from cutting.workpiece.hardness import told
from server.jobs.document.outcomes import outcome_of
from server.jobs.document.plan import entry_of, setup_of
from server.jobs.kinds import VIEWERS
from server.jobs.kinds.view import Shown, both, pieces
from server.jobs.measured.readings import readings_of
from server.jobs.models import Revision
from server.jobs.sheet.drawing import half_section_svg, scene_svg
from server.jobs.sheet.whole import whole_part
from server.jobs.shown.state import held_words, metal_words, part_before, stages_of, state_of
from server.shop import Shop
from server.words import tool_name

DEFER = "The machine's manual, local rules and trained people come first. This sheet advises; it does not say that a cut is safe."
COMMON = 0.6  # share of the operations from which a line is said for all


def sheet_content(revision: Revision, only: str | None, units: str, stock: Shop) -> dict[str, Any]:
    """The sheet of a job, or of one of its operations. Raises a 404 refusal for an operation that is not there."""
    document = revision.document
    if only:
        entry_of(document, only)
    system = "inch" if units == "inch" else "metric"
    entries = [entry for entry in document["operations"] if not only or entry["id"] == only]
    blank = {name: read_quantity(document["stock"][name], "length", field=name).value for name in ("diameter", "free_length", "bore")}
    bore = f", bore Ø{_length(blank['bore'], system)}" if blank["bore"] else ""
    operations = [_operation(revision, entry, system, stock) for entry in entries]
    stands = "stick-out" if stock.library.machine(document["machine"]).turns else "high on its table"
    stands_out = f"Ø{_length(blank['diameter'], system)}{bore}, {_length(blank['free_length'], system)} {stands}"
    if layers := document["stock"].get("layers"):
        stands_out += f"; layers {layers}"
    hard = told(document["hardness"]) if document.get("hardness") else "as usually delivered"
    return {
        "job": document["name"],
        "revision": revision.number,
        "sheet": "set-up sheet",
        "head": [
            ("material", f"{document['material']}, {hard}"),
            ("machine", document["machine"]),
            ("stock", stands_out),
            ("pieces", f"{document['batch']['pieces']}, {document['goal']}"),
            ("saved", f"{revision.at:%Y-%m-%d %H:%M} UTC, {revision.author.get_username()}"),
        ],
        "whole": None if only else {**whole_part(revision, system, stock), "common": _said_once(operations)},
        "operations": operations,
        "defer": DEFER,
    }


def operation_card(revision: Revision, entry: dict[str, Any], units: str, stock: Shop) -> dict[str, Any]:
    """What the sheet says of one operation, as plain lines for a screen at the machine."""
    found = _operation(revision, entry, "inch" if units == "inch" else "metric", stock)

    def lines(name: str) -> list[dict[str, str]]:
        return [{"label": label, "value": value} for label, value in found.get(name, ())]

    tools = state_of(revision, None, stock)["tools"]
    return {
        "number": entry["number"],
        "title": found["title"],
        "problem": found["problem"],
        **{name: lines(name) for name in ("tool", "speeds", "offsets")},
        "table": found.get("table") or {"caption": "", "head": [], "rows": []},
        **{name: found.get(name, []) for name in ("checks", "cautions")},
        "place": next((tool["pocket"] for tool in tools if entry["number"] in tool["operations"]), None),
    }


def _said_once(operations: list[dict[str, Any]]) -> list[str]:
    """Checks and cautions that most operations share: they are taken out of each and said once, on the first page."""
    said = Counter(line for one in operations for line in {*one.get("checks", ()), *one.get("cautions", ())})
    common = [line for line, times in said.items() if times > 1 and times >= COMMON * len(operations)]
    for one in operations:
        for name in ("checks", "cautions"):
            if name in one:
                one[name] = [line for line in one[name] if line not in common]
    return sorted(common)


def _operation(revision: Revision, entry: dict[str, Any], system: str, stock: Shop) -> dict[str, Any]:
    head = {"number": entry["number"], "title": _told(entry["title"], system)}
    try:
        setup = setup_of(revision.document, entry, None, stock)
        outcome = outcome_of(setup)
    except CuttingError as error:
        said = state_of(revision, None, stock)["operations"] if not entry["tool"] else []
        no_tool = next((row["problem"]["inch" if system == "inch" else "metric"] for row in said if row["id"] == entry["id"]), "")
        return {**head, "problem": no_tool.capitalize() or str(error)}
    found = {**head, **_facts(revision, entry, setup, outcome, system, stock)}
    if held := held_words(entry):
        found["speeds"].insert(0, ("part", f"{held}, {_length(setup.holding.free_length, system)} out"))
    if metal := metal_words(revision.document, entry, setup):
        found["speeds"].insert(0, ("metal", metal.removeprefix("in ")))
    return found


def _problem(outcome: Outcome) -> str:
    """What stands in large words where a hard limit does not hold."""
    if outcome.feasible:
        return ""
    blocked = next((one.text for one in outcome.warnings if one.severity == "blocks"), "")
    binding = outcome.binding
    if blocked or outcome.standing is Standing.OVER:
        return f"Not ready: {blocked or f'{binding.label} exceeds its limit.'}"
    return f"Close: {binding.label} holds in {100 * binding.holds:.0f} of 100 runs; {100 * binding.asked:.0f} are required."


def _facts(revision: Revision, entry: dict[str, Any], setup: Any, outcome: Outcome, system: str, stock: Shop) -> dict[str, Any]:
    if not VIEWERS[setup.operation].staged:
        return _by_kind(revision, entry, setup, outcome, system, stock)
    drawn = stages_of(revision.document, entry, setup, outcome.passes, stock)
    return {
        "problem": _problem(outcome),
        "scene": mark_safe(scene_svg(setup, drawn[-1])),
        "tool": _tool(setup, outcome, system),
        "speeds": _speeds(setup, outcome, system),
        "table": _pass_table(outcome, system),
        "offsets": _offsets(setup, revision.job_id, entry["id"], outcome, system),
        "checks": _checks(setup, outcome, system),
        "cautions": [_told(w.said, system) for w in outcome.warnings if w.severity != "note" or w.harm],
    }


def _told(sentence: str, system: str) -> str:
    return in_inch(sentence) if system == "inch" else sentence


def _length(value: float, system: str) -> str:
    return write(value, "length", system)


def change_words(setup: Any, outcome: Outcome) -> str:
    """How often the edge is changed, in pieces; one that outlasts the batch goes with it."""
    parts = outcome.results["change_parts"].value
    return f"{pieces(parts)}, more than the batch" if parts >= setup.batch.pieces else pieces(parts)


def _parts(setup: Any) -> list[tuple[str, str]]:
    """The tool's parts by what each is for."""
    names = setup.tool_names
    return [(role.title, tool_name(names[role.name])) for role in kind_of(setup.operation).roles]


def _tool(setup: Setup, outcome: Outcome, system: str) -> list[tuple[str, str]]:
    return [
        *_parts(setup),
        ("edge angle", f"KAPR {setup.holder.code.cutting_edge_angle:g}°"),
        ("corner radius", both(display(setup.insert.code.nose_radius, "length"), system)),
        ("overhang", both(display(setup.overhang, "length"), system)),
        ("centre height", "on centre" if not setup.centre_height else f"{write(setup.centre_height, 'length', system)} over the axis"),
        ("change interval", change_words(setup, outcome)),
    ]


def _speeds(setup: Setup, outcome: Outcome, system: str) -> list[tuple[str, str]]:
    results = outcome.results
    found = [
        ("cutting speed", both(results["cutting_speed"].display, system)),
        ("spindle speed, last pass", both(results["spindle_speed"].display, system)),
        ("feed", both(display(setup.feed, setup.FEED or "feed_per_rev"), system)),
        ("direction", "towards the centre" if setup.surface is Surface.FACE else setup.settings.direction.value),
        ("coolant", _coolant(setup, system)),
        ("time", both(results["operation_time"].display, system)),
    ]
    if setup.settings.spindle_clamp:
        found.insert(2, ("max. spindle speed", f"{setup.settings.spindle_clamp:.0f} rpm"))
    return found


def _coolant(setup: Setup, system: str) -> str:
    pressure = setup.machine.pressure(setup.settings.coolant) or 0.0
    return f"{setup.settings.coolant}, {both(display(pressure, 'pressure'), system)}" if pressure else setup.settings.coolant


def _pass_table(outcome: Outcome, system: str) -> dict[str, Any]:
    def bare(value: float) -> str:
        return write(value, "length", system, False)

    unit = "in" if system == "inch" else "mm"
    return {
        "caption": f"passes, {unit} and s",
        "head": ["pass", "from Ø", "to Ø", "depth", "rpm", "chip", "time"],
        "rows": [
            [
                str(p.number),
                bare(p.from_diameter),
                bare(p.to_diameter),
                bare(round(p.depth, 4)),
                f"{p.spindle_speed:.0f}",
                p.chip.verdict,
                f"{p.seconds:.0f}",
            ]
            for p in outcome.passes
        ],
    }


def _by_kind(revision: Revision, entry: dict[str, Any], setup: Any, outcome: Outcome, system: str, stock: Shop) -> dict[str, Any]:
    """The sheet of a kind that brings its own facts and table."""
    viewer = VIEWERS[setup.operation]
    shown = Shown(setup, outcome, explore(setup), system)
    side = "inch" if system == "inch" else "metric"
    given: dict[str, Any] = viewer.table(shown) if viewer.table else {"caption": "", "head": [], "rows": []}
    part = part_before(revision.document, entry, stock)
    bore = float(outcome.scene.get("bore") or 0.0)
    return {
        "problem": _problem(outcome),
        "scene": mark_safe(half_section_svg(part.outline, kind_of(setup.operation).area(setup, part), bore)),
        "tool": [
            *_parts(setup),
            ("overhang", both(display(setup.overhang, "length"), system)),
            *viewer.facts(setup, outcome, system),
            ("change interval", change_words(setup, outcome)),
        ],
        "speeds": _speeds_of_kind(setup, outcome, system),
        "table": _pass_table(outcome, system)
        if isinstance(setup, Setup)
        else {
            "caption": given["caption"].lower(),
            "head": [getattr(one, side) for one in given["head"]],
            "rows": [[getattr(cell, side) for cell in row["cells"]] for row in given["rows"]],
        },
        "offsets": _offsets(setup, revision.job_id, entry["id"], outcome, system),
        "checks": [*viewer.checks, *(_of_size(setup, system) if isinstance(setup, Setup) else [])],
        "cautions": [_told(w.said, system) for w in outcome.warnings if w.severity != "note" or w.harm],
    }


def _speeds_of_kind(setup: Any, outcome: Outcome, system: str) -> list[tuple[str, str]]:
    results = outcome.results
    found = [
        ("cutting speed", both(results["cutting_speed"].display, system)),
        ("spindle speed", both(results["spindle_speed"].display, system)),
        ("feed", both(display(setup.feed, setup.FEED or "feed_per_rev"), system)),
        ("coolant", _coolant(setup, system)),
        ("time", both(results["operation_time"].display, system)),
    ]
    if getattr(setup.settings, "spindle_clamp", None):
        found.insert(2, ("max. spindle speed", f"{setup.settings.spindle_clamp:.0f} rpm"))
    return found


def _offsets(setup: Setup, job_id: int, operation: str, outcome: Outcome, system: str) -> list[tuple[str, str]]:
    if not isinstance(setup, Setup) or not setup.keeps_size:
        return []
    found = [("deflection, on Ø", both(display(1000 * outcome.results["size_error"].value, "small_length"), system))]
    _, readings = readings_of(job_id, operation, setup.house.measuring_uncertainty)
    known = ledger(setup, readings)
    if known.entries:
        found.append(("offset of the tool, measured", both(display(1000 * known.setting, "small_length"), system)))
        if known.next:
            found.append((f"program Ø for pass {known.next.pass_number}", _length(round(known.next.command, 3), system)))
    if every := outcome.results.get("correct_every"):
        found.append(("offset interval", f"{pieces(every.value)}, the nose wears back"))
    return found


def _of_size(setup: Setup, system: str) -> list[str]:
    """When to measure, and between what the finished size lies."""
    size = setup.feature.end_diameter
    if not setup.keeps_size or not size.tolerance:
        return []
    low, high = (write(size.target + sign * size.tolerance / 2, "size", system) for sign in (-1, 1))
    found = [f"Measure before the last pass, part at 20 °C. Finished: {low} to {high}."]
    if setup.target_diameter != size.target:
        verb = "Bore" if setup.inside else "Turn"
        found.append(f"{verb} to {_length(setup.target_diameter, system)}: the rest is left for grinding or polishing.")
    return found


def _checks(setup: Setup, outcome: Outcome, system: str) -> list[str]:
    feature, holding = setup.feature, setup.holding
    found = ["Tip at the height named; shortest overhang; insert and shim clean and seated; the right key."]
    held = {Holding.CHUCK: "chuck only", Holding.CHUCK_AND_CENTRE: "chuck and centre", Holding.BETWEEN_CENTRES: "between centres"}
    out = _length(holding.free_length, system)
    steady = f", steady rest at {_length(holding.steady, system)} from the chuck" if holding.steady else ""
    if setup.machine.turns:
        found.append(f"Stick-out {out}, {held[holding.style]}{steady}; stop against the jaws or backstop.")
    if setup.skin in (Skin.WELD, Skin.FORGED, Skin.CAST):
        found.append("Turn the part by hand and touch off on its highest point.")
    found += _of_size(setup, system)
    if feature.roughness:
        wanted, expected = display(feature.roughness, "small_length"), outcome.results["roughness"].display
        found.append(f"Finish Ra {both(wanted, system)}; expected {both(expected, system)}.")
    found.append(f"Chips: {outcome.chip.form}, {outcome.chip.length}. If they differ, stop and check before the next piece.")
    return found
