"""From the whole crib to the tools worth ranking: exact rules in the database, then, said openly, a stated pre-order."""

from __future__ import annotations

import json
from collections import Counter, OrderedDict
from dataclasses import dataclass
from functools import lru_cache
from threading import Lock
from typing import Any

from django.db.models import Case, Count, F, IntegerField, QuerySet, TextField, Value, When
from django.db.models.functions import Cast

from cutting.machine.machines import Machine
from cutting.tooling.book import BookWindow
from cutting.tooling.crib import Crib
from cutting.tooling.designations.insert_code import InsertCode
from cutting.tooling.items import Holder, Insert
from server.crib.models import Geometry, Grade, Tool, Window, code_of
from server.crib.things import to_core

MOST_PAIRS = 20_000
PRE_ORDER = "in stock first, then grades whose main use is this group, then the cheapest edge"


@dataclass(frozen=True)
class NarrowedBy:
    """What the exact rules read: operation, ISO 513 letter, VDI 3323 group, and the shank heights that the machine seats [mm]."""

    operation: str
    letter: str
    group: int
    shank_low: float
    shank_high: float


def wanted(operation: str, letter: str, group: int, machine: Machine) -> NarrowedBy:
    """What is asked of a large crib."""
    low = machine.shank_height * (0.6 if machine.speeds else 0.99)
    return NarrowedBy(operation, letter, group, low, machine.shank_height)


_kept: OrderedDict[tuple[Any, NarrowedBy], Crib] = OrderedDict()
_lock = Lock()


def candidates(version: Any, what: NarrowedBy) -> Crib:
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


def _load(what: NarrowedBy) -> Crib:
    holders = [to_core(row) for row in Tool.objects.filter(kind="turning holder", archived_at=None).order_by("pk")]
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


def _may(holder: Holder, what: NarrowedBy) -> bool:
    code, does = holder.code, "turn" if what.operation == "turn" else "face"
    return does in code.operations and code.hand in "RN" and what.shank_low <= code.shank_height <= what.shank_high


def _pre_order(main_grades: list[int]) -> tuple[Any, ...]:
    flag = IntegerField()
    stocked = Case(When(quantity__gt=0, then=Value(0)), default=Value(1), output_field=flag)
    main = Case(When(grade_id__in=main_grades, then=Value(0)), default=Value(1), output_field=flag)
    return stocked, main, F("edge_price"), F("pk")


def _inserts(rows: QuerySet[Tool], what: NarrowedBy, per_seat: Counter[str] | None = None) -> tuple[Insert, ...]:
    """Core inserts of the rows; with `per_seat`, only as many as make the most pairs."""
    geometries = {g.pk: g.to_core() for g in Geometry.objects.all()}
    grades = {g.pk: g.to_core() for g in Grade.objects.all()}
    books = _books(what.group)
    lean = rows.values_list(*_LEAN, Cast("said", TextField()), Cast("properties", TextField()))
    found: list[Insert] = []
    pairs = 0
    for pk, name, designation, geometry, grade, price, size, quantity, seat, source, said, given in lean[:MOST_PAIRS] if per_seat else lean:
        if per_seat:
            pairs += per_seat[seat]
            if pairs > MOST_PAIRS:
                break
        own = _read(given)
        corners = int(own["CEDC"]) if own.get("CEDC") else None
        insert = Insert(name, designation, geometries[geometry], grades[grade], float(price), size, corners, "", quantity, source,
                        own, books.get(pk, ()))  # fmt: skip
        insert.__dict__["code"] = insert_code(designation, seat, said)
        found.append(insert)
    return tuple(found)


_LEAN = ("pk", "name", "designation", "geometry_id", "grade_id", "pack_price", "pack_size", "quantity", "seat", "source")


@lru_cache(maxsize=20_000)
def _read(text: str) -> dict[str, float]:
    return {symbol: value for symbol, value in json.loads(text).items() if isinstance(value, (int, float))}


@lru_cache(maxsize=50_000)
def insert_code(designation: str, seat: str, said: str) -> InsertCode:
    """What the row keeps of its designation, so that a large crib need not be read letter by letter."""
    return code_of(designation, seat, json.loads(said))


def _books(group: int) -> dict[int, tuple[BookWindow, ...]]:
    return {w.tool_id: (w.to_core(),) for w in Window.objects.filter(group=group, archived_at=None)}
