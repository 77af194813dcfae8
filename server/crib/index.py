"""The crib's search in memory: facet codes as arrays and one text per tool, per web worker, following the crib's stamp.

The database keeps the tools; this only says which of them are meant, in which order and how many of each sort. A few
changed tools are patched in, many are read again. What people type is matched in any accepted spelling.
"""

from __future__ import annotations

import bisect
import gc
import json
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from functools import lru_cache
from threading import Lock
from typing import Any

import numpy as np
from django.db.models import TextField
from django.db.models.functions import Cast
from numpy.typing import NDArray

from cutting.errors import CuttingError
from cutting.names import plain
from cutting.tooling.designations.holder_code import looks_like_holder, read_holder_code, write_holder
from cutting.tooling.designations.insert_code import write_metric
from cutting.tooling.designations.insert_text import take_apart
from cutting.tooling.designations.threading_code import looks_like_threading, read_threading_code, write_threading
from server.crib.models import Geometry, Grade, Tool
from server.records.models import Stamp

FACETS = ("kind", "diameter", "pitch", "shape", "circle", "nose_radius", "geometry", "grade", "tool_class", "hand", "section", "angle")
LETTERS = "PMKNSH"
PATCHED_AT_MOST = 50
_COLUMNS = ("pk", "kind", "name", "inch_designation", "own_number", "bin", "geometry_id", "grade_id", "quantity", "archived_at",
            "designation")  # fmt: skip


@dataclass(frozen=True)
class IndexEntry:
    """One tool as the index knows it."""

    pk: int
    name: str
    text: str
    values: tuple[str, ...]  # one per facet, blank where it has none
    letters: int  # bits of LETTERS that its grade serves
    stocked: bool
    archived: bool


@dataclass(frozen=True)
class Found:
    """What a search found: the ids of one page, how many match, and the facets' counts under the other filters."""

    ids: list[int]
    matched: int
    total: int
    counts: dict[str, list[tuple[str, int]]]


class CribIndex:
    """All tools, sorted by name."""

    def __init__(self, entries: Iterable[IndexEntry]) -> None:
        ordered = sorted(entries, key=lambda e: (e.name, e.pk))
        self.order = [(e.name, e.pk) for e in ordered]
        self.places = {e.pk: e for e in ordered}
        self.texts = [e.text for e in ordered]
        self.pks: NDArray[np.int64] = np.array([e.pk for e in ordered], np.int64)
        self.letters: NDArray[np.uint8] = np.array([e.letters for e in ordered], np.uint8)
        self.stocked: NDArray[np.bool_] = np.array([e.stocked for e in ordered], np.bool_)
        self.archived: NDArray[np.bool_] = np.array([e.archived for e in ordered], np.bool_)
        self.labels: list[dict[str, int]] = [{} for _ in FACETS]
        self.codes: list[NDArray[np.int32]] = []
        for k, lookup in enumerate(self.labels):
            self.codes.append(np.array([lookup.setdefault(e.values[k], len(lookup)) for e in ordered], np.int32))

    def patch(self, entries: Iterable[IndexEntry]) -> None:
        """Take in a few new or changed tools."""
        for entry in entries:
            if (old := self.places.get(entry.pk)) is not None:
                self._remove(bisect.bisect_left(self.order, (old.name, old.pk)))
            self._insert(bisect.bisect_left(self.order, (entry.name, entry.pk)), entry)

    def _remove(self, at: int) -> None:
        del self.order[at], self.texts[at]
        for name in ("pks", "letters", "stocked", "archived"):
            setattr(self, name, np.delete(getattr(self, name), at))
        self.codes = [np.delete(codes, at) for codes in self.codes]

    def _insert(self, at: int, entry: IndexEntry) -> None:
        self.order.insert(at, (entry.name, entry.pk))
        self.texts.insert(at, entry.text)
        self.places[entry.pk] = entry
        for name, value in (("pks", entry.pk), ("letters", entry.letters), ("stocked", entry.stocked), ("archived", entry.archived)):
            setattr(self, name, np.insert(getattr(self, name), at, value))
        self.codes = [
            np.insert(codes, at, lookup.setdefault(value, len(lookup)))
            for codes, lookup, value in zip(self.codes, self.labels, entry.values, strict=True)
        ]

    def search(
        self,
        words: str,
        chosen: Mapping[str, list[str]],
        letter: str = "",
        stocked: bool = False,
        archived: bool = False,
        offset: int = 0,
        limit: int = 50,
    ) -> Found:
        """One page of the tools that hold every word and lie in every facet chosen (any of the values of one facet)."""
        base = self.archived if archived else ~self.archived
        total = int(np.count_nonzero(base))
        if letter:
            base = base & ((self.letters & _bit(letter)) > 0)
        if stocked:
            base = base & self.stocked
        base = self._with_words(words, base)
        masks = {name: self._mask(name, values) for name, values in chosen.items() if values}
        mask = base
        for one in masks.values():
            mask = mask & one
        places = np.flatnonzero(mask)
        counts = {name: self._counts(k, base, [m for other, m in masks.items() if other != name]) for k, name in enumerate(FACETS)}
        return Found(self.pks[places[offset : offset + limit]].tolist(), len(places), total, counts)

    def _mask(self, name: str, values: list[str]) -> NDArray[np.bool_]:
        k = FACETS.index(name)
        wanted = [self.labels[k][value] for value in values if value in self.labels[k]]
        return np.isin(self.codes[k], wanted)

    def _counts(self, k: int, base: NDArray[np.bool_], others: list[NDArray[np.bool_]]) -> list[tuple[str, int]]:
        mask = base
        for other in others:
            mask = mask & other
        numbers = np.bincount(self.codes[k][mask], minlength=len(self.labels[k]))
        found = [(label, int(numbers[code])) for label, code in self.labels[k].items() if label and numbers[code]]
        return sorted(found, key=lambda pair: _natural(pair[0]))

    def _with_words(self, words: str, base: NDArray[np.bool_]) -> NDArray[np.bool_]:
        tokens = spellings(words)
        if not tokens:
            return base
        places = np.flatnonzero(base)
        for token in tokens:
            texts = self.texts
            places = places[np.fromiter((token in texts[p] for p in places.tolist()), np.bool_, len(places))]
        mask: NDArray[np.bool_] = np.zeros(len(base), np.bool_)
        mask[places] = True
        return mask


