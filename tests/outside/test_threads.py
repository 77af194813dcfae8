"""Thread data against published tables and textbook formulae; values of standards are from memory of their tables."""

from __future__ import annotations

from dataclasses import replace
from math import hypot

import pytest

from cutting.errors import CuttingError, UnknownName
from cutting.tables import read_table
from cutting.workpiece.threads.limits import CLASSES, limits
from cutting.workpiece.threads.measuring import best_wire, engagement, gauges, over_wires, pitch_diameter_of, virtual_growth
from cutting.workpiece.threads.spelling import inches, looks_like_thread, read_thread, write_thread
from cutting.workpiece.threads.tap_drills import drills_inside, forming_drill, tap_drill

INCH = 25.4
EVERY = [(row["system"], row["size"], row.number("step"), row["series"]) for row in read_table("workpiece/threads/sizes.csv")]
WORDS = {
    "metric": "M{size}x{step:g}", "unified": "{size}-{step:g} {series}", "pipe": "G{size}", "taper pipe": "R{size}", "npt": "{size} NPT",
    "trapezoidal": "Tr {size}x{step:g}", "acme": "{size}-{step:g} Acme",
}  # fmt: skip

# ISO 965-2: major and pitch diameter 6g (max, min), pitch and minor diameter 6H (min, max)
METRIC = [
    ("M3", 2.980, 2.874, 2.655, 2.580, 2.675, 2.775, 2.459, 2.599),
    ("M4", 3.978, 3.838, 3.523, 3.433, 3.545, 3.663, 3.242, 3.422),
    ("M5", 4.976, 4.826, 4.456, 4.361, 4.480, 4.605, 4.134, 4.334),
    ("M6", 5.974, 5.794, 5.324, 5.212, 5.350, 5.500, 4.917, 5.153),
    ("M8", 7.972, 7.760, 7.160, 7.042, 7.188, 7.348, 6.647, 6.912),
    ("M8x1", 7.974, 7.794, 7.324, 7.212, 7.350, 7.500, 6.917, 7.153),
    ("M10", 9.968, 9.732, 8.994, 8.862, 9.026, 9.206, 8.376, 8.676),
    ("M10x1.25", 9.972, 9.760, 9.160, 9.042, 9.188, 9.348, 8.647, 8.912),
    ("M12", 11.966, 11.701, 10.829, 10.679, 10.863, 11.063, 10.106, 10.441),
    ("M12x1.5", 11.968, 11.732, 10.994, 10.854, 11.026, 11.216, 10.376, 10.676),
    ("M16", 15.962, 15.682, 14.663, 14.503, 14.701, 14.913, 13.835, 14.210),
    ("M20", 19.958, 19.623, 18.334, 18.164, 18.376, 18.600, 17.294, 17.744),
    ("M24", 23.952, 23.577, 22.003, 21.803, 22.051, 22.316, 20.752, 21.252),
    ("M30", 29.947, 29.522, 27.674, 27.462, 27.727, 28.007, 26.211, 26.771),
    ("M36", 35.940, 35.465, 33.342, 33.118, 33.402, 33.702, 31.670, 32.270),
]
# ASME B1.1, inches: 2A major and pitch (max, min), 2B pitch and minor (min, max)
UNIFIED = [
    ("#10-24", 0.1890, 0.1818, 0.1619, 0.1586, 0.1629, 0.1672, 0.145, 0.156),
    ("#10-32", 0.1891, 0.1831, 0.1688, 0.1658, 0.1697, 0.1736, 0.156, 0.164),
    ("1/4-20", 0.2489, 0.2408, 0.2164, 0.2127, 0.2175, 0.2224, 0.196, 0.207),
    ("1/4-28", 0.2490, 0.2425, 0.2258, 0.2225, 0.2268, 0.2311, 0.211, 0.220),
    ("3/8-16", 0.3737, 0.3643, 0.3331, 0.3287, 0.3344, 0.3401, 0.307, 0.321),
    ("1/2-13", 0.4985, 0.4876, 0.4485, 0.4435, 0.4500, 0.4565, 0.417, 0.434),
    ("3/4-10", 0.7482, 0.7353, 0.6832, 0.6773, 0.6850, 0.6927, 0.642, 0.663),
    ("1-8", 0.9980, 0.9830, 0.9168, 0.9100, 0.9188, 0.9276, 0.865, 0.890),
]


