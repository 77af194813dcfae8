"""Shipped tools by name, for tests."""

from __future__ import annotations

from typing import Any

from cutting.operations.slots.shared.roles import slot_roles
from cutting.operations.turned.kinds import ROLES
from cutting.tooling.blades import BLADES
from cutting.tooling.bought import find_shipped, shipped
from cutting.tooling.items import Holder, Insert
from cutting.tooling.slot_stock import SlotStock


def find_insert(name: str) -> Insert:
    found: Insert = find_shipped(ROLES[0], name)
    return found


def find_holder(name: str) -> Holder:
    found: Holder = find_shipped(ROLES[1], name)
    return found


def find_groove_blade(name: str) -> Any:
    return find_shipped(slot_roles("blade", *BLADES.values())[1], name)


def groove_blades() -> tuple[Any, ...]:
    return tuple(one for kind in BLADES for one in shipped(kind))


def shipped_stock(kind: str) -> SlotStock:
    """The grooving inserts with the blades of a kind."""
    return SlotStock(shipped("grooving insert"), shipped(kind))


def find_slot_tool(names: dict[str, str]) -> dict[str, Any]:
    """The parts of a narrow tool by role, of the shipped stock."""
    stock = [*shipped("grooving insert"), *groove_blades()]
    return {role: next(part for part in stock if part.name == name) for role, name in names.items()}
