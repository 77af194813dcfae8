"""The last section of each page of mistakes, written from the clinic's own table: `python -m cutting.clinic.pages`."""

from __future__ import annotations

from collections.abc import Mapping
from pathlib import Path

from cutting.clinic.words import Cause, causes, looks, symptoms

DOCS = Path(__file__).resolve().parents[2] / "docs"
PAGES: Mapping[str, tuple[str, ...]] = {
    "turning": ("turn", "face"),
    "slot": ("groove", "face groove", "trepan", "cut off"),
    "hole": ("drill",),
    "boring": ("bore", "heavy bore", "mill hole"),
    "thread": ("turn thread", "tap", "mill thread"),
}
TITLE = "## When it happens all the same"
HEAD = f"""{TITLE}

From the table of the [clinic](clinic.md): what is seen first, the cause, the look that tells it, the change.

| seen | cause | look | change |
|---|---|---|---|"""


def section(page: str) -> str:
    """The section of a page of mistakes."""
    rows = [_row(one, PAGES[page]) for one in causes().values() if set(one.kinds) & set(PAGES[page])]
    return "\n".join([HEAD, *sorted(rows), ""])


def _row(one: Cause, kinds: tuple[str, ...]) -> str:
    shown = [s for s in symptoms().values() if s.tells in one.shows and set(s.kinds) & set(kinds)]
    seen = max(shown, key=lambda s: one.shows[s.tells]).title if shown else "seen only by looking"
    return f"| {seen} | {one.title} | {looks()[one.look].question} | {one.change} |"


def with_section(text: str, page: str) -> str:
    """The page with its section as it should stand."""
    return text.split(TITLE)[0].rstrip() + "\n\n" + section(page)


def write() -> None:
    """Write all pages."""
    for page in PAGES:
        file = DOCS / f"{page}-mistakes.md"
        file.write_text(with_section(file.read_text(encoding="utf-8"), page), encoding="utf-8")


if __name__ == "__main__":
    write()
