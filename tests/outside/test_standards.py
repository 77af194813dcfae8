"""Tolerances, designations, units and data against the standards' own tables. Keys as in docs/sources.md."""

from __future__ import annotations

import itertools

import pint
import pressfit
import pytest

from cutting.errors import CuttingError
from cutting.operations.registry import evaluate
from cutting.quantities import KINDS, QuantityKind, read_dimension, read_quantity
from cutting.tooling.designations.holder_code import read_holder_code
from cutting.tooling.designations.insert_code import read_insert_code
from cutting.wear.reference import LifeLaw, life_law
from cutting.workpiece.fits import RANGES, deviations, tolerance_grade
from cutting.workpiece.materials import find_material, groups


@pytest.mark.parametrize("nominal", [2.5, 3, 5, 10, 17, 25, 42, 62, 100, 160, 220, 300, 390, 480])
@pytest.mark.parametrize("fit", ["H7/g6", "H8/f7", "H6/h5", "H11/h9", "H7/k6", "H7/m6", "H7/n6", "H7/p6", "H9/e8", "H9/d9"])
def test_iso_286_against_a_library(nominal: float, fit: str) -> None:
    # pressfit 0.1.0, an independent table of ISO 286
    other = pressfit.fit(f"{nominal:g} {fit}")
    hole, shaft = fit.split("/")
    limits = {hole: (other.hole_es_um, other.hole_ei_um), shaft: (other.shaft_es_um, other.shaft_ei_um)}
    for name, published in limits.items():
        upper, lower = deviations(nominal, name[0], int(name[1:]))
        assert (upper * 1000, lower * 1000) == pytest.approx(published, abs=0.05), name


# iso-286, part 2, holes near the size line (from memory), µm
@pytest.mark.parametrize(
    ("size", "name", "upper", "lower"),
    [
        (25, "K7", 6, -15),
        (25, "M7", 0, -21),
        (25, "N7", -7, -28),
        (25, "P7", -14, -35),
        (300, "M6", -9, -41),
        (62, "H7", 30, 0),
        (30, "JS7", 10.5, -10.5),
        (50, "N9", 0, -62),
    ],
)
def test_iso_286_holes(size: float, name: str, upper: float, lower: float) -> None:
    letters = name.rstrip("0123456789")
    found = deviations(size, letters, int(name[len(letters) :]))
    assert [1000 * d for d in found] == pytest.approx([upper, lower], abs=1e-6)


def test_iso_286_grades_follow_the_formula() -> None:
    # iso-286-1: i = 0.45·∛D + 0.001·D at the geometric mean of the range, IT7 = 16 i; published rounding within 15 %
    for low, high in itertools.pairwise(RANGES[1:]):
        mean = (low * high) ** 0.5
        unit = 0.45 * mean ** (1 / 3) + 0.001 * mean
        assert tolerance_grade(high, 7) * 1000 == pytest.approx(16 * unit, rel=0.15)
    assert tolerance_grade(30, 7) == 0.021  # a boundary belongs to the lower range
    with pytest.raises(CuttingError, match="outside"):
        tolerance_grade(501, 7)


# iso-1832 with the dimensions of iso-3364 and its companions (from memory): iC, l, s, rε
@pytest.mark.parametrize(
    ("code", "circle", "edge", "thickness", "nose"),
    [
        ("CNMG 120408", 12.7, 12.9, 4.76, 0.8),
        ("WNMG080408", 12.7, 8.7, 4.76, 0.8),
        ("dnmg-150608", 12.7, 15.5, 6.35, 0.8),
        ("TNMG 160404", 9.525, 16.5, 4.76, 0.4),
        ("VNMG 160404", 9.525, 16.6, 4.76, 0.4),
        ("SNMG 120412", 12.7, 12.7, 4.76, 1.2),
        ("CCMT 09T304", 9.525, 9.7, 3.97, 0.4),
        ("DCMT 11T308", 9.525, 11.6, 3.97, 0.8),
        ("CCMT 060204", 6.35, 6.4, 2.38, 0.4),
        ("RCMT 1204M0", 12.0, 12.0, 4.76, 6.0),
        ("SNMM 190616", 19.05, 19.05, 6.35, 1.6),
        ("VBMT 160404", 9.525, 16.6, 4.76, 0.4),
    ],
)
def test_insert_designations(code: str, circle: float, edge: float, thickness: float, nose: float) -> None:
    found = read_insert_code(code)
    assert (found.inscribed_circle, found.thickness, found.nose_radius) == (circle, thickness, nose)
    assert found.edge_length == pytest.approx(edge, abs=0.06)


