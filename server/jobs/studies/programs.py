"""Programs as the API gives them: of an operation, of a job, and what a text does."""

from __future__ import annotations

import hashlib
from dataclasses import asdict
from typing import Any

from cutting.program.check import NOT_CHECKED
from cutting.program.finding import Finding
from cutting.program.job import JobPrograms
from cutting.program.plot import Plot
from cutting.quantities import display
from cutting.studies.program import Programs
from server.jobs.studies.answers import Answer


def fingerprint(text: str) -> str:
    """What tells a written program from another."""
    return hashlib.sha256(text.encode()).hexdigest()


def programs_out(found: Programs, own: dict[str, Any] | None) -> Answer:
    """An operation's programs, and its own one where somebody wrote one."""
    return {
        "texts": [_text(one.dialect, one.inch, one.text, one.findings) for one in found.texts],
        "seconds": display(found.seconds, "duration"), "zero": found.zero, "broken": list(found.broken),
        "dangers": list(found.dangers), "not_checked": list(NOT_CHECKED), "own": _own(found, own),
    }  # fmt: skip


def _own(found: Programs, own: dict[str, Any] | None) -> Answer | None:
    if not own:
        return None
    planned = next((one.text for one in found.texts if one.dialect.name == own["dialect"] and one.inch == (own["units"] == "inch")), "")
    return {**{name: own[name] for name in ("dialect", "units", "text")}, "moved": fingerprint(planned) != own["of"]}


def job_programs_out(found: JobPrograms) -> Answer:
    """A job's programs, with what is left out."""
    return {
        "texts": [_text(one.dialect, one.inch, one.text, one.findings) for one in found.texts],
        "left_out": [{"number": number, "title": title, "why": why} for number, title, why in found.left_out],
        "seconds": None if found.seconds is None else display(found.seconds, "duration"),
        "broken": list(found.broken), "dangers": list(found.dangers), "not_checked": list(NOT_CHECKED),
    }  # fmt: skip


def read_out(
    findings: tuple[Finding, ...], drawn: Plot, seconds: float | None, blocks: int, turned: bool, left: tuple[Any, ...] = ()
) -> Answer:
    """What a text does and what is wrong with it."""
    return {
        "findings": [asdict(one) for one in findings],
        "plot": {
            "lines": list(drawn.lines), "drawn": [int(one) for one in drawn.drawn],
            "places": [[round(value, 4) for value in place] for place in drawn.places], "whole": drawn.whole, "turned": turned,
        },
        "seconds": None if seconds is None else display(seconds, "duration"),
        "blocks": blocks, "not_checked": list(NOT_CHECKED), "left": list(left),
    }  # fmt: skip


def _text(dialect: Any, inch: bool, text: str, findings: tuple[Finding, ...]) -> Answer:
    return {
        "dialect": dialect.name, "title": dialect.title, "units": "inch" if inch else "mm", "text": text,
        "findings": [asdict(finding) for finding in findings],
    }  # fmt: skip
