"""What all trials of the shop say together; what of it a person accepts acts as the core's beliefs, and can be taken back."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np
from django.contrib.auth.models import AbstractBaseUser
from django.db import transaction
from django.utils import timezone

from cutting.belief.bands import band, told
from cutting.belief.beliefs import Belief
from cutting.doors.json_form import GROUP
from cutting.errors import CuttingError
from cutting.learning.observed import Observed, observed
from cutting.learning.pool import LEVELS, Seen, Taught, apart, pooled
from server.errors import Refusal
from server.jobs.document.outcomes import outcome_and_numbers
from server.jobs.kept.uses import jobs_using, mark_stale, remember
from server.jobs.models import Job
from server.records.models import Stamp
from server.shop import shop
from server.trials import models, schemas
from server.trials.kept import setup_at
from server.trials.reading import logged

ROOM = "lessons"
LEAST_CENTRE, MOST_CENTRE = 0.2, 5.0  # what a belief may say


@dataclass(frozen=True)
class Proposal:
    """What the trials say of a quantity at one level; `strange` are observations far from all others."""

    quantity: str
    taught: Taught
    said: tuple[str, ...]
    strange: tuple[str, ...]
    trials: tuple[int, ...]


def observations() -> list[Observed]:
    """All that the trials saw; a trial whose operation can no longer be reckoned teaches nothing."""
    found: list[Observed] = []
    trials = models.Trial.objects.prefetch_related("entries")
    for trial in trials:
        rows = sorted(trial.entries.all(), key=lambda row: (row.happened, row.pk))
        if not rows:
            continue
        try:
            setup = setup_at(trial)
            told_rows = logged(rows, setup.settings.cutting_speed, setup.feed)
            found += observed(setup, told_rows, outcome_and_numbers, trial.pk)
        except (CuttingError, Refusal):
            continue
    return found


def proposals() -> list[Proposal]:
    """For each quantity and level what the trials say, the widest level first."""
    by_quantity: dict[str, list[Observed]] = {}
    for one in observations():
        by_quantity.setdefault(one.quantity, []).append(one)
    return [made for quantity, seen in by_quantity.items() for made in _of_quantity(quantity, seen)]


def _of_quantity(quantity: str, found: Sequence[Observed]) -> Iterable[Proposal]:
    prior = band(quantity).spread
    seen = [one.seen for one in found]
    strange = apart(seen, prior) if len(seen) > 2 else ()
    for taught in pooled(seen, prior):
        mine = [one for one in found if _belongs(one.seen, taught)]
        if not taught.tool and len({one.seen.cell for one in mine}) < 2:
            continue  # of one tool alone the shop learns nothing that the tool does not tell better
        yield Proposal(
            quantity,
            taught,
            tuple(f"Trial {one.seen.trial}: {one.said}." for one in mine),
            tuple(
                f"Trial {one.trial} says × {np.exp(one.value):.2f}, far from all others: was the reading right, or something else changed?"
                for one in strange
                if _belongs(one, taught)
            ),
            tuple(dict.fromkeys(one.seen.trial for one in mine)),
        )


def _belongs(one: Seen, taught: Taught) -> bool:
    if not taught.tool:
        return True
    if not taught.machine:
        return (one.grade, one.group) == (taught.tool, taught.metal)
    return one.cell == (taught.tool, taught.metal, taught.machine)


def accept(quantity: str, tool: str, metal: str, machine: str, who: AbstractBaseUser) -> models.Taught:
    """Let what the trials say act, as they say it now. Raises a 404 refusal."""
    where = (tool, metal, machine)
    one = next((p for p in proposals() if p.quantity == quantity and (p.taught.tool, p.taught.metal, p.taught.machine) == where), None)
    if one is None:
        raise Refusal(404, "The trials say nothing of that.")
    centre = float(np.clip(one.taught.centre, LEAST_CENTRE, MOST_CENTRE))
    with transaction.atomic():
        _changes(where, f"{band(quantity).title}: learned from {_trials(one.trials)}", who)
        models.Taught.objects.filter(quantity=quantity, tool=tool, metal=metal, machine=machine, archived_at=None).update(
            archived_at=timezone.now()
        )
        return models.Taught.objects.create(
            quantity=quantity,
            level=one.taught.level,
            tool=tool,
            metal=metal,
            machine=machine,
            centre=centre,
            spread=one.taught.spread,
            count=one.taught.count,
            weight=one.taught.weight,
            trials=list(one.trials),
            author=who,
        )


def bring_in(given: Sequence[schemas.BeliefIn], who: AbstractBaseUser) -> None:
    """Let what another shop, or this one before, has learned act here. Raises `CuttingError` for what no trial can have taught."""
    library = shop().library
    for k, one in enumerate(given):
        Belief(one.quantity, one.factor, one.spread, one.tool, one.metal, one.machine).check(f"beliefs.{k}")
        if one.metal and not GROUP.fullmatch(one.metal):
            one.metal = library.material(one.metal).name
    with transaction.atomic():
        for one in given:
            where = (one.tool, one.metal, one.machine)
            _changes(where, f"{band(one.quantity).title}: brought in", who)
            named = {"quantity": one.quantity, "tool": one.tool, "metal": one.metal, "machine": one.machine}
            models.Taught.objects.filter(**named, archived_at=None).update(archived_at=timezone.now())
            shipped_spread = band(one.quantity).spread
            spread = shipped_spread if one.spread is None else one.spread
            models.Taught.objects.create(
                **named,
                level=LEVELS[2] if one.machine else LEVELS[1] if one.tool else LEVELS[0],
                centre=one.factor,
                spread=spread,
                count=one.count,
                weight=max(1.0 - (spread / shipped_spread) ** 2, 0.0),
                trials=[],
                author=who,
            )


def undo(taught_id: int, who: AbstractBaseUser) -> None:
    """Take it back; what it took the place of holds again. Raises a 404 refusal."""
    with transaction.atomic():
        row = models.Taught.objects.select_for_update().filter(pk=taught_id, archived_at=None).first()
        if row is None:
            raise Refusal(404, "Nothing of that number was learned that holds.")
        _changes((row.tool, row.metal, row.machine), f"{band(row.quantity).title}: what was learned is taken back", who)
        row.archived_at = timezone.now()
        row.save(update_fields=["archived_at"])
        same = models.Taught.objects.filter(quantity=row.quantity, tool=row.tool, metal=row.metal, machine=row.machine, pk__lt=row.pk)
        if (before := same.order_by("-pk").first()) is not None:
            before.archived_at = None
            before.save(update_fields=["archived_at"])


def _changes(where: tuple[str, str, str], reason: str, who: AbstractBaseUser) -> None:
    """Jobs that it moves keep their old figures beside the new ones, and say why."""
    tool, metal, machine = where
    if machine:
        there = {job.pk for job in jobs_using([("materials", metal)])} & {job.pk for job in jobs_using([("machines", machine)])}
        jobs = [job for job in jobs_using([("tools", tool)]) if job.pk in there]
    else:
        jobs = list(Job.objects.filter(archived_at=None))
    remember(jobs)
    Stamp.bump(ROOM)
    mark_stale(jobs, reason, who.get_username())


def _trials(ids: Sequence[int]) -> str:
    return f"trial {ids[0]}" if len(ids) == 1 else f"{len(ids)} trials"


def interval(mean: float, spread: float) -> str:
    """A factor between its ends, nineteen of twenty: × 0.92 to 1.31."""
    low, high = np.exp(mean - 2.0 * spread), np.exp(mean + 2.0 * spread)
    return f"{low:.2f} to {high:.2f}"


def shipped(quantity: str) -> str:
    """How far the quantity may be off as it ships."""
    one = band(quantity)
    return told(one.low, one.high)
