"""What can be done otherwise beside speed and feed: passes, repeats, offset, coolant, sense, another mill or chuck."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from cutting.operations.frame.change import Change, in_words, setting
from cutting.operations.holes.shared.held import seated
from cutting.operations.threads.mill_thread.numbers import Numbers
from cutting.operations.threads.mill_thread.setup import Along, MillThreadSetup, ThreadMillSense, cuts
from cutting.tooling.thread_mill_stock import ThreadMillStock

MOST_PASSES, MOST_REPEATS = 6, 2


def changes(x: Numbers) -> Iterator[Change[MillThreadSetup]]:
    """Changes of the set-up's own settings."""
    setup, s = x.setup, x.setup.settings
    for delivery, _ in setup.machine.coolant:
        if delivery != s.coolant:
            yield Change(in_words(f"coolant: {delivery}"), {"settings": {"coolant": delivery}}, setup.with_settings(coolant=delivery))
    for passes in range(1, MOST_PASSES + 1):
        if passes != s.passes:
            yield _count("passes", passes, setup)
    for repeats in range(MOST_REPEATS + 1):
        if repeats != s.repeats:
            yield _count("repeats", repeats, setup)
    if s.offset is not None:
        yield setting("offset", "path as reckoned", s.offset, 0.0, "length", setup.with_settings(offset=None))
    if s.sense is not ThreadMillSense.CLIMB or s.along is not Along.HAND:
        patch = {"settings": {"sense": ThreadMillSense.CLIMB.value, "along": Along.HAND.value}}
        yield Change(in_words("climb, by the thread's hand"), patch, setup.with_settings(sense=ThreadMillSense.CLIMB, along=Along.HAND))


def _count(name: str, value: int, setup: MillThreadSetup) -> Change[MillThreadSetup]:
    words = f"{value} radial pass{'es' if value > 1 else ''}" if name == "passes" else f"{value} repeat{'s' if value != 1 else ''} at size"
    return Change(in_words(words), {"settings": {name: str(value)}}, setup.with_settings(**{name: value}))


def from_stock(x: Numbers, stock: Any) -> Iterator[Change[MillThreadSetup]]:
    """The crib's other mills for this thread, each in a chuck that takes it and sits here."""
    setup = x.setup
    if not isinstance(stock, ThreadMillStock):
        return
    chucks = seated(setup, stock.chucks)
    for mill in stock.mills:
        held = setup.chuck if setup.chuck.takes(mill) else next((one for one in chucks if one.takes(mill)), None)
        if mill.name != setup.mill.name and held is not None and cuts(mill, setup.feature):
            patch = {"tool": {"mill": mill.name, "chuck": held.name}}
            yield Change(in_words(mill.name), patch, replace(setup, mill=mill, chuck=held))
    for chuck in chucks:
        if chuck.name != setup.chuck.name and chuck.takes(setup.mill):
            patch = {"tool": {"mill": setup.mill.name, "chuck": chuck.name}}
            yield Change(in_words(chuck.name), patch, replace(setup, chuck=chuck))


def quicker(setup: MillThreadSetup) -> Iterator[Change[MillThreadSetup]]:
    """What may save time: fewer passes."""
    s = setup.settings
    for passes in range(1, s.passes):
        yield _count("passes", passes, setup)
    if s.repeats:
        yield _count("repeats", 0, setup)
