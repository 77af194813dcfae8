"""How the house is built: one name for one idea, rooms that lean one way, and no number without a name or a word."""

from __future__ import annotations

import ast
import graphlib
import json
import re
from collections.abc import Collection, Iterator
from pathlib import Path

import pytest

import cutting

# one idea on two floors: a row of the shop and the value that the core makes of it
ROWS = {"Geometry", "Grade", "HeavyTool", "Machine", "Material", "Spindle", "Taught"}
# what every kind of operation has under the same name; a line of a record's history beside a set-up done otherwise
ALIKE = {"Numbers", "Command", "Decoded", "Change"}


def test_a_class_name_stands_for_one_idea() -> None:
    """Whoever reads a name in one room knows it in every other."""
    rooms: dict[str, list[str]] = {}
    root = Path(cutting.__file__).parents[1]
    for floor in ("cutting", "server", "house"):
        for file in (root / floor).rglob("*.py"):
            for node in ast.parse(file.read_text()).body:
                if isinstance(node, ast.ClassDef):
                    rooms.setdefault(node.name, []).append(str(file.relative_to(root)))
    twice = {name: found for name, found in rooms.items() if len(found) > 1 and "migrations" not in found[0]}
    assert twice.keys() <= ROWS | ALIKE, {name: twice[name] for name in twice.keys() - ROWS - ALIKE}
    for name in ROWS:
        assert {found.split("/")[0] for found in twice[name]} == {"cutting", "server"}
        assert len(twice[name]) == 2


def test_no_room_leans_on_one_that_leans_on_it() -> None:
    """No circle of imports, none hidden in a function either."""
    root = Path(cutting.__file__).parents[1]
    files = {
        ".".join(file.relative_to(root).with_suffix("").parts).removesuffix(".__init__"): file
        for floor in ("cutting", "server", "house")
        for file in (root / floor).rglob("*.py")
        if "migrations" not in file.parts
    }
    graph = {name: _leans_on(ast.parse(file.read_text()), files.keys()) for name, file in files.items()}
    try:
        graphlib.TopologicalSorter(graph).prepare()
    except graphlib.CycleError as error:
        pytest.fail(" -> ".join(error.args[1]))


def _leans_on(tree: ast.AST, names: Collection[str]) -> set[str]:
    """Modules that a file imports anywhere, but for what only the type checker reads."""
    found: set[str] = set()
    for node in ast.iter_child_nodes(tree):
        if isinstance(node, ast.If) and "TYPE_CHECKING" in ast.unparse(node.test):
            continue
        if isinstance(node, ast.Import):
            found |= {one.name for one in node.names if one.name in names}
        elif isinstance(node, ast.ImportFrom) and node.module:
            for one in node.names:
                full = f"{node.module}.{one.name}"
                found |= {full} if full in names else {node.module} & set(names)
        found |= _leans_on(node, names)
    return found


def test_rooms_of_jobs_lean_one_way() -> None:
    """No file stands in the row between the rooms, and no room leans on one that leans on it."""
    jobs = Path(cutting.__file__).parents[1] / "server" / "jobs"
    assert {file.name for file in jobs.glob("*.py")} == {"__init__.py", "models.py"}
    graph: dict[str, set[str]] = {}
    for file in jobs.rglob("*.py"):
        room = file.relative_to(jobs).parts[0]
        if room != "migrations":
            names = re.findall(r"^\s*from server\.jobs\.(\w+)", file.read_text(), re.MULTILINE)
            graph.setdefault(room, set()).update(set(names) - {room})
    assert len(graph) > 10
    try:
        graphlib.TopologicalSorter(graph).prepare()
    except graphlib.CycleError as error:
        pytest.fail(" -> ".join(error.args[1]))


# counts and shares that say themselves; turns, units and their powers; geometry of circles; numbers so small that they stand for nothing
PLAIN = {0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 12, 16, 20, 32, 64, 0.5, 0.25, 0.1, 100, 60, 90, 180, 360, 1000, 2000, 500, 3600, 25.4}
PLAIN |= {9549.3, 60_000, 6e7, *(10.0**k for k in range(-12, 7))}
ASKED = ("chips", "mechanics", "wear", "money", "sizing", "operations", "advice", "belief", "plan", "motion", "machine")
SAID = re.compile(r"ISO|DIN|ASME|common practice|from memory|[Tt]extbook|Groover|Kienzle|Shaw|Roark")
BOUNDS = {"require_between", "geomspace", "linspace", "lru_cache", "round", "isclose", "trim"}


def test_a_number_in_a_formula_has_a_name_or_a_word() -> None:
    """Whoever reads a rule of thumb sees what it is; a number that is only there cannot be doubted, and so not mended."""
    core = Path(cutting.__file__).parent
    mute = [said for room in ASKED for file in sorted((core / room).rglob("*.py")) for said in _mute_numbers(file)]
    assert not mute, "\n".join(mute)


def _mute_numbers(file: Path) -> Iterator[str]:
    """Numbers inside functions that are not plain, have no comment beside them, and no source above them."""
    text = file.read_text()
    lines = text.split("\n")
    for function in ast.walk(ast.parse(text)):
        if not isinstance(function, ast.FunctionDef) or SAID.search(ast.get_docstring(function) or ""):
            continue
        if any("formula(" in ast.unparse(one) for one in function.decorator_list):  # it carries its source
            continue
        told = {id(n) for one in ast.walk(function) if _tells_itself(one) for n in ast.walk(one)}
        told |= {id(n) for one in [*function.decorator_list, *function.args.defaults] for n in ast.walk(one)}
        for node in ast.walk(function):
            if not isinstance(node, ast.Constant) or type(node.value) not in (int, float) or id(node) in told or node.value in PLAIN:
                continue
            if "#" not in lines[node.lineno - 1] + lines[node.lineno - 2]:
                yield f"{file}:{node.lineno} {node.value} | {lines[node.lineno - 1].strip()}"


def _tells_itself(node: ast.AST) -> bool:
    """A text, a refusal that says its bounds, the number of points of a curve."""
    if isinstance(node, ast.Call):
        return getattr(node.func, "id", getattr(node.func, "attr", "")) in BOUNDS
    return isinstance(node, ast.JoinedStr | ast.Raise | ast.Subscript)


def test_every_package_that_ships_is_told_with_its_licence() -> None:
    root = Path(cutting.__file__).parents[1]
    page = (root / "docs" / "licences.md").read_text()
    locked = re.findall(r"^([\w.-]+)==([^\s\\;]+)", (root / "requirements" / "app.txt").read_text(), re.M)
    assert len(locked) > 30
    for name, version in locked:
        assert f"| {name} | {version} | " in page, "./bench licences writes the page"
    for name, version in json.loads((root / "web" / "package.json").read_text())["dependencies"].items():
        assert f"| {name} | {version} | " in page
    assert (root / "LICENSE").read_text().lstrip().startswith("GNU GENERAL PUBLIC LICENSE")
