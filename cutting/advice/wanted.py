"""What tool would do it, where the crib has none: its kind with the sizes that the feature asks of it, in the words of a shopping list."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any

from cutting.advice.candidate import Advice
from cutting.operations.frame.outcome import Limit
from cutting.operations.holes.mill_hole.limits import LEAST_RATIO
from cutting.operations.threads.mill_thread.tool import WIDEST
from cutting.quantities.write import Display, write
from cutting.workpiece.threads.spelling import write_thread

SIDES = ("metric", "inch")
Said = Callable[[Any, Callable[[float], str]], str]


def _turned(setup: Any, mm: Callable[[float], str]) -> str:
    seat = f", shank up to {mm(setup.machine.shank_height)}" if setup.machine.shank_height > 0 else ""
    return f"an insert for {setup.work.material.group.letter} in a holder for this cut{seat}"


def _bore(setup: Any, mm: Callable[[float], str]) -> str:
    f = setup.feature
    group = setup.work.material.group.letter
    return f"a boring bar that enters Ø{mm(f.start_diameter)} and reaches {mm(f.length)}, with an insert for {group}"


def _drill(setup: Any, mm: Callable[[float], str]) -> str:
    f = setup.feature
    floor = ", with a flat end" if f.flat and not f.through else ""
    return f"a drill Ø{mm(f.diameter.nominal)} that reaches {mm(setup.depth)}{floor}"


def _mill_hole(setup: Any, mm: Callable[[float], str]) -> str:
    return f"an end mill up to Ø{mm(round(setup.feature.diameter.nominal / LEAST_RATIO, 1))} that reaches {mm(setup.depth)}"


def _groove(setup: Any, mm: Callable[[float], str]) -> str:
    f = setup.feature
    deep = abs(f.diameter - f.floor.target) / 2.0
    held = f"a bar that enters Ø{mm(f.diameter)} and reaches {mm(deep)}" if setup.inside else f"a blade that reaches {mm(deep)}"
    return f"a grooving insert up to {mm(f.width.target)} wide on {held}"


def _face_groove(setup: Any, mm: Callable[[float], str]) -> str:
    f = setup.feature
    return f"a face grooving blade curved for Ø{mm(f.outer_diameter.target)} that reaches {mm(f.depth)}"


def _trepan(setup: Any, mm: Callable[[float], str]) -> str:
    return f"a trepanning head for Ø{mm(setup.feature.diameter)} that reaches {mm(setup.feature.depth)}"


def _cut_off(setup: Any, mm: Callable[[float], str]) -> str:
    f = setup.feature
    deep = (f.diameter - getattr(f, "bore", 0.0)) / 2.0
    return f"a cut-off blade that reaches {mm(deep)}; or saw it off"


def _tap(setup: Any, mm: Callable[[float], str]) -> str:
    f = setup.feature
    return f"a tap {write_thread(f.thread)} that threads {mm(f.length)} deep"


def _mill_thread(setup: Any, mm: Callable[[float], str]) -> str:
    f = setup.feature
    return f"a thread mill for {write_thread(f.thread)} that reaches {mm(f.length)}"


def _turn_thread(setup: Any, mm: Callable[[float], str]) -> str:
    f = setup.feature
    return f"a threading insert for {write_thread(f.thread)} with its holder"


def _heavy_bore(setup: Any, mm: Callable[[float], str]) -> str:
    sizes = ", ".join(f"Ø{mm(one.diameter.nominal)}" for one in setup.feature.bores)
    return f"a heavy tool with steps for {sizes}"


def _cutter(kind: str, designation: str, **sizes: float | str) -> dict[str, str]:
    """A record to enter: kind, a designation, and ISO 13399 properties [mm]."""
    told = {symbol: value if isinstance(value, str) else f"{value:.6g}" for symbol, value in sizes.items()}
    return {"kind": kind, "designation": designation, **told}


def _drill_record(setup: Any) -> dict[str, str]:
    size, deep = setup.feature.diameter.nominal, math.ceil(setup.depth + BEYOND)
    return _cutter("twist drill", f"drill {size:g}x{deep}", DC=size, LU=deep)


def _mill_record(setup: Any) -> dict[str, str]:
    size, deep = math.floor(10.0 * setup.feature.diameter.nominal / LEAST_RATIO) / 10.0, math.ceil(setup.depth + BEYOND)
    return _cutter("end mill", f"end mill {size:g}x{deep}", DC=size, APMX=deep, LU=deep)


def _groove_record(setup: Any) -> dict[str, str]:
    f = setup.feature
    deep = math.ceil(abs(f.diameter - f.floor.target) / 2.0 + BEYOND)
    return _cutter("grooving insert", f"groove {f.width.target:g}", CW=f.width.target, CDX=deep)


def _blade_record(setup: Any) -> dict[str, str]:
    f = setup.feature
    deep = math.ceil((f.diameter - getattr(f, "bore", 0.0)) / 2.0 + BEYOND)
    return _cutter("cut-off blade", f"blade to {2 * deep}", CDX=deep, CUTDIA=2 * deep, OHN=deep + BEYOND)


def _face_blade_record(setup: Any) -> dict[str, str]:
    outer, deep = setup.feature.outer_diameter.target, math.ceil(setup.feature.depth + BEYOND)
    return _cutter("face groove blade", f"face blade {outer:g}", DAXN=outer - CURVED, DAXX=outer + CURVED, CDX=deep, OHN=deep + BEYOND)


def _head_record(setup: Any) -> dict[str, str]:
    size, deep = setup.feature.diameter, math.ceil(setup.feature.depth + BEYOND)
    return _cutter("trepanning head", f"head {size:g}", DCN=size - CURVED, DCX=size + CURVED, CDX=deep, OHN=deep + BEYOND)


def _bar_record(setup: Any) -> dict[str, str]:
    f = setup.feature
    return _cutter("boring bar", "", DMIN1=math.floor(f.start_diameter), OHX=math.ceil(f.length + BEYOND))


def _tap_record(setup: Any) -> dict[str, str]:
    f = setup.feature
    words = write_thread(f.thread)
    kind = "spiral point tap" if f.through else "spiral flute tap"
    return _cutter(kind, f"tap {words}", TDZ=words, LU=math.ceil(f.length + BEYOND))


def _thread_mill_record(setup: Any) -> dict[str, str]:
    f = setup.feature
    size = math.floor(10.0 * WIDEST * f.thread.diameter) / 10.0
    return _cutter("single-row thread mill", f"thread mill {size:g}", DC=size, LU=math.ceil(f.length + BEYOND), TPN=f.thread.pitch,
                   TPX=f.thread.pitch)  # fmt: skip


def _kind_only(kind: str) -> Callable[[Any], dict[str, str]]:
    return lambda setup: _cutter(kind, "")


BEYOND = 2.0  # mm that a tool reaches further than it must (common practice)
CURVED = 10.0  # mm around its own on which a curved blade or a head is usually made for (common practice)


@dataclass(frozen=True)
class ToolWanted:
    """A tool that would do it: its words in both systems, and the record with which it is entered into the crib."""

    words: Display
    record: dict[str, str]


# of each kind of operation: the words, and the record; a heavy tool is built, not entered
WANTED: MappingProxyType[str, tuple[Said, Callable[[Any], dict[str, str]]]] = MappingProxyType(
    {
        "turn": (_turned, _kind_only("turning insert")),
        "face": (_turned, _kind_only("turning insert")),
        "bore": (_bore, _bar_record),
        "drill": (_drill, _drill_record),
        "mill hole": (_mill_hole, _mill_record),
        "groove": (_groove, _groove_record),
        "face groove": (_face_groove, _face_blade_record),
        "trepan": (_trepan, _head_record),
        "cut off": (_cut_off, _blade_record),
        "tap": (_tap, _tap_record),
        "mill thread": (_mill_thread, _thread_mill_record),
        "turn thread": (_turn_thread, _kind_only("laydown threading insert")),
        "heavy bore": (_heavy_bore, lambda setup: {}),
    }
)


# limits that only another tool meets: how far it reaches, what it enters, how wide it is
OF_THE_TOOL = frozenset(
    ("reach", "least_bore", "width_fit", "head_range", "first_plunge", "inner_diameter", "support_relief", "corner_radius", "enters",
     "fixed_depth", "deepest", "teeth", "core", "plunge", "flat_floor", "allowance")
)  # fmt: skip


def wanted_for(setup: Any, limit: Limit) -> ToolWanted | None:
    """The tool that a limit wants which no setting meets; None for one that a setting may, or that holds."""
    return wanted_tool(setup) if limit.name in OF_THE_TOOL and limit.wanting else None


def wanted_tool(setup: Any) -> ToolWanted:
    """The tool that would make a set-up's feature; the set-up's own does not matter."""
    said, record = WANTED[setup.operation]
    return ToolWanted(Display(*(said(setup, lambda size, side=side: write(size, "length", side)) for side in SIDES)), record(setup))  # type: ignore[misc]


# limits of the part and how it is held, whichever tool cuts it
OF_THE_PART = frozenset(("chatter", "part_bends", "slender", "jaw_grip", "floor_gives"))


def nearest_words(setup: Any, advice: Advice) -> Display | None:
    """What keeps the nearest tool of the crib from it, where a tool fits and breaks a limit; None where none fits.

    A new tool is no help where the part gives way: then the words say so.
    """
    if advice.candidates or not advice.nearly:
        return None
    nearest = advice.nearly[0]
    if nearest.binding in OF_THE_TOOL:
        return None
    gives_way = nearest.binding in OF_THE_PART and setup.machine.turns and not getattr(setup, "inside", False)
    held = ": support the part, or set it out less" if gives_way else ""
    reached = nearest.miss or Display(nearest.reason, nearest.reason)
    return Display(*(f"no tool holds every limit; nearest is {nearest.edge}, {getattr(reached, side)}{held}." for side in SIDES))