@pytest.mark.parametrize(
    ("code", "words"),
    [
        ("XNMG 120408", "position 1"),
        ("CNMZ 120408", "position 4"),
        ("CNMG 130408", "position 5"),
        ("CNMG 129908", "position 6"),
        ("CNMG", "position 5 .size. is missing"),
    ],
)
def test_wrong_designations_name_the_position(code: str, words: str) -> None:
    with pytest.raises(CuttingError, match=words):
        read_insert_code(code)


# iso-5608 style letters (from memory): κr
@pytest.mark.parametrize(
    ("code", "angle", "height"),
    [
        ("PCLNR 2525 M12", 95, 25),
        ("PDJNR 2020 K15", 93, 20),
        ("PSBNR 3232 P19", 75, 32),
        ("SCLCR 1616 H09", 95, 16),
        ("MVVNN 2525 M16", 72.5, 25),
        ("PSSNR 2525 M12", 45, 25),
    ],
)
def test_holder_designations(code: str, angle: float, height: float) -> None:
    found = read_holder_code(code)
    assert (found.cutting_edge_angle, found.shank_height) == (angle, height)


# Pint as the oracle of units
@pytest.mark.parametrize(
    ("text", "kind", "pint_text", "unit"),
    [
        ("360 sfm", "cutting_speed", "360 ft/min", "m/min"),
        ("4 thou", "length", "4 thou", "mm"),
        ("1-3/8 in", "length", "1.375 inch", "mm"),
        ("0.0055 ipr", "feed_per_rev", "0.0055 inch", "mm"),
        ("12 ipm", "feed_rate", "12 inch/min", "mm/min"),
        ("15 hp", "power", "15 horsepower", "kW"),
        ("1000 psi", "pressure", "1000 psi", "bar"),
        ("5 lb-ft", "torque", "5 lbf*ft", "N*m"),
    ],
)
def test_units_against_pint(text: str, kind: str, pint_text: str, unit: str) -> None:
    assert read_quantity(text, kind).value == pytest.approx(pint.UnitRegistry()(pint_text).to(unit).magnitude, rel=1e-9)


def test_drawing_dimensions() -> None:
    # iso-286: Ø62 H7 is +0.030/0; target in the middle
    dimension = read_dimension("Ø62 H7")
    assert (dimension.upper_deviation, dimension.lower_deviation, dimension.target) == pytest.approx((0.03, 0.0, 62.015))


# common practice, no single source, from memory of machining handbooks: speed for about 15 min, m/min, group 1 upward
COATED_CARBIDE = (300, 240, 200, 210, 160, 220, 170, 155, 130, 165, 110, 190, 160, 160, 260, 170, 230, 160, 230, 170, 1000, 800, 700, 550,
                  300, 400, 350, 250, 150, 150, 60, 45, 45, 35, 30, 120, 60, 40)  # fmt: skip
HIGH_SPEED_STEEL = (40, 30, 24, 24, 18, 25, 18, 16, 13, 18, 10, 20, 15, 18, 28, 16, 26, 16, 28, 18, 120, 100, 80, 70, 40, 80, 70, 40)
OTHERS = (
    ("1", "cermet", 320), ("2", "cermet", 260), ("6", "cermet", 240), ("15", "ceramic", 600), ("16", "ceramic", 450),
    ("16", "cbn", 700),
    ("33", "ceramic", 250), ("34", "ceramic", 220), ("35", "ceramic", 180), ("38", "cbn", 150), ("38", "ceramic", 120),
    ("39", "cbn", 120),
    ("40", "carbide", 35), ("40", "cbn", 120), ("41", "cbn", 120), ("14 duplex", "carbide", 110), ("14 duplex", "hss", 12),
    ("30", "hss", 40),
    ("21", "pcd", 2000), ("22", "pcd", 1800), ("23", "pcd", 1500), ("24", "pcd", 1200), ("25", "pcd", 700), ("26", "pcd", 900),
    ("28", "pcd", 600), ("29", "pcd", 500), ("36", "hss", 25), ("37", "hss", 12), ("31", "hss", 10), ("34", "hss", 5),
)  # fmt: skip


