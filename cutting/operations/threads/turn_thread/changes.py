"""What can be done otherwise beside the speed: passes, how they go deeper, spring passes, tilt, coolant, another insert or holder."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from cutting.operations.frame.change import Change, in_words
from cutting.operations.threads.turn_thread.groove import depths
from cutting.operations.threads.turn_thread.numbers import Numbers
from cutting.operations.threads.turn_thread.setup import Feeding, Infeed, Schedule, Turning, TurnThreadSetup
from cutting.tooling.thread_inserts import SHIMS
from cutting.tooling.thread_turn_stock import ThreadTurnStock

SHARES = (0.6, 0.75, 0.9, 1.15, 1.35, 1.7)  # of the present number of passes
MOST_PASSES = 40


def changes(x: Numbers) -> Iterator[Change[TurnThreadSetup]]:
    """Changes of the set-up's own settings."""
    setup, s = x.setup, x.setup.settings
    now = depths(setup).size
    for passes in dict.fromkeys(max(2, min(round(now * share), MOST_PASSES)) for share in SHARES):
        if passes != now:
            patch = {"settings": {"passes": str(passes), "infeeds": ""}}
            yield Change(in_words(f"{passes} passes"), patch, setup.with_settings(passes=passes, infeeds=()))
    for infeed in Infeed:
        if infeed is not s.infeed:
            yield Change(in_words(infeed.value), {"settings": {"infeed": infeed.value}}, setup.with_settings(infeed=infeed))
    for schedule in Schedule:
        if schedule is not s.schedule or s.infeeds:
            patch = {"settings": {"schedule": schedule.value, "infeeds": ""}}
            yield Change(in_words(schedule.value), patch, setup.with_settings(schedule=schedule, infeeds=()))
    for spring in (0, 1, 2):
        if spring != s.spring:
            words = "no spring pass" if not spring else f"{spring} spring pass{'es' if spring > 1 else ''}"
            yield Change(in_words(words), {"settings": {"spring": str(spring)}}, setup.with_settings(spring=spring))
    if setup.holder.shims:
        for tilt in SHIMS:
            if tilt != setup.tilt:
                yield Change(in_words(f"shim for {tilt:g}°"), {"settings": {"tilt": f"{tilt:g}°"}}, setup.with_settings(tilt=tilt))
    if s.turning is not Turning.TOOL or s.feeding is not Feeding.HAND:
        patch = {"settings": {"turning": Turning.TOOL.value, "feeding": Feeding.HAND.value}}
        yield Change(in_words("as tool and thread want it"), patch, setup.with_settings(turning=Turning.TOOL, feeding=Feeding.HAND))
    for delivery, _ in setup.machine.coolant:
        if delivery != s.coolant:
            yield Change(in_words(f"coolant: {delivery}"), {"settings": {"coolant": delivery}}, setup.with_settings(coolant=delivery))


def from_stock(x: Numbers, stock: Any) -> Iterator[Change[TurnThreadSetup]]:
    """The crib's other inserts that cut this thread, each in a holder of its seat."""
    setup = x.setup
    if not isinstance(stock, ThreadTurnStock):
        return
    for insert in stock.inserts:
        if not insert.cuts(setup.feature.thread):
            continue
        holders = [one for one in stock.holders if one.takes(insert) and one.internal == setup.feature.internal]
        held = [setup.holder] if setup.holder.takes(insert) else []
        for holder in (held + [one for one in holders if one is not setup.holder])[:2]:
            if (insert.name, holder.name) != (setup.insert.name, setup.holder.name):
                changed = replace(setup, insert=insert, holder=holder)
                names = [one for one, own in ((insert.name, setup.insert.name), (holder.name, setup.holder.name)) if one != own]
                yield Change(in_words(" on ".join(names)), {"tool": {"insert": insert.name, "holder": holder.name}}, changed)


def quicker(setup: TurnThreadSetup) -> Iterator[Change[TurnThreadSetup]]:
    """What may save time: fewer passes, no spring pass."""
    now = depths(setup).size
    # as few passes as the tip may stand, in steps that are felt
    for share in (0.85, 0.7, 0.55):
        passes = max(2, round(now * share))
        if passes < now:
            patch = {"settings": {"passes": str(passes), "infeeds": ""}}
            yield Change(in_words(f"{passes} passes"), patch, setup.with_settings(passes=passes, infeeds=()))
    if setup.settings.spring:
        yield Change(in_words("no spring pass"), {"settings": {"spring": "0"}}, setup.with_settings(spring=0))
