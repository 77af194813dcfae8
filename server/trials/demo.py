"""Three weeks of trials at Gannet Rill Hydro, with a truth that differs from the tables: their bars are kinder, their finish is rougher."""

from __future__ import annotations

from datetime import timedelta
from typing import Any

import numpy as np
from django.contrib.auth.models import User
from django.utils import timezone

from server.jobs.document.outcomes import outcome_and_numbers
from server.jobs.models import Job
from server.trials.kept import end_trial, log_entry, setup_at, start_trial
from server.trials.models import Entry, Trial
from server.trials.schemas import EntryIn, SizeIn, TrialIn

LIFE, FINISH, FORCE = 1.45, 1.25, 0.92  # the truth over the tables', of this shop
SHAPE = 3.2
WEEKS = timedelta(weeks=3)
QUESTIONS: tuple[tuple[str, str, str, str, Any, Any, int, str, str], ...] = (
    # job, operation, question, the one change, watched, bound, edges, verdict, words
    ("Runner shaft", "op20", "Does the edge last the 22 pieces that the plan asks?", "", "edges", 3, 4, "keep", "more than planned"),
    ("Runner shaft", "op30", "How many pieces an edge on the second roughing?", "coolant jet turned to the flank", "edges", 3, 3, "", ""),
    ("Runner shaft", "op40", "Does Ra stay below 1.6 to the end of an edge?", "", "roughness", "1.6", 2, "", ""),
    ("Guide-vane pin", "op10", "Does the chip break at the lighter feed?", "feed down a step", "count", 60, 2, "ask again", "a nest at 40"),
)  # fmt: skip


def fill_trials() -> None:
    """Fill in the demo's trials; nothing where its jobs are not there."""
    who = User.objects.get(username="operator")
    engineer = User.objects.get(username="engineer")
    dice = np.random.default_rng(20_261_202)
    began = timezone.now() - WEEKS
    for k, (name, operation, question, change, watched, bound, edges, verdict, words) in enumerate(QUESTIONS):
        job = Job.objects.filter(name=name).first()
        if job is None:
            continue
        trial = start_trial(
            TrialIn(job=job.pk, operation=operation, question=question, change=change, watched=watched, bound=bound), engineer
        )
        at = began + timedelta(days=4 * k, hours=7)
        Trial.objects.filter(pk=trial.pk).update(at=at)
        trial.at = at
        _cut(trial, edges, dice, who)
        if verdict:
            end_trial(trial, verdict, words, engineer)


def _cut(trial: Trial, edges: int, dice: np.random.Generator, who: User) -> None:
    """So many edges, read four times each; the last still runs where the trial is open."""
    setup = setup_at(trial)
    _, x = outcome_and_numbers(setup)
    median = max(LIFE * float(np.ravel(x.median_parts)[0]), 3.0)
    at = trial.at.replace(hour=7, minute=0)
    for edge in range(1, edges + 1):
        life = median * float((dice.exponential() / np.log(2.0)) ** (1.0 / SHAPE))
        early, counted = edge == 2 and trial.watched == "edges", trial.watched == "count"
        last = int(trial.bound) if counted else max(int(life * (0.7 if early else 1.0)), 2)
        stop = "planned" if counted else "early" if early else "finish" if trial.watched == "roughness" else "worn"
        for k, share in enumerate((0.15, 0.45, 0.75, 1.0)):
            at += timedelta(minutes=35 + 20 * k)
            count = max(int(last * share), 1)
            log_entry(trial, _entry(trial, setup, f"{edge}", count, count / life, dice, stop if share == 1.0 else ""), who)
            Entry.objects.filter(trial=trial, key=_key(trial, f"{edge}", count)).update(happened=at)
        at = (at + timedelta(days=1)).replace(hour=7, minute=10)  # the next edge in the next shift


def _key(trial: Trial, edge: str, count: int) -> str:
    return f"demo-{trial.pk}-{edge}-{count}"


def _entry(trial: Trial, setup: Any, edge: str, count: int, worn: float, dice: np.random.Generator, stop: str) -> EntryIn:
    figures = trial.prediction
    read: dict[str, Any] = {}
    if "roughness" in figures and trial.watched == "roughness":
        read["roughness"] = f"{FINISH * figures['roughness'][1] * (1 + 0.2 * worn) * np.exp(dice.normal(0, 0.07)):.2f}"
    if "load" in figures:
        read["load"] = f"{FORCE * figures['load'][1] * np.exp(dice.normal(0, 0.05)):.0f}"
    read["wear_land"] = f"{0.05 + 0.25 * worn:.2f}"
    seen = {"chip": "arc", "length": "short", "colour": "straw", "went": "away", "sound": "quiet"}
    if stop:
        seen |= {"stop": stop, "wear": "flank"} if stop != "planned" else {"stop": stop}
    sizes = []
    target = getattr(setup.feature, "end_diameter", None)
    if trial.watched == "roughness" and target is not None:
        size = target.target + 0.0002 * count + dice.normal(0, 0.0015)
        sizes = [SizeIn(value=f"{size:.3f}", at="middle", instrument="micrometer")]
    return EntryIn(key=_key(trial, edge, count), edge=edge, count=count, read=read, seen=seen, sizes=sizes)
