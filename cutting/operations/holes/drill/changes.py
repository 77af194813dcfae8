"""What can be done otherwise beside speed and feed: pecks, coolant, feed at the ends, pilot, another drill or chuck."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from cutting.operations.frame.change import Change, in_words
from cutting.operations.holes.drill.limits import entry_share
from cutting.operations.holes.drill.numbers import Numbers
from cutting.operations.holes.drill.setup import SHARE, DrillSetup, HoleEntry, Pecks
from cutting.operations.holes.shared.held import seated
from cutting.tooling.drill_stock import DrillStock
from cutting.tooling.drills import Drill

ALIKE = 0.03  # mm by which a drill's size may differ and still be tried in place of another
BACKED = "backing plate behind the exit"
PILOT = 0.35  # of the diameter: a pilot that takes the chisel edge's thrust (common practice)


def changes(x: Numbers) -> Iterator[Change[DrillSetup]]:
    """Changes of the set-up's own settings and of what comes before it."""
    setup = x.setup
    s, f = setup.settings, setup.feature
    for pecks in Pecks:
        if pecks is not s.pecks and not setup.machine.fixed:
            said = "no pecks" if pecks is Pecks.NONE else f"pecks {pecks.value}"
            yield Change(in_words(said), {"settings": {"pecks": pecks.value}}, setup.with_settings(pecks=pecks))
    for delivery, pressure in setup.machine.coolant:
        if delivery != s.coolant:
            more = s.pecks if setup.machine.pressure(s.coolant) or pressure < 0.0 else Pecks.NONE
            both = setup.drill.through and setup.chuck.through and pressure > 0 and s.pecks is not Pecks.NONE
            said = f"coolant: {delivery}" + (f", {pressure:.0f} bar through the tool: no pecks" if both else "")
            patch: dict[str, Any] = {"coolant": delivery}
            changed = setup.with_settings(coolant=delivery)
            if both:
                patch["pecks"], changed = more.value, changed.with_settings(pecks=more)
            yield Change(in_words(said), {"settings": patch}, changed)
    if f.entry_angle > 0 or f.entry is HoleEntry.CURVED:
        share = float(entry_share(f.entry_angle, f.entry is HoleEntry.CURVED, setup.drill.point_angle))
        if SHARE[0] <= share < s.entry_feed:  # less than can be set is no help
            yield Change(
                in_words(f"{share:.0%} of the feed at entry"), {"settings": {"entry_feed": share}}, setup.with_settings(entry_feed=share)
            )
    if setup.may_split:
        yield Change(in_words(BACKED), {"feature": {"backed": True}}, _with(setup, backed=True))
    if s.exit_feed > 0.5 and f.breaks_out:
        yield Change(in_words("half the feed at exit"), {"settings": {"exit_feed": 0.5}}, setup.with_settings(exit_feed=0.5))
    if f.entry is HoleEntry.FLAT and f.pilot <= 0:
        yield Change(
            in_words("spot the hole first"), {"feature": {"entry": HoleEntry.SPOTTED.value}}, _with(setup, entry=HoleEntry.SPOTTED)
        )
        pilot = round(PILOT * setup.drill.diameter, 1)
        if pilot >= 1.0:
            yield Change(in_words(f"pilot hole Ø{pilot:g} first"), {"before": _pilot_before(setup, pilot)}, _with(setup, pilot=pilot))


def _pilot_before(setup: DrillSetup, pilot: float) -> dict[str, Any]:
    f = setup.feature
    said = {
        "operation": "drill", "title": f"Pilot hole Ø{pilot:g}", "diameter": f"{pilot:g} mm", "depth": f"{setup.depth:g} mm",
        "through": f.through,
    }  # fmt: skip
    return said | ({} if f.circle is None else {"circle": f"{f.circle:g} mm", "count": f.count})


def _with(setup: DrillSetup, **feature: Any) -> DrillSetup:
    return replace(setup, feature=replace(setup.feature, **feature))


def from_stock(x: Numbers, stock: Any) -> Iterator[Change[DrillSetup]]:
    """The crib's other drills of this size, each in a chuck that takes it and sits here; the same drill in better ones."""
    setup = x.setup
    if not isinstance(stock, DrillStock):
        return
    chucks = seated(setup, stock.chucks)
    for chuck in chucks:
        if chuck.name != setup.chuck.name and chuck.takes(setup.drill):
            yield _put_in(setup, setup.drill, chuck)
    for drill in stock.drills:
        near = abs(drill.diameter - setup.drill.diameter) <= ALIKE and drill.type.enlarges == setup.drill.type.enlarges
        if near and drill.name != setup.drill.name and not drill.type.spots:
            held = setup.chuck if setup.chuck.takes(drill) else next((one for one in chucks if one.takes(drill)), None)
            if held is not None:
                yield _put_in(setup, drill, held)


def _put_in(setup: DrillSetup, drill: Drill, chuck: Any) -> Change[DrillSetup]:
    others = [one.name for one, own in ((drill, setup.drill), (chuck, setup.chuck)) if one.name != own.name]
    taught = setup.learned if drill.name == setup.drill.name else setup.learned.elsewhere()  # what was learned was learned of one drill
    changed = replace(setup, drill=drill, chuck=chuck, learned=taught)
    return Change(in_words(" in ".join(others)), {"tool": {"drill": drill.name, "chuck": chuck.name}}, changed)


def quicker(setup: DrillSetup) -> Iterator[Change[DrillSetup]]:
    """What may save time: no pecks."""
    if setup.settings.pecks is not Pecks.NONE:
        yield Change(in_words("no pecks"), {"settings": {"pecks": Pecks.NONE.value}}, setup.with_settings(pecks=Pecks.NONE))
