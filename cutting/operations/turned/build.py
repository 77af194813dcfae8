"""A set-up of turning or facing from its declared fields."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from cutting.operations.frame.fields import Base
from cutting.operations.frame.setup import workholding_of
from cutting.operations.turned.feature import Direction, Feature, Settings
from cutting.operations.turned.setup import Setup

ROOM = 10.0  # mm that a part stands out beyond its cut where the form does not say


def feature_of(values: dict[str, Any]) -> Feature:
    """The feature from its fields: the diameter before as a number, the one after with its limits."""
    given = dict(values)
    return Feature(start_diameter=given.pop("start_diameter").nominal, end_diameter=given.pop("end_diameter"), **given)


def builder(operation: str) -> Any:
    """How a set-up of turning or of facing is made."""

    def build(base: Base, tool: Mapping[str, Any], given: dict[str, dict[str, Any]]) -> Setup:
        """The set-up from its fields, section by section. Raises `CuttingError`."""
        feature, settings = feature_of(given["feature"]), dict(given["settings"])
        direction = Direction(settings.pop("direction", Direction.TOWARDS))
        holding = workholding_of(given["holding"], feature.distance_from_chuck + feature.length + ROOM, feature.start_diameter)
        return Setup(
            operation=operation,
            feature=feature,
            settings=Settings(direction=direction, **settings),
            holding=holding,
            **tool,
            **vars(base),
        )

    return build
