"""Shipped data is complete, carries its provenance, and hangs together."""

from __future__ import annotations

import importlib
import inspect
import pkgutil
import re
from functools import cache
from pathlib import Path

import numpy as np
import pytest

import cutting
from cutting.chips.window import window_sides
from cutting.machine.machines import machines
from cutting.nomenclature import TERMS
from cutting.tables import read_table
from cutting.tooling.crib import Crib
from cutting.tooling.items import geometries, grades, holders, inserts
from cutting.workpiece.materials import find_material, groups, materials
from tests.core.tools import find_insert

CORE = Path(cutting.__file__).parent
WORDS = ("nomenclature.csv", "results.csv", "sources.csv", "terms.csv")  # what words mean, not what things are
SOURCES = (CORE.parent / "docs" / "sources.md").read_text(encoding="utf-8")


@pytest.mark.parametrize("path", sorted(str(p.relative_to(CORE)) for p in CORE.rglob("*.csv") if p.name not in WORDS))
def test_every_row_names_its_source(path: str) -> None:
    for row in read_table(path):
        assert row["source"], row
        assert row["from_memory"] in ("yes", "no"), row


def test_the_bibliography_is_its_table() -> None:
    for row in read_table("sources.csv"):
        assert f"| `{row['key']}` | {row['work']} | {row['used_for']} | {row['from_memory']} |" in SOURCES


def test_the_nomenclature_page_is_its_table() -> None:
    page = (CORE.parent / "docs" / "nomenclature.md").read_text(encoding="utf-8")
    for term in TERMS.values():
        assert f"| `{term.name}` | {term.symbol} | {term.meaning} | {term.unit} | {term.standard} |" in page


def test_enough_to_work_with() -> None:
    assert len(materials()) >= 80
    assert {m.group.letter for m in materials()} == set("PMKNSH")
    assert len(inserts()) >= 60
    assert len(geometries()) >= 12
    assert len(grades()) >= 10
    assert len(holders()) >= 15
    assert len(machines()) == 7
    assert len(groups()) == 41


def test_every_insert_has_a_seat_and_every_name_is_its_own() -> None:
    left, _ = Crib(inserts(), holders()).places
    assert set(left.tolist()) == set(range(len(inserts())))
    assert len({i.name for i in inserts()}) == len(inserts())
    assert find_insert("cnmg120408 MIDDLE p20").grade.name == "P20 CVD"


@pytest.mark.parametrize(
    ("said", "name"),
    [
        ("4140", "42CrMo4"),
        ("1018", "C15"),
        ("304", "X5CrNi18-10"),
        ("brass", "CuZn39Pb3"),
        ("en-gjl-250", "EN-GJL-250"),
        ("1.0503", "C45"),
        ("alloy 718", "NiCr19Fe19Nb5Mo3 aged"),
        ("EN24T", "34CrNiMo6"),
        ("EN8", "C40"),
        ("17-4PH", "X5CrNiCuNb16-4"),
        ("acetal", "POM"),
        ("nylon", "PA6"),
    ],
)
def test_materials_by_the_names_people_use(said: str, name: str) -> None:
    assert find_material(said).name == name


def test_numbers_of_materials_are_physical() -> None:
    for m in materials():
        assert m.hardness_low <= m.hardness_high
        assert 200 <= m.specific_force_1 <= 6000, m.name
        assert 0.1 <= m.force_exponent <= 0.35, m.name
        assert all(0 <= share <= 1 for share in (m.ductility, m.adhesion, m.abrasion, m.work_hardening)), m.name
        assert 0.05 < m.diffusivity < 130, m.name


def test_windows_are_convex_and_start_inside_themselves() -> None:
    for geometry in geometries().values():
        sides = window_sides(geometry.window)
        corners = np.array(sides.hull) - np.array(sides.centre)
        gauge = (corners @ sides.normals.T).max(axis=1)
        assert gauge == pytest.approx(np.ones(len(corners)), abs=1e-9), geometry.name


@cache
def formulae() -> tuple[object, ...]:
    """Every recorded formula of the core, whatever module it stands in."""
    modules = [importlib.import_module(one.name) for one in pkgutil.walk_packages(cutting.__path__, "cutting.")]
    every = (f for module in modules for _, f in inspect.getmembers(module, inspect.isfunction) if hasattr(f, "formula"))
    return tuple(dict.fromkeys(every))


def test_formulae_speak_the_nomenclature() -> None:
    """Parameter names, the text and the result of each formula are terms of the one nomenclature."""
    free = {"ductile", "ductility", "normals", "centre", "scale_feed", "scale_depth", "inside", "climb"}
    for function in formulae():
        known = function.formula  # type: ignore[attr-defined]
        assert set(re.findall(r"{(\w+)}", known.text)) <= set(TERMS), function
        assert set(inspect.signature(function).parameters) - free <= set(TERMS), function  # type: ignore[arg-type]
        for key in known.source.split(";"):
            assert f"`{key.strip()}`" in SOURCES, f"{function} cites {key}, which docs/sources.md does not have"


def test_docstrings_give_units_and_meaning() -> None:
    for function in formulae():
        text = inspect.getdoc(function) or ""
        assert re.search(r"\[.*?\]|shape|Probability|Ratio|Correction|Gauge|In-plane|Cost", text), function
        assert len(text) > 40, function


def test_public_functions_of_the_core_are_documented() -> None:
    missing = []
    for path in CORE.rglob("*.py"):
        module = path.read_text(encoding="utf-8")
        for found in re.finditer(r"^def ([a-z]\w*)\(.*?\)[^:]*:\n(\s+)(.{3})", module, re.MULTILINE | re.DOTALL):
            if found[3] != '"""':
                missing.append(f"{path.name}: {found[1]}")
    assert not missing
