"""Two versions of a job value by value, for two people who changed it at once."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from server.jobs.document.drawing import words_of
from server.words import label_of

Path = tuple[str, ...]
NOTHING = "–"
ROOMS = {"stock": "blank", "batch": "batch", "money": "money", "holding": "holding", "house": "house rules", "baseline": "present process"}


def differences(base: dict[str, Any], theirs: dict[str, Any], yours: dict[str, Any]) -> list[dict[str, str]]:
    """Every value in which the two versions differ: where, what, as both started from, theirs and yours."""
    titles = {entry["id"]: f"{entry['number']} {entry['title']}" for document in (theirs, yours) for entry in document["operations"]}
    titles |= {one["id"]: f"drawing: {words_of(one)['metric']}" for document in (theirs, yours) for one in document.get("features", ())}
    before, left, right = (dict(_leaves(document)) for document in (base, theirs, yours))
    found = []
    for path in sorted({*left, *right}):
        if left.get(path) != right.get(path):
            where, what = _words(path, titles)
            values = {name: _text(one.get(path)) for name, one in (("base", before), ("theirs", left), ("yours", right))}
            found.append({"where": where, "what": what, **values})
    return found


def _leaves(thing: Any, path: Path = ()) -> Iterator[tuple[Path, Any]]:
    """Paths and values of a document; operations are told apart by their identity, their place is a value of its own."""
    if isinstance(thing, dict):
        for name, value in thing.items():
            yield from _leaves(value, (*path, name))
    elif isinstance(thing, list):
        for place, value in enumerate(thing, 1):
            if isinstance(value, dict) and "id" in value:
                yield (*path, value["id"], "place in the run order"), place
                yield from _leaves({name: one for name, one in value.items() if name not in ("id", "number")}, (*path, value["id"]))
            else:
                yield from _leaves(value, (*path, str(place)))
    else:
        yield path, thing


def _words(path: Path, titles: dict[str, str]) -> tuple[str, str]:
    if path[0] in ("operations", "features") and len(path) > 1:
        return titles.get(path[1], path[1]), label_of(path[-1]) if len(path) > 2 else "operation"
    return ROOMS.get(path[0], "part") if len(path) > 1 else "part", label_of(path[-1])


def _text(value: Any) -> str:
    if value is None or value == "":
        return NOTHING
    return {True: "yes", False: "no"}[value] if isinstance(value, bool) else str(value)
