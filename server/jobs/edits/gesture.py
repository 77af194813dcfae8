"""What every edit has: the operation that it is made on."""

from __future__ import annotations

from typing import Any

from pydantic import ConfigDict, Field

from server.errors import Refusal
from server.schema import Schema


class Gesture(Schema):
    """A change that one hand makes in steps: they are undone as one."""

    model_config = ConfigDict(extra="forbid")
    operation: str = Field(default="", max_length=20)

    def target(self, document: dict[str, Any]) -> dict[str, Any]:
        """What it changes: steps on the same belong together."""
        for entry in document["operations"]:
            if entry["id"] == self.operation:
                return entry
        raise Refusal(404, "The job has no such operation.", [{"field": "edit.operation", "message": "not in this job"}])
