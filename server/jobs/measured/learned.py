"""What traces taught of a drill, as the core takes it."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from server.jobs.models import Lesson


def learned_of(drill: str, materials: Iterable[str]) -> dict[str, Any] | None:
    """The form of what was learned of a drill in some materials, None where nothing was.

    The newest lesson of just these materials counts whole; of others only their force, which belongs to the metal.
    """
    wanted = set(materials)
    lessons = list(Lesson.objects.filter(drill=drill, archived_at=None).select_related("author"))
    same = next((one for one in lessons if set(one.materials) == wanted), None)
    if same is not None:
        return {**same.values, "note": _note(same)}
    force: dict[str, float] = {}
    for one in reversed(lessons):
        force |= {name: factor for name, factor in one.values.get("force", {}).items() if name in wanted}
    return {"force": force, "note": _note(lessons[0])} if force else None


def _note(lesson: Lesson) -> str:
    said = [f"force ×{factor:.2f} in {name}" for name, factor in lesson.values.get("force", {}).items()]
    if lesson.values.get("chisel_share") is not None:
        said.append(f"chisel edge {lesson.values['chisel_share']:.2f}")
    if lesson.values.get("margin") is not None:
        said.append(f"margins ×{lesson.values['margin']:.1f}")
    if lesson.values.get("growth"):
        said.append("growth from hole to hole")
    return f"{', '.join(said)}; {lesson.author.get_username()}, {lesson.at:%Y-%m-%d}"
