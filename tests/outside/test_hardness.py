"""Hardness conversion against the published tables, and its refusals; materials of one's own against their groups."""

from __future__ import annotations

import re

import numpy as np
import pytest

from cutting.errors import CuttingError, OutOfRange
from cutting.operations.threads.shared.hardness import rockwell as threads_rockwell
from cutting.workpiece.hardness import brinell, convert, read_hardness, rockwell, told, validity, vickers
from cutting.workpiece.materials import Material, deliver, find_material, groups, materials
from cutting.workpiece.user_material import complete, derive
from tests.core.thread_setups import TAP, outcome_of

# iso-18265 table A.1 (from memory): Rm, HV, HB, HRC
ISO_ROWS = [
    (255, 80, 76, None), (385, 120, 114, None), (510, 160, 152, None), (640, 200, 190, None), (770, 240, 228, 20.3),
    (900, 280, 266, 27.1), (965, 300, 285, 29.8), (1095, 340, 323, 34.4), (1220, 380, 361, 38.8), (1290, 400, 380, 40.8),
    (1420, 440, 418, 44.5), (1630, 500, 475, 49.1), (1810, 550, 523, 52.3), (1995, 600, 570, 55.2), (2180, 650, 618, 57.8),
    (None, 700, None, 60.1), (None, 800, None, 64.0), (None, 900, None, 67.0),
]  # fmt: skip


@pytest.mark.parametrize(("strength", "vickers", "hb", "hrc"), ISO_ROWS)
def test_rows_of_the_standard(strength: float | None, vickers: float, hb: float | None, hrc: float | None) -> None:
    found = convert(vickers, "HV").values
    for scale, value in (("Rm", strength), ("HB", hb), ("HRC", hrc)):
        if value is None:
            assert scale not in found
        else:
            assert found[scale] == pytest.approx(value, abs=1e-9)
            assert convert(value, scale).values["HV"] == pytest.approx(vickers, rel=0.004)


# astm-e140 table 1 (from memory): HRC, HV, HB (10 mm ball, 3000 kgf, hardmetal), HRA; the two standards differ as said beside
E140 = [(60, 697, None, 81.2), (55, 595, 560, 78.5), (50, 513, 481, 75.9), (45, 446, 421, 73.1), (40, 392, 371, 70.4),
        (35, 345, 327, 67.9), (30, 302, 286, 65.3), (25, 266, 253, 62.8), (20.5, 241, 229, 60.7)]  # fmt: skip


@pytest.mark.parametrize(("hrc", "hv", "hb", "hra"), E140)
def test_against_the_other_standard(hrc: float, hv: float, hb: float | None, hra: float) -> None:
    found = convert(hrc, "HRC").values
    assert found["HV"] == pytest.approx(hv, rel=0.006)
    assert found["HRA"] == pytest.approx(hra, abs=0.4)
    if hb:
        assert found["HB"] == pytest.approx(hb, rel=0.022)  # 1 to 2 % apart above 45 HRC


@pytest.mark.parametrize(("value", "scale"), [(19, "HRC"), (69, "HRC"), (640, "HB"), (70, "HV"), (2300, "Rm"), (float("nan"), "HV")])
def test_beyond_the_table_nothing_is_guessed(value: float, scale: str) -> None:
    with pytest.raises(OutOfRange) as refused:
        convert(value, scale)
    low, high = validity(scale)
    assert f"{low:g} to {high:g}" in (refused.value.bound or "")


@pytest.mark.parametrize("name", ["X5CrNi18-10", "2205", "Ti-6Al-4V", "EN AW-6082 T6", "EN-GJL-250", "Cu-ETP", "NiCr22Mo9Nb"])
def test_metals_that_the_table_does_not_cover_are_refused(name: str) -> None:
    with pytest.raises(CuttingError, match="unalloyed and low-alloy steel"):
        convert(200, "HB", find_material(name).group)


def test_steel_without_a_scale_says_why() -> None:
    found = convert(62, "HRC")
    assert "HB" not in found.values
    assert "618" in found.missing["HB"]


@pytest.mark.parametrize(
    ("text", "value", "scale"),
    [("300", 300, "HB"), ("300 HB", 300, "HB"), ("HRC 58", 58, "HRC"), ("58hrc", 58, "HRC"), ("1000 MPa", 1000, "Rm"),
     ("145 ksi", 999.74, "Rm"), ("240 HV", 240, "HV"), ("285 BHN", 285, "HB")],
)  # fmt: skip
def test_hardness_as_people_write_it(text: str, value: float, scale: str) -> None:
    found = read_hardness(text)
    assert found == (pytest.approx(value, rel=1e-5), scale)


@pytest.mark.parametrize("text", ["hard", "58 HRX", "", "HRC", "30 HRC 58"])
def test_what_is_no_hardness_is_refused(text: str) -> None:
    with pytest.raises(CuttingError):
        read_hardness(text)


