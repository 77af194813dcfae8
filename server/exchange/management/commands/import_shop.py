"""Takes in a CSV, XLSX or JSON file: shows what becomes of every row, and with --apply writes it, all or nothing."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.contrib.auth.models import User
from django.core.management.base import BaseCommand, CommandError, CommandParser

from cutting.errors import CuttingError
from server.exchange.apply import apply_plan
from server.exchange.files import format_of, read_file
from server.exchange.plan import CHANGED, REFUSED, plan_import
from server.work.progress import Progress

MOST_LINES = 40


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file")
        parser.add_argument("--table", default="")
        parser.add_argument("--apply", action="store_true")

    def handle(self, *args: Any, **options: Any) -> None:
        file = Path(options["file"])
        try:
            content = file.read_bytes()
            plan = plan_import(read_file(content, format_of(file.name, content), options["table"]), Progress())
        except (CuttingError, OSError) as error:
            raise CommandError(str(error)) from error
        told = [fate for fate in plan.fates if fate.fate in (CHANGED, REFUSED)]
        for fate in told[:MOST_LINES]:
            self.stdout.write(f"{fate.table} row {fate.row}: {fate.fate}, {fate.label}: {fate.why}")
        if len(told) > MOST_LINES:
            self.stdout.write(f"… and {len(told) - MOST_LINES:,} more")
        self.stdout.write(", ".join(f"{count:,} {name}" for name, count in plan.counts.items()))
        if not options["apply"]:
            return
        if plan.counts[REFUSED]:
            raise CommandError("Rows are refused; nothing was written.")
        author = User.objects.filter(preferences__role="engineer").order_by("pk").first()
        apply_plan(plan, author, f"import of {file.name}", Progress())
        self.stdout.write("written")
