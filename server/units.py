"""Values as the API shows them: a number with its words in both unit systems."""

from __future__ import annotations

from ninja import Schema


class DisplayOut(Schema):
    metric: str
    inch: str


# a point of a drawing or map: two numbers (a plain list, since fixed-length arrays lose their length in the generated types)
Point = list[float]
