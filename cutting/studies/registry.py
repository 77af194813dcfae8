"""The studies: one line each, in the order of the menu."""

from __future__ import annotations

from types import MappingProxyType

from cutting.studies import (
    acceptance,
    coolant,
    edge_angles,
    edge_life,
    hard,
    passes,
    process,
    program,
    rigidity,
    setting,
    slot_ways,
    thread_size,
    traces,
    ways,
)
from cutting.studies.study import Study

EVERY: tuple[Study, ...] = (
    passes.STUDY,
    rigidity.STUDY,
    edge_life.STUDY,
    ways.STUDY,
    slot_ways.STUDY,
    edge_angles.STUDY,
    coolant.STUDY,
    hard.STUDY,
    setting.STUDY,
    traces.STUDY,
    thread_size.STUDY,
    acceptance.STUDY,
    process.STUDY,
    program.STUDY,
)
STUDIES: MappingProxyType[str, Study] = MappingProxyType({one.name: one for one in EVERY})


def studies_of(kind: str) -> tuple[Study, ...]:
    """The studies of a kind of operation, in the order of the menu."""
    return tuple(one for one in EVERY if kind in one.kinds)


def elsewhere(kind: str) -> tuple[tuple[Study, str], ...]:
    """The studies that do not apply to a kind of operation, each with the reason."""
    return tuple((one, one.elsewhere[kind]) for one in EVERY if kind in one.elsewhere)
