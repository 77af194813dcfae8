"""Designations against the standards' own tables: ISO 1832, ANSI B212.4, ISO 5608, ANSI B212.5, ISO 6261. All from memory."""

from __future__ import annotations

import itertools
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from cutting.errors import CuttingError
from cutting.tooling.decode import decode
from cutting.tooling.designations import holder_code, threading_code
from cutting.tooling.designations.holder_code import read_holder_code, write_holder
from cutting.tooling.designations.insert_code import edges_and_why, read_insert_code, write_inch, write_metric
from cutting.tooling.designations.insert_text import corner_codes, take_apart, thickness_codes
from cutting.tooling.designations.letters import TOLERANCES
from cutting.tooling.designations.threading_code import read_threading_code, write_threading
from cutting.tooling.insert_drawing import draw_insert
from cutting.tooling.shapes import SHAPES, size_codes

# iso-1832, table of edge lengths, C D S T V W per inscribed circle; S4 and L3 are the standard's own exceptions
EDGE_TABLE = {
    3.97: "S4 04 03 06 06 02", 4.76: "04 05 04 08 08 L3", 5.56: "05 06 05 09 09 03", 6.35: "06 07 06 11 11 04",
    7.94: "08 09 07 13 13 05", 9.525: "09 11 09 16 16 06", 12.7: "12 15 12 22 22 08", 15.875: "16 19 15 27 27 10",
    19.05: "19 23 19 33 33 13", 25.4: "25 31 25 44 44 17",
}  # fmt: skip


@pytest.mark.parametrize("circle", EDGE_TABLE)
def test_size_codes_are_the_standards(circle: float) -> None:
    for letter, code in zip("CDSTVW", EDGE_TABLE[circle].split(), strict=True):
        assert size_codes(letter)[code] == circle, (letter, code)
        if code.isdigit() and (letter, code) not in {("S", "03")}:
            # the code is the edge length's whole millimetres
            assert int(circle * (SHAPES[letter].edge_per_circle or 1) + 0.01) == int(code), (letter, code)


# ansi-b212-4 and iso-1832 side by side, as tool catalogues' conversion tables print them (from memory)
PAIRS = [
    ("CNMG 120408", "CNMG 432"), ("CNMG 120404", "CNMG 431"), ("CNMG 120412", "CNMG 433"), ("CNMG 120406", "CNMG 431.5"),
    ("CNMG 160612", "CNMG 543"), ("CNMG 190616", "CNMG 644"), ("WNMG 080408", "WNMG 432"), ("WNMG 060404", "WNMG 331"),
    ("DNMG 150608", "DNMG 442"), ("DNMG 150408", "DNMG 432"), ("TNMG 160408", "TNMG 332"), ("TNMG 220412", "TNMG 433"),
    ("SNMG 120408", "SNMG 432"), ("SNMM 190624", "SNMM 646"), ("VNMG 160408", "VNMG 332"), ("CCMT 09T304", "CCMT 32.51"),
    ("CCMT 060204", "CCMT 21.51"), ("DCMT 11T308", "DCMT 32.52"), ("VBMT 160404", "VBMT 331"), ("VBGT 110302", "VBGT 220.5"),
    ("TCMT 16T308", "TCMT 32.52"), ("TPGN 110304", "TPGN 221"), ("TCMT 090204", "TCMT 731"), ("RNMG 120400", "RNMG 43"),
    ("CNMA 120416", "CNMA 434"), ("SNMG 150612", "SNMG 543"),
]  # fmt: skip


@pytest.mark.parametrize(("metric", "inch"), PAIRS)
def test_metric_and_inch_are_one_insert(metric: str, inch: str) -> None:
    first, second = take_apart(metric), take_apart(inch)
    assert (first.inscribed_circle, first.thickness, first.nose_radius) == (second.inscribed_circle, second.thickness, second.nose_radius)
    assert write_inch(first) == inch
    assert write_metric(second) == metric


@pytest.mark.parametrize(
    ("typed", "usual"),
    [
        ("cnmg120408", "CNMG 120408"),
        ("CNMG-12 04 08", "CNMG 120408"),
        ("CNMG 12.04.08", "CNMG 120408"),
        ("ccmt-09t304", "CCMT 09T304"),
        ("tcmt 1.81.51", "TCMT 090204"),  # common practice, no source: decimals of an eighth below a quarter inch
        ("cnmg431,5", "CNMG 120406"),
        ("rcmt 1204 m0", "RCMT 1204M0"),
    ],
)
def test_what_people_type(typed: str, usual: str) -> None:
    assert write_metric(take_apart(typed)) == usual


