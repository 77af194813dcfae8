"""The open tables: tools, geometries, grades, supplier's windows, materials, machines, spindles; one list of columns each."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import dataclass
from types import MappingProxyType

from cutting.chips.window import MAX_SIDES, window_sides
from cutting.errors import CuttingError, OutOfRange
from cutting.exchange.columns import Column, Record
from cutting.machine.condition import CONDITIONS
from cutting.machine.machines import FLAGS, MORE_NUMBERS, NUMBERS, Machine
from cutting.machine.seats import read_seats
from cutting.machine.spindle import NUMBERS as SPINDLE_NUMBERS
from cutting.machine.spindle import TITLES, TURNS_PART, Spindle
from cutting.mechanics.grip import grip_torque
from cutting.names import plain
from cutting.tooling.book import BookWindow, Span
from cutting.tooling.items import read_spans
from cutting.tooling.records import TOOL_KINDS, identity, properties, study, tool_name
from cutting.workpiece.hardness import brinell
from cutting.workpiece.materials import groups
from cutting.workpiece.user_material import NUMBERS as MATERIAL_NUMBERS
from cutting.workpiece.user_material import PHYSICAL, SHARES, complete


@dataclass(frozen=True)
class Table:
    """One open table. `finish` checks a record as a whole and brings it into its one form; `key` says which thing it is."""

    name: str
    title: str
    columns: tuple[Column, ...]
    finish: Callable[[Record], Record]
    key: Callable[[Record], str]
    label: Callable[[Record], str]
    needs: tuple[tuple[str, str], ...] = ()  # (column, table that the name must stand in)

    def column(self, name: str) -> Column:
        """The column of that name. Raises `KeyError`."""
        return next(column for column in self.columns if column.name == name)


def _source_columns() -> tuple[Column, ...]:
    return (
        Column("source", "source", "text", default="entered by the user"),
        Column("from_memory", "from memory", "flag", default=False),
    )


_STOCK = (
    Column("own_number", "own number", "text", longest=40, default=""),
    Column("pack_price", "pack price", "money", low=0, high=1_000_000, default=0.0),
    Column("pack_size", "pack size", "count", low=1, high=10_000, default=1),
    Column("price_date", "price date", "text", longest=10, default=""),
    Column("bin", "bin", "text", longest=20, default=""),
    Column("quantity", "quantity", "count", low=0, high=10_000_000, default=0),
)
COOLANTS = ("flood", "jet", "clamp", "through", "through both", "dry")


def _tool_columns() -> tuple[Column, ...]:
    given = tuple(Column(p.symbol, p.name, p.kind, low=p.low, high=p.high, longest=40) for p in properties().values())
    return (
        Column("kind", "kind", "choice", True, choices=tuple(TOOL_KINDS)),
        Column("designation", "designation", "text", True, longest=60),
        Column("geometry", "geometry", "text", longest=60, default=""),
        Column("grade", "grade", "text", longest=60, default=""),
        *_STOCK,
        Column("coolant", "coolant outlets", "choice", choices=COOLANTS, default="flood"),
        Column("successor", "discontinued, taken in its place", "text", longest=180, default=""),
        *given,
        *_source_columns(),
    )


_OWN_COLUMNS = tuple(column.name for column in _tool_columns() if column.name not in properties())
_NO_PROPERTIES: Record = dict.fromkeys(properties())
_DATE = re.compile(r"^\d{4}-(0[1-9]|1[0-2])(-(0[1-9]|[12]\d|3[01]))?$")


def finish_tool(record: Record) -> Record:
    """A tool's record in its one form: usual designation, properties that add to it. Raises `CuttingError`."""
    kind = TOOL_KINDS[record["kind"]]
    given = {symbol: value for symbol in properties() if (value := record.get(symbol)) is not None}
    found, added = study(record["kind"], record["designation"], given)
    for name in ("geometry", "grade"):
        if name in kind.carries and kind.name != "special tool" and not record[name]:
            raise CuttingError(name, f"is empty; a {kind.name} has a {name}.")
        if name not in kind.carries and record[name]:
            raise CuttingError(name, f"a {kind.name} carries no {name}.")
    if record["price_date"] and not _DATE.match(record["price_date"]):
        raise CuttingError("price_date", f"'{record['price_date']}' is not a date such as 2026-09 or 2026-09-30.")
    made = {name: record[name] for name in _OWN_COLUMNS}
    made["designation"] = found.designation
    made["pack_price"] = round(record["pack_price"], 2)
    return made | _NO_PROPERTIES | added


