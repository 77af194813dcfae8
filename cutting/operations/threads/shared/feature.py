"""A thread as the drawing asks for it, and what is there before it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from cutting.errors import CuttingError, OutOfRange, require_between
from cutting.operations.frame.fields import PATTERN, Field
from cutting.operations.frame.kind import Given, Settled
from cutting.workpiece.pattern import check_pattern
from cutting.workpiece.solid import NOTHING, Corner, Region, Solid
from cutting.workpiece.threads.limits import Limits, limits
from cutting.workpiece.threads.spelling import read_thread
from cutting.workpiece.threads.thread import Thread

INSIDE, OUTSIDE = "inside", "outside"
OPEN_END = 1e6  # mm: a hole that goes through
BELOW = 4.5  # pitches that a blind core hole goes on below full thread: chamfer of the tap and some room (common practice)
BELOW_FULL = 0.1  # pitches that a step is turned below the diameter of the thread on it (common practice)
READY = 0.05  # mm by which what is there may differ from the size that a thread starts from and still be the same (common practice)


@dataclass(frozen=True)
class ThreadFeature:
    """A thread; lengths mm. `thread` is what the words say, `length` that of full thread, `hole` how deep its core hole is.

    `there` is the diameter that the thread finds: of the core hole inside, 0 where none is drilled yet, of the stud outside.
    `relief` is the groove that it runs out in, 0 for none. `distance` is its near end from the chuck, `circle` and `count` of several.
    """

    thread: Thread
    length: float
    internal: bool = True
    through: bool = False
    hole: float | None = None
    there: float = 0.0
    relief: float = 0.0
    distance: float = 0.0
    circle: float | None = None
    count: int = 1

    @property
    def start_diameter(self) -> float:
        return self.thread.diameter

    @cached_property
    def limits(self) -> Limits:
        """Limits of its side in its class."""
        return limits(self.thread, self.internal, field="feature.thread")

    @property
    def room(self) -> float:
        """How deep a tool may go [mm]: the core hole, or as far as wanted where it goes through."""
        if self.through:
            return OPEN_END
        return self.hole if self.hole is not None else self.length + 5.0 * self.thread.pitch

    @property
    def tolerance(self) -> float:
        """Width of the pitch diameter's tolerance [mm]."""
        return self.limits.pitch.width or 0.1


def blank_diameter(thread: Thread) -> float:
    """Ø [mm] to which a step is turned for a thread on it: a tenth of the pitch below its own, or the middle of what its class allows.

    Common practice.
    """
    zone = limits(thread, False).major
    usual = thread.diameter - BELOW_FULL * thread.pitch
    low, high = zone.low or usual, zone.high or usual
    return round(usual if low <= usual <= high else (low + high) / 2.0, 2)


FEATURE = (
    Field("thread", "thread", "thread", "M10x1.5-6H", required=True),
    Field("side", "side", "choice", options=(INSIDE, OUTSIDE), default=""),
    Field("length", "length of full thread", example="15", required=True, bounds=(0.3, 2000.0)),
    Field("through", "goes through", "flag", default=False),
    Field("hole", "depth of its tapping hole", example="as usual", bounds=(0.3, 3000.0)),
    Field("relief", "run-out groove", example="none", default=0.0, bounds=(0.0, 100.0)),
    Field("distance", "near end from the chuck", example="0", default=0.0, bounds=(0.0, 5000.0), place=True),
    Field("there", "existing Ø", example="none", drawn=False, bounds=(0.0, 1000.0)),
    *PATTERN,
)
SHOWN = ("thread", "length", "side", "circle")


def title(word: str) -> Any:
    """An operation's title from its feature's entries."""
    return lambda feature: f"{word} {str(feature.get('thread', '')).strip()}".strip()


def either_side_of(values: dict[str, Any]) -> ThreadFeature:
    """The feature of a kind that cuts both sides. Raises `CuttingError` where nothing says which is meant."""
    if not values.get("side") and values["thread"].internal is None:
        raise CuttingError("feature.side", "say inside or outside: the thread's words leave it open.", f"{INSIDE} or {OUTSIDE}")
    return feature_of(values)