def metric_of(inch: str) -> str | None:
    """The metric code of an inch code, None where eighths and thirty-seconds both make sense and it is refused for that."""
    try:
        return write_metric(take_apart(inch))
    except CuttingError as error:
        if "two readings" not in str(error):
            raise
        return None


def test_two_readings_are_offered_not_guessed() -> None:
    with pytest.raises(CuttingError, match=r"19\.05 mm.*4\.76 mm"):
        take_apart("TCMT 633")
    assert sum(metric_of(inch) is None for _, inch in PAIRS) == 0  # what the trade stocks has one reading


@given(
    shape=st.sampled_from("CDSTVW"),
    clearance=st.sampled_from("NCPB"),
    tolerance=st.sampled_from(list(TOLERANCES)),
    fixing=st.sampled_from("GMATWNRF"),
    data=st.data(),
)
def test_writing_what_was_read_gives_it_back(shape: str, clearance: str, tolerance: str, fixing: str, data: st.DataObject) -> None:
    size = data.draw(st.sampled_from(list(size_codes(shape))))
    thick = data.draw(st.sampled_from(list(thickness_codes())))
    corner = data.draw(st.sampled_from(list(corner_codes())))
    code = f"{shape}{clearance}{tolerance}{fixing} {size}{thick}{corner}"
    said = take_apart(code)
    assert write_metric(said) == code
    inch = write_inch(said)
    ratio = (said.thickness or 0) / (said.inscribed_circle or 1)
    if inch is not None and 0.25 <= ratio <= 0.5:
        assert metric_of(inch) in (code, None)


# iso-1832 (from memory): usable edges; common practice, no source, for the 100° corners
@pytest.mark.parametrize(
    ("code", "edges", "word"),
    [
        ("CNMG 120408", 4, "100° corners give 4 more"),
        ("WNMG 080408", 6, "both sides"),
        ("SNMM 190624", 4, "one side"),
        ("TNMG 160408", 6, "both sides"),
        ("CCMT 09T304", 2, "clearance"),
        ("CNGA 120408 T01020 B", 2, "tipped"),
        ("RCMT 1204M0", None, "as many indexings"),
        ("LNMX 191940", None, "its maker says"),
    ],
)
def test_edges_and_why(code: str, edges: int | None, word: str) -> None:
    count, why = edges_and_why(take_apart(code))
    assert count == edges
    assert word in why


def test_tipped_suffix_is_read_position_by_position() -> None:
    # iso-1832 positions 8 to 11 (from memory): T chamfered, 01020 is 0.10 mm at 20°, B two corners tipped on one side
    suffix = take_apart("CNGA 120408 T01020 B").suffix
    assert (suffix.edge_condition, suffix.chamfer_width, suffix.chamfer_angle, suffix.tips) == ("T", 0.1, 20, 2)
    assert take_apart("CNMG 120408-K7").suffix.rest == "K7"


@pytest.mark.parametrize(
    ("code", "position", "allowed"),
    [
        ("XNMG 120408", "position 1 (shape)", "C"),
        ("CXMG 120408", "position 2 (clearance)", "N"),
        ("CNXG 120408", "position 3 (tolerance class)", "M"),
        ("CNMZ 120408", "position 4 (fixing", "G"),
        ("CNMG 110408", "position 5 (size)", "12"),
        ("CNMG 129908", "position 6 (thickness)", "04"),
        ("CNMG 120499", "position 7 (corner)", "08"),
        ("CNMG 439", "position 7 (corner)", "1.5"),
        ("PCLNR 2525 Z12", "position 8 (length)", "M"),
        ("PCLNR 2525 M13", "position 9 (insert size)", "12"),
        ("PCLNQ 2525 M12", "position 5 (hand)", "R"),
        ("Q25T-SCLCR 09", "position 1 (type of bar)", "S"),
        ("S26T-SCLCR 09", "position 2 (diameter)", "25"),
        ("16 XR 1.5 ISO", "position 2 (side)", "E"),
        ("16 ER 1.5 FOO", "position 5 (profile)", "ISO"),
    ],
)
def test_a_wrong_code_names_its_position_and_what_is_allowed(code: str, position: str, allowed: str) -> None:
    with pytest.raises(CuttingError) as refused:
        decode(code)
    assert position in str(refused.value)
    assert allowed in (refused.value.bound or "").split()