def finish_geometry(record: Record) -> Record:
    """A geometry with a window that is a field. Raises `CuttingError`."""
    if not 3 <= len(record["window"]) <= 40:
        raise CuttingError("window", "needs 3 to 40 points of feed:depth.", "3 to 40 points")
    for feed, depth in record["window"]:
        if not (0.005 <= feed <= 3 and 0.005 <= depth <= 30):
            raise OutOfRange("window", f"the point {feed:g}:{depth:g} is outside feeds of 0.005 to 3 and depths of 0.005 to 30 mm.")
    try:
        window_sides(record["window"])
    except ValueError as error:
        raise CuttingError("window", f"is no field: its points must enclose an area with at most {MAX_SIDES} outer corners.") from error
    return {**record, "suits": _letters(record["suits"], "suits")}


def _letters(text: str, field: str) -> str:
    found = "".join(letter for letter in "PMKNSH" if letter in text.upper())
    if len(found) != len(set(text.upper().replace(" ", ""))) or not found:
        raise CuttingError(field, f"'{text}' is not one or more of the ISO 513 letters P M K N S H.", "P M K N S H")
    return found


def finish_grade(record: Record) -> Record:
    """A grade with readable spans and a main letter among them. Raises `CuttingError`."""
    spans = read_spans(tuple(word.upper() for word in record["spans"]))
    for letter, low, high in spans:
        if low > high:
            raise OutOfRange("spans", f"{letter}{low:02d}-{letter}{high:02d} runs backwards.")
    if not spans:
        raise CuttingError("spans", "is empty; an ISO 513 span such as P10-P30 is needed.")
    if record["main_letter"] not in {letter for letter, _, _ in spans}:
        raise CuttingError("main_letter", f"{record['main_letter']} is not among the spans.", " ".join(s[0] for s in spans))
    return {**record, "spans": tuple(f"{a}{b:02d}-{a}{c:02d}" for a, b, c in spans)}


def book_window(record: Record) -> BookWindow:
    """The core's book window of a record."""
    speed, feed, depth = (Span(*(record[f"{name}_{part}"] for part in ("min", "start", "max"))) for name in ("speed", "feed", "depth"))
    return BookWindow(record["group"], speed, feed, depth, record["source"])


def finish_window(record: Record) -> Record:
    """A supplier's window whose spans rise. Raises `CuttingError`."""
    book_window(record).check()
    return record


def finish_material(record: Record) -> Record:
    """A material; what is blank comes from its group. Raises `CuttingError`."""
    if record["group"] not in groups():
        raise CuttingError("group", f"{record['group']} is none of the 41 groups of VDI 3323.", "1 to 41")
    delivered = {name: record[name] for name in ("hardness_low", "hardness_high") if isinstance(record[name], str)}
    converted = {name: round(brinell(text, groups()[record["group"]], name), 1) for name, text in delivered.items()}
    made, _ = complete(record | converted)
    if plain(record["name"]) == "":
        raise CuttingError("name", "holds no letter or digit.")
    return made


def finish_machine(record: Record) -> Record:
    """A machine whose curve, lists and limits go together. Raises `CuttingError`."""
    read_seats(record["seats"])
    return finish_drive(record)


def finish_drive(record: Record) -> Record:
    """A spindle whose curve, lists and limits go together. Raises `CuttingError`."""
    curve = record["power_curve"]
    if len(curve) < 2 or len(curve) > 60:
        raise CuttingError("power_curve", "needs 2 to 60 points of speed:power.", "2 to 60 points")
    speeds = [speed for speed, _ in curve]
    if speeds != sorted(speeds) or len(set(speeds)) != len(speeds):
        raise OutOfRange("power_curve", "its speeds must rise from point to point.")
    if max(power for _, power in curve) <= 0:
        raise OutOfRange("power_curve", "has no power above zero.")
    if record["speed_min"] > record["speed_max"]:
        raise OutOfRange("speed_min", f"{record['speed_min']:g} is above the top speed {record['speed_max']:g}.")
    outside = [speed for speed in record["speeds"] if not record["speed_min"] <= speed <= record["speed_max"]]
    if outside:
        raise OutOfRange("speeds", f"{outside[0]:g} is outside {record['speed_min']:g} to {record['speed_max']:g} rpm.")
    if not record["coolant"]:
        raise CuttingError("coolant", "is empty; name at least dry:0.")
    _check_grip(record)
    return record


