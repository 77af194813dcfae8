"""Tool material and coating of round tools: hardness against toughness, which coating for which metal, one tool for many metals."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cache

from cutting.tables import read_table
from cutting.tooling.items import Grade
from cutting.wear.reference import grade_fit

LETTERS = {
    "P": "steel",
    "M": "stainless",
    "K": "cast iron",
    "N": "aluminium and copper",
    "S": "titanium and heat-resistant",
    "H": "hardened",
}
# hardness of a tool material in words (handbook values), by its class
HARDNESS = {
    "hss": "63 to 67 HRC, soft from 600 °C",
    "carbide": "90 to 93.5 HRA, holds its edge to 1000 °C",
    "pcd": "hardest of all, to 700 °C",
}
TOUGH, BRITTLE = 0.85, 0.6
UNMATCHED = 0.65  # of its speed that a grade keeps where it is not made for the metal (common practice, as drilled)


@dataclass(frozen=True)
class Says:
    """One line of advice: the metal by its ISO 513 letter, blank for all; how well it goes, 0 to 1; and why."""

    letter: str
    metal: str
    rating: float
    why: str


@cache
def _coatings() -> dict[tuple[str, str], tuple[float, str]]:
    return {(row["letter"], row["coating"]): (row.number("rating"), row["why"]) for row in read_table("advice/coatings.csv")}


def coating_of(grade: Grade, letter: str) -> tuple[float, str]:
    """How well a grade's coating suits a metal, 0 to 1, and why."""
    return _coatings()[letter, grade.coating or "none"]


def share_of_speed(grade: Grade, letter: str) -> float:
    """Speed that a grade keeps in a metal, against one that is made for it: its side use costs a fifth, a metal not named more."""
    fit = grade_fit(grade, letter)
    return UNMATCHED if fit is None else float(fit)


def advice_for(grade: Grade) -> tuple[Says, ...]:
    """What a grade is for: its toughness in words, then every metal that it serves with its coating's reason, the best first."""
    tough = "between: sound machines, usual blows"
    if grade.toughness >= TOUGH:
        tough = "tough: stands loose spindles, blows and broken exits"
    elif grade.toughness < BRITTLE:
        tough = "brittle: wants a stiff machine and little runout"
    whole = Says("", "all", grade.toughness, f"{grade.substrate}: {HARDNESS.get(grade.tool_class, 'hard')}; {tough}")
    metals = [
        Says(letter, LETTERS[letter], share_of_speed(grade, letter) * coating_of(grade, letter)[0], coating_of(grade, letter)[1])
        for letter in dict.fromkeys(grade.letters)
    ]
    return (whole, *sorted(metals, key=lambda one: -one.rating))


def one_for_its_metals(grade: Grade) -> str:
    """A grade for all metals that it names against one made for each, in words: time that it costs, places that it saves."""
    letters = "".join(dict.fromkeys(grade.letters))
    found = one_for_all([grade], letters)
    if found is None or len(letters) < 2:
        return ""
    places = f"{found.pockets_saved} place{'s' if found.pockets_saved > 1 else ''} saved"
    return f"one for {', '.join(letters)}: cuts take {found.longer:.0%} longer than with one made for each, {places}"


def coating_reason(coating: str, letter: str) -> str:
    """Why a coating is worse in a metal than the best one for it; blank for the best, or one that the table does not know."""
    rows = {name: told for (metal, name), told in _coatings().items() if metal == letter}
    if coating not in rows or rows[coating][0] >= max(rating for rating, _ in rows.values()):
        return ""
    return rows[coating][1]


@dataclass(frozen=True)
class OneOrEach:
    """One tool for several metals against one for each: share of the time that the cuts take longer, pockets that it saves."""

    grade: str
    longer: float
    pockets_saved: int
    slowest: str


def one_for_all(grades: Iterable[Grade], letters: Sequence[str]) -> OneOrEach | None:
    """The grade that serves all of some metals with the least loss of speed, where each takes as long; None where none may.

    Raises nothing; metals are ISO 513 letters. Cutting time goes with the inverse of the speed.
    """
    best: OneOrEach | None = None
    for grade in grades:
        if any(coating_of(grade, letter)[0] <= 0 for letter in letters):
            continue
        shares = {letter: share_of_speed(grade, letter) for letter in letters}
        longer = sum(1.0 / share for share in shares.values()) / len(shares) - 1.0
        if best is None or longer < best.longer - 1e-9:
            best = OneOrEach(grade.name, longer, len(set(letters)) - 1, min(shares, key=lambda letter: shares[letter]))
    return best
