"""From the whole crib to the tools worth ranking: exact rules in the database, then, said openly, a stated pre-order."""

from __future__ import annotations

from collections import Counter, OrderedDict
from dataclasses import dataclass
from threading import Lock
from typing import Any

from django.db.models import Case, Count, F, IntegerField, QuerySet, Value, When

from cutting.machine.machines import Machine
from cutting.tooling.book import BookWindow
from cutting.tooling.crib import Crib
from cutting.tooling.items import Holder, Insert
from server.crib.models import Geometry, Grade, Tool, Window

MOST_PAIRS = 20_000
PRE_ORDER = "in stock first, then grades whose main use is this group, then the cheapest edge"


@dataclass(frozen=True)
class Wanted:
    """What the exact rules read: operation, ISO 513 letter, VDI 3323 group, and the shank heights that the machine seats [mm]."""

    operation: str
    letter: str
    group: int
    shank_low: float
    shank_high: float


def wanted(operation: str, letter: str, group: int, machine: Machine) -> Wanted:
    low = machine.shank_height * (0.6 if machine.speeds else 0.99)
    return Wanted(operation, letter, group, low, machine.shank_height)


_kept: OrderedDict[tuple[Any, Wanted], Crib] = OrderedDict()
_lock = Lock()


def candidates(version: Any, what: Wanted) -> Crib:
    """The tools to rank. A crib of at most 20,000 pairs is ranked whole, so that every refusal can be counted by its rule."""
    with _lock:
        if (version, what) in _kept:
            _kept.move_to_end((version, what))
            return _kept[(version, what)]
    made = _load(what)
    with _lock:
        _kept[(version, what)] = made
        while len(_kept) > 6:
            _kept.popitem(last=False)
    return made


def _load(what: Wanted) -> Crib:
    holders = [row.to_holder() for row in Tool.objects.filter(kind="turning holder", archived_at=None).order_by("pk")]
    inserts = Tool.objects.filter(kind="turning insert", archived_at=None)
    per_seat = _holders_per_seat(holders)
    whole = dict(inserts.values_list("seat").annotate(Count("pk")))
    pairs = sum(count * per_seat.get(seat, 0) for seat, count in whole.items())
    if pairs <= MOST_PAIRS:
        return Crib(_inserts(inserts.order_by("pk"), what), tuple(holders))
    fitting = [h for h in holders if _may(h, what)]
    per_seat = _holders_per_seat(fitting)
    # the few grades and geometries are looked up first, so that the large table is read without joins
    grades = list(Grade.objects.filter(letters__contains=what.letter).values_list("pk", flat=True))
    geometries = list(Geometry.objects.filter(suits__contains=what.letter).values_list("pk", flat=True))
    serving = inserts.filter(seat__in=list(per_seat), grade_id__in=grades, geometry_id__in=geometries)
    left = dict(serving.values_list("seat").annotate(Count("pk")))
    pairs_left = sum(count * per_seat.get(seat, 0) for seat, count in left.items())
    said = (
        f"{sum(whole.values()):,} inserts in the crib; {sum(left.values()):,} serve group {what.letter} in holders for this operation "
        f"and machine, {pairs_left:,} pairs"
    )
    if pairs_left <= MOST_PAIRS:
        return Crib(_inserts(serving.order_by("pk"), what), tuple(fitting), f"{said}: all are ranked.")
    main = list(Grade.objects.filter(main_letter=what.letter).values_list("pk", flat=True))
    ordered = serving.order_by(*_pre_order(main))
    kept = _inserts(ordered, what, per_seat)
    return Crib(kept, tuple(fitting), f"{said}. The best {MOST_PAIRS:,} by pre-order are ranked: {PRE_ORDER}.")


def _holders_per_seat(holders: list[Holder]) -> Counter[str]:
    return Counter(f"{h.code.shape}{h.code.clearance}{h.code.size}" for h in holders)


def _may(holder: Holder, what: Wanted) -> bool:
    code, does = holder.code, "turn" if what.operation == "turn" else "face"
    return does in code.operations and code.hand in "RN" and what.shank_low <= code.shank_height <= what.shank_high


def _pre_order(main_grades: list[int]) -> tuple[Any, ...]:
    flag = IntegerField()
    stocked = Case(When(quantity__gt=0, then=Value(0)), default=Value(1), output_field=flag)
    main = Case(When(grade_id__in=main_grades, then=Value(0)), default=Value(1), output_field=flag)
    return stocked, main, F("edge_price"), F("pk")


def _inserts(rows: QuerySet[Tool], what: Wanted, per_seat: Counter[str] | None = None) -> tuple[Insert, ...]:
    """Core inserts of the rows; with `per_seat`, only as many as make the most pairs."""
    geometries = {g.pk: g.to_core() for g in Geometry.objects.all()}
    grades = {g.pk: g.to_core() for g in Grade.objects.all()}
    books = _books(what.group)
    found: list[Insert] = []
    pairs = 0
    for row in rows[:MOST_PAIRS] if per_seat else rows:
        if per_seat:
            pairs += per_seat[row.seat]
            if pairs > MOST_PAIRS:
                break
        found.append(row.to_insert(geometries, grades, books.get(row.pk, ())))
    return tuple(found)


def _books(group: int) -> dict[int, tuple[BookWindow, ...]]:
    return {w.tool_id: (w.to_core(),) for w in Window.objects.filter(group=group, archived_at=None)}
