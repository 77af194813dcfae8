"""The open JSON form of a `Setup` and an advice request, with units as people write them. See docs/json-form.md."""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Mapping
from typing import Any, cast

from cutting.doors.fields_form import in_own_kind, read_section
from cutting.doors.reader import Reader, number, read_points, typed
from cutting.errors import AmbiguousQuantity, CuttingError, UnknownName
from cutting.machine.machines import Machine, find_machine
from cutting.mechanics.deflection import Holding
from cutting.operations.frame.fields import Base
from cutting.operations.frame.kind import Kind
from cutting.operations.frame.setup import Batch, Goal, HouseRules, Skin, Workholding
from cutting.operations.registry import KINDS
from cutting.operations.turned.feature import Direction, Feature, Settings
from cutting.operations.turned.setup import Setup
from cutting.quantities import read_dimension, read_quantity
from cutting.tooling.blades import GrooveBlade, GrooveInsert, NarrowStock, find_groove_blade, find_groove_insert, shipped_stock
from cutting.tooling.crib import Crib
from cutting.tooling.items import Holder, Insert, find_holder, find_insert, holders, inserts
from cutting.workpiece.hardness import brinell
from cutting.workpiece.materials import Material, deliver, find_material

FEATURE_LENGTHS = ("length", "distance_from_chuck", "fillet", "grinding_allowance", "skin_depth")
HOLDING_LENGTHS = ("free_length", "grip_diameter", "bore", "centre_diameter", "steady", "face")


@dataclasses.dataclass(frozen=True)
class Library:
    """Where names are looked up: the shipped tables, or a shop's own rows."""

    material: Callable[[str], Material] = find_material
    machine: Callable[[str], Machine] = find_machine
    insert: Callable[[str], Insert] = find_insert
    holder: Callable[[str], Holder] = find_holder
    groove_insert: Callable[[str], GrooveInsert] = find_groove_insert
    groove_blade: Callable[[str], GrooveBlade] = find_groove_blade
    stock: Callable[[str, Material, Machine], NarrowStock] = lambda use, material, machine: shipped_stock(use)
    crib: Callable[[str, Material, Machine], Crib] = lambda operation, material, machine: Crib(inserts(), holders())


SHIPPED = Library()


def read_setup(data: Mapping[str, Any], library: Library = SHIPPED) -> Setup:
    """A `Setup` from its JSON form.

    Names are looked up in `library`; quantities are text in any unit, or bare numbers in the system named by
    `units` ("mm" or "inch"). Raises `CuttingError` whose field is the path in the form.
    """
    top = Reader(data, "", _system(data), TOP)
    _tool_wanted(top)
    tool = Reader(top.need("tool"), "tool", top.system, ("insert", "holder"))
    insert = _named(library.insert, tool, "insert")
    holder = _named(library.holder, tool, "holder")
    return _assemble(top, library, insert, holder, None)


def read_any(data: Mapping[str, Any], library: Library = SHIPPED) -> Any:
    """A set-up of any kind of operation from its JSON form. Raises `CuttingError`."""
    operation = data.get("operation") if isinstance(data, Mapping) else None
    if not isinstance(operation, str) or operation not in KINDS or not KINDS[operation].narrow:
        return read_setup(data, library)
    kind = KINDS[operation]
    top = _narrow_top(data, kind)
    _tool_wanted(top)
    tool = Reader(top.need("tool"), "tool", top.system, ("insert", "holder"))
    insert, blade = _named(library.groove_insert, tool, "insert"), _named(library.groove_blade, tool, "holder")
    return _checked(kind, _base(top, library), insert, blade, _sections(top, kind, True))


