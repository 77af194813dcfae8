"""The finish of a face as drawings say it: Ra, Rz, Rt or a class N1 to N12, all read as Ra."""

from __future__ import annotations

import re

from cutting.errors import UnreadableQuantity

_WORD = re.compile(r"^(?P<word>ra|rz|rt|n)\s*(?P<rest>[\d.,].*)$", re.IGNORECASE)
# Ra over the other parameter on turned faces (common practice: Rz is 4 to 7 times Ra, a row of feed marks near 4)
SHARES = {"ra": 1.0, "rz": 0.25, "rt": 0.22}
FINEST, LAST = 0.025, 12  # Ra [µm] of N1, each class twice the one before (ISO 1302:1992); the highest class
_EXACT = {8: 3.2, 9: 6.3, 10: 12.5, 11: 25.0, 12: 50.0}  # rounded as the standard prints them


def finish_parts(text: str, field: str) -> tuple[str, float]:
    """The number of a finish as it was typed, and the share of it that Ra [µm] is. Raises `UnreadableQuantity` for a class that is none.

    >>> finish_parts("Rz 6.3", "finish")
    ('6.3', 0.25)
    >>> finish_parts("N6", "finish")
    ('0.8', 1.0)
    """
    found = _WORD.match(text.strip())
    if not found:
        return text, 1.0
    word, rest = found["word"].lower(), found["rest"].strip()
    if word != "n":
        return rest, SHARES[word]
    if not rest.isdigit() or not 1 <= int(rest) <= LAST:
        raise UnreadableQuantity(field, f"'{text.strip()}' is no class of finish.", f"N1 to N{LAST}")
    return f"{_EXACT.get(int(rest), FINEST * 2 ** (int(rest) - 1)):g}", 1.0
