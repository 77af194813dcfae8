"""The safety word of a warning: what the worst credible harm to a person is."""

from __future__ import annotations

from enum import StrEnum
from types import MappingProxyType


class Harm(StrEnum):
    """The safety words of ISO 3864 and ANSI Z535: will kill or maim, could, could injure slightly; none where only things are hurt."""

    DANGER = "danger"
    WARNING = "warning"
    CAUTION = "caution"
    NONE = ""


# by the warning's name, so that one hazard has one word in every operation (which hazard earns which: common practice)
_NAMES = {
    # a bar end, a loose chuck or a hand drawn in; fire that water feeds; splinters of a struck tap
    Harm.DANGER: "bar_behind broken_tap left_cutting magnesium_chips magnesium_wet no_clamp polishing reverse",
    Harm.WARNING: "balance changer fibre_dust grip guards hard_sparks head head_speed inside jaws_at_speed kick light_grip long_chips "
    "long_part part_falls pressure pull_out pulls_off_centre pulls_out sense_of_spindle slug spindle stops_short swarf titanium_chips "
    "web whipping wrapping_chips",
    Harm.CAUTION: "blind_chips heavy",
}
HARMS = MappingProxyType({name: harm for harm, names in _NAMES.items() for name in names.split()})
ORDER = tuple(Harm)  # the gravest first


def harm_of(name: str) -> Harm:
    """The worst credible harm of what a warning of that name tells.

    >>> harm_of("bar_behind"), harm_of("gear_step")
    (<Harm.DANGER: 'danger'>, <Harm.NONE: ''>)
    """
    return HARMS.get(name, Harm.NONE)
