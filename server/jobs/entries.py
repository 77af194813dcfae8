"""What was typed, kept with the unit it was meant in."""

from __future__ import annotations

from cutting.quantities import KINDS, read_quantity

Entry = str | float | bool | None
SETTING_KINDS = {
    "cutting_speed": ("cutting_speed", "spindle_speed"),
    "feed_per_rev": ("feed_per_rev", "feed_rate"),
    "depth_of_cut": ("length",),
    "spindle_clamp": ("spindle_speed",),
    "overhang": ("length",),
    "last_depth": ("length",),
    "pass_depths": ("length",),
    "centre_height": ("length",),
    "nozzle_diameter": ("length",),
}
LISTS = ("pass_depths", "profile", "steps", "shape")


def with_unit(name: str, value: Entry, units: str) -> Entry:
    """A bare number gets the unit that was shown, so that the entry keeps its meaning."""
    if name not in SETTING_KINDS or value is None or isinstance(value, bool):
        return value
    if name in LISTS:
        return _list_with_units(str(value), units, f"settings.{name}")
    return _echo(value, units, f"settings.{name}", *SETTING_KINDS[name])


def _list_with_units(text: str, units: str, field: str) -> str:
    """Every word of a list or of its points gets the unit that was shown."""
    points = [[_echo(word.strip(), units, field, "length") for word in point.split(":")] for point in text.split(";") if point.strip()]
    return "; ".join(":".join(words) for words in points)


def length_with_unit(name: str, value: Entry, units: str) -> Entry:
    if value is None or isinstance(value, bool) or name in ("style", "grip_share"):
        return value
    if name in LISTS:
        return _list_with_units(str(value), units, name)
    if name in ("start_diameter", "end_diameter"):
        # a tolerance class or deviation is metric as written; only a bare inch number needs its unit
        return _echo(value, units, f"feature.{name}", "length") if units == "inch" and _bare(value) else str(value)
    kind = "small_length" if name == "roughness" else "length"
    return _echo(value, units, name, kind)


def _bare(value: Entry) -> bool:
    return not any(ch.isalpha() or ch in '"″µ°±' for ch in str(value))


def _echo(value: str | float, units: str, field: str, *kinds: str) -> str:
    system = "inch" if units == "inch" else "metric"
    read_quantity(value, *kinds, system=system, field=field)  # refuses what cannot be read, naming the field
    text = f"{value:.10g}" if isinstance(value, float) else str(value).strip()
    if not _bare(value):
        return text
    kind = KINDS[kinds[0]]
    return f"{text} {kind.inch if system == 'inch' else kind.metric}".strip()
