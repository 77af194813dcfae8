"""What is wrong with a program, in one place."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class Finding:
    """What is wrong: the line (from 1), the rule, how grave ("stop" or "look"), why, and what mends it."""

    line: int
    rule: str
    severity: str
    text: str
    remedy: str = ""
