"""Reads the entries of a plan once: sections of a step by the fields of its kind, each kept with the words in which it was typed."""

from __future__ import annotations

import json
from collections.abc import Mapping
from contextlib import suppress
from dataclasses import replace
from functools import lru_cache
from typing import Any

from cutting.doors.fields_form import read_section
from cutting.doors.reader import Reader
from cutting.errors import CuttingError
from cutting.operations.frame.fields import Field
from cutting.operations.registry import KINDS, kind_of
from cutting.plan.values import Read, Values, values_of

STANDS_OUT = Field("free_length", "stick-out")  # told of every step, whatever its kind asks of its holding
SECTIONS = ("feature", "settings", "holding", "bar")


def read_entries(kind: str, section: str, entries: Mapping[str, Any]) -> Read:
    """A section of a step, in millimetres where nothing is said; or why it cannot be read. What is blank was not given."""
    told = {name: value for name, value in entries.items() if value not in (None, "")}
    return _read(kind, section, json.dumps(told, sort_keys=True))


def read_each(kind: str, entries: Mapping[str, Any]) -> Values:
    """A feature's entries as far as each can be read by itself: what cannot be read settles nothing, its own field refuses it."""
    found: list[tuple[str, Any, str]] = []
    for name, value in entries.items():
        with suppress(CuttingError):
            one = read_entries(kind, "feature", {name: value})
            if isinstance(one, Values):
                found += one.items_read
    return Values(tuple(found))


def read_bar(entries: Mapping[str, Any]) -> Values:
    """The bar that the pieces are cut from, by the fields of the kind that asks for one. Raises `CuttingError`."""
    kind = next(one for one in KINDS.values() if one.fields.bar)
    found = read_entries(kind.name, "bar", entries)
    if isinstance(found, CuttingError):
        raise found
    return found


@lru_cache(maxsize=16384)
def _read(kind: str, section: str, text: str) -> Read:
    fields: tuple[Field, ...] = getattr(kind_of(kind).fields, section)
    told = json.loads(text)
    if section == "holding":  # what a job says of its holding and this kind does not ask is left out
        fields = fields if any(one.name == STANDS_OUT.name for one in fields) else (*fields, STANDS_OUT)
        told = {name: value for name, value in told.items() if any(one.name == name for one in fields)}
    free = tuple(replace(one, required=False) for one in fields)
    try:
        return values_of(read_section(Reader({section: told}, "", "mm", SECTIONS), section, free, False), told)
    except CuttingError as error:
        return error