LEAST_GRIP = 0.15  # of the grip at rest that a chuck keeps at its marked speed; makers mark where a third is left (EN 1550, from memory)


def _check_grip(record: Record) -> None:
    """Raise `OutOfRange` where jaws so heavy would let go at the chuck's own speed: a figure of the row is wrong then."""
    if record["jaw_force"] <= 0 or record["jaw_mass"] <= 0:
        return
    torque = grip_torque(1.0, record["jaw_force"], record["jaw_mass"], record["jaw_radius"], record["chuck_speed_max"], 2000.0)
    kept = float(torque) / record["jaw_force"]
    if kept < LEAST_GRIP:
        raise OutOfRange(
            "jaw_mass",
            f"{record['jaw_mass']:g} kg at {record['jaw_radius']:g} mm leave {kept:.0%} of the grip at {record['chuck_speed_max']:g} rpm;"
            " a power chuck keeps about a third at its marked speed: see mass and radius of its jaws, and the speed.",
            f"at least {LEAST_GRIP:.0%} of the grip at rest",
        )


def machine_of(record: Record) -> Machine:
    """The core's machine of a finished record."""
    return Machine(**{name: record[name] for name in (*_MACHINE_WORDS, *NUMBERS, *MORE_NUMBERS, *FLAGS)})


def spindle_of(record: Record) -> Spindle:
    """The core's spindle of a finished record."""
    figures = {name: value for name, value in record.items() if name not in ("machine", "spindle")}
    return Spindle(name=record["spindle"], **figures)


_MACHINE_WORDS = ("name", "description", "power_curve", "curve_at", "interface", "speeds", "feeds", "gear_set", "feed_set",
                  "constant_surface_speed", "coolant", "seats", "condition", "source")  # fmt: skip
_MACHINE_BOUNDS: dict[str, tuple[str, str, float, float, float | None]] = {
    # name: title, kind, low, high, default (None: required)
    "efficiency": ("efficiency", "number", 0.2, 1, 0.8),
    "speed_min": ("least speed", "spindle_speed", 0, 100_000, 20),
    "speed_max": ("top speed", "spindle_speed", 10, 100_000, None),
    "chuck_speed_max": ("chuck speed", "spindle_speed", 10, 100_000, None),
    "feed_rate_max": ("axis feed rate", "feed_rate", 1, 200_000, 8000),
    "rapid_rate": ("rapid", "feed_rate", 1, 200_000, 15000),
    "shank_height": ("shank height", "length", 0, 120, 25),
    "bar_bore": ("bar bore", "length", 0, 2000, 0),
    "swing": ("swing", "length", 0, 20_000, None),
    "turning_length": ("turning length", "length", 0, 50_000, None),
    "rate": ("rate per hour", "money", 0, 10_000, None),
    "index_time": ("turret index", "duration", 0, 600, 2),
    "edge_change_time": ("edge change", "life", 0, 240, 3),
    "handling_time": ("handling", "duration", 0, 36_000, 60),
    "jaw_force": ("grip force at rest", "force", 0, 2_000_000, 30_000),
    "jaw_mass": ("jaw mass", "number", 0, 500, 0.5),
    "jaw_radius": ("jaw radius", "length", 0, 3000, 70),
    "start_time": ("spindle start", "duration", 0, 600, 2),
    "pockets": ("pockets", "count", 0, 1000, 0),
    "x_travel": ("x travel", "length", 0, 50_000, 0),
    "z_travel": ("z travel", "length", 0, 50_000, 0),
    "changer_mass": ("tool changer mass", "number", 0, 1000, 0),
    "changer_moment": ("tool changer tilting moment", "torque", 0, 10_000, 0),
    "changer_diameter": ("largest tool diameter in the changer", "length", 0, 5000, 0),
    "changer_length": ("largest tool length in the changer", "length", 0, 5000, 0),
    "chuck_stiffness": ("chuck stiffness, N/µm", "number", 0, 100_000, 150),
    "chuck_tilt_stiffness": ("chuck tilt stiffness, kN·m/rad", "number", 0, 1_000_000, 1500),
    "centre_stiffness": ("centre stiffness, N/µm", "number", 0, 100_000, 60),
    "post_stiffness": ("tool post stiffness, N/µm", "number", 0, 100_000, 100),
    "axial_force": ("thrust of the feed", "force", 0, 1_000_000, 0),
    "acceleration": ("acceleration in rapid, m/s²", "number", 0.01, 100, 3),
    "pump_flow": ("coolant at the highest pressure, l/min", "number", 0, 10_000, 0),
}
_NO_CHUCK = ("jaw_force", "jaw_mass", "jaw_radius", "chuck_stiffness", "chuck_tilt_stiffness")
SPINDLE_BOUNDS = {  # of a further spindle; the figures of a chuck are 0 where it has none
    name: (*_MACHINE_BOUNDS[name][:4], 0 if name in _NO_CHUCK else _MACHINE_BOUNDS[name][4]) for name in SPINDLE_NUMBERS
}
DELIVERIES = ("dry", "air", "cold air", "minimal oil", "mist", "flood", "jet", "through", "high")

