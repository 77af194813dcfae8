"""Writes one table, or everything the shop keeps, into a CSV, XLSX or JSON file."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from cutting.errors import CuttingError
from cutting.exchange.tables import TABLES
from server.exchange.files import FORMATS
from server.exchange.runs import export
from server.work.progress import Progress


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file")
        parser.add_argument("--table", default="")

    def handle(self, *args: Any, **options: Any) -> None:
        file, table = Path(options["file"]), options["table"]
        form = file.suffix.lower().lstrip(".")
        if form not in FORMATS or (table and table not in TABLES):
            raise CommandError(f"The file must end in one of {', '.join(FORMATS)}, the table be one of {', '.join(TABLES)} or left out.")
        progress = Progress()
        try:
            file.write_bytes(export([table] if table else list(TABLES), form, progress))
        except (CuttingError, OSError) as error:
            raise CommandError(str(error)) from error
        self.stdout.write(f"{progress.done:,} rows written to {file}")