def read_any_request(data: Mapping[str, Any], library: Library = SHIPPED) -> tuple[Any, Any]:
    """An advice request of any kind: its set-up, in which `tool` and `settings` may be left out, and the stock to choose from.

    Raises `CuttingError`.
    """
    operation = data.get("operation") if isinstance(data, Mapping) else None
    if not isinstance(operation, str) or operation not in KINDS or not KINDS[operation].narrow:
        return read_request(data, library)
    kind = KINDS[operation]
    top = _narrow_top(data, kind)
    base = _base(top, library)
    sections = _sections(top, kind, False)
    sections["settings"] = {**sections["settings"], "cutting_speed": 100.0, "feed_per_rev": 0.05}
    for own in kind.ranked:
        sections["settings"].pop(own, None)
    stock = library.stock(kind.use(top.data["feature"]), base.work.material, base.machine)
    stock = dataclasses.replace(stock, turning=lambda: library.crib("turn", base.work.material, base.machine))
    left, right = stock.pairs
    if not len(left):
        raise CuttingError("crib", stock.note or "the crib stocks no tool for this.")
    assert kind.build is not None
    setup = kind.build(base, stock.inserts[int(left[0])], stock.blades[int(right[0])], sections)
    setup.check_case()  # its tool only stands for those that compete
    return setup, stock


def read_feature_of(operation: str, data: Mapping[str, Any], system: str = "mm") -> Any:
    """The feature of an operation of any kind from its JSON form alone, as drawings of the whole part need it. Raises `CuttingError`."""
    kind = KINDS[operation]
    if not kind.narrow:
        return read_feature(data, system)
    top = Reader({"feature": data}, "", system, ("feature",))
    assert kind.read_feature is not None
    return kind.read_feature(read_section(top, "feature", kind.fields.feature, True))


def _narrow_top(data: Mapping[str, Any], kind: Kind) -> Reader:
    return Reader(data, "", _system(data), (*TOP, "bar") if kind.fields.bar else TOP)


def _sections(top: Reader, kind: Kind, settings: bool) -> dict[str, dict[str, Any]]:
    fields = kind.fields
    feature = read_section(top, "feature", fields.feature, True)
    wanted = fields.settings if settings else tuple(dataclasses.replace(one, required=False) for one in fields.settings)
    return {
        "feature": feature,
        "settings": in_own_kind(read_section(top, "settings", wanted, settings), feature, fields),
        "holding": read_section(top, "holding", fields.holding, False),
        "bar": read_section(top, "bar", fields.bar, False) if fields.bar else {},
    }


def _base(top: Reader, library: Library) -> Base:
    material = _named(library.material, top, "material")
    hardness = brinell(str(typed(top.data["hardness"], "hardness")), material.group) if top.has("hardness") else None
    return Base(
        work=deliver(material, hardness),
        machine=_named(library.machine, top, "machine"),
        house=read_house(top.data.get("house") or {}),
        batch=_batch(top),
        goal=top.choice("goal", Goal, Goal.CHEAPEST),
        skin=top.choice("skin", Skin, Skin.CLEAN),
    )


def _checked(kind: Kind, base: Base, insert: GrooveInsert, blade: GrooveBlade, sections: dict[str, dict[str, Any]]) -> Any:
    assert kind.build is not None
    setup = kind.build(base, insert, blade, sections)
    setup.check()
    return setup


def read_request(data: Mapping[str, Any], library: Library = SHIPPED) -> tuple[Setup, Crib]:
    """An advice request: a `Setup` form in which `tool` and `settings` may be left out, and the crib to choose from.

    Raises `CuttingError`.
    """
    top = Reader(data, "", _system(data), TOP)
    operation = str(top.need("operation"))
    crib = library.crib(operation, _named(library.material, top, "material"), _named(library.machine, top, "machine"))
    if not crib.inserts or not crib.holders:
        raise CuttingError("crib", crib.note or "the crib is empty; there is nothing to rank.")
    neutral = Settings(100.0, 0.1, 30.0)
    return _assemble(top, library, crib.inserts[0], crib.holders[0], neutral), crib


TOP = (
    "operation",
    "units",
    "material",
    "hardness",
    "machine",
    "tool",
    "feature",
    "settings",
    "holding",
    "house",
    "batch",
    "goal",
    "skin",
    "note",
)