def _eight(words: str, scale: float) -> list[float | None]:
    out, in_ = (limits(read_thread(words), side) for side in (False, True))
    found = (out.major.high, out.major.low, out.pitch.high, out.pitch.low, in_.pitch.low, in_.pitch.high, in_.minor.low, in_.minor.high)
    return [one / scale if one else None for one in found]


@pytest.mark.parametrize("row", METRIC, ids=lambda row: row[0])
def test_metric_limits_of_iso_965(row: tuple) -> None:
    assert _eight(row[0], 1.0) == pytest.approx(list(row[1:]), abs=0.0011)  # tables round each diameter to a micrometre


@pytest.mark.parametrize("row", UNIFIED, ids=lambda row: row[0])
def test_unified_limits_of_asme_b1_1(row: tuple) -> None:
    found = _eight(row[0], INCH)
    assert [round(one or 0.0, 6) for one in found[:6]] == list(row[1:7])  # to the last figure of its tables
    assert [round(one or 0.0, 6) for one in found[6:]] == list(row[7:])


@pytest.mark.parametrize(
    ("words", "cls", "inside", "which", "low", "high", "scale"),
    [
        ("M6", "4h", False, "pitch", 5.279, 5.350, 1), ("M10", "6e", False, "pitch", 8.827, 8.959, 1),
        ("M10", "6G", True, "pitch", 9.058, 9.238, 1),
        ("M10", "5H", True, "pitch", 9.026, 9.166, 1), ("M10", "4g6g", False, "pitch", 8.909, 8.994, 1),  # ISO 965-1
        ("Tr 16x4", "7e", False, "pitch", 13.640, 13.905, 1), ("Tr 20x4", "7e", False, "pitch", 17.640, 17.905, 1),
        ("Tr 20x4", "7H", True, "pitch", 18.0, 18.355, 1), ("Tr 20x4", "7H", True, "minor", 16.0, 16.375, 1),
        ("Tr 30x6", "7e", False, "pitch", 26.547, 26.882, 1), ("Tr 30x6", "7H", True, "pitch", 27.0, 27.450, 1),
        ("Tr 40x7", "7e", False, "pitch", 36.020, 36.375, 1),  # ISO 2903
        ("G1/2", "A", False, "major", 20.671, 20.955, 1), ("G1/2", "A", False, "pitch", 19.651, 19.793, 1),
        ("G1/2", "B", False, "pitch", 19.509, 19.793, 1), ("G1/4", "", True, "minor", 11.445, 11.890, 1),
        ("G1", "A", False, "pitch", 31.590, 31.770, 1), ("G1", "", True, "minor", 30.291, 30.931, 1),  # ISO 228-1
        ("1/2-10 Acme", "2G", False, "pitch", 0.4306, 0.4443, INCH),
        ("1 1/2-4 Acme", "2G", False, "pitch", 1.3429, 1.3652, INCH),  # ASME B1.5
        ("1/2-13", "3A", False, "pitch", 0.4463, 0.4500, INCH), ("1/2-13", "3B", True, "pitch", 0.4500, 0.4548, INCH),
        ("1/2-13", "1B", True, "pitch", 0.4500, 0.4597, INCH), ("1/2-13", "1A", False, "pitch", 0.4411, 0.4485, INCH),  # ASME B1.1
    ],
)  # fmt: skip
def test_limits_of_other_classes_and_systems(words: str, cls: str, inside: bool, which: str, low: float, high: float, scale: float) -> None:
    found = getattr(limits(read_thread(words), inside, cls), which)
    assert (found.low / scale, found.high / scale) == pytest.approx((low, high), abs=0.0011 if scale == 1 else 0.00006)


@pytest.mark.parametrize(
    ("words", "pitch_diameter", "wire", "measure"),
    [("M10", 9.026, 0.866, 10.325), ("M24", 22.051, 1.732, 24.649), ("Tr 20x4", 18.0, 2.071, 20.606), ("G1/2", 19.793, 1.0225, 21.288),
     ("1/2-13 UNC", 0.45 * INCH, 0.0444 * INCH, 0.5166 * INCH)],
)  # fmt: skip
def test_wires_by_the_textbook_formula(words: str, pitch_diameter: float, wire: float, measure: float) -> None:
    thread = read_thread(words)
    found = over_wires(thread, pitch_diameter)
    assert found.wire == pytest.approx(wire, abs=0.0006)
    assert found.measure - found.lead_correction == pytest.approx(measure, abs=0.0015)
    assert pitch_diameter_of(thread, found.measure) == pytest.approx(pitch_diameter, abs=2e-5)
    between = over_wires(thread, pitch_diameter, internal=True)
    assert found.measure + between.measure == pytest.approx(2 * pitch_diameter)  # balls inside mirror wires outside
    with pytest.raises(CuttingError, match="best wire"):
        over_wires(thread, pitch_diameter, wire / 2)