def test_special_types_are_kept_not_guessed() -> None:
    said = take_apart("LNMX 191940")
    assert said.inscribed_circle is None
    assert said.thickness is None
    with pytest.raises(CuttingError, match="give it as IC"):
        read_insert_code("LNMX 191940")
    assert read_insert_code("LNMX 191940", given={"IC": 10.0, "S": 19.05}).thickness == 19.05


# iso-5608 and iso-6261 (from memory): section, length, κr; ansi-b212-5: sixteenths of a square shank, eighths × quarters else
@pytest.mark.parametrize(
    ("code", "usual", "height", "width", "length", "size", "angle"),
    [
        ("pclnr2525m12", "PCLNR 2525 M12", 25, 25, 150, "12", 95),
        ("MTJNR 2020 K16", "MTJNR 2020 K16", 20, 20, 125, "16", 93),
        ("SVVBN 1616 H16", "SVVBN 1616 H16", 16, 16, 100, "16", 72.5),
        ("PSSNR 3225 P12", "PSSNR 3225 P12", 32, 25, 170, "12", 45),
        ("DCLNL 16-4D", "DCLNL 16-4D", 25.4, 25.4, 152.4, "12", 95),
        ("MTJNR 12-3B", "MTJNR 12-3B", 19.05, 19.05, 114.3, "16", 93),
        ("MCLNR 86-6E", "MCLNR 86-6E", 38.1, 25.4, 177.8, "19", 95),
        ("S25T-SCLCR 09", "S25T-SCLCR 09", 25, 25, 300, "09", 95),
        ("a16r sclcr09", "A16R-SCLCR 09", 16, 16, 200, "09", 95),
        ("E12Q-SDUCR 07", "E12Q-SDUCR 07", 12, 12, 180, "07", 93),
        ("A16T SCLCR 3", "A16T-SCLCR 3", 25.4, 25.4, 300, "09", 95),
    ],
)
def test_holders_and_bars(code: str, usual: str, height: float, width: float, length: float, size: str, angle: float) -> None:
    found = read_holder_code(code)
    assert (found.shank_height, found.shank_width, found.length) == pytest.approx((height, width, length))
    assert (found.size, found.cutting_edge_angle) == (size, angle)
    assert write_holder(found) == usual
    assert write_holder(read_holder_code(usual)) == usual


# common practice, no source: laydown threading codes
@pytest.mark.parametrize(
    ("code", "usual", "circle", "pitch", "span"),
    [
        ("16er1.5iso", "16 ER 1.5 ISO", 9.525, 1.5, None),
        ("22 IR 8 UN", "22 IR 8 UN", 12.7, 3.175, None),
        ("16 ER AG 60", "16 ER AG 60", 9.525, None, (0.5, 3.0)),
        ("11 IL 11.5 NPT", "11 IL 11.5 NPT", 6.35, 25.4 / 11.5, None),
        ("3 ER 8 UN", "3 ER 8 UN", 9.525, 3.175, None),
        *((f"{eighths} ER 8 UN", f"{eighths} ER 8 UN", round(eighths * 3.175, 3), 3.175, None) for eighths in (2, 4, 5, 6)),
    ],
)
def test_threading_codes(code: str, usual: str, circle: float, pitch: float | None, span: tuple[float, float] | None) -> None:
    found = read_threading_code(code)
    assert found.inscribed_circle == circle
    assert found.pitch == (pytest.approx(pitch) if pitch else None)
    assert found.pitch_range == span
    assert write_threading(found) == usual


