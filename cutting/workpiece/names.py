"""How people write a material: with and without the body of standards before it, the temper behind it, blanks and dashes."""

from __future__ import annotations

import re
from collections.abc import Iterable

from cutting.names import plain

_BEFORE = re.compile(r"^(EN[\s-]*AW|EN[\s-]*AC|EN|AW|AISI|SAE|UNS|ASTM|DIN|JIS|BS|W\.?[\s-]*Nr\.?|WNr\.?|alloy)[\s\-_.]+", re.IGNORECASE)
# tempers of aluminium (EN 515), and the state in which an alloy is delivered
_BEHIND = re.compile(r"[\s\-_]+(T\d{1,4}|H\d{2,3}|O|F|aged)$", re.IGNORECASE)
LEAST = 2  # letters that a name keeps when something is taken off


def spellings(name: str) -> tuple[str, ...]:
    """The name as it is compared, then without what stands before it, behind it, and both; each once."""
    text = name.strip()
    without = [_BEFORE.sub("", text), _BEHIND.sub("", text), _BEHIND.sub("", _BEFORE.sub("", text))]
    found = (plain(one) for one in (text, *without))
    return tuple(dict.fromkeys(one for one in found if len(one) >= LEAST))


def every_spelling(names: Iterable[str]) -> tuple[str, ...]:
    """All spellings of a thing's names, the whole ones first."""
    ways = [spellings(name) for name in names if name]
    return tuple(dict.fromkeys(spelled for place in range(4) for way in ways for spelled in way[place : place + 1]))
