"""What can be done otherwise beside speed and feed: the pitch, a last turn, the path's offset, coolant, another mill or chuck."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from cutting.operations.frame.change import Change, in_words, setting
from cutting.operations.frame.over_passes import last_pass
from cutting.operations.holes.mill_hole.numbers import Numbers
from cutting.operations.holes.mill_hole.setup import Descent, MillHoleSetup, Sense
from cutting.operations.holes.shared.held import seated
from cutting.tooling.mill_stock import MillStock
from cutting.tooling.mills import EndMill

PITCHES = (0.3, 0.5, 0.7, 0.85, 1.2, 1.5, 2.0)  # of the present one
LAST = (0.1, 0.05)  # mm on the radius that is left to a last turn (common practice)
LEAST_OFFSET = 0.002  # mm that is worth setting


def changes(x: Numbers) -> Iterator[Change[MillHoleSetup]]:
    """Changes of the set-up's own settings."""
    setup = x.setup
    s = setup.settings
    for delivery, _ in setup.machine.coolant:
        if delivery != s.coolant:
            patch = {"settings": {"coolant": delivery}}
            yield Change(in_words(f"coolant: {delivery}"), patch, setup.with_settings(coolant=delivery))
    if s.path is Descent.PLUNGE:
        return
    yield from other_pitches(x, PITCHES)
    for left in LAST:
        if s.finish != left:
            yield setting("finish", "last turn takes", s.finish, left, "length", setup.with_settings(finish=left))
    if s.finish > 0:
        yield setting("finish", "last turn takes", s.finish, 0.0, "length", setup.with_settings(finish=0.0))
    if s.sense is not Sense.CLIMB:
        yield Change(in_words("climb"), {"settings": {"sense": Sense.CLIMB.value}}, setup.with_settings(sense=Sense.CLIMB))
    moved = round(s.offset + last_pass(x.size_error) / 2.0, 3)
    if abs(moved - s.offset) >= LEAST_OFFSET:
        yield setting("offset", "path set outward", s.offset, moved, "length", setup.with_settings(offset=moved))


def other_pitches(x: Numbers, shares: tuple[float, ...]) -> Iterator[Change[MillHoleSetup]]:
    """The pitch by shares of the present one."""
    now = last_pass(x.pitch)
    for share in shares:
        pitch = round(now * share, 2)
        if pitch > 0:
            yield setting("pitch", "pitch", now, pitch, "length", x.setup.with_settings(pitch=pitch))


def from_stock(x: Numbers, stock: Any) -> Iterator[Change[MillHoleSetup]]:
    """The crib's other mills, each in a chuck that takes it and sits here."""
    setup = x.setup
    if not isinstance(stock, MillStock):
        return
    chucks = seated(setup, stock.chucks)
    for chuck in chucks:
        if chuck.name != setup.chuck.name and chuck.takes(setup.mill):
            yield _put_in(setup, setup.mill, chuck)
    for mill in stock.mills:
        held = setup.chuck if setup.chuck.takes(mill) else next((one for one in chucks if one.takes(mill)), None)
        if mill.name != setup.mill.name and held is not None:
            yield _put_in(setup, mill, held)


def _put_in(setup: MillHoleSetup, mill: EndMill, chuck: Any) -> Change[MillHoleSetup]:
    """Another tool goes down at the pitch that suits it."""
    others = [one.name for one, own in ((mill, setup.mill), (chuck, setup.chuck)) if one.name != own.name]
    patch: dict[str, Any] = {"tool": {"mill": mill.name, "chuck": chuck.name}}
    changed = replace(setup, mill=mill, chuck=chuck)
    if mill.name != setup.mill.name and setup.settings.pitch is not None:
        patch["settings"] = {"pitch": ""}
        changed = changed.with_settings(pitch=None)
    return Change(in_words(" in ".join(others)), patch, changed)


def quicker(setup: MillHoleSetup) -> Iterator[Change[MillHoleSetup]]:
    """What may save time: a steeper helix, no last turn."""
    s = setup.settings
    if s.path is Descent.HELIX and s.pitch is not None:
        # as far up as the wall and the flutes may allow, in steps that are felt
        for share in (1.15, 1.3, 1.6, 2.0):
            pitch = round(s.pitch * share, 2)
            yield setting("pitch", "pitch", s.pitch, pitch, "length", setup.with_settings(pitch=pitch))
    if s.finish > 0:
        yield setting("finish", "last turn takes", s.finish, 0.0, "length", setup.with_settings(finish=0.0))