@pytest.mark.parametrize("code", ["CNMG 120408", "TNMG 160404", "SNMG 120412", "DCMT 11T308", "VBMT 160404", "WNMG 080408", "HNMG 070508"])
def test_the_drawing_keeps_the_circle_and_the_corner(code: str) -> None:
    # geometry: the outline touches the inscribed circle and ends at the rounded corner, r·(1/sin(ε/2) − 1) short of the sharp one
    said = take_apart(code)
    drawn = draw_insert(said)
    assert drawn is not None
    assert said.inscribed_circle
    assert said.nose_radius is not None
    radius, half = said.inscribed_circle / 2, math.radians(SHAPES[said.shape].included_angle / 2)
    points = [*drawn.plan, drawn.plan[0]]
    nearest = min(_distance(a, b) for a, b in itertools.pairwise(points))
    assert nearest == pytest.approx(radius, abs=0.01)
    farthest = max(math.hypot(x, y) for x, y in drawn.plan)
    assert farthest == pytest.approx(radius / math.sin(half) - said.nose_radius * (1 / math.sin(half) - 1), abs=0.01)
    heights = [z for piece in drawn.section for _, z in piece]
    assert max(heights) - min(heights) == pytest.approx(said.thickness)


def _distance(a: tuple[float, float], b: tuple[float, float]) -> float:
    """From the middle to the segment."""
    dx, dy = b[0] - a[0], b[1] - a[1]
    t = max(0.0, min(1.0, -(a[0] * dx + a[1] * dy) / ((dx * dx + dy * dy) or 1)))
    return math.hypot(a[0] + t * dx, a[1] + t * dy)


@pytest.mark.parametrize(("text", "known", "missing"), [
    ("WNMG", ["trigon 80°", "normal clearance 0°"], "position 5 (size) is missing"), ("TNMC 43 NV", ["triangle 60°"], "position 5 (size)"),
    ("16ER", ["triangle, inscribed circle 9.525 mm", "external thread", "right hand"], "position 4 (pitch) is missing"),
    ("CNMG 12", ["rhombic 80°"], "position 6 (thickness)"),
])  # fmt: skip
def test_a_short_designation_is_explained_as_far_as_it_goes(text: str, known: list[str], missing: str) -> None:
    found = decode(text)
    assert [part.meaning for part in found.parts][: len(known)] == known
    assert missing in found.remarks[0]
    assert found.drawing is None


# ISO 5608, tool length l1 [mm] and κr [°] by letter (from memory); ISO 6261 gives bars the same lengths
HOLDER_LENGTHS = "A32 B40 C50 D60 E70 F80 G90 H100 J110 K125 L140 M150 N160 P170 Q180 R200 S250 T300 U350 V400 W450 Y500"
HOLDER_ANGLES = "A90 B75 C90 D45 E60 F90 G90 H107.5 J93 K75 L95 N63 R75 S45 T60 U93 V72.5 W60 Y85"


@pytest.mark.parametrize("said", HOLDER_LENGTHS.split())
def test_the_length_of_a_holder_is_its_letter(said: str) -> None:
    letter, length = said[0], float(said[1:])
    assert holder_code.LENGTHS[letter] == length


@pytest.mark.parametrize("said", HOLDER_ANGLES.split())
def test_the_angle_of_a_holder_is_its_style(said: str) -> None:
    angle, _ = holder_code.STYLES[said[0]]
    assert angle == float(said[1:])


@pytest.mark.parametrize(
    ("letter", "finest", "coarsest"), [("A", 0.5, 1.5), ("AG", 0.5, 3.0), ("G", 1.75, 3.0), ("N", 3.5, 5.0), ("Q", 5.5, 6.0)]
)
def test_a_partial_profile_cuts_the_pitches_of_its_letter(letter: str, finest: float, coarsest: float) -> None:
    """Common practice, no source: the letters stand on every box of threading inserts."""
    code = read_threading_code(f"16 ER {letter} 60")
    assert code.pitch is None
    assert threading_code.PARTIAL[letter] == (finest, coarsest)


# ISO 1832, shape letters: included angle [°] and corners (from memory)
SHAPE_LETTERS = "C80x2 D55x2 E75x2 M86x2 V35x2 W80x3 T60x3 S90x4 P108x5 H120x6 O135x8"


@pytest.mark.parametrize("said", SHAPE_LETTERS.split())
def test_a_shape_has_the_angle_and_the_corners_of_its_letter(said: str) -> None:
    angle, corners = said[1:].split("x")
    shape = SHAPES[said[0]]
    assert shape.included_angle == float(angle)
    assert shape.corners == int(corners)
