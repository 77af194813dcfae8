"""What can be done otherwise beside the speed: coolant, the way it is led, another hole, another tap or chuck."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from cutting.operations.frame.change import Change, in_words
from cutting.operations.holes.shared.held import seated
from cutting.operations.threads.shared.feature import hole_before
from cutting.operations.threads.tap.numbers import Numbers
from cutting.operations.threads.tap.setup import TapHolding, TapSetup, same_thread
from cutting.quantities.write import Display, write
from cutting.tooling.tap_stock import TapStock
from cutting.workpiece.threads.tap_drills import drills_inside, forming_drill, tap_drill

SIDES = ("metric", "inch")


def changes(x: Numbers) -> Iterator[Change[TapSetup]]:
    """Changes of the set-up's own settings, and a wider hole, drilled before: none grows narrower again."""
    setup = x.setup
    for delivery, _ in setup.machine.coolant:
        if delivery != setup.settings.coolant:
            yield Change(in_words(f"coolant: {delivery}"), {"settings": {"coolant": delivery}}, setup.with_settings(coolant=delivery))
    for held in TapHolding:
        if held is not setup.settings.held:
            yield Change(in_words(held.value), {"settings": {"held": held.value}}, setup.with_settings(held=held))
    f = setup.feature
    for hole in _wider(setup):
        if hole > f.there + 1e-6:
            yield Change(
                Display(*(f"tapping hole Ø{write(hole, 'length', side)}" for side in SIDES)),
                {"before": hole_before(f, hole)},
                replace(setup, feature=replace(f, there=hole)),
            )


def _wider(setup: TapSetup) -> tuple[float, ...]:
    """The holes to be had before [mm]: the usual one where there is none as wide, else those inside the limits that are wider."""
    thread, there = setup.feature.thread, setup.feature.there
    usual = (forming_drill if setup.tap.type.forms else tap_drill)(thread).diameter
    if there < usual - 1e-6:
        return (usual,)
    return () if setup.tap.type.forms else drills_inside(thread)


def from_stock(x: Numbers, stock: Any) -> Iterator[Change[TapSetup]]:
    """The crib's other taps for this thread, each in a chuck that takes it and sits here."""
    setup = x.setup
    if not isinstance(stock, TapStock):
        return
    chucks = seated(setup, stock.chucks)
    for tap in stock.taps:
        held = setup.chuck if setup.chuck.takes(tap) else next((one for one in chucks if one.takes(tap)), None)
        if tap.name != setup.tap.name and held is not None and same_thread(tap, setup.feature):
            changed = replace(setup, tap=tap, chuck=held)
            yield Change(in_words(tap.name), {"tool": {"tap": tap.name, "chuck": held.name}}, changed)
    for chuck in chucks:
        if chuck.name != setup.chuck.name and chuck.takes(setup.tap):
            yield Change(in_words(chuck.name), {"tool": {"tap": setup.tap.name, "chuck": chuck.name}}, replace(setup, chuck=chuck))
