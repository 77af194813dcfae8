"""Sentences that were written in metric units, told in inch units."""

from __future__ import annotations

import re

from cutting.quantities.kinds import KINDS
from cutting.quantities.write import write

# of kinds that share a word for their unit the first
_UNITS = {KINDS[name].metric: name for name in reversed(KINDS) if KINDS[name].metric and KINDS[name].metric != KINDS[name].inch}
_NUMBER = r"[-−+]?\d+(?:\.\d+)?"
_JOINED = r"(?: is outside | to | and | … |–|:)"
_WORDS = "|".join(re.escape(word) for word in sorted(_UNITS, key=len, reverse=True))
_MEASURE = re.compile(rf"(?<![\w.,])(?P<before>(?:{_NUMBER}{_JOINED})*)(?P<last>{_NUMBER})(?P<gap> )(?P<unit>{_WORDS})(?![\w/²³·])")
# not Ø before a unit of its own or a tolerance class, which is metric as written
_DIAMETER = re.compile(r"Ø(?P<value>\d+(?:\.\d+)?)(?![\d.]*(?: ?mm| ?in\b| [A-Za-z]{1,2}\d))")


def in_inch(text: str) -> str:
    """The sentence with its measures in inch units; numbers without a unit are told as the unit behind them says.

    >>> in_inch("60 is outside 0 to 38 mm, the part's length.")
    "2.362 is outside 0 to 1.496 in, the part's length."
    >>> in_inch("Ø100 on Ø200 reaches beyond the part's Ø150.")
    "Ø3.937 on Ø7.874 reaches beyond the part's Ø5.906."
    >>> in_inch("the spindle gives 150 m/min")
    'the spindle gives 492 sfm'
    """

    def measure(found: re.Match[str]) -> str:
        kind = _UNITS[found["unit"]]
        before = re.sub(_NUMBER, lambda one: _number(one.group(), kind), found["before"])
        return f"{before}{_number(found['last'], kind)}{found['gap']}{KINDS[kind].inch}"

    return _DIAMETER.sub(lambda found: f"Ø{_number(found['value'], 'length')}", _MEASURE.sub(measure, text))


def _number(text: str, kind: str) -> str:
    sign = text[0] if text[0] in "-−+" else ""
    return sign + write(float(text.lstrip("-−+")), kind, "inch", False)
