"""A part in one line: every example of its page, spellings that mean the same, and the body that its operations leave, end by end."""

from __future__ import annotations

import math
import re
from pathlib import Path

import pytest

from cutting.errors import CuttingError
from cutting.plan.plan import Clamping, Plan, Step, bodies
from cutting.plan.read import read_entries
from cutting.process.line_words import Planned
from cutting.process.shaft_line import FACE_STOCK, KERF, noted, read_shaft_line
from cutting.workpiece.ring_grooves import thread_relief
from cutting.workpiece.solid import GRIPPED_MOST, Blank, Solid, radius_at

ROOT = Path(__file__).parents[2]
PAGE = (ROOT / "docs" / "line.md").read_text(encoding="utf-8")
EXAMPLES = [one.replace("\\|", "|") for one in re.findall(r"^\|[^`\n]+\| `([^`]+)` \|$", PAGE, re.MULTILINE)]
BAR, OUT = 50.0, 200.0


def body(line: str, bar: float = BAR, length: float | None = None) -> tuple[Solid, tuple[Planned, ...]]:
    """The part that the operations of a line leave, told as it was first held, and they themselves."""
    cuts = read_shaft_line(line, bar, OUT, blank_length=length)
    steps = tuple(
        Step(f"op{k}", one.kind, told=read_entries(one.kind, "feature", one.feature), clamping=Clamping(one.turned_round))
        for k, one in enumerate(cuts)
    )
    return bodies(Plan(Blank(bar, OUT, length=length), "C45", "two-axis lathe", steps))[-1], cuts


def across(part: Solid, place: float) -> float:
    return 2.0 * float(radius_at(part.outside, place))


@pytest.mark.parametrize("line", EXAMPLES)
def test_every_example_of_the_page_is_read(line: str) -> None:
    assert read_shaft_line(line, BAR, OUT)


def test_spellings_of_one_part_make_one_plan() -> None:
    assert read_shaft_line(EXAMPLES[0], BAR, OUT) == read_shaft_line(EXAMPLES[1], BAR, OUT)
    told = [(one.title, one.feature) for one in read_shaft_line("Ø30 to 50, Ø45 to 110", BAR, OUT)]
    assert told == [(one.title, one.feature) for one in read_shaft_line("Ø30 x 50, Ø45 x 60", BAR, OUT)]
    assert noted("Ø45 x 60, keyseat 8 x 25, knurl RAA 1, centre hole A2.5") == ("keyseat 8 x 25", "knurl RAA 1", "centre hole A2.5")
    assert read_shaft_line("Ø45 x 60, keyseat 8 x 25", BAR, OUT) == read_shaft_line("Ø45 x 60", BAR, OUT)


def test_a_chamfer_is_cut_with_the_last_cut_of_its_step() -> None:
    part, cuts = body("Ø45 x 60, Ø30 x 50 2x45°")
    end = OUT - FACE_STOCK
    assert [across(part, end - deep) for deep in (2.5, 49.0)] == pytest.approx([30.0, 30.0])
    assert [across(part, end - deep) for deep in (0.05, 1.0, 1.95)] == pytest.approx([26.1, 28.0, 29.9], abs=0.35)  # in slices
    assert cuts[-1].feature["profile"] == "149 mm:30 mm; 197 mm:30 mm; 199 mm:26 mm"
    assert [one.title for one in cuts] == ["Face", "Turn Ø45", "Rough turn Ø30.6", "Finish Ø30"]


@pytest.mark.parametrize("relief", ["relief F", "relief DIN 509 F", "groove DIN 509 F"])
def test_a_relief_stands_beside_the_shoulder(relief: str) -> None:
    """DIN 509 F on Ø30: 0.2 to 0.3 deep beside the thicker step (form F 0.8 x 0.3 from memory), not at the free end."""
    part, _ = body(f"Ø45 x 60, Ø30 h6 x 50, {relief}")
    shoulder = OUT - FACE_STOCK - 50.0
    assert across(part, shoulder + 0.5) < 29.8
    assert across(part, shoulder + 10.0) == pytest.approx(30.0, abs=0.02)


def test_an_undercut_behind_a_thread_clears_its_core() -> None:
    """DIN 76-1 A for pitch 1.5: Ø d − 2.3, 5.2 wide (from memory); the core of M20x1.5 is 18.16 (ISO 724)."""
    part, _ = body("Ø45 x 60, Ø20 x 40, thread M20x1.5 x 30, relief DIN 76")
    shoulder = OUT - FACE_STOCK - 40.0
    assert across(part, shoulder + 2.0) == pytest.approx(17.7)
    assert 19.732 <= across(part, shoulder + 20.0) <= 19.968  # major Ø of M20x1.5-6g (ISO 965-2)
    assert across(part, shoulder + 2.0) < 18.16 < across(part, shoulder + 5.5)


