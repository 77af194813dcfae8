"""The kinds of quantity: internal unit, the words people use for units, and how many digits the trade writes."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cache

import pint


@dataclass(frozen=True)
class QuantityKind:
    """One kind of quantity.

    `metric` and `inch` are the unit labels shown; `unit` and `inch_unit` the same for Pint;
    `words` maps what people type (lower case) to Pint units.
    """

    name: str
    metric: str
    unit: str
    inch: str
    inch_unit: str
    metric_decimals: int | None
    inch_decimals: int | None
    words: dict[str, str]
    offset: bool = False


_LENGTH = {
    "mm": "mm",
    "millimetre": "mm",
    "millimetres": "mm",
    "cm": "cm",
    "m": "m",
    "µm": "um",
    "um": "um",
    "μm": "um",
    "micron": "um",
    "microns": "um",
    "in": "inch",
    "inch": "inch",
    "inches": "inch",
    '"': "inch",
    "″": "inch",
    "thou": "thou",
    "mil": "thou",
    "mils": "thou",
    "tenth": "thou/10",
    "tenths": "thou/10",
    "ft": "foot",
}
_PER_REV = {f"{word}/{rev}": unit for word, unit in _LENGTH.items() for rev in ("rev", "r", "u")}
_PER_TOOTH = {f"{word}/{tooth}": unit for word, unit in _LENGTH.items() for tooth in ("tooth", "edge", "z")}
_PER_MIN = {f"{word}/min": f"{unit}/minute" for word, unit in _LENGTH.items()}

KINDS: dict[str, QuantityKind] = {
    kind.name: kind
    for kind in (
        QuantityKind("length", "mm", "mm", "in", "inch", 3, 4, _LENGTH),
        # of a limit of size every tenth of a thou counts
        QuantityKind("size", "mm", "mm", "in", "inch", 3, 4, _LENGTH),
        QuantityKind("small_length", "µm", "um", "µin", "microinch", 1, 0, _LENGTH | {"µin": "microinch", "uin": "microinch"}),
        QuantityKind("roughness", "µm", "um", "µin", "microinch", None, 0, _LENGTH | {"µin": "microinch", "uin": "microinch"}),
        QuantityKind("feed_per_rev", "mm/rev", "mm", "ipr", "inch", 3, 4, _PER_REV | _LENGTH | {"ipr": "inch"}),
        QuantityKind("feed_per_tooth", "mm/tooth", "mm", "ipt", "inch", 3, 4, _PER_TOOTH | _LENGTH | {"ipt": "inch"}),
        QuantityKind("feed_rate", "mm/min", "mm/minute", "ipm", "inch/minute", 0, 1, _PER_MIN | {"ipm": "inch/minute"}),
        QuantityKind(
            "cutting_speed",
            "m/min",
            "m/minute",
            "sfm",
            "foot/minute",
            0,
            0,
            {
                "m/min": "m/minute",
                "mpm": "m/minute",
                "m/s": "m/second",
                "sfm": "foot/minute",
                "sfpm": "foot/minute",
                "ft/min": "foot/minute",
                "fpm": "foot/minute",
            },
        ),
        QuantityKind(
            "spindle_speed",
            "rpm",
            "1/minute",
            "rpm",
            "1/minute",
            0,
            0,
            {"1/min": "1/minute", "rpm": "1/minute", "rev/min": "1/minute", "u/min": "1/minute", "/min": "1/minute"},
        ),
        QuantityKind(
            "force",
            "N",
            "N",
            "lbf",
            "force_pound",
            0,
            0,
            {"n": "N", "kn": "kN", "lbf": "force_pound", "lb": "force_pound", "kgf": "force_kilogram"},
        ),
        QuantityKind(
            "torque",
            "N·m",
            "N*m",
            "lbf·ft",
            "force_pound*foot",
            1,
            1,
            {
                "n·m": "N*m",
                "nm": "N*m",
                "n.m": "N*m",
                "n*m": "N*m",
                "lbf·ft": "force_pound*foot",
                "lb-ft": "force_pound*foot",
                "n·cm": "N*cm",
                "ncm": "N*cm",
                "in-lb": "force_pound*inch",
            },
        ),
        QuantityKind("stiffness", "N/µm", "N/um", "lbf/thou", "force_pound/thou", 1, 0, {"n/µm": "N/um", "lbf/thou": "force_pound/thou"}),
        QuantityKind("power", "kW", "kW", "hp", "horsepower", 2, 2, {"kw": "kW", "w": "W", "hp": "horsepower"}),
        QuantityKind("pressure", "bar", "bar", "psi", "psi", 0, 0, {"bar": "bar", "mpa": "MPa", "psi": "psi"}),
        QuantityKind(
            "stress",
            "N/mm²",
            "N/mm**2",
            "ksi",
            "ksi",
            0,
            1,
            {"n/mm²": "N/mm**2", "n/mm2": "N/mm**2", "mpa": "MPa", "ksi": "ksi", "psi": "psi"},
        ),
        QuantityKind(
            "duration",
            "s",
            "s",
            "s",
            "s",
            1,
            1,
            {"s": "s", "sec": "s", "seconds": "s", "min": "minute", "minutes": "minute", "h": "hour", "hours": "hour"},
        ),
        QuantityKind("life", "min", "minute", "min", "minute", 1, 1, {"min": "minute", "minutes": "minute", "s": "s", "h": "hour"}),
        QuantityKind(
            "angle",
            "°",
            "degree",
            "°",
            "degree",
            1,
            1,
            {"°": "degree", "deg": "degree", "degree": "degree", "degrees": "degree", "rad": "radian"},
        ),
        QuantityKind("temperature_rise", "K", "delta_degC", "°F", "delta_degF", 0, 0, {"k": "delta_degC", "°f": "delta_degF"}),
        QuantityKind("area", "mm²", "mm**2", "in²", "inch**2", 3, 6, {"mm²": "mm**2", "mm2": "mm**2", "in²": "inch**2"}),
        QuantityKind("edge_load", "N/mm", "N/mm", "lbf/in", "force_pound/inch", 0, 0, {"n/mm": "N/mm", "lbf/in": "force_pound/inch"}),
        QuantityKind("flow", "l/min", "liter/minute", "gpm", "gallon/minute", 1, 1, {"l/min": "liter/minute", "gpm": "gallon/minute"}),
        QuantityKind("mass", "kg", "kg", "lb", "pound", 2, 2, {"kg": "kg", "g": "g", "lb": "pound"}),
        QuantityKind("money", "€", "", "€", "", 2, 2, {"€": "", "eur": ""}),
        QuantityKind("share", "%", "percent", "%", "percent", 0, 0, {"%": "percent"}),
        QuantityKind("count", "", "", "", "", 0, 0, {}),
        QuantityKind("times_diameter", "× D", "", "× D", "", 1, 1, {"× d": "", "xd": "", "d": ""}),
        QuantityKind("number", "", "", "", "", None, None, {}),
    )
}


def use_currency(sign: str) -> None:
    """Name the shop's own currency by its sign or code, as money is then written and read: `€`, `CHF`, `kr`."""
    KINDS["money"] = replace(KINDS["money"], metric=sign, inch=sign, words={sign.lower(): "", "€": "", "eur": ""})


def currency() -> str:
    """The sign of the shop's currency."""
    return KINDS["money"].metric


@cache
def registry() -> pint.UnitRegistry[float]:
    """The one unit registry, made when first needed."""
    return pint.UnitRegistry(autoconvert_offset_to_baseunit=True)


@cache
def factor(source: str, target: str) -> float:
    """How many `target` units one `source` unit is."""
    if source == target:
        return 1.0
    return float(registry()(f"1 {source}" if source else "1").to(target or "dimensionless").magnitude)
