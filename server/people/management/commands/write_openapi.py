"""Writes the OpenAPI document, from which the interface's types are made."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from server.api import api


def openapi_text() -> str:
    """The OpenAPI document as text."""
    return json.dumps(api.get_openapi_schema(), indent=1, ensure_ascii=False, sort_keys=False) + "\n"


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file")

    def handle(self, *args: Any, **options: Any) -> None:
        Path(options["file"]).write_text(openapi_text(), encoding="utf-8")
