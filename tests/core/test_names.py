"""Names as people type them: every material answers with and without prefix, temper and blanks."""

from __future__ import annotations

import re

import pytest

from cutting.errors import UnknownName
from cutting.names import find, index
from cutting.operations.registry import KINDS
from cutting.tooling.decode import decode
from cutting.workpiece.materials import find_material, materials
from cutting.workpiece.names import spellings


@pytest.mark.parametrize(
    ("typed", "name"),
    [
        *((typed, "EN AW-6082 T6") for typed in ("EN AW-6082", "6082-T6", "6082 T6", "en aw 6082", "AlMgSi1", "AW-6082", "6082T6")),
        *((typed, "X155CrVMo12-1") for typed in ("1.2379", "D2", "AISI D2", "W.Nr. 1.2379", "x155 crvmo12-1")),
        *((typed, "34CrNiMo6") for typed in ("4340", "AISI 4340", "SAE 4340", "1.6582")),
        *((typed, "NiCr19Fe19Nb5Mo3 aged") for typed in ("718", "2.4668", "alloy 718", "Alloy718", "UNS N07718", "NiCr19Fe19Nb5Mo3")),
        *((typed, "EN-GJL-250") for typed in ("GJL-250", "GJL 250", "en-gjl-250", "5.1301")),
        *((typed, "EN AW-5083") for typed in ("5083-H111", "5083", "AlMg4.5Mn")),
        *((typed, "X5CrNi18-10") for typed in ("304", "AISI 304", "1.4301")),
    ],
)
def test_a_material_by_what_people_write(typed: str, name: str) -> None:
    """EN, AISI/SAE, UNS and material numbers side by side; tempers after EN 515 (from memory)."""
    assert find_material(typed).name == name


def test_every_material_answers_to_every_way_of_writing_it() -> None:
    """A name may stand for several states of one metal: the answer is always one that carries the name."""
    for material in materials():
        for name in filter(None, (material.name, material.number, *material.aliases)):
            for typed in (name, name.lower(), re.sub(r"[\s-]", "", name), name.replace("-", " "), f" {name} "):
                found = find_material(typed)
                carried = {spelled for own in filter(None, (found.name, found.number, *found.aliases)) for spelled in spellings(own)}
                assert carried & set(spellings(typed)), (typed, found.name)
        assert find_material(material.name) is material  # its own name is nobody else's


@pytest.mark.parametrize("typed", ["", "T6", "EN", "alloy", "60820", "steel of some kind"])
def test_what_is_no_name_is_refused(typed: str) -> None:
    with pytest.raises(UnknownName):
        find_material(typed)


def test_the_polished_chipbreaker_of_inch_practice_is_read() -> None:
    """ANSI B212.4, from memory: P at position 4; corner 0 is sharp."""
    read = decode("CNGP 430")
    assert "polished" in next(part.meaning for part in read.parts if part.position == "4")
    assert read.parts[-1].code == "0"
    assert read.seat == decode("CNMG 432").seat


def test_a_slip_is_offered_what_is_near_and_nonsense_nothing() -> None:
    """Half a word is enough to be asked back by; letters at random are not."""
    known = index([((name,), name) for name in ("two-axis lathe", "sliding-head lathe", "machining centre")])

    def offered(typed: str) -> tuple[str, ...]:
        with pytest.raises(UnknownName) as refused:
            find(typed, known, "machine", "machine", known.values())
        return refused.value.suggestions

    assert offered("slider") == ("sliding-head lathe",)
    assert offered("machinig center")[0] == "machining centre"
    assert offered("qzx") == ()


# labels that stood once and that the trade has better words for
RETIRED = (
    "book window",
    "useful",
    "swings",
    "wants",
    "against the",
    "that it holds",
    "stands out",
    "bends",
    "wider than",
    "at the most",
    "at most",
)


def test_a_limit_is_named_in_the_words_of_the_trade() -> None:
    """Its first words stand alone in titles, lists and maps: short, a noun of the trade, without what was retired."""
    labels = {rule.label for kind in KINDS.values() for rule in kind.model.rules}
    assert len(labels) > 120
    for label in labels:
        assert len(label.split(",")[0]) <= 22, label
        assert not [word for word in RETIRED if word in label], label
