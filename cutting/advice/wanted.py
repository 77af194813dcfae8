"""What tool would do it, where the crib has none: its kind with the sizes that the feature asks of it, in the words of a shopping list."""

from __future__ import annotations

from collections.abc import Callable
from types import MappingProxyType
from typing import Any

from cutting.operations.holes.mill_hole.limits import LEAST_RATIO
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


WANTED: MappingProxyType[str, Said] = MappingProxyType(
    {
        "turn": _turned,
        "face": _turned,
        "bore": _bore,
        "drill": _drill,
        "mill hole": _mill_hole,
        "groove": _groove,
        "face groove": _face_groove,
        "trepan": _trepan,
        "cut off": _cut_off,
        "tap": _tap,
        "mill thread": _mill_thread,
        "turn thread": _turn_thread,
        "heavy bore": _heavy_bore,
    }
)


def wanted_tool(setup: Any) -> Display:
    """The words of a tool that would make a set-up's feature, in both systems; the set-up's own tool does not matter."""
    return Display(*(WANTED[setup.operation](setup, lambda size, side=side: write(size, "length", side)) for side in SIDES))  # type: ignore[misc]