@pytest.mark.parametrize(("length", "off"), [(None, ", cut off"), (172.0, "")])
def test_the_other_end_is_turned_on_the_part_turned_round(length: float | None, off: str) -> None:
    """Ø30 x 50 and Ø45 x 60 at one end, Ø35 x 20 and Ø40 x 30 at the other: 160 long, each step point by point."""
    line = f"Ø45 x 60, Ø30 x 50{off} | Ø35 x 20 C1, Ø40 x 30"
    part, cuts = body(line, length=length)
    face = OUT - FACE_STOCK
    wanted = [(10, 30), (45, 30), (55, 45), (105, 45), (115, 40), (135, 40), (145, 35), (158, 35)]
    if length is not None:  # 172 sawn, faced twice: 10 of the bar stay between the ends
        wanted = [(10, 30), (55, 45), (105, 45), (115, 50), (125, 40), (145, 40), (155, 35), (168, 35)]
    assert [across(part, face - deep) for deep, _ in wanted] == pytest.approx([d for _, d in wanted])
    round_about = [one for one in cuts if one.turned_round]
    assert [one.title for one in round_about] == ["Face the other end", "Turn Ø40", "Rough turn Ø35.6", "Finish Ø35"]
    assert [one.title for one in cuts if one.kind == "cut off"] == (["Cut off Ø50"] if off else [])
    whole = 161.0 if off else 171.0
    assert float(str(round_about[1].feature["distance_from_chuck"]).split()[0]) == pytest.approx(whole - GRIPPED_MOST - FACE_STOCK - 50)


def test_cut_off_leaves_room_for_the_other_end() -> None:
    one = next(cut for cut in read_shaft_line("Ø45 x 60, Ø30 x 50, cut off | Ø35 x 20", BAR, OUT) if cut.kind == "cut off")
    assert one.feature["part_length"] == "131 mm"  # 110 and 20, and what is faced off the other end
    assert one.feature["distance_from_chuck"] == f"{OUT - FACE_STOCK - 131 - KERF:g} mm"


def test_a_tapped_hole_of_the_other_end_has_its_core_there() -> None:
    _, cuts = body("Ø45 x 60, tapped M10 x 15, cut off | tapped M8 x 12")
    drilled = {one.title: one.turned_round for one in cuts if one.kind == "drill"}
    assert drilled == {"Hole Ø8.5": False, "Hole Ø6.8": True}


@pytest.mark.parametrize(
    ("line", "words"),
    [
        ("Ø45 x 60 | Ø30 x 20 | Ø20 x 10", "two ends"), ("Ø45 x 60 | Ø35 x 20", "cut off"), ("Ø45 x 60, cut off |", "behind '|'"),
        ("Ø45 x 60, cut off | groove 3 x Ø30 at 5, Ø35 x 20", "before any step"), ("Ø45 x 60, cut off | bore Ø20 through", "through"),
        ("Ø45 x 60, cut off | Ø60 x 10", "thicker"), ("Ø30 to 50, Ø45 to 40", "already is"),
        ("Ø45 x 60, cut off | Ø30 to 20, Ø35 to 15", "already is"),
        ("Ø45 x 10 12x45°", "leaves nothing"), ("Ø30 x 50 taper 7°", "of each side, or between both"),
        ("Ø30 x 50 taper 1:1", "ends in nothing"),
        ("Ø30 x 50 taper 85° per side", "0 to 80"), ("Ø30 x 50 taper 1:0.5", "no taper"),
        ("Ø45 x 60, groove 3 x Ø46", "must be below its step"),
        ("Ø45 x 60 1x45° C1", "2 chamfers"), ("Ø45 x 60, relief DIN 76", "behind a thread"),
        ("Ø45 x 60, M20 x 30", "thread M20x1.5 x 30"), ("Ø45 x 160, cut off | Ø35 x 40", "out of the jaws"),
        ("Ø45 x 20, cut off | Ø40 x 60", "stand out"),
    ],
)  # fmt: skip
def test_what_does_not_fit_says_what_was_expected(line: str, words: str) -> None:
    with pytest.raises(CuttingError) as refused:
        read_shaft_line(line, BAR, OUT)
    assert refused.value.field == "line"
    assert words in refused.value.message


def test_a_cut_off_keeps_its_room_in_front_of_the_jaws() -> None:
    """Six millimetres between jaws and part for the blade and its clearance; nothing is kept where nothing is cut off."""
    assert read_shaft_line(f"Ø45 x {OUT - FACE_STOCK - 6:g}, cut off", BAR, OUT)
    assert read_shaft_line(f"Ø45 x {OUT - FACE_STOCK - 5:g}", BAR, OUT)
    with pytest.raises(CuttingError):
        read_shaft_line(f"Ø45 x {OUT - FACE_STOCK - 5:g}, cut off", BAR, OUT)


def test_the_other_end_may_be_as_thick_as_its_bar() -> None:
    titles = [one.title for one in read_shaft_line("Ø45 x 60, cut off | Ø50 x 10, Ø50 x 5", BAR, OUT) if one.turned_round]
    assert titles == ["Face the other end"]