def _tool_wanted(top: Reader) -> None:
    top.need("tool")
    top.need("settings")


def _system(data: Mapping[str, Any]) -> str:
    units = str(data.get("units", "mm")) if isinstance(data, Mapping) else "mm"
    if units not in ("mm", "inch"):
        raise CuttingError("units", f"'{units}' is none of: mm, inch.", "mm, inch")
    return units


def _named(find: Callable[[str], Any], reader: Reader, name: str) -> Any:
    text = reader.need(name)
    if not isinstance(text, str):
        raise CuttingError(reader.field(name), "a name is wanted.")
    try:
        return find(text)
    except CuttingError as error:
        error.field = reader.field(name)
        raise


def _assemble(top: Reader, library: Library, insert: Insert, holder: Holder, neutral: Settings | None) -> Setup:
    operation = str(top.need("operation"))
    if operation not in KINDS:
        raise UnknownName("operation", f"no operation is called '{operation}'; there are {', '.join(KINDS)}.")
    if KINDS[operation].narrow:
        raise CuttingError("operation", f"'{operation}' is not turned with an insert and a holder.", "turn, face")
    base = _base(top, library)
    feature = _feature(Reader(top.need("feature"), "feature", top.system, FEATURE_FIELDS))
    given = top.data.get("settings") or {}
    settings = neutral if neutral and not given else _settings(Reader(given, "settings", top.system, SETTINGS), feature, neutral)
    setup = Setup(
        operation=operation,
        insert=insert,
        holder=holder,
        feature=feature,
        settings=settings,
        holding=_holding(Reader(top.data.get("holding") or {}, "holding", top.system, HOLDING), feature),
        **vars(base),
    )
    setup.check()
    return setup


FEATURE_FIELDS = ("start_diameter", "end_diameter", "roughness", "shoulder", "profile", "polish", *FEATURE_LENGTHS)


def read_feature(data: Mapping[str, Any], system: str = "mm") -> Feature:
    """A `Feature` from its JSON form alone. Raises `CuttingError`."""
    return _feature(Reader(data, "feature", system, FEATURE_FIELDS))


def _feature(r: Reader) -> Feature:
    end = read_dimension(typed(r.need("end_diameter"), r.field("end_diameter")), r.system, r.field("end_diameter"))
    lengths = {name: r.quantity(name, "length") for name in FEATURE_LENGTHS if r.has(name)}
    if "length" not in lengths:
        r.need("length")
    roughness = r.quantity("roughness", "small_length") if r.has("roughness") else None
    start = read_dimension(typed(r.need("start_diameter"), r.field("start_diameter")), r.system, r.field("start_diameter"))
    return Feature(
        start_diameter=start.nominal,
        end=end,
        roughness=roughness,
        shoulder=r.flag("shoulder"),
        polish=r.flag("polish"),
        profile=r.points("profile"),
        **cast("dict[str, Any]", lengths),
    )


SETTINGS = (
    "cutting_speed",
    "feed_per_rev",
    "depth_of_cut",
    "coolant",
    "spindle_clamp",
    "overhang",
    "last_depth",
    "pass_depths",
    "centre_height",
    "direction",
    "nozzles",
    "nozzle_diameter",
)


