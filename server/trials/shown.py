"""A trial as it is told: predicted beside seen, edges with what ended them, charts, and what may be said of it."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import timedelta
from typing import Any

import numpy as np
from django.utils import timezone

from cutting.errors import CuttingError
from cutting.learning.entries import Logged, StopRule, edges_of
from cutting.learning.lives import Weibull, fit_weibull
from cutting.learning.observed import observed
from cutting.quantities import Display, display, write
from server.errors import Refusal
from server.jobs.document.outcomes import outcome_and_numbers
from server.trials.charts import charts_of
from server.trials.kept import setup_at
from server.trials.models import Entry, Trial
from server.trials.reading import READ, SEEN, logged
from server.trials.says import compared_with, says_of
from server.trials.series import side_by_side

Answer = dict[str, Any]
TOLD = 200  # entries that the page lists, the newest; the tables hold all
DUE = timedelta(days=7)  # without an entry, after which an open trial is told as waiting
SIDES = ("metric", "inch")
SEEN_OF = {"roughness": "roughness", "burr": "burr", "pip_on_part": "pip", "torque": "torque", "thrust": "thrust", "load": "load"}


def row_of(trial: Trial, rows: Sequence[Entry]) -> Answer:
    """A trial in a list."""
    told = logged(rows, 0.0, 0.0)
    met, progress = StopRule(trial.watched, trial.bound).said(told)
    last = max((one.at for one in rows), default=trial.at)
    return {
        "id": trial.pk,
        "job": trial.job_id,
        "job_name": trial.job.name,
        "operation": trial.operation,
        "title": trial.title,
        "question": f"{trial.question} · {trial.variant}" if trial.variant else trial.question,
        "tool": trial.tool,
        "metal": trial.metal,
        "machine": trial.machine,
        "verdict": trial.verdict,
        "entries": len(told),
        "met": met,
        "progress": progress,
        "overdue": trial.verdict == Trial.Verdict.OPEN and (met or timezone.now() - last > DUE),
        "author": trial.author.get_username(),
        "at": f"{trial.at:%Y-%m-%d}",
    }


def shown(trial: Trial, system: str) -> Answer:
    """All of one trial. Raises nothing for what can no longer be reckoned: then it says so."""
    rows = list(trial.entries.select_related("author").prefetch_related("photos"))
    says: list[str] = []
    setup: Any = None
    try:
        setup = setup_at(trial)
        told = logged(rows, setup.settings.cutting_speed, setup.feed)
    except (CuttingError, Refusal) as error:
        told = logged(rows, 0.0, 0.0)
        says.append(f"Its operation can no longer be reckoned: {error}")
    law = _law(told)
    taught = observed(setup, told, outcome_and_numbers, trial.pk) if setup is not None else ()
    edges = edges_of(told)
    planned = float(trial.prediction.get("change_parts", ["", 0.0])[1])
    return {
        **row_of(trial, rows),
        "change": trial.change,
        "settings": _settings(setup),
        "predicted": [_figure(name, said, told) for name, said in trial.prediction.items()],
        "edges": [
            {
                "edge": name,
                "count": count,
                "cause": cause,
                "running": running,
                "share": f"{100 * count / planned:.0f} % of the planned change" if planned >= 1 else "",
            }
            for name, count, cause, running in zip(edges.names, edges.lasted, edges.causes, edges.running, strict=True)
        ],
        "log_total": len(rows),
        "log": [told_entry(one) for one in rows[-TOLD:]],
        "charts": charts_of(trial, setup, told, law, system),
        "says": [*says, *says_of(trial, setup, told, law)],
        "teaches": [one.said for one in taught],
        "compared": compared_with(trial, told),
        "order": (trial.against or trial).order if trial.variant else [],
        "ways": side_by_side(trial),
        "verdict_words": trial.verdict_words,
        "planned_change": int(planned),
        "next_edge": _next_edge(edges.names, edges.running),
    }


def _next_edge(names: Sequence[str], running: Sequence[bool]) -> str:
    """The edge that cuts now: the last that runs, else the next number."""
    still = [name for name, runs in zip(names, running, strict=True) if runs]
    return still[-1] if still else str(1 + len(names))


def _law(told: Sequence[Logged]) -> Weibull | None:
    try:
        return fit_weibull(edges_of(told).lives)
    except CuttingError:
        return None


def _settings(setup: Any) -> list[Answer]:
    if setup is None:
        return []
    feed_kind = "feed_per_tooth" if setup.FEED == "feed_per_tooth" else "feed_per_rev"
    found = [("cutting speed", display(setup.settings.cutting_speed, "cutting_speed")), ("feed", display(setup.feed, feed_kind))]
    if (depth := getattr(setup.settings, "depth_of_cut", None)) is not None:
        found.append(("depth of cut", display(depth, "length")))
    if coolant := getattr(setup.settings, "coolant", ""):
        found.append(("coolant", Display(coolant, coolant)))
    return [{"label": label, "value": value} for label, value in found]


def _figure(name: str, said: Sequence[Any], told: Sequence[Logged]) -> Answer:
    label, value, kind, band = said
    seen = None
    says = ""
    if name == "median_parts":
        ended = edges_of(told)
        if any(ended.ended):
            middle = float(np.median([count for count, end in zip(ended.lasted, ended.ended, strict=True) if end]))
            seen, says = display(middle, "count"), f"median of {sum(ended.ended)} edges that came to their end"
    elif name in SEEN_OF:
        read = [reading for one in told if (reading := getattr(one, SEEN_OF[name])) is not None]
        if read:
            seen, says = display(float(np.median(read)), kind), f"median of {len(read)} readings, worst {write(max(read), kind, 'metric')}"
    low, high = (Display(*band[:2]), Display(*band[2:])) if band else (None, None)
    return {"name": name, "label": label, "predicted": display(value, kind), "low": low, "high": high, "seen": seen, "says": says}


def told_entry(row: Entry) -> Answer:
    """An entry in words."""
    read = row.data.get("read", {})
    lines = [{"label": READ[name].label, "value": display(value, READ[name].kind)} for name, value in read.items() if name in READ]
    for one in row.data.get("sizes", ()):
        words = ", ".join(part for part in (one["at"], one["instrument"]) if part)
        warm = f" at {one['temperature']:g} °C" if one["temperature"] != 20.0 else ""
        value = Display(*(f"Ø {write(one['value'], 'size', side)}{warm}" for side in SIDES))
        lines.append({"label": f"size ({words})" if words else "size", "value": value})
    return {
        "id": row.pk,
        "key": row.key,
        "edge": row.edge,
        "count": row.count,
        "lines": lines,
        "seen": {name: row.data["seen"][name] for name in SEEN if name in row.data.get("seen", {})},
        "words": row.words,
        "author": row.author.get_username(),
        "happened": f"{row.happened:%Y-%m-%d %H:%M}",
        "struck": row.struck_by,
        "photos": [photo.pk for photo in row.photos.all()],
    }