def test_brinell_from_any_scale() -> None:
    steel = groups()[7]
    assert brinell("30 HRC", steel) == pytest.approx(287, abs=2)  # iso-18265: 29.8 HRC is 285, 31.0 is 295
    assert brinell("60 HRC", groups()[39]) == pytest.approx(0.95 * 698, abs=4)  # above the ball's limit by its share of Vickers
    with pytest.raises(CuttingError):
        brinell("30 HRC", groups()[14])


def test_a_material_from_group_and_hardness() -> None:
    # common practice: kc1.1 with the 0.4th power of hardness; strength by iso-18265, 285 HB is 965 MPa
    found = derive(7, 280, 290)
    assert found.numbers["strength"] == 965
    assert found.numbers["specific_force_1"] == pytest.approx(2400 * (285 / 275) ** 0.4, abs=1)
    assert "275" in found.reasons["specific_force_1"]
    own, reasons = complete({"name": "x", "group": 7, "hardness_low": 280.0, "hardness_high": 290.0, "strength": 940.0})
    assert own["strength"] == 940
    assert "strength" not in reasons
    with pytest.raises(OutOfRange):
        derive(7, 20, 40)
    with pytest.raises(CuttingError):
        derive(42, 200, 210)


def test_the_shelf_is_wide_and_consistent() -> None:
    found = materials()
    assert len(found) >= 80
    assert len({m.group.number for m in found}) >= 30
    for m in found:
        if m.group.letter == "P" and m.usual_hardness < 400:
            # the row's own strength agrees with the conversion within what heats differ by
            assert m.strength == pytest.approx(convert(m.usual_hardness, "HB", m.group).values["Rm"], rel=0.16), m.name


# handbook values near room temperature (from memory): density g/cm³, conductivity W/(m·K), modulus GPa
@pytest.mark.parametrize(
    ("name", "density", "conductivity", "modulus"),
    [("7075", 2.81, 130, 71.7), ("C27200", 8.44, 120, 105), ("alloy 400", 8.80, 21.8, 179), ("17-4", 7.8, 18, 197),
     ("2507", 7.8, 14, 200), ("pure aluminium", 2.71, 229, 69), ("alloy L605", 9.13, 9.4, 225), ("430", 7.7, 25, 220)],
)  # fmt: skip
def test_physical_numbers_of_new_rows(name: str, density: float, conductivity: float, modulus: float) -> None:
    m = find_material(name)
    assert (m.density, m.conductivity, m.elastic_modulus / 1000) == pytest.approx((density, conductivity, modulus), rel=0.06)


@pytest.mark.parametrize("material", [one for one in materials() if " HRC" in one.name])
def test_a_hardened_row_is_as_hard_as_it_is_called(material: Material) -> None:
    """ISO 18265 table A.1 goes on above the ball's limit; the name's hardness is what every rule reckons with."""
    named = float(re.search(r"(\d+) HRC", material.name)[1])  # type: ignore[index]
    assert rockwell(material.usual_hardness) == pytest.approx(named, abs=0.15)
    assert threads_rockwell(deliver(material)) == pytest.approx(named, abs=0.15)
    typed = brinell(f"{named:g} HRC", material.group)
    assert rockwell(typed) == pytest.approx(named, abs=0.05)
    assert told(typed) == f"{named:g} HRC"


def test_a_hardness_that_is_typed_is_the_one_that_is_said() -> None:
    """In and out again over the whole scale, with no step where the ball ends (618 HB, ISO 18265)."""
    hardened = groups()[39]
    typed = [brinell(f"{hv:g} HV", hardened) for hv in range(500, 900, 10)]
    assert (np.diff(typed) > 0).all()
    assert max(np.diff(typed)) < 11.0
    assert [vickers(one) for one in typed] == pytest.approx(list(range(500, 900, 10)), abs=0.6)
    assert (told(200), told(430), told(430, 480)) == ("200 HB", "430 HB", "430 – 480 HB")


def test_one_strength_of_the_work_by_its_hardness_as_delivered() -> None:
    """42CrMo4 of 950 N/mm² at 275 HB has 1036 at 300 HB, in proportion (common practice): what forms and what holds say the same."""
    formed = {"tool": {"tap": "form tap M10 HSS cobalt PVD"}, "feature": {"there": "9.35 mm"}, "material": "42CrMo4"}
    usual, harder = (outcome_of(TAP, **formed, hardness=hardness) for hardness in (None, "300 HB"))
    for outcome, strong in ((usual, 950.0), (harder, 950.0 * 300.0 / 275.0)):
        limits = {one.name: one for one in outcome.limits}
        assert limits["formed_strength"].value == pytest.approx(strong)
    assert harder.results["strips"].value == pytest.approx(usual.results["strips"].value * 300.0 / 275.0)