def test_a_wire_lies_against_both_flanks() -> None:
    """Drawn: the distance of the wire's middle to a straight flank through the pitch point is its radius."""
    thread = read_thread("M24")
    for wire in (1.65, 1.732, 1.9):
        found = over_wires(thread, thread.pitch_diameter, wire)
        centre = (found.measure - found.lead_correction - wire) / 2.0  # from the axis
        across, up = thread.pitch / 4.0, centre - thread.pitch_diameter / 2.0
        flank = (0.5, 0.8660254)  # unit vector of a flank that leans 30° from the normal of the axis, from the root upwards
        assert abs(across * flank[1] + up * flank[0]) == pytest.approx(wire / 2.0, abs=1e-4)
        assert hypot(*flank) == pytest.approx(1.0)


def test_lead_angles_percentages_and_errors() -> None:
    """Basis values by a second program; 0.44·P·δ of textbooks for flanks of 60°; the American 75 % is a full thread's 0.75 H."""
    for words, angle in (("M10", 3.03), ("Tr 20x4", 4.05), ("M24", 2.48)):
        assert read_thread(words).lead_angle == pytest.approx(angle, abs=0.006)
    assert read_thread("Tr 40x14 P7").lead_angle > 1.9 * read_thread("Tr 40x7").lead_angle
    assert engagement(read_thread("M10"), 8.5) == pytest.approx((92.4, 77.0), abs=0.05)
    m24 = read_thread("M24")
    assert virtual_growth(m24, 0.0, 1.0) == pytest.approx(0.44e-3 * 3.0 * 60.0, rel=0.01)
    assert virtual_growth(m24, 0.0, -1.0) == pytest.approx(0.29e-3 * 3.0 * 60.0, rel=0.01)
    assert virtual_growth(m24, 0.010, 0.0) == pytest.approx(0.01732, abs=1e-5)


@pytest.mark.parametrize(
    ("words", "drill"),
    [("M2", 1.6), ("M2.5", 2.05), ("M3", 2.5), ("M4", 3.3), ("M5", 4.2), ("M6", 5.0), ("M8", 6.8),
     ("M8x1", 7.0), ("M10", 8.5), ("M10x1.25", 8.8),
     ("M12", 10.2), ("M14", 12.0), ("M16", 14.0), ("M20", 17.5), ("M24", 21.0), ("M30", 26.5), ("M36", 32.0)],
)  # fmt: skip
def test_tap_drills_of_iso_2306(words: str, drill: float) -> None:
    found = tap_drill(read_thread(words))
    assert found.diameter == pytest.approx(drill)
    assert found.within
    assert drill in drills_inside(read_thread(words))


def test_inch_tap_drills_of_the_handbook_charts_and_forming_drills() -> None:
    charts = {"#6-32": "#36", "#8-32": "#29", "#10-24": "#25", "#10-32": "#21",
              "1/4-20": "#7", "1/4-28": "#3", "5/16-18": "F", "3/8-16": "5/16",
              "3/8-24": "Q", "1/2-13": "27/64", "1/2-20": "29/64", "3/4-10": "21/32", "1-8": "7/8"}  # fmt: skip
    assert {words: tap_drill(read_thread(words)).name for words in charts} == charts
    assert forming_drill(read_thread("M6")).diameter == pytest.approx(5.55)
    assert forming_drill(read_thread("M10")).diameter == pytest.approx(9.35)
    assert tap_drill(read_thread("M6")).diameter < forming_drill(read_thread("M6")).diameter < forming_drill(read_thread("M6"), 50).diameter
    assert tap_drill(read_thread("G1/2")).diameter == pytest.approx(19.0)


