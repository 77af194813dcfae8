"""Refusals in people's words: which field, by the name that stands beside it on the screen, and what would be right."""

from __future__ import annotations

import json
import re
import unicodedata
from collections.abc import Callable, Iterable, Mapping
from functools import cache
from typing import Annotated, Any

from pydantic import AfterValidator, BeforeValidator, StringConstraints

from cutting.doors.plain import problem as core_problem
from cutting.errors import CuttingError
from cutting.operations.registry import KINDS
from cutting.quantities import Asked, read_asked

_UNSAID = ("body", "payload", "query", "path", "edit")
_ACTION = re.compile(r"^(set|take|add|remove|move|copy)_[a-z_]+$")


def asked(label: str, kind: str = "number", low: float | None = None, high: float | None = None, empty: bool = False, **more: Any) -> Any:
    """The type of a number that is read by the one reader, from text as typed or from a number; `empty` may be left out."""
    wanted = Asked(label, kind, low, high, **more)

    def read(value: Any) -> float | None:
        if empty and (value is None or value == ""):
            return None
        found = read_asked(value, wanted, field="")
        return int(found) if wanted.whole else found

    plain: Any = int if wanted.whole else float
    return Annotated[plain | None if empty else plain, BeforeValidator(read, json_schema_input_type=plain | str)]


def _visible(name: str) -> str:
    """The name, trimmed; blanks alone and marks that only turn or hide letters are no name."""
    found = name.strip()
    if not found:
        raise ValueError("a name of blanks is none")
    if any(unicodedata.category(letter) in UNSEEN for letter in found):
        raise ValueError("holds marks that cannot be seen")
    return found


UNSEEN = ("Cc", "Cf", "Co", "Cn", "Cs", "Zl", "Zp")  # control, direction and joining marks, what is no letter at all
Name = Annotated[str, StringConstraints(min_length=1, max_length=120), AfterValidator(_visible)]


def tool_name(name: str) -> str:
    """A tool's name as it is said: a word that its designation and its geometry share is said once."""
    return re.sub(r"\b([a-z]{3,}) \1\b", r"\1", name)


def said(errors: Iterable[Mapping[str, Any]]) -> list[dict[str, Any]]:
    """Validation errors as field errors in people's words."""
    return [_one(entry) for entry in errors]


def _one(entry: Mapping[str, Any]) -> dict[str, Any]:
    field = _path(entry["loc"])
    cause = (entry.get("ctx") or {}).get("error")
    if isinstance(cause, CuttingError):
        return {**core_problem(cause), "field": field}
    words = _WORDS.get(str(entry["type"]))
    message = words(entry.get("ctx") or {}, _typed(entry.get("input"))) if words else str(entry["msg"]).removeprefix("Value error, ") + "."
    return {"field": field, "message": message}


def _typed(value: Any) -> str:
    """What was typed, as text."""
    return value if isinstance(value, str) else json.dumps(value, default=str)


def _path(loc: Iterable[Any]) -> str:
    """The path of a field without the framework's own steps."""
    kept = [str(part) for part in loc if part not in _UNSAID and not _ACTION.match(str(part))]
    return ".".join(kept) or "body"


_WORDS: dict[str, Callable[[Mapping[str, Any], str], str]] = {
    "missing": lambda c, v: "is missing.",
    "string_too_long": lambda c, v: f"has {len(v)} characters; maximum {c['max_length']}.",
    "string_too_short": lambda c, v: "is empty; a word is needed here.",
    "string_type": lambda c, v: "must be text.",
    "extra_forbidden": lambda c, v: "there is no such field.",
    "greater_than_equal": lambda c, v: f"'{v[:60]}' is too small: at least {c['ge']}.",
    "greater_than": lambda c, v: f"'{v[:60]}' is too small: above {c['gt']}.",
    "less_than_equal": lambda c, v: f"'{v[:60]}' is too large: at most {c['le']}.",
    "less_than": lambda c, v: f"'{v[:60]}' is too large: below {c['lt']}.",
    "int_parsing": lambda c, v: f"'{v[:60]}' is not a whole number.",
    "int_from_float": lambda c, v: f"'{v[:60]}' is not a whole number.",
    "int_type": lambda c, v: "enter a whole number.",
    "float_parsing": lambda c, v: f"'{v[:60]}' is not a number.",
    "float_type": lambda c, v: "Enter a number.",
    "bool_parsing": lambda c, v: "must be yes or no.",
    "bool_type": lambda c, v: "must be yes or no.",
    "literal_error": lambda c, v: f"'{v[:60]}' is none of: {str(c['expected']).replace(' or ', ', ')}.",
    "too_long": lambda c, v: f"holds {c.get('actual_length', 'too many')}; maximum {c.get('max_length')}.",
    "dict_type": lambda c, v: "must be an object.",
    "union_tag_invalid": lambda c, v: f"'{c.get('tag')}' is no edit that is known here.",
    "union_tag_not_found": lambda c, v: "an edit says in `action` what it does.",
}


def title(errors: list[dict[str, Any]]) -> str:
    """One sentence for a person: the field by its words, and what is wrong."""
    return " ".join(sentence(error["field"], error["message"]) for error in errors[:3])


def sentence(field: str, message: str) -> str:
    """A message with its field by name; without one where it speaks for itself."""
    name = label_of(field)
    return f"{name[0].upper()}{name[1:]}: {message}" if name else f"{message[0].upper()}{message[1:]}"


def label_of(field: str) -> str:
    """What the screen calls a field: the words of its declared input, else its own name."""
    last = field.rsplit(".", 1)[-1]
    if last in ("", "body"):
        return ""
    return _declared().get(last, last.replace("_", " "))


@cache
def _declared() -> dict[str, str]:
    found = {}
    for kind in reversed([*KINDS.values()]):
        for section in ("bar", "holding", "settings", "feature"):
            found.update({one.name: one.label for one in getattr(kind.fields, section)})
    return found | _OWN


_OWN = {
    "pieces": "pieces",
    "unattended_hours": "hours alone",
    "yearly": "pieces a year",
    "target": "target",
    "setup_minutes": "set-up minutes",
    "good_share": "good share",
    "bar_price": "price of a bar",
    "bar_length": "bar length",
    "free_length": "stick-out from the jaws",
    "diameter": "blank Ø",
    "bore": "bore in the blank",
    "name": "name",
}
