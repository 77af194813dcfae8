"""The dialects that programs are written in: those that ship, and the shop's own."""

from __future__ import annotations

from cutting.program.dialect import Dialect, dialects, find_dialect
from cutting.program.own import dialect_of
from server.floor.models import Control


def own_dialects() -> tuple[Dialect, ...]:
    """The shop's own, by name."""
    return tuple(dialect_of(one.data) for one in Control.objects.all())


def every_dialect() -> tuple[Dialect, ...]:
    """Those that ship, then the shop's own."""
    return (*dialects(), *own_dialects())


def dialect_named(name: str) -> Dialect:
    """A dialect by its name. Raises `UnknownName`."""
    return find_dialect(name, every_dialect())
