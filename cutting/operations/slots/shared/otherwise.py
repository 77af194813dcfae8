"""Changes that every narrow cut can try: feed, speed, a shorter overhang, more coolant, another tool of the crib."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import replace
from typing import Any

from cutting.operations.frame.change import Change, in_words, setting
from cutting.tooling.blades import GrooveBlade, NarrowStock

SPEED_SHARES = (0.7, 0.85, 1.15)


def other_feeds_and_speeds(setup: Any, feed_shares: Sequence[float], label: str = "feed") -> Iterator[Change[Any]]:
    """The same cut with less and more of both."""
    s = setup.settings
    for share in feed_shares:
        feed = round(max(s.feed_per_rev * share, 0.01), 3)
        yield setting("feed_per_rev", label, s.feed_per_rev, feed, "feed_per_rev", setup.with_settings(feed_per_rev=feed))
    for share in SPEED_SHARES:
        speed = float(round(s.cutting_speed * share))
        yield setting("cutting_speed", "speed", s.cutting_speed, speed, "cutting_speed", setup.with_settings(cutting_speed=speed))


def shorter_overhang(setup: Any, label: str = "overhang") -> Iterator[Change[Any]]:
    """The blade no further out than the cut needs."""
    shortest = setup.blade.shortest(setup.depth)
    if setup.overhang > 1.05 * shortest:
        yield setting("overhang", label, setup.overhang, shortest, "length", setup.with_settings(overhang=shortest))


def stronger_coolant(setup: Any) -> Iterator[Change[Any]]:
    """The machine's other deliveries that bring more pressure."""
    now = setup.machine.pressure(setup.settings.coolant) or 0.0
    for delivery, pressure in setup.machine.coolant:
        if pressure > now:
            yield Change(in_words(f"coolant: {delivery}"), {"settings": {"coolant": delivery}}, setup.with_settings(coolant=delivery))


def other_blades(
    setup: Any, crib: Any, noun: str, settings_for: Callable[[GrooveBlade], dict[str, Any]] = lambda blade: {}
) -> Iterator[Change[Any]]:
    """The crib's other tools for the same work and insert, each at its own overhang; `settings_for` says what a tool asks for."""
    for blade in crib.blades if isinstance(crib, NarrowStock) else ():
        if blade.use == setup.blade.use and blade.name != setup.blade.name and blade.takes(setup.insert):
            asked = dict(settings_for(blade))
            patch: dict[str, Any] = {"tool": {"insert": setup.insert.name, "holder": blade.name}}
            if setup.settings.overhang is not None:
                asked["overhang"] = None  # what was set belonged to the other tool
            if asked:
                patch["settings"] = {name: None if value is None else str(value) for name, value in asked.items()}
            settings = replace(setup.settings, **asked)
            yield Change(in_words(f"{noun} {blade.name}"), patch, replace(setup, blade=blade, settings=settings))
