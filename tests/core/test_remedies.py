"""What is offered where a limit is near or broken, on a model of four numbers: which changes, in which order, in which words."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from types import SimpleNamespace
from typing import Any, ClassVar

import numpy as np
import pytest

from cutting.errors import OutOfRange
from cutting.operations.frame.change import Change, in_words
from cutting.operations.frame.model import Model, Readings
from cutting.operations.frame.outcome import Bound, Limit, Severity
from cutting.operations.frame.remedies import Trials
from cutting.operations.frame.rule import Rule, limits_of
from cutting.operations.frame.setup import HouseRules
from cutting.working import SILENT, Recorder, Silent

LIMIT = 8.0


@dataclass(frozen=True)
class Settings:
    cutting_speed: float = 100.0
    feed_per_rev: float = 0.2


@dataclass(frozen=True)
class Setup:
    """Load is speed × feed over stiffness; a piece takes 100 s at 20 m/min·mm; `price` is what the tool costs a piece."""

    FEED: ClassVar[str] = "feed_per_rev"
    silent: ClassVar[Silent] = SILENT
    settings: Settings = Settings()
    stiffness: float = 1.0
    price: float = 0.0
    heat: float = 0.0
    most_speed: float = 400.0
    house: HouseRules = field(default_factory=HouseRules)

    @property
    def feed(self) -> float:
        return self.settings.feed_per_rev

    def with_settings(self, **changes: Any) -> Setup:
        return replace(self, settings=replace(self.settings, **changes))

    def check(self) -> None:
        if self.settings.cutting_speed > self.most_speed:
            raise OutOfRange("settings.cutting_speed", "too fast.", "400")


def numbers(setup: Setup, _tool: Any, speed: Any, feed: Any, _record: Any) -> Any:
    removed = np.atleast_1d(np.asarray(speed, float) * np.asarray(feed, float))
    seconds = 2000.0 / removed
    return SimpleNamespace(
        setup=setup, load=removed / setup.stiffness, heat=np.broadcast_to(setup.heat, removed.shape),
        operation_time=seconds, operation_cost=seconds / 60.0 + setup.price,
    )  # fmt: skip


def rule(name: str, read: Any, severity: Severity = Severity.HARD) -> Rule[Any]:
    return Rule(name, f"{name}, of the test", "number", Bound.UPPER, severity, "common-practice", "Because.", read)


RULES = (rule("load", lambda x: (x.load, None, LIMIT)), rule("heat", lambda x: (x.heat, None, 1.0)))


def offered(text: str, section: str, **to: Any) -> Any:
    return lambda setup: Change(in_words(text), {section: {text: 1}}, replace(setup, **to))


def model(*changes: Any, tools: Any = (), supports: Any = ()) -> Model[Any]:
    def from_all(makers: Any) -> Any:
        return lambda x, *_: iter([make(getattr(x, "setup", x)) for make in makers])

    readings: Any = Readings(*[lambda *_: ()] * 5)
    return Model(lambda s: None, numbers, RULES, from_all(changes), readings, from_all(tools), supported=from_all(supports))


def limit(which: Model[Any], setup: Setup, name: str = "load") -> Limit:
    return next(one for one in limits_of(which.rules, which.quickly(setup), Recorder()) if one.name == name)


def texts(which: Model[Any], setup: Setup, name: str = "load") -> list[str]:
    return [one.text.metric for one in Trials(which, setup, crib=object()).remedies(limit(which, setup, name))]


def test_settings_come_before_other_tools_and_no_more_than_four_are_said() -> None:
    changes = [offered(f"hold {k}", "holding", stiffness=4.0 + k) for k in range(3)]
    tools = [offered(f"tool {k}", "tool", stiffness=4.0, price=-5.0 - k) for k in range(3)]
    found = texts(model(*changes, offered("passes", "settings", stiffness=5.0), tools=tools), Setup())
    assert len(found) == 4
    assert found[-1] == "tool 2", "the cheapest of the tools, after what is set on the bench"
    assert [text for text in found if text.startswith("hold")] == ["hold 0"]
    assert sum(text.startswith(("feed", "speed", "passes")) for text in found) == 2, "two that change settings at the most"


def test_what_hardly_helps_is_not_offered_where_something_does() -> None:
    """Of its bound 250 %: a change to 247 % is none; where nothing brings it below, the nearest is still worth knowing."""
    setup = Setup(heat=2.5)
    assert texts(model(offered("a little", "holding", heat=2.47)), setup, "heat") == []
    assert texts(model(offered("half", "holding", heat=1.3)), setup, "heat") == ["half"]
    assert texts(model(offered("half", "holding", heat=1.3), offered("all", "settings", heat=0.5)), setup, "heat") == ["all"]


def test_the_closest_limit_that_holds_is_moved_by_a_tenth_or_not_at_all() -> None:
    setup = Setup(heat=0.95)
    assert limit(model(), setup, "heat").utilisation == pytest.approx(0.95)
    assert texts(model(offered("to 0.90", "holding", heat=0.90), offered("to 0.84", "settings", heat=0.84)), setup, "heat") == ["to 0.84"]
    # no more than 2 % less is never a remedy, however close the target is
    assert texts(model(offered("to 0.94", "holding", heat=0.94)), setup, "heat") == []


def test_a_change_that_breaks_something_else_is_said_only_where_no_sound_one_is_known() -> None:
    setup = Setup(heat=1.5)
    hot, sound = offered("hot", "holding", heat=0.5, stiffness=0.1), offered("sound", "settings", heat=0.8, stiffness=4.0)
    assert texts(model(hot, sound), setup, "heat") == ["sound"]
    only = Trials(model(hot), setup).remedies(limit(model(hot), setup, "heat"))
    assert "exceeds another limit" in only[0].effect.metric


def test_the_words_say_how_much_time_and_money() -> None:
    slower = Trials(model(), Setup()).remedies(limit(model(), Setup()))[0]
    assert slower.patch["settings"] == {"feed_per_rev": "0.075 mm/rev"}, "the largest that people set below 97 % of its limit"
    assert slower.effect.metric.startswith("load 250% → 9")
    seconds, money = slower.effect.metric.split(", ")[1:3]
    assert (seconds[0], seconds.split()[1], "." in seconds) == ("+", "s", False), "beyond ten seconds no tenths"
    assert len(money.split()[0].split(".")[1]) == 2


def test_the_cheapest_change_mends_and_none_where_none_is_free() -> None:
    dear, cheap = (offered(name, "settings", stiffness=4.0, price=price) for name, price in (("dear", 9.0), ("cheap", 1.0)))
    which = model(dear, cheap, offered("a tool", "tool", stiffness=4.0, price=-50.0))
    trials = Trials(which, Setup())
    broken = [limit(which, Setup())]
    assert trials.mended(broken, frozenset({"settings.dear", "settings.cheap"})).price == 1.0
    assert trials.mended(broken, frozenset({"settings.dear"})).price == 9.0
    assert trials.mended(broken, frozenset({"holding.style"})) is None


def test_going_faster_stops_at_the_limit_and_a_support_is_offered_for_more_alone() -> None:
    setup = Setup(Settings(20.0, 0.2))  # half of what it stands
    offers = Trials(model(), setup).faster()
    assert [one.patch["settings"] for one in offers] == [{"feed_per_rev": "0.4 mm/rev"}, {"cutting_speed": "40 m/min"}]

    def supports(*stiffnesses: float) -> list[Any]:
        which = model(supports=[offered(f"centre {s:g}", "holding", stiffness=s) for s in stiffnesses])
        return [one.text.metric for one in Trials(which, setup).faster()]

    assert supports(1.5)[0] == "centre 1.5 → feed 0.2 → 0.6 mm/rev"
    assert not any("centre" in text for text in supports(1.0, 0.9)), "what allows no more feed is none"


def test_what_the_set_up_cannot_have_is_not_offered() -> None:
    found: Iterator[Any] = iter(Trials(model(), Setup(Settings(300.0, 0.01), most_speed=310.0)).faster())
    assert all("cutting_speed" not in one.patch["settings"] for one in found)


def test_what_saves_hardly_anything_is_not_called_quicker() -> None:
    """A gain below one and a half of a hundred is not worth a change, a loss is none; three of a hundred is."""
    setup = Setup(Settings(40.0, 0.2))  # at its limit: neither lever goes further

    def quicker(feed: float) -> list[str]:
        change = offered("other", "settings", settings=Settings(40.0, feed), stiffness=2.0)
        which = replace(model(), quicker=lambda one: iter([change(one)]))
        return [one.text.metric for one in Trials(which, setup).faster()]

    assert (quicker(0.202), quicker(0.16), quicker(0.207)) == ([], [], ["other"])
