"""What a study is: its place on the menu, the kinds of operation that it belongs to, and what it asks of a set-up."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any

TURNED = ("turn", "face")


@dataclass(frozen=True)
class Study:
    """A question about one set-up that has a sheet of its own.

    `title` stands on the menu, `key` opens it; `kinds` are the operations that it belongs to, `elsewhere` says of others why it does not.
    `ask(setup, stock)` gives the core's answer; None where the study has doors of its own. `of_stock` tells whether it needs the tools
    that compete.
    """

    name: str
    title: str
    key: str
    kinds: tuple[str, ...]
    elsewhere: Mapping[str, str] = field(default_factory=dict)
    ask: Callable[[Any, Any], Any] | None = None
    of_stock: bool = False