def spellings(words: str) -> list[str]:
    """What to look for: a designation at the start, in any accepted spelling, as its usual one; other words as they are."""
    parts = words.split()
    for count in range(min(len(parts), 5), 0, -1):
        usual = _usual(" ".join(parts[:count]))
        if usual:
            return [plain(usual), *(plain(word) for word in parts[count:] if plain(word))]
    return [plain(word) for word in parts if plain(word)]


def _usual(text: str) -> str:
    if len(text) < 5 or not any(ch.isdigit() for ch in text):
        return ""
    try:
        if looks_like_holder(text):
            return write_holder(read_holder_code(text))
        if looks_like_threading(text):
            return write_threading(read_threading_code(text))
        said = take_apart(text)
        return "" if said.suffix.rest else write_metric(said) or ""  # words behind the code are words of their own
    except CuttingError:
        return ""


def _bit(letter: str) -> int:
    return 1 << LETTERS.index(letter) if letter in LETTERS else 0


def _natural(label: str) -> tuple[int, float, str]:
    try:
        return 0, float(label), ""
    except ValueError:
        return 1, 0.0, label


_lock = Lock()
_kept: tuple[str, int, CribIndex] | None = None  # mark, number, index


def crib_index() -> CribIndex:
    """The index as the crib is now: patched where few tools changed since, read again where many did."""
    global _kept
    stamp = Stamp.objects.filter(room="crib").first()
    mark, number = (stamp.marks[-1], stamp.number) if stamp and stamp.marks else ("", 0)
    with _lock:
        if _kept is not None and _kept[0] == mark:
            return _kept[2]
        index = None
        if _kept is not None and stamp is not None and _kept[0] in stamp.marks:
            changed = Tool.objects.filter(stamp__gt=_kept[1])
            # a renamed geometry or grade shows in tools that have no stamp of their own: names in use cannot change
            if changed.count() <= PATCHED_AT_MOST:
                index = _kept[2]
                index.patch(_entries(changed))
        _kept = (mark, number, index or CribIndex(_entries(Tool.objects.all())))
        return _kept[2]


def _entries(rows: Any) -> list[IndexEntry]:
    geometries = {g.pk: (g.name, plain(g.purpose)) for g in Geometry.objects.only("name", "purpose")}
    grades = {g.pk: (g.name, plain(g.substrate), g.tool_class, _bits(g.letters)) for g in Grade.objects.all()}
    found = []
    gc.disable()  # so many small things at once: walking them for cycles would take longer than making them
    try:
        for pk, kind, name, inch, own, bin_name, geometry_id, grade_id, quantity, archived, code, said in rows.values_list(
            *_COLUMNS, Cast("said", TextField())
        ):
            geometry, purpose = geometries.get(geometry_id, ("", ""))
            grade, substrate, tool_class, letters = grades.get(grade_id, ("", "", "", 0))
            shape, hand, circle, nose, section, angle, diameter, pitch = _read_said(said)
            text = f"{plain(f'{name}|{inch}|{own}|{bin_name}|{code}|{kind}')}|{purpose}|{substrate}"
            values = (kind, diameter, pitch, shape, circle, nose, geometry, grade, tool_class, hand, section, angle)
            found.append(IndexEntry(pk, name, text, values, letters, quantity > 0, archived is not None))
    finally:
        gc.enable()
    return found


SIZES = ("circle", "nose_radius", "section", "angle", "diameter", "pitch")


@lru_cache(maxsize=50_000)
def _read_said(text: str) -> tuple[str, ...]:
    """Shape, hand and sizes as facets show them; many tools share one designation."""
    said = json.loads(text)
    return (said["shape"], said["hand"], *(_figure(said.get(size)) for size in SIZES))


def _bits(letters: str) -> int:
    return sum(_bit(letter) for letter in letters)


def _figure(value: float | None) -> str:
    return "" if value is None else f"{value:g}"
