"""What was typed, kept with the unit it was meant in: each entry by its declared field."""

from __future__ import annotations

import re
from contextlib import suppress
from functools import partial
from typing import Annotated, Any

from pydantic import StringConstraints

from cutting.errors import CuttingError
from cutting.operations.frame.fields import Field
from cutting.operations.registry import KINDS as OPERATIONS
from cutting.quantities import KINDS, Display, read_quantity, write
from cutting.quantities.dimension import deviations_of, read_dimension, spelled_out
from cutting.quantities.drill_gauges import read_gauge
from cutting.workpiece.bores import with_units
from cutting.workpiece.stack import read_stack, written
from server.sentences import in_both

MOST_TYPED = 4000  # letters of one entry: sixty points with their units
Entry = Annotated[str, StringConstraints(max_length=MOST_TYPED)] | float | bool | None
_LENGTH = re.compile(r"[-\d.,][\d.,/ -]*?\s*(?P<unit>mm|cm|m|µm|in|thou|\"|″)(?![\w/])")
_INCHES = re.compile(r"(?:\d|\s)in\b|[\"″]")
AS_TYPED = ("flag", "choice", "text", "number", "whole", "thread")


def with_unit(operation: str, section: str, name: str, value: Entry, units: str) -> Entry:
    """A bare number gets the unit that was shown, so that the entry keeps its meaning; what no field knows is left as typed."""
    field = _field(operation, name)
    return value if field is None else entry_with_unit(field, value, f"{section}.{name}", units)


def entry_with_unit(field: Field, value: Entry, path: str, units: str) -> Entry:
    """The same of a field that is known."""
    if value is None or isinstance(value, bool) or value == "" or field.kind in AS_TYPED:
        return value
    if field.kind == "dimension":
        # unread in millimetres, where a form says what is wrong in its own words; in inches it must be told apart at once
        return spelled_out(str(value), "inch", path) if units == "inch" else str(value)
    if field.kind == "stack":
        return written(read_stack(str(value), "inch" if units == "inch" else "metric", path))
    if field.kind == "bores":
        return with_units(str(value), "inch" if units == "inch" else "metric", path)
    if field.kind == "points":
        return str(value) if value in field.options else _points(str(value), units, path, field.pair)
    if field.kind == "lengths":
        return "; ".join(_echo(word.strip(), units, path, "length") for word in str(value).split(";") if word.strip())
    return _echo(value, units, path, *field.kinds)


def changed_with_unit(operation: str, entries: dict[str, Entry], known: dict[str, Any], units: str) -> dict[str, Entry]:
    """Entries of a feature as `with_unit` keeps them; what comes back as it is known keeps its meaning, whatever is shown now."""
    side = "inch" if units == "inch" else "metric"

    def stands(name: str, value: Entry) -> bool:
        return name in known and value in (known[name], getattr(in_either(operation, name, known[name]), side, None))

    return {
        name: known[name] if stands(name, value) else with_unit(operation, "feature", name, value, units) for name, value in entries.items()
    }


def in_either(operation: str, name: str, entry: Any) -> Display | None:
    """An entry of a feature in either units, as entered in its own; None where it reads alike in both, or is no single quantity."""
    field, said = _field(operation, name), str(entry).strip()
    if field is None or not said or isinstance(entry, bool) or field.kind in AS_TYPED or read_gauge(said.removeprefix("Ø")) is not None:
        return None
    with suppress(CuttingError):
        if field.kind == "dimension":
            size, tail = read_dimension(said, "metric", field.name), deviations_of(said)
            own = "inch" if _INCHES.search(said) else "metric"
            if tail and not tail[0].isalpha():
                upper, lower = (write(one or 0.0, "size", _other(own), False) for one in (size.upper_deviation, size.lower_deviation))
                tail = f"{upper}/{lower}" if upper.startswith("-") else f"+{upper}/{lower}"
            other = f"{write(size.nominal, 'size' if tail else 'length', _other(own))} {tail}".strip()
            return _beside(own, said, other)
        if field.kinds == (field.kind,) and field.kind in KINDS and KINDS[field.kind].inch != KINDS[field.kind].metric:
            value = read_quantity(entry, field.kind, field=field.name).value
            kind = KINDS[field.kind]
            own = "inch" if kind.inch and re.search(rf"(?:{re.escape(kind.inch)}|\"|″)\s*$", said) else "metric"
            return _beside(own, said, write(value, field.kind, _other(own)))
    return None


def _other(side: str) -> str:
    return "metric" if side == "inch" else "inch"


def _beside(own: str, said: str, other: str) -> Display:
    return Display(said, other) if own == "metric" else Display(other, said)


def length_with_unit(name: str, value: Entry, units: str) -> Entry:
    """A length of the part as a whole: its stock, or the shape of a blank as points."""
    if value is None or isinstance(value, bool):
        return value
    return _points(str(value), units, name, ("length", "length")) if name == "shape" else _echo(value, units, name, "length")


def either_units(document: dict[str, Any]) -> dict[str, dict[str, str]]:
    """What was typed of a job, by its text, where it reads otherwise in the other units: lengths of blank and holding, and titles."""
    operations = document["operations"]
    lengths = [text for told in (document["stock"], document["holding"], *(one["holding"] for one in operations)) for text in told.values()]
    found = {text: vars(_length_in_either(text)) for text in lengths if isinstance(text, str)}
    found |= {one["title"]: in_both(one["title"]) for one in operations}
    return {text: both for text, both in found.items() if both["metric"] != both["inch"]}


def _length_in_either(entered: str) -> Display:
    """A length of the part as a whole, points of a shape or layers, in either units: as entered in its own, written anew in the other."""
    return Display(_LENGTH.sub(partial(_told, "metric"), entered), _LENGTH.sub(partial(_told, "inch"), entered))


def _told(side: str, found: re.Match[str]) -> str:
    own = "metric" if found["unit"].endswith("m") else "inch"
    return found.group() if own == side else write(read_quantity(found.group(), "length", field="stock").value, "length", side)


def _field(operation: str, name: str) -> Field | None:
    """The field of that name; a holding that is set for the whole job may belong to any kind of operation."""
    if operation:
        return OPERATIONS[operation].fields.named(name) if operation in OPERATIONS else None
    return next((field for kind in OPERATIONS.values() if (field := kind.fields.named(name))), None)


def _points(text: str, units: str, path: str, kinds: tuple[str, str]) -> str:
    """Every number of a list of points gets the unit that was shown."""
    points = [point.split(":") for point in text.split(";") if point.strip()]
    return "; ".join(":".join(_echo(word.strip(), units, path, kinds[min(k, 1)]) for k, word in enumerate(point)) for point in points)


def _bare(value: Entry) -> bool:
    return not any(ch.isalpha() or ch in '"″µ°±' for ch in str(value))


def _echo(value: str | float, units: str, field: str, *kinds: str) -> str:
    system = "inch" if units == "inch" else "metric"
    read_quantity(value, *kinds, system=system, field=field)  # refuses what cannot be read, naming the field
    text = f"{value:.10g}" if isinstance(value, float) else str(value).strip()
    if not _bare(value):
        return text
    kind = KINDS[kinds[0]]
    return f"{text} {kind.inch if system == 'inch' else kind.metric}".strip()