def test_every_thread_of_the_tables_reads_as_it_is_written_and_its_limits_are_in_order() -> None:
    for system, size, step, series in EVERY:
        thread = read_thread(WORDS[system].format(size=size, step=step, series=series))
        assert thread.system == system
        assert thread.diameter > thread.pitch_diameter > thread.root_diameter > 0
        for one in (thread, replace(thread, left_hand=True)):
            assert read_thread(write_thread(one)) == one
        for inside in (False, True):
            for cls in CLASSES.get(system, (("",), ("",)))[inside]:
                try:
                    found = limits(thread, inside, cls)
                except UnknownName:  # deviations e and f begin at 0.35 and 0.5 mm
                    assert system == "metric"
                    assert cls[-1] in "ef"
                    assert step < 0.5
                    continue
                zones = (found.minor, found.pitch, found.major)
                assert all(z.low is None or z.high is None or z.low < z.high for z in zones), (write_thread(thread), cls)
                tops = [z.middle for z in zones]
                assert tops == sorted(tops)
        out, in_ = limits(thread, False), limits(thread, True)
        if not thread.of.taper:  # go together: nothing overlaps at the limits, and every gauge's no-go lies beyond its go
            assert out.pitch.high <= in_.pitch.low + 1e-9
            assert (out.minor.high or 0) <= in_.minor.low + 1e-9
            assert out.major.high <= in_.major.low + 1e-9
            go, no_go = gauges(thread, in_)[:2]
            assert go.diameter < no_go.diameter
            go, no_go = gauges(thread, out)[:2]
            assert go.diameter > no_go.diameter


def test_any_spelling_is_read() -> None:
    same = {
        "M10": ("m10", "M 10", "M10x1.5", "M10×1,5", "M10 x 1.5"), "M10x1.25-6H": ("m10x1.25 6H", "M 10 × 1,25 - 6H"),
        "M10-LH": ("M 10 × 1,5 LH", "M10 left hand"), "1/2-13 UNC-2B": ('1/2"-13 UNC 2B', "1/2-13 2B", "1/2 UNC 2b"),
        "#10-24 UNC": ("no 10-24", "#10 UNC"),
        "G1/2A": ("G 1/2 A", 'g1/2" a'), "R3/4": ("R 3/4",), "1/2-14 NPT": ("1/2 NPT", '1/2" NPT'), "Tr 20x4": ("TR20X4", "Tr. 20 x 4"),
        "Tr 40x14 P7": ("Tr40x14(P7)", "Tr 40 x 7, 2 starts"), "1-1/2-4 Acme-2G": ("1 1/2-4 ACME 2G",), "M20xPh6P2": ("M20x2 3 starts",),
        "30x4 45° h2": ("Ø30 x 4, 45°", "30x4 22.5/22.5"),
    }  # fmt: skip
    for usual, spellings in same.items():
        assert {write_thread(read_thread(one)) for one in (usual, *spellings)} == {usual}, usual
        assert looks_like_thread(usual) or usual.startswith("30x4"), usual
    assert inches("1-1/2") == 1.5
    assert not looks_like_thread("CNMG 120408")
    assert not looks_like_thread("DNMG 15")
    assert not looks_like_thread("C45")


@pytest.mark.parametrize(
    ("words", "wrong", "offered"),
    [("M10x9", "pitch 9 mm", "M10x1.25"), ("1/2-14 UNC", "14 threads per inch", "1/2-13 UNC"), ("Tr 20x40", "pitch 40 mm", "Tr 20x2"),
     ("M11.5", "M11.5 is no size", "M12"), ("Tr 21x4", "Tr 21 is no size", "Tr 20x4"), ("G7/16", "G7/16", "G1/2"), ("M10-9z", "'9z'", "6g"),
     ("1/2-13 UNC-5Q", "'5Q'", "2A"), ("1 1/2-5 Acme", "5 threads per inch", "1-1/2-4 Acme"), ("#15-24", "#15", "#12-24 UNC")],
)  # fmt: skip
def test_a_wrong_thread_names_its_wrong_part_and_what_exists(words: str, wrong: str, offered: str) -> None:
    with pytest.raises(UnknownName) as refused:
        read_thread(words)
    assert wrong in refused.value.message
    assert offered in refused.value.suggestions


def test_words_that_are_no_thread_and_classes_that_are_not_there() -> None:
    for words in ("foo", "M20xPh5P2", "30x4 130°", "30x40 45° h20"):
        with pytest.raises(CuttingError):
            read_thread(words)
    with pytest.raises(UnknownName, match="outside"):
        limits(read_thread("M10"), False, "6H")
    with pytest.raises(UnknownName, match="2B"):
        limits(read_thread("1/2-13"), True, "2A")
    with pytest.raises(CuttingError, match="flanks"):
        best_wire(read_thread("30x4 45/3"))