def test_an_undercut_that_the_table_lacks_names_the_nearest() -> None:
    with pytest.raises(CuttingError) as refused:
        thread_relief(1.4)
    assert refused.value.suggestions[:2] == ("1.5", "1.25")
    assert thread_relief(1.0).depth < thread_relief(2.0).depth, "a coarser thread is deeper"


@pytest.mark.parametrize(("said", "thin"), [("taper 1:10", 25.0), ("taper 7° per side", 30.0 - 100.0 * math.tan(math.radians(7))),
                                            ("taper 14° included", 30.0 - 100.0 * math.tan(math.radians(7)))])  # fmt: skip
def test_a_taper_runs_from_its_size_to_its_free_end(said: str, thin: float) -> None:
    """The rate of taper is (D - d) / L (ISO 3040); half of the angle between both sides is that of each."""
    part, cuts = body(f"Ø45 x 60, Ø30 h7 x 50 {said}")
    end = OUT - FACE_STOCK
    for share in (0.02, 0.5, 0.98):
        assert across(part, end - 50.0 * share) == pytest.approx(thin + (30.0 - thin) * share, abs=0.35)  # drawn in slices
    rough = next(one for one in cuts if "taper" in one.title).feature
    wide = float(str(rough["end_diameter"]).removesuffix(" mm"))
    assert float(str(rough["start_diameter"]).removesuffix(" mm")) - wide == pytest.approx(30.0 - thin, abs=1e-3)  # as deep at each pass


def test_a_groove_and_a_thread_stand_at_the_other_end() -> None:
    """As they would at the first: measured from the face that is there when the part is turned round; steps said either way round."""
    whole = 60.0 + 30.0
    for line in ("Ø24 x 20, thread M24 x 12, Ø35 x 10, groove 3 x Ø30 at 4", "Ø35 x 10, groove 3 x Ø30 at 4, Ø24 x 20, thread M24 x 12"):
        part, cuts = body(f"Ø45 x 60, cut off | {line}")
        free = OUT - FACE_STOCK - whole  # the face of the other end, where the part was first held
        assert across(part, free + 10.0) == pytest.approx(23.7)
        assert across(part, free + 20.0 + 4.0 + 1.5) == pytest.approx(30.0)
        assert across(part, free + 20.0 + 2.0) == pytest.approx(35.0)
        assert next(one for one in cuts if one.kind == "turn thread").turned_round


def test_the_step_under_a_thread_is_what_its_class_allows() -> None:
    """M24-6g is cut into 23.577 to 23.952 (ISO 965-2), Tr 20x4-7e into 19.7 to 20 (ISO 2903); a tolerance stays as said."""
    for word, size, low, high in (("M24", 24, 23.577, 23.952), ("Tr 20x4", 20, 19.7, 20.0)):
        part, cuts = body(f"Ø45 x 60, Ø{size} x 40, thread {word} x 30")
        assert low <= across(part, OUT - FACE_STOCK - 20.0) <= high
        assert word in next(one.note for one in cuts if one.note)
    part, _ = body("Ø45 x 60, Ø24 h11 x 40, thread M24 x 30")
    assert across(part, OUT - FACE_STOCK - 20.0) > 23.8


def test_a_ring_groove_whose_place_is_not_said_leaves_its_shoulder() -> None:
    """DIN 471 for Ø30, from memory: groove Ø28.6, 1.6 wide, at least 2.1 from the end (three depths)."""
    part, cuts = body("Ø45 x 60, Ø30 x 50, groove DIN 471")
    end = OUT - FACE_STOCK
    assert 28.39 <= across(part, end - 2.1 - 0.8) <= 28.6  # h12
    assert across(part, end - 2.0) == pytest.approx(30.0)
    assert across(part, end - 2.1 - 1.6 - 0.3) == pytest.approx(30.0)
    assert "2.1 mm from the end" in next(one.note for one in cuts if one.kind == "groove")


def test_a_thread_that_goes_through_has_its_chamfer_outside_the_part() -> None:
    """In the bar the core hole goes on into what is cut off; of a short blank it opens."""
    parted = {one.kind: one.feature for one in body("Ø45 x 20, tapped M10 through, cut off")[1]}
    assert parted["tap"]["length"] == "20 mm"
    assert float(str(parted["drill"]["depth"]).split()[0]) >= 20 + 4 * 1.5
    assert not parted["drill"]["through"]
    free = {one.kind: one.feature for one in read_shaft_line("Ø45 x 60, M10 inside through", 50.0, 60.0 + FACE_STOCK)}
    assert free["drill"]["through"]
    assert free["tap"]["through"]
    for line, said in (("tapped M10 through", "length"), ("Ø30 x 20, thread M30 through", "outside has a length")):
        with pytest.raises(CuttingError, match=said):
            read_shaft_line(line, 50.0, 100.0)