def _settings(r: Reader, feature: Feature, neutral: Settings | None) -> Settings:
    """Speed may be given as spindle speed and feed per minute: both are turned into their own kind at the start diameter."""

    def given(name: str) -> Any:
        return r.need(name) if neutral is None or r.has(name) else getattr(neutral, name)

    speed = read_quantity(
        typed(given("cutting_speed"), r.field("cutting_speed")),
        "cutting_speed",
        "spindle_speed",
        system=r.system,
        field=r.field("cutting_speed"),
    )
    diameter = feature.start_diameter
    vc = speed.value if speed.kind == "cutting_speed" else 3.141592653589793 * diameter * speed.value / 1000
    feed = read_quantity(
        typed(given("feed_per_rev"), r.field("feed_per_rev")), "feed_per_rev", "feed_rate", system=r.system, field=r.field("feed_per_rev")
    )
    f = feed.value
    if feed.kind == "feed_rate":
        if vc <= 0:
            raise CuttingError(r.field("cutting_speed"), "must be above zero to turn a feed per minute into feed per revolution.")
        f = feed.value / (1000 * vc / (3.141592653589793 * diameter))
    coolant = str(r.data.get("coolant") or "flood")
    return Settings(
        cutting_speed=vc,
        feed_per_rev=f,
        depth_of_cut=r.quantity_of(given("depth_of_cut"), "depth_of_cut", "length"),
        coolant=coolant,
        spindle_clamp=r.quantity("spindle_clamp", "spindle_speed") if r.has("spindle_clamp") else None,
        overhang=r.quantity("overhang", "length") if r.has("overhang") else None,
        last_depth=r.quantity("last_depth", "length") if r.has("last_depth") else None,
        pass_depths=r.quantities("pass_depths", "length"),
        centre_height=r.quantity("centre_height", "length") if r.has("centre_height") else None,
        direction=r.choice("direction", Direction, Direction.TOWARDS),
        nozzles=r.whole("nozzles", 2, 0, 8),
        nozzle_diameter=r.quantity("nozzle_diameter", "length") if r.has("nozzle_diameter") else 1.0,
    )


HOLDING = ("style", "interrupted", "weak", "grip_share", "steps", *HOLDING_LENGTHS)


def _holding(r: Reader, feature: Feature) -> Workholding:
    lengths = {name: r.quantity(name, "length") for name in HOLDING_LENGTHS if r.has(name)}
    lengths.setdefault("free_length", feature.distance_from_chuck + feature.length + 10.0)
    lengths.setdefault("grip_diameter", feature.start_diameter)
    share = number(r.data["grip_share"], r.field("grip_share")) if r.has("grip_share") else 1.0
    if not 0.05 <= share <= 1:
        raise CuttingError(r.field("grip_share"), f"{share:g} is outside 0.05 to 1.", "0.05 to 1")
    return Workholding(
        style=r.choice("style", Holding, Holding.CHUCK),
        interrupted=r.flag("interrupted"),
        weak=r.flag("weak"),
        grip_share=share,
        steps=r.points("steps"),
        **cast("dict[str, Any]", lengths),
    )


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
    "secure_probability": (0.5, 0.9999),
    "attended_probability": (0.3, 0.9999),
    "chip_index_wanted": (0, 100),
    "rough_size_error": (0.001, 5),
    "share_of_tolerance": (0.05, 1),
    "grip_safety": (1, 10),
    "jaw_friction": (0.05, 0.6),
    "tool_bend": (0.001, 1),
    "light_cut": (0.01, 5),
    "off_centre": (0, 0.05),
    "polishing_allowance": (0, 0.2),
    "measuring_uncertainty": (0.0001, 1),
}


def _batch(top: Reader) -> Batch:
    r = Reader(top.data.get("batch") or {}, "batch", top.system, ("pieces", "unattended_hours", "piece_seconds"))
    hours = number(r.data["unattended_hours"], r.field("unattended_hours")) if r.has("unattended_hours") else 0.0
    if not 0 <= hours <= 168:
        raise CuttingError(r.field("unattended_hours"), f"{hours:g} is outside 0 to 168.", "0 to 168 h")
    seconds = r.quantity("piece_seconds", "duration") if r.has("piece_seconds") else None
    return Batch(r.whole("pieces", 50, 1, 10_000_000), hours, seconds)


__all__ = [
    "SHIPPED",
    "AmbiguousQuantity",
    "Library",
    "read_any",
    "read_any_request",
    "read_feature",
    "read_feature_of",
    "read_house",
    "read_points",
    "read_request",
    "read_setup",
]
