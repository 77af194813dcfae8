"""The ways to turn one feature, each with its best tool of the crib: time, money, chip and why it is or is not one."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from cutting.advice.candidate import Candidate
from cutting.advice.contests.turned import ONE_WAY, why_not_away
from cutting.advice.rank import rank
from cutting.errors import CuttingError
from cutting.operations.turned.case import useful_speed
from cutting.operations.turned.contour import steepest_descent
from cutting.operations.turned.feature import Direction
from cutting.operations.turned.setup import Setup
from cutting.tooling.crib import Crib
from cutting.tooling.items import Holder, Insert

SHARP = 12.0  # µm of edge radius up to which an edge counts as ground sharp
SLIM = ("D", "V", "K")
HARD = 420  # HB, 45 HRC: from there it is turned instead of ground


@dataclass(frozen=True)
class TurningWay:
    """A way to turn: which tools belong to it, how the set-up changes, and when it is the right one (common practice)."""

    name: str
    title: str
    when: str
    insert: Callable[[Insert], bool] = lambda insert: True
    holder: Callable[[Holder], bool] = lambda holder: True
    direction: Direction = Direction.TOWARDS
    suits: Callable[[Setup], str] = lambda setup: ""  # a reason why not, blank where it suits


@dataclass(frozen=True)
class WayOffer:
    """A way with its best tool and figures, or with the reason why there is none. `useful_speed` in m/min."""

    name: str
    title: str
    when: str
    candidate: Candidate | None
    why_not: str
    direction: str
    tool_class: str
    useful_speed: float
    reaches_speed: bool
    present: bool


def _conventional(insert: Insert) -> bool:
    return insert.code.shape != "R" and not insert.geometry.wiper and insert.grade.tool_class in ("carbide", "cermet")


def _sharp(insert: Insert) -> bool:
    return insert.grade.tool_class == "hss" or (insert.geometry.edge_radius <= SHARP and insert.grade.tool_class == "carbide")


def _hardened(setup: Setup) -> str:
    return "" if setup.work.material.group.letter == "H" or setup.work.hardness > HARD else "the work is softer than 45 HRC"


WAYS: tuple[TurningWay, ...] = (
    TurningWay("conventional", "towards the chuck, square edge", "the ordinary way, shoulders and all", _conventional),
    TurningWay(
        "away",
        "away from the chuck, small κr",
        "thin chip, so about twice the feed; starts at the shoulder and carries chips off it",
        _conventional,
        direction=Direction.AWAY,
        suits=why_not_away,
    ),
    TurningWay("round", "round insert", "strongest edge, thin chip, pushes hard: stiff parts, skins, scale", lambda i: i.code.shape == "R"),
    TurningWay(
        "wiper", "wiper edge", "twice the feed for the same finish, or half the Ra; stiff parts, straight cuts", lambda i: i.geometry.wiper
    ),
    TurningWay(
        "copying",
        "copying along the contour",
        "slim insert whose minor edge clears the descent",
        lambda i: i.code.shape in SLIM,
        suits=lambda s: "" if steepest_descent(s.feature) > 0 or s.feature.profile else "the drawing has no contour to copy",
    ),
    TurningWay(
        "heavy",
        "heavy roughing",
        "few deep passes with a strong edge and a big holder",
        lambda i: i.geometry.strength >= 1.2,
        lambda h: h.code.shank_height >= 25,
        suits=lambda s: "" if s.stock_to_remove >= 2.0 else "less than 2 mm to take off",
    ),
    TurningWay(
        "sharp",
        "sharp ground edge or high-speed steel",
        "thin cuts, and diameters so small that the spindle cannot reach carbide's speed",
        _sharp,
    ),
    TurningWay(
        "hard",
        "hard turning with CBN or ceramic",
        "45 to 65 HRC in place of grinding, shallow and dry",
        lambda i: i.grade.tool_class in ("cbn", "ceramic"),
        suits=_hardened,
    ),
)


def ways_to_turn(setup: Setup, crib: Crib) -> tuple[WayOffer, ...]:
    """Every way with its best tool for this set-up, in the goal's order; those that cannot be come last with the reason."""
    offers = [_offer(way, setup, crib) for way in WAYS]
    found = [offer for offer in offers if offer.candidate]
    key = {"fastest": lambda c: c.seconds, "most secure": lambda c: (-round(c.secure, 2), c.cost), "cheapest": lambda c: c.cost}
    found.sort(key=lambda offer: key[setup.goal.value](offer.candidate))  # type: ignore[no-untyped-call]
    return (*found, *(offer for offer in offers if not offer.candidate))


def _offer(way: TurningWay, setup: Setup, crib: Crib) -> WayOffer:
    present = _is_present(way, setup)
    why_not = way.suits(setup)
    part = Crib(tuple(i for i in crib.inserts if way.insert(i)), tuple(h for h in crib.holders if way.holder(h)))
    if not why_not and (not part.inserts or not part.holders):
        why_not = "the crib stocks no such tool"
    candidate = None
    if not why_not:
        try:
            advice = rank(setup.with_settings(direction=way.direction, pass_depths=()), part, ONE_WAY, 1)
            candidate = advice.candidates[0] if advice.candidates else None
            why_not = "" if candidate else _why_none(advice.nearly, advice.refused)
        except CuttingError as error:
            why_not = str(error)
    chosen = next((i for i in part.inserts if candidate and i.name == candidate.edge), None)
    tool_class = chosen.grade.tool_class if chosen else ""
    useful = useful_speed(setup, tool_class) if tool_class else 0.0
    reaches = candidate is None or candidate.speed_reached >= useful
    return WayOffer(way.name, way.title, way.when, candidate, why_not, way.direction.value, tool_class, useful, reaches, present)


def _why_none(nearly: tuple[Candidate, ...], refused: tuple[object, ...]) -> str:
    if nearly:
        return nearly[0].reason
    # the last rule took away what the others had left
    return str(getattr(refused[-1], "reason", "no tool fits")) if refused else "no tool fits"


def _is_present(way: TurningWay, setup: Setup) -> bool:
    return way.direction is setup.settings.direction and way.insert(setup.insert) and way.holder(setup.holder) and not way.suits(setup)