def feature_of(values: dict[str, Any]) -> ThreadFeature:
    """The feature from its fields, inside where nothing says otherwise. Raises `CuttingError` where words and entry differ."""
    given = dict(values)
    thread: Thread = given["thread"]
    side = given.pop("side", "") or ""
    if side and thread.internal is not None and thread.internal != (side == INSIDE):
        raise CuttingError(
            "feature.side", f"'{side}' contradicts the thread, which is an {INSIDE if thread.internal else OUTSIDE} one.", ""
        )
    internal = side == INSIDE if side else bool(thread.internal if thread.internal is not None else True)
    if not internal:
        given.setdefault("there", thread.diameter)
    return ThreadFeature(internal=internal, **given)


def check_feature(f: ThreadFeature, largest: float | None) -> None:
    """Raise `CuttingError` for a thread that cannot be."""
    assert f.limits  # a class of the other side is said here
    if f.internal and f.hole is not None and not f.through and f.hole < f.length:
        raise OutOfRange("feature.hole", f"{f.hole:g} mm is not as deep as the thread is long.", f"from {f.length:g} mm")
    if f.internal and f.there >= f.thread.diameter:
        raise OutOfRange(
            "feature.there", f"Ø{f.there:g} leaves no metal for a thread of Ø{f.thread.diameter:g}.", f"below {f.thread.diameter:g} mm"
        )
    if not f.internal:
        require_between("feature.there", f.there, 0.5 * f.thread.root_diameter, 3.0 * f.thread.diameter, "mm")
    if f.circle is not None and not f.internal:
        raise CuttingError("feature.circle", "outside threads lie on the axis.")
    check_pattern(f.circle, f.count, f.thread.diameter, largest)
    if largest is not None and f.internal and f.circle is None and f.thread.diameter >= largest:
        raise OutOfRange("feature.thread", f"Ø{f.thread.diameter:g} is not inside the part's Ø{largest:g}.", f"below Ø{largest:g} mm")


def hole_before(f: ThreadFeature, diameter: float) -> dict[str, str | bool | int]:
    """The drilled hole of a diameter [mm] that must come before an inside thread, as an operation is entered."""
    deep = f.hole if f.hole is not None else f.length + (1.0 if f.through else BELOW) * f.thread.pitch
    said: dict[str, str | bool | int] = {
        "operation": "drill",
        "title": f"Core hole Ø{diameter:g}",
        "diameter": f"{diameter:g} mm",
        "depth": f"{max(deep, f.length + f.thread.pitch):g} mm",
        "through": f.through,
    }
    return said | ({} if f.circle is None else {"circle": f"{f.circle:g} mm", "count": f.count})


def settles(given: Given, before: Solid) -> Settled:
    """What the part in front of a thread settles: the hole or stud that is there."""
    if given.has("circle"):
        return {}
    found: Settled = {}
    if _inside(given):
        found["there"] = before.bore
    else:
        near = given.length("distance") or 0.0
        long = given.length("length") or 1.0
        at = before.largest(near, near + long) if near else before.largest(max(before.face - long, 0.0), before.face)
        if at > 0:
            found["there"] = at
    return found if not given.has("there") else {}


def _inside(given: Given) -> bool:
    """Whether the entries mean an inside thread; what cannot be read counts as one."""
    side = given.text("side").lower()
    if side:
        return side == INSIDE
    try:
        said = read_thread(given.text("thread")).internal
    except CuttingError:
        return True
    return said is not False


def removes(feature: ThreadFeature) -> Region:
    """The groove of a thread leaves its core as it stands: a part's outline does not change by it."""
    return NOTHING


def area(setup: Any, before: Solid) -> tuple[Corner, ...]:
    """The thread in half section, from its crest to its root, from the part's face or from its place."""
    f: ThreadFeature = setup.feature
    end = f.distance + f.length if f.distance > 0 else before.face
    t = f.thread
    crest, root = (t.inside_diameter / 2.0, t.diameter / 2.0) if f.internal else (t.diameter / 2.0, t.root_diameter / 2.0)
    if f.circle is not None:
        crest, root = (f.circle - t.diameter) / 2.0, (f.circle + t.diameter) / 2.0
    near = max(end - f.length, 0.0)
    return ((near, crest), (near, root), (end, root), (end, crest))


def runs_on_axis(feature: Mapping[str, Any]) -> bool:
    """Whether a thread lies on the part's axis."""
    return feature.get("circle") in (None, "")