TOOLS = Table(
    "tools",
    "Tools",
    _tool_columns(),
    finish_tool,
    lambda r: identity(r["kind"], r["designation"], r["geometry"], r["grade"]),
    lambda r: tool_name(r["designation"], r["geometry"], r["grade"]),
    (("geometry", "geometries"), ("grade", "grades")),
)
GEOMETRIES = Table(
    "geometries",
    "Geometries",
    (
        Column("name", "name", "text", True, longest=60),
        Column("purpose", "purpose", "text", longest=120, default=""),
        Column("window", "window", "pairs", True),
        Column("groove_rake", "groove rake", "angle", True, -30, 40),
        Column("edge_radius", "edge radius", "small_length", True, 1, 500),
        Column("groove_width", "groove width", "length", low=0, high=20, default=0.0),
        Column("groove_depth", "groove depth", "length", low=0, high=5, default=0.0),
        Column("wiper", "wiper", "flag", default=False),
        Column("breaker", "breaker", "flag", default=True),
        Column("flank", "flank", "choice", choices=("N", "P", "any"), default="any"),
        Column("suits", "suits", "text", True, longest=6),
        Column("strength", "strength", "number", low=0.2, high=2, default=1.0),
        *_source_columns(),
    ),
    finish_geometry,
    lambda r: plain(r["name"]),
    lambda r: str(r["name"]),
)
GRADES = Table(
    "grades",
    "Grades",
    (
        Column("name", "name", "text", True, longest=60),
        Column("tool_class", "tool material", "choice", True, choices=("hss", "carbide", "cermet", "ceramic", "cbn", "pcd")),
        Column("substrate", "substrate", "text", longest=80, default=""),
        Column("coating", "coating", "text", longest=40, default=""),
        Column("spans", "spans", "words", True),
        Column("main_letter", "main letter", "choice", True, choices=tuple("PMKNSH")),
        Column("speed_factor", "speed factor", "number", low=0.2, high=3, default=1.0),
        Column("toughness", "toughness", "number", low=0, high=1, default=0.7),
        Column("heat_factor", "heat factor", "number", low=0.3, high=2, default=1.0),
        Column("temperature_limit", "temperature limit °C", "number", low=0, high=2000, default=0.0),
        *_source_columns(),
    ),
    finish_grade,
    lambda r: plain(r["name"]),
    lambda r: str(r["name"]),
)
WINDOWS = Table(
    "windows",
    "Supplier's windows",
    (
        Column("tool", "tool", "text", True, longest=180),
        Column("group", "group", "count", True, 1, 41),
        *(
            Column(f"{name}_{part}", f"{word} {part}", kind, low=low, high=high)
            for name, word, kind, low, high in (
                ("speed", "cutting speed", "cutting_speed", 0.5, 5000),
                ("feed", "feed", "feed_per_rev", 0.005, 3),
                ("depth", "depth", "length", 0.01, 30),
            )
            for part in ("min", "start", "max")
        ),
        Column("source", "source", "text", default="the shop's supplier, entered by the user"),
    ),
    finish_window,
    lambda r: f"{plain(r['tool'])}|{r['group']}",
    lambda r: f"{r['tool']}, group {r['group']}",
    (("tool", "tools"),),
)
_MATERIAL_KINDS = {
    "strength": ("stress", 10, 4000),
    "specific_force_1": ("stress", 50, 10_000),
    "force_exponent": ("number", 0.05, 0.5),
    "speed_factor": ("number", 0.2, 3),
    "conductivity": ("number", 0.05, 500),
    "density": ("number", 0.5, 25),
    "specific_heat": ("number", 0.05, 5),
    "expansion": ("number", 0, 200),
    "elastic_modulus": ("stress", 500, 700_000),
}
MATERIALS = Table(
    "materials",
    "Materials",
    (
        Column("name", "name", "text", True, longest=120),
        Column("number", "number", "text", longest=40, default=""),
        Column("aliases", "aliases", "words", longest=80, default=()),
        Column("group", "group", "count", True, 1, 41),
        Column("hardness_low", "hardness from", "hardness", True, 5, 1000),
        Column("hardness_high", "hardness to", "hardness", True, 5, 1000),
        *(
            Column(name, name.replace("_", " "), "text", longest=12)
            if name == "speed_row"
            else Column(name, name.replace("_", " "), "number", low=0, high=1)
            if name in SHARES
            else Column(name, name.replace("_", " "), *_MATERIAL_KINDS[name][:1], False, *_MATERIAL_KINDS[name][1:])
            for name in MATERIAL_NUMBERS
        ),
        *_source_columns(),
    ),
    finish_material,
    lambda r: plain(r["name"]),
    lambda r: str(r["name"]),
)
MACHINES = Table(
    "machines",
    "Machines",
    (
        Column("name", "name", "text", True, longest=80),
        Column("description", "description", "text", longest=200, default=""),
        Column("power_curve", "power curve", "pairs", True),
        Column("curve_at", "curve at", "choice", choices=("spindle", "motor"), default="spindle"),
        Column("interface", "spindle takes", "text", longest=40, default=""),
        Column("speeds", "speeds", "numbers", default=()),
        Column("feeds", "feeds", "numbers", default=()),
        Column("gear_set", "speeds by other gears", "numbers", default=()),
        Column("feed_set", "feeds by other gears", "numbers", default=()),
        Column("constant_surface_speed", "constant surface speed", "flag", default=True),
        Column("coolant", "coolant", "pairs", choices=DELIVERIES, default=(("dry", 0.0), ("flood", 3.0))),
        Column("seats", "further tool positions", "words", longest=60, default=()),
        Column("condition", "condition", "choice", choices=CONDITIONS, default="sound"),
        *(Column(name, name.replace("_", " "), "flag", default=name == "turns") for name in FLAGS),
        *(
            Column(name, title, kind, default is None, low, high, default=default)
            for name, (title, kind, low, high, default) in _MACHINE_BOUNDS.items()
        ),
        Column("source", "source", "text", default="entered by the user"),
    ),
    finish_machine,
    lambda r: plain(r["name"]),
    lambda r: str(r["name"]),
)
SPINDLES = Table(
    "spindles",
    "Further spindles",
    (
        Column("machine", "machine", "text", True, longest=80),
        Column("spindle", "spindle", "choice", True, choices=tuple(TURNS_PART)),
        Column("power_curve", "power curve", "pairs", True),
        Column("curve_at", "curve at", "choice", choices=("spindle", "motor"), default="spindle"),
        Column("interface", "spindle takes", "text", longest=40, default=""),
        Column("speeds", "speeds", "numbers", default=()),
        Column("coolant", "coolant", "pairs", choices=DELIVERIES, default=(("dry", 0.0), ("flood", 3.0))),
        *(
            Column(name, title, kind, default is None, low, high, default=default)
            for name, (title, kind, low, high, default) in SPINDLE_BOUNDS.items()
        ),
        Column("source", "source", "text", default="entered by the user"),
    ),
    finish_drive,
    lambda r: f"{plain(r['machine'])}|{r['spindle']}",
    lambda r: f"{r['machine']}, {TITLES[r['spindle']]}",
    (("machine", "machines"),),
)
TABLES: MappingProxyType[str, Table] = MappingProxyType(
    {table.name: table for table in (GEOMETRIES, GRADES, TOOLS, WINDOWS, MATERIALS, MACHINES, SPINDLES)}
)
assert set(PHYSICAL) <= set(_MATERIAL_KINDS)
