"""The open JSON form of a `Setup` and an advice request, with units as people write them. See docs/json-form.md."""

from __future__ import annotations

import dataclasses
import re
from collections.abc import Callable, Mapping
from typing import Any

from cutting.belief.beliefs import CENTRES, WIDE, Belief
from cutting.doors.assemble import Library, Wanted, assembled, requested
from cutting.doors.fields_form import read_section
from cutting.doors.heavy_tool_form import read_heavy_tool
from cutting.doors.reader import Reader, number, read_points, typed
from cutting.errors import AmbiguousQuantity, CuttingError, UnknownName, require_between
from cutting.machine.machines import Machine
from cutting.operations.frame.fields import Base
from cutting.operations.frame.kind import Kind
from cutting.operations.frame.learned import UNTAUGHT, Learned
from cutting.operations.frame.setup import Batch, Goal, HouseRules, Skin
from cutting.operations.registry import KINDS
from cutting.tooling.heavy.tool import HEAVY_KIND
from cutting.workpiece.hardness import brinell
from cutting.workpiece.materials import deliver
from cutting.workpiece.stack import delivered

SHIPPED = Library()


def read_setup(data: Mapping[str, Any], library: Library = SHIPPED) -> Any:
    """A set-up of any kind of operation from its JSON form.

    Names are looked up in `library`; quantities are text in any unit, or bare numbers in the system named by
    `units` ("mm" or "inch"). Raises `CuttingError` whose field is the path in the form.
    """
    kind, top = _kind(data)
    top.need("tool")
    top.need("settings")
    base = _base(top, library)
    tool = dict(Reader(top.need("tool"), "tool", top.system, tuple(role.name for role in kind.roles)).data)
    for role in kind.roles:  # a tool that is built for one part may be told whole
        if HEAVY_KIND in role.kinds and isinstance(told := tool.get(role.name), Mapping):
            tool[role.name] = read_heavy_tool(told, f"tool.{role.name}", top.system, library.grade)
    return assembled(kind, base, tool, _sections(top, kind, True, library), library)


def read_request(data: Mapping[str, Any], library: Library = SHIPPED) -> tuple[Any, Any]:
    """An advice request of any kind: its set-up, in which `tool` and `settings` may be left out, and the stock to choose from.

    Raises `CuttingError`.
    """
    kind, top = _kind(data)
    base, sections = _base(top, library), _sections(top, kind, False, library)
    sections["settings"] = {name: value for name, value in sections["settings"].items() if name not in kind.ranked}
    return requested(kind, base, sections, library)


def read_feature_of(operation: str, data: Mapping[str, Any], system: str = "mm") -> Any:
    """The feature of an operation of any kind from its JSON form alone, as drawings of the whole part need it. Raises `CuttingError`."""
    kind = KINDS[operation]
    return kind.read_feature(read_section(Reader({"feature": data}, "", system, ("feature",)), "feature", kind.fields.feature, True))


def read_asked(operation: str, data: Mapping[str, Any], system: str = "mm") -> dict[str, Any]:
    """What a drawing asks of a feature, read as far as it is given, by the fields of a kind of operation. Raises `CuttingError`."""
    fields = tuple(dataclasses.replace(one, required=False) for one in KINDS[operation].fields.feature if one.drawn)
    return read_section(Reader({"feature": data}, "", system, ("feature",)), "feature", fields, False)


def _kind(data: Mapping[str, Any]) -> tuple[Kind, Reader]:
    operation = data.get("operation") if isinstance(data, Mapping) else None
    kind = KINDS.get(operation) if isinstance(operation, str) else None
    if kind is None and operation is not None:
        raise UnknownName("operation", f"no operation is called '{operation}'; there are {', '.join(KINDS)}.")
    known = (*TOP, "bar") if kind is not None and kind.fields.bar else TOP
    top = Reader(data, "", _system(data), known)
    top.need("operation")
    assert kind is not None
    version = top.data.get("version", VERSION)
    if version == 1:
        return kind, Reader(_from_version_1(data, kind), "", top.system, known)
    if version != VERSION:
        said = f"this bench reads versions 1 and {VERSION} of the form; docs/json-form.md says what each version holds."
        raise CuttingError("version", said, str(VERSION))
    return kind, top