def test_starting_speeds_are_the_trades() -> None:
    rows = [(str(k + 1), "carbide", speed) for k, speed in enumerate(COATED_CARBIDE)]
    rows += [(str(k + 1), "hss", speed) for k, speed in enumerate(HIGH_SPEED_STEEL)]
    for row, tool, speed in (*rows, *OTHERS):
        law = life_law(row, tool)
        assert law is not None, (row, tool)
        minutes = 180.0 if tool == "pcd" else 15.0  # diamond is run for hours at its starting speed (common practice)
        assert speed_at(law, minutes) == pytest.approx(speed), (row, tool)


def speed_at(law: LifeLaw, minutes: float) -> float:
    """Taylor: v·T^n is constant."""
    return law.reference_speed * (15.0 / minutes) ** law.taylor_exponent


@pytest.mark.parametrize(("row", "tool"), [("39", "carbide"), ("41", "carbide"), ("2", "pcd"), ("2", "cbn"), ("29", "hss")])
def test_nobody_runs_these(row: str, tool: str) -> None:
    # common practice: no starting value, so no advice (diamond never on steel, carbide not on 60 HRC)
    assert life_law(row, tool) is None


# textbook pairs kc1.1 in N/mm² and mc (tschaetsch; koenig-essel for E295; all from memory)
TEXTBOOK_PAIRS = {"E295": (1990, 0.26), "C45": (2220, 0.14), "C60": (2130, 0.18), "16MnCr5": (2100, 0.26), "42CrMo4": (2500, 0.26),
                  "34CrMo4": (2240, 0.21), "50CrV4": (2220, 0.26), "EN-GJL-200": (1020, 0.25), "EN-GJL-250": (1160, 0.26),
                  "CuZn39Pb3": (780, 0.18), "Ti-6Al-4V": (1370, 0.21)}  # fmt: skip


@pytest.mark.parametrize("name", TEXTBOOK_PAIRS)
def test_force_pairs_are_kept_together(name: str) -> None:
    material = find_material(name)
    assert (material.specific_force_1, material.force_exponent) == TEXTBOOK_PAIRS[name]


# handbook values near room temperature (from memory): density g/cm³, conductivity W/(m·K); 6 % between handbooks
@pytest.mark.parametrize(
    ("name", "density", "conductivity"),
    [("Ti-6Al-4V", 4.43, 6.7), ("Cu-ETP", 8.94, 394), ("X5CrNi18-10", 7.9, 15), ("EN AW-6082 T6", 2.70, 170),
     ("NiCr19Fe19Nb5Mo3 aged", 8.19, 11.4), ("EN-GJL-250", 7.2, 47), ("C45", 7.85, 45)],
)  # fmt: skip
def test_physical_numbers(name: str, density: float, conductivity: float) -> None:
    material = find_material(name)
    assert material.density == pytest.approx(density, rel=0.01)
    assert material.conductivity == pytest.approx(conductivity, rel=0.06)


@pytest.mark.parametrize("kind", [k for k in KINDS.values() if k.words], ids=lambda k: k.name)
def test_every_unit_word_against_pint(kind: QuantityKind) -> None:
    """Each word that people may type gives what Pint gives for the unit that it stands for."""
    registry = pint.UnitRegistry(autoconvert_offset_to_baseunit=True)
    for word, unit in kind.words.items():
        if unit:
            expected = registry(f"7 {unit}").to(kind.unit).magnitude
            assert read_quantity(f"7 {word}", kind.name).value == pytest.approx(expected, rel=1e-9), word


def test_vdi_3323_order() -> None:
    # vdi-3323 (from memory): 41 groups in blocks; the guide hardness rises from annealed to quenched and tempered
    letters = "".join(groups()[n].letter for n in range(1, 42))
    assert letters == "P" * 13 + "M" + "K" * 6 + "N" * 10 + "S" * 7 + "H" * 4
    for softer, harder in ((1, 2), (3, 5), (6, 7), (7, 8), (8, 9), (15, 16)):
        assert (groups()[softer].hardness or 0) < (groups()[harder].hardness or 0)


def test_a_sensible_roughing_cut_in_c45(setup) -> None:  # type: ignore[no-untyped-def]
    # common practice: C45 with coated carbide at f 0.3, ap 2.5, book speed: a P20 edge lasts about 15 min, chips break
    sound = evaluate(
        setup(
            material="C45",
            settings={"cutting_speed": 240, "feed_per_rev": 0.3, "depth_of_cut": 2.5},
            feature={"start_diameter": 70, "end_diameter": 60, "length": 100},
        )
    )
    assert 10 <= sound.results["tool_life"].value <= 22
    assert sound.chip.verdict == "breaks"
