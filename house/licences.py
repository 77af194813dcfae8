"""What ships with the application, and under which licence: read from the packages themselves, written to docs/licences.md."""

from __future__ import annotations

import json
import re
from importlib import metadata
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
PAGE = ROOT / "docs" / "licences.md"
LOCKED = re.compile(r"^([A-Za-z0-9._-]+)==([^\s\\;]+)", re.MULTILINE)
WORDS = 60  # letters: a whole licence text in the field says its first line
HEAD = """# Licences

Arrow Bench is free software under the **GNU General Public License, version 3 or later** ([LICENSE](../LICENSE)). Why: it links to
`mysqlclient`, the driver that Django supports for MariaDB, which is under the GPL 2 or later; packages under the Apache licence 2.0 ship
beside it, and these two go together under version 3 of the GPL only.

Written by `./bench licences` from what each package says of itself; tools that only build or test are not listed.
"""


def page() -> str:
    """The page as it should stand."""
    python = [(name, version, _of_python(name)) for name, version in LOCKED.findall(_lock().read_text(encoding="utf-8"))]
    return "\n".join([HEAD, *_table("On the server (Python)", python), "", *_table("In the browser", _of_web()), ""])


def _lock() -> Path:
    return ROOT / "requirements" / "app.txt"


def _table(title: str, rows: list[tuple[str, str, str]]) -> list[str]:
    return [f"## {title}", "", "| package | version | licence |", "|---|---|---|", *(f"| {a} | {b} | {c} |" for a, b, c in sorted(rows))]


def _of_python(name: str) -> str:
    about = metadata.metadata(name).json
    named = [one.split("::")[-1].strip() for one in about.get("classifier", []) if one.startswith("License :: OSI")]
    text = str(about.get("license_expression") or "; ".join(named) or str(about.get("license", "")).strip().split("\n")[0])
    return text[:WORDS] or "see the package"


def _of_web() -> list[tuple[str, str, str]]:
    """Every package that the built interface may hold: what it depends on, and what those depend on."""
    web = ROOT / "web"
    waiting = list(json.loads((web / "package.json").read_text(encoding="utf-8"))["dependencies"])
    found: dict[str, tuple[str, str, str]] = {}
    while waiting:
        name = waiting.pop()
        file = web / "node_modules" / name / "package.json"
        if name in found or not file.exists():
            continue
        told = json.loads(file.read_text(encoding="utf-8"))
        found[name] = (name, told["version"], str(told.get("license", "see the package")))
        waiting += told.get("dependencies", {})
    return list(found.values())


def write() -> None:
    """Write the page."""
    PAGE.write_text(page(), encoding="utf-8")


if __name__ == "__main__":
    write()