def _from_version_1(data: Mapping[str, Any], kind: Kind) -> dict[str, Any]:
    """The form in the present version: what carries a grooving insert was called its holder, trepanning's feed per revolution."""
    tool = data.get("tool")
    if isinstance(tool, Mapping) and "holder" in tool and all(role.name != "holder" for role in kind.roles):
        tool = {kind.roles[-1].name if name == "holder" else name: part for name, part in tool.items()}
    settings = data.get("settings")
    if isinstance(settings, Mapping) and "feed_per_rev" in settings and kind.fields.has("settings", "feed_per_tooth"):
        settings = {("feed_per_tooth" if name == "feed_per_rev" else name): value for name, value in settings.items()}
        settings["feed_per_tooth"] = per_tooth(settings["feed_per_tooth"])
    changed = {"tool": tool, "settings": settings}
    return {**data, **{name: value for name, value in changed.items() if value is not None}}


def per_tooth(feed: Any) -> Any:
    """A feed that was written per revolution and meant per edge, written so."""
    return re.sub(r"/\s*(rev|r|u)\b", "/z", feed).replace("ipr", "ipt") if isinstance(feed, str) else feed


def _sections(top: Reader, kind: Kind, settings: bool, library: Library) -> dict[str, dict[str, Any]]:
    fields = kind.fields
    feature = read_section(top, "feature", fields.feature, True)
    for one in fields.feature:
        if one.kind == "stack" and one.name in feature:
            feature[one.name] = delivered(feature[one.name], library.material, f"feature.{one.name}")
    wanted = fields.settings if settings else tuple(dataclasses.replace(one, required=False) for one in fields.settings)
    return {
        "feature": feature,
        "settings": read_section(top, "settings", wanted, settings),
        "holding": read_section(top, "holding", fields.holding, False),
        "bar": read_section(top, "bar", fields.bar, False) if fields.bar else {},
    }


def _base(top: Reader, library: Library) -> Base:
    material = _named(library.material, top, "material")
    hardness = brinell(str(typed(top.data["hardness"], "hardness")), material.group) if top.has("hardness") else None
    return Base(
        work=deliver(material, hardness),
        machine=_machine(top, library),
        house=read_house(top.data.get("house") or {}),
        batch=_batch(top),
        goal=top.choice("goal", Goal, Goal.CHEAPEST),
        skin=top.choice("skin", Skin, Skin.CLEAN),
        learned=read_learned(top.data.get("learned"), library),
    )


VERSION = 2  # of the form; a form that names none is taken for the newest
TOP = (
    "version",
    "operation",
    "units",
    "material",
    "hardness",
    "machine",
    "spindle",
    "tool",
    "feature",
    "settings",
    "holding",
    "house",
    "batch",
    "goal",
    "skin",
    "learned",
    "note",
)


def _machine(top: Reader, library: Library) -> Machine:
    """The machine, as the spindle that the operation runs on drives it."""
    machine: Machine = _named(library.machine, top, "machine")
    return machine.on(str(top.data["spindle"]).strip().lower()) if top.has("spindle") else machine


def _system(data: Mapping[str, Any]) -> str:
    units = str(data.get("units", "mm")) if isinstance(data, Mapping) else "mm"
    if units not in ("mm", "inch"):
        raise CuttingError("units", f"'{units}' is none of: mm, inch.", "mm, inch")
    return units


def _named(find: Callable[[str], Any], reader: Reader, name: str) -> Any:
    text = reader.need(name)
    if not isinstance(text, str):
        raise CuttingError(reader.field(name), "enter a name.")
    try:
        return find(text)
    except CuttingError as error:
        error.field = reader.field(name)
        raise


def read_house(data: Mapping[str, Any]) -> HouseRules:
    """House rules from the names and values that differ from the usual ones. Raises `CuttingError`."""
    known = {f.name: f for f in dataclasses.fields(HouseRules)}
    reader = Reader(data, "house", "metric", tuple(known))
    values: dict[str, Any] = {}
    for name, field in known.items():
        if reader.has(name):
            default = field.default
            values[name] = reader.flag(name) if isinstance(default, bool) else number(reader.data[name], f"house.{name}")
    rules = HouseRules(**values)
    for name, (low, high) in HOUSE_BOUNDS.items():
        if not low <= getattr(rules, name) <= high:
            raise CuttingError(f"house.{name}", f"{getattr(rules, name):g} is outside {low:g} to {high:g}.", f"{low:g} to {high:g}")
    return rules


HOUSE_BOUNDS = {
    "wear_factor": (1.0, 2.0),
    "sure_fastest": (0.5, 0.999),
    "sure_cheapest": (0.5, 0.999),
    "sure_secure": (0.5, 0.999),
    "secure_probability": (0.5, 0.9999),
    "attended_probability": (0.3, 0.9999),
    "longest_change_hours": (0.1, 48),
    "chip_index_wanted": (0, 100),
    "rough_size_error": (0.001, 5),
    "share_of_tolerance": (0.05, 1),
    "finish_of_tolerance": (0, 1),
    "general_roughness": (0.4, 50),
    "left_over_share": (0, 1),
    "grip_safety": (1, 10),
    "jaw_friction": (0.05, 0.6),
    "tool_bend": (0.001, 1),
    "light_cut": (0.01, 5),
    "off_centre": (0, 0.05),
    "polishing_allowance": (0, 0.2),
    "measuring_uncertainty": (0.0001, 1),
    "setting_step": (0.0001, 0.5),
    "temperature_known": (0.05, 20),
}


