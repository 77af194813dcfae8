"""What the clinic tells, as it goes out."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from django.db.models import Count, Q

from cutting.clinic.changes import Offer
from cutting.clinic.suspects import Diagnosis, Suspect, try_first
from cutting.clinic.turned_out import Weight, weight
from cutting.clinic.words import CAUTIONS, ROUNDS, Look, causes, symptoms, ward
from cutting.quantities import Display
from server.clinic.models import Trouble


def ward_out(kind: str) -> dict[str, Any]:
    """All of a kind. Raises `UnknownName`."""
    known = ward(kind)
    return {
        "kind": kind,
        "symptoms": [
            {"name": s.name, "title": s.title, "said": list(s.said), "picture": s.picture, "limits": list(s.limits)} for s in known.symptoms
        ],
        "looks": [look_out(one) for one in known.looks],
        "causes": [{"name": c.name, "title": c.title, "change": c.change, "undo": c.undo} for c in known.causes],
        "rounds": {name: title for name, title in ROUNDS.items() if any(one.round == name for one in known.looks)},
    }


def look_out(one: Look) -> dict[str, Any]:
    """A question with its caution in words."""
    return {
        "name": one.name, "round": one.round, "question": one.question, "how": one.how, "minutes": one.minutes,
        "caution": CAUTIONS.get(one.caution, ""),
    }  # fmt: skip


def weights(kind: str) -> Mapping[str, Weight]:
    """What was learned of causes of this kind, from all operations of the shop."""
    helped = Count("pk", filter=Q(turned_out=Trouble.Turned.HELPED))
    rows = Trouble.objects.filter(kind=kind).order_by().values("cause").annotate(helped=helped, all=Count("pk"))
    return {row["cause"]: weight(row["helped"], row["all"] - row["helped"]) for row in rows}


def diagnosis_out(found: Diagnosis, learned: Mapping[str, Weight], most: int = 8) -> dict[str, Any]:
    """The likeliest causes with their reasons."""
    named = [one for one in found.suspects if one.cause]
    first = try_first(found)
    none = next(one.chance for one in found.suspects if not one.cause)
    question = found.question
    return {
        "suspects": [{**_suspect(one, learned), "try_first": one.cause is first} for one in named[:most]],
        "none": 100.0 * none,
        "none_fits": found.none_fits,
        "fits": found.fits,
        "question": question and {
            "round": question.round, "title": ROUNDS[question.round], "looks": [look_out(one) for one in question.looks],
            "minutes": question.minutes,
        },
    }  # fmt: skip


def _suspect(one: Suspect, learned: Mapping[str, Weight]) -> dict[str, Any]:
    cause = one.cause
    assert cause
    moved = learned.get(cause.name) or weight(0, 0)
    return {
        "name": cause.name, "title": cause.title, "chance": 100.0 * one.chance, "look": cause.look,
        "change": cause.change, "undo": cause.undo,
        "reasons": [{"speaks": r.speaks, "text": Display(r.metric, r.inch)} for r in one.reasons],
        "seen": moved.seen, "weight": moved.factor, "low": moved.low, "high": moved.high,
    }  # fmt: skip


def offer_out(made: Offer) -> dict[str, Any]:
    """A change as it was run."""
    said = [f"{row.label} {row.before.metric} → {row.after.metric}" for row in made.rows]
    inch = [f"{row.label} {row.before.inch} → {row.after.inch}" for row in made.rows]
    effect = Display(", ".join(said), ", ".join(inch))
    return {
        "cause": made.cause, "change": made.change, "side_effects": made.side_effects, "undo": made.undo, "forbidden": made.forbidden,
        "by_hand": made.by_hand, "rows": [{"label": row.label, "before": row.before, "after": row.after} for row in made.rows],
        "remedy": {"text": made.words, "effect": effect, "patch": dict(made.patch)} if made.words else None,
    }  # fmt: skip


def trouble_out(one: Trouble) -> dict[str, Any]:
    """A cause that was acted on."""
    known = causes().get(one.cause)
    return {
        "id": one.pk, "cause": one.cause, "title": known.title if known else one.cause, "turned_out": one.turned_out, "words": one.words,
        "seen": [symptoms()[name].title for name in one.seen if name in symptoms()], "author": one.author.get_username(), "at": one.at,
    }  # fmt: skip
