"""A set-up of turning or facing from its declared fields."""

from __future__ import annotations

from typing import Any

from cutting.operations.frame.fields import Base
from cutting.operations.frame.setup import workholding_of
from cutting.operations.turned.feature import Direction, Feature, Settings
from cutting.operations.turned.setup import Setup
from cutting.tooling.items import Holder, Insert

ROOM = 10.0  # mm that a part stands out beyond its cut where the form does not say


def feature_of(values: dict[str, Any]) -> Feature:
    """The feature from its fields: the diameter before as a number, the one after with its limits."""
    given = dict(values)
    return Feature(start_diameter=given.pop("start_diameter").nominal, end=given.pop("end_diameter"), **given)


def builder(operation: str) -> Any:
    """How a set-up of turning or of facing is made."""

    def build(base: Base, insert: Insert, holder: Holder, given: dict[str, dict[str, Any]]) -> Setup:
        """The set-up from its fields, section by section. Raises `CuttingError`."""
        feature, settings = feature_of(given["feature"]), dict(given["settings"])
        direction = Direction(settings.pop("direction", Direction.TOWARDS))
        holding = workholding_of(given["holding"], feature.distance_from_chuck + feature.length + ROOM, feature.start_diameter)
        return Setup(
            operation=operation,
            insert=insert,
            holder=holder,
            feature=feature,
            settings=Settings(direction=direction, **settings),
            holding=holding,
            **vars(base),
        )

    return build
