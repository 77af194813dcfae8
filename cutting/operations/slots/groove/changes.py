"""What can be done otherwise in a groove; each is run before it is offered."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

from cutting.mechanics.deflection import Holding
from cutting.operations.frame.change import Change, in_words, setting
from cutting.operations.slots.groove.numbers import Numbers
from cutting.operations.slots.groove.setup import GrooveSetup, GrooveWay
from cutting.operations.slots.shared.otherwise import shorter_overhang, stronger_coolant
from cutting.tooling.groove_inserts import GrooveInsert

LAYER_SHARES = (0.6, 0.8, 1.25, 1.6)


def ways_open(insert: GrooveInsert) -> tuple[GrooveWay, ...]:
    """The ways that an insert can go: a full radius only rolls, a straight edge does the rest."""
    return (GrooveWay.ROUND,) if insert.round_edge else tuple(way for way in GrooveWay if way is not GrooveWay.ROUND)


def changes(x: Numbers) -> Iterator[Change[GrooveSetup]]:
    """Way, layers, overhang, dwell and holding."""
    setup = x.setup
    s = setup.settings
    yield from stronger_coolant(setup)
    for way in ways_open(setup.insert):
        if way is not s.way:
            yield Change(in_words(f"way: {way.value}"), {"settings": {"way": way.value}}, setup.with_settings(way=way))
    if s.way in (GrooveWay.TURNED, GrooveWay.RAMP, GrooveWay.ROUND):
        for share in LAYER_SHARES:
            layer = round(setup.layer * share, 2)
            yield setting("side_depth", "layer", setup.layer, layer, "length", setup.with_settings(side_depth=layer))
    yield from shorter_overhang(setup)
    if setup.machine.y_axis and not s.y_axis and not setup.inside:
        turned = setup.with_settings(y_axis=True)
        yield Change(in_words("blade turned by the Y axis"), {"settings": {"y_axis": True}}, turned)
    if s.dwell > 2.0:
        yield Change(in_words("dwell one turn"), {"settings": {"dwell": 1.0}}, setup.with_settings(dwell=1.0))
    if not s.finish and s.way is not GrooveWay.ONE:
        yield Change(in_words("finish walls and floor"), {"settings": {"finish": True}}, setup.with_settings(finish=True))
    yield from supported(setup)


def supported(setup: GrooveSetup) -> Iterator[Change[GrooveSetup]]:
    """A centre at the free end."""
    if setup.holding.style is Holding.CHUCK and not setup.inside:
        held = replace(setup, holding=replace(setup.holding, style=Holding.CHUCK_AND_CENTRE))
        yield Change(in_words("tailstock centre in"), {"holding": {"style": "chuck and centre"}}, held)
