"""The base of all that comes in and goes out: plain pydantic.

The API package's own base wraps every value of an answer to look for querysets; what is answered here are plain values, and a
ranking's thousand of them would cost more than the ranking.
"""

from __future__ import annotations

from typing import Any

from django.http import HttpResponse
from pydantic import BaseModel, ConfigDict, TypeAdapter


class Schema(BaseModel):
    """Read from dictionaries or from objects that have the attributes."""

    model_config = ConfigDict(from_attributes=True)

    def dict(self, **chosen: Any) -> dict[str, Any]:
        """The values as a dictionary."""
        return self.model_dump(**chosen)


def as_json(kind: Any, answer: Any) -> HttpResponse:
    """An answer checked and written at once: through dictionaries and back it takes a fifth of a nudge's time."""
    adapter: TypeAdapter[Any] = kind if isinstance(kind, TypeAdapter) else TypeAdapter(kind)
    return HttpResponse(adapter.dump_json(adapter.validate_python(answer)), content_type="application/json")
