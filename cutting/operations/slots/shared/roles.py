"""The parts of a narrow cut's tool, and the stock of them."""

from __future__ import annotations

from cutting.tooling.blades import Blade
from cutting.tooling.roles import Parts, Role
from cutting.tooling.slot_stock import SlotStock


def slot_roles(title: str, *blades: type[Blade]) -> tuple[Role, ...]:
    """A grooving insert in one of these; `title` says what carries it."""
    return Role("insert", "grooving insert", ("grooving insert",)), Role("blade", title, tuple(one.KIND for one in blades))


def gather(parts: Parts, note: str) -> SlotStock:
    """The inserts and blades to choose from."""
    return SlotStock(tuple(parts["insert"]), tuple(parts["blade"]), note)
