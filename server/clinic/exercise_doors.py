"""Practice over HTTP: everybody has their own exercises, and nobody sees a cause before its exercise is over."""

from __future__ import annotations

import secrets
from typing import Any

from django.db import transaction
from django.db.models import Avg, Count, Max, Q
from django.http import HttpRequest
from ninja import Router, Status

from cutting.clinic.trainer import Exercise, drawn, setup_for, shipped, standing
from server.clinic import schemas
from server.clinic.models import Practice
from server.errors import Refusal

router = Router()
SEEDS = 2**31
MOST_OPEN = 20  # exercises that somebody has begun and not ended; the oldest make room


@router.get("", response=schemas.ExercisesOut)
def list_exercises(request: HttpRequest) -> dict[str, Any]:
    """What ships, with one's own best, and how far one is."""
    own = Practice.objects.filter(person=request.user)
    ended = own.filter(over=True).order_by()
    best = dict(ended.values_list("name").annotate(best=Max("score")))
    told = ended.aggregate(done=Count("pk"), solved=Count("pk", filter=Q(score__gt=0)), mean=Avg("score"))
    return {
        "shipped": [
            {"number": k + 1, "name": one.name, "level": one.level, "kind": one.kind, "best": best.get(one.name)}
            for k, one in enumerate(shipped())
        ],
        "done": told["done"],
        "solved": told["solved"],
        "mean_score": told["mean"] or 0.0,
        "open": own.filter(over=False).values_list("pk", flat=True).first(),
    }


@router.post("", response={201: schemas.ExerciseOut})
def begin(request: HttpRequest, payload: schemas.ExerciseIn) -> Status:
    """Begin an exercise that ships, or one that is drawn."""
    if payload.number is not None:
        if payload.number > len(shipped()):
            raise Refusal(404, f"There are {len(shipped())} exercises.")
        exercise = shipped()[payload.number - 1]
    else:
        exercise = drawn(payload.seed if payload.seed is not None else secrets.randbelow(SEEDS), payload.kind)
    name = exercise.name or f"{exercise.kind}, drawn {exercise.seed}"
    with transaction.atomic():
        left = Practice.objects.filter(person=request.user, over=False).values_list("pk", flat=True)[MOST_OPEN - 1 :]
        Practice.objects.filter(pk__in=list(left)).delete()
        kept = Practice.objects.create(
            person=request.user, name=name, level=exercise.level, kind=exercise.kind, cause=exercise.cause, seed=exercise.seed
        )
    return Status(201, _shown(kept))


@router.get("/{exercise_id}", response=schemas.ExerciseOut)
def read_exercise(request: HttpRequest, exercise_id: int) -> dict[str, Any]:
    """One's own exercise as it stands."""
    return _shown(_own(request, exercise_id))


@router.post("/{exercise_id}/steps", response=schemas.ExerciseOut)
def step(request: HttpRequest, exercise_id: int, payload: schemas.StepIn) -> dict[str, Any]:
    """Look, change, name the cause, or give up."""
    with transaction.atomic():
        kept = _own(request, exercise_id, locked=True)
        kept.steps = [*kept.steps, {payload.did: payload.what}]
        stands = standing(_exercise(kept), kept.steps)  # refuses before anything is written
        kept.over, kept.score = stands.over, stands.score
        kept.save(update_fields=["steps", "over", "score"])
    return _shown(kept)


def _own(request: HttpRequest, exercise_id: int, locked: bool = False) -> Practice:
    rows = Practice.objects.select_for_update() if locked else Practice.objects
    found = rows.filter(person=request.user, pk=exercise_id).first()
    if found is None:
        raise Refusal(404, "There is no such exercise of yours.")
    return found


def _exercise(kept: Practice) -> Exercise:
    return Exercise(kept.kind, kept.cause, kept.seed, kept.level, kept.name)


def _shown(kept: Practice) -> dict[str, Any]:
    stands = standing(_exercise(kept), kept.steps)
    setup = setup_for(kept.kind)
    tool = " + ".join(setup.tool_names.values())
    return {
        "id": kept.pk, "name": kept.name, "level": kept.level, "kind": kept.kind, "seed": kept.seed,
        "setup": f"{kept.kind}, {setup.work.material.name}, {tool}, {setup.machine.name}",
        "told": list(stands.told), "events": [one.__dict__ for one in stands.events], "minutes": stands.minutes, "parts": stands.parts,
        "over": stands.over, "healed": stands.healed, "named": stands.named, "score": stands.score, "explained": list(stands.explained),
    }  # fmt: skip