def read_learned(data: Any, library: Library) -> Learned:
    """What trials taught, from its JSON form: factors by material of `library`, chisel share, margin, growth. Raises `CuttingError`."""
    if data is None:
        return UNTAUGHT
    r = Reader(data, "learned", "metric", ("force", "chisel_share", "margin", "growth", "beliefs", "note"))
    factors = r.data.get("force") or {}
    if not isinstance(factors, Mapping):
        raise CuttingError("learned.force", 'factors by material are wanted, as {"C45": 1.1}.')
    growth = r.data.get("growth")
    if growth is not None and (not isinstance(growth, (list, tuple)) or len(growth) != 2):
        raise CuttingError("learned.growth", "two numbers are wanted: a and b of 1 + a·N^b.")
    note = str(r.data.get("note") or "")
    beliefs = [
        Belief("force", _factor(value, f"learned.force.{name}"), metal=_material_called(name, library), note=note)
        for name, value in factors.items()
    ]
    if r.has("margin"):
        beliefs.append(Belief("margins", _factor(r.data["margin"], "learned.margin", WIDE["margins"]), note=note))
    found = Learned(
        (*beliefs, *(_belief(one, k, library, note) for k, one in enumerate(_list(r.data.get("beliefs"))))),
        number(r.data["chisel_share"], "learned.chisel_share") if r.has("chisel_share") else None,
        (number(growth[0], "learned.growth"), number(growth[1], "learned.growth")) if growth is not None else None,
        note,
    )
    found.check()
    return found


def _list(given: Any) -> list[Any]:
    if given is None:
        return []
    if not isinstance(given, (list, tuple)) or len(given) > MOST_BELIEFS:
        raise CuttingError("learned.beliefs", f"give a list of at most {MOST_BELIEFS}.", f"at most {MOST_BELIEFS}")
    return list(given)


def _factor(value: Any, field: str, bounds: tuple[float, float] = CENTRES) -> float:
    return require_between(field, number(value, field), *bounds)


def _belief(given: Any, place: int, library: Library, note: str) -> Belief:
    """One belief: a quantity, its factor, how far it may still be off, and what it holds for."""
    path = f"learned.beliefs.{place}"
    r = Reader(given, path, "metric", ("quantity", "factor", "spread", "tool", "metal", "machine", "note"))
    metal = str(r.data.get("metal") or "")
    found = Belief(
        str(r.need("quantity")),
        number(r.need("factor"), r.field("factor")),
        number(r.data["spread"], r.field("spread")) if r.has("spread") else None,
        str(r.data.get("tool") or ""),
        metal if not metal or GROUP.fullmatch(metal) else _material_called(metal, library),
        str(r.data.get("machine") or ""),
        str(r.data.get("note") or note),
    )
    found.check(path)
    return found


MOST_BELIEFS = 200
GROUP = re.compile(r"group \d{1,2}")  # all metals of a group


def _material_called(name: Any, library: Library) -> str:
    try:
        return library.material(str(name)).name
    except CuttingError as error:
        error.field = f"learned.force.{name}"
        raise


def _batch(top: Reader) -> Batch:
    r = Reader(top.data.get("batch") or {}, "batch", top.system, ("pieces", "unattended_hours", "piece_seconds", "part_value"))
    hours = number(r.data["unattended_hours"], r.field("unattended_hours")) if r.has("unattended_hours") else 0.0
    if not 0 <= hours <= 168:
        raise CuttingError(r.field("unattended_hours"), f"{hours:g} is outside 0 to 168.", "0 to 168 h")
    seconds = r.quantity("piece_seconds", "duration") if r.has("piece_seconds") else None
    value = number(r.data["part_value"], r.field("part_value")) if r.has("part_value") else None
    if value is not None and not 0 <= value <= 1e7:
        raise CuttingError(r.field("part_value"), f"{value:g} is outside 0 to 10 000 000.", "0 to 10 000 000")
    return Batch(r.whole("pieces", 50, 1, 10_000_000), hours, seconds, value)


__all__ = [
    "SHIPPED", "AmbiguousQuantity", "Library", "Wanted", "read_asked", "read_feature_of", "read_house", "read_points", "read_request",
    "read_setup",
]  # fmt: skip
