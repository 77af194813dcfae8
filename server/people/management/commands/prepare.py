"""Brings the database up to date and fills in the demo data where it is empty and the shop wants it."""

from __future__ import annotations

from typing import Any

from django.conf import settings
from django.core.management import call_command
from django.core.management.base import BaseCommand
from django.db import connection
from django.db.migrations.executor import MigrationExecutor

from server.crib.demo import fill_crib
from server.crib.models import Tool
from server.floor.demo import fill_floor
from server.floor.models import Machine
from server.jobs.demo.jobs import fill_jobs
from server.jobs.models import Job
from server.people.demo import fill_people
from server.shelf.demo import fill_shelf
from server.shelf.models import Material
from server.trials.demo import fill_trials
from server.trials.models import Trial


class Command(BaseCommand):
    help = __doc__
    requires_system_checks: list[str] = []  # the tests make them; they read every room of the application, at each start

    def handle(self, *args: Any, **options: Any) -> None:
        executor = MigrationExecutor(connection)
        if executor.migration_plan(executor.loader.graph.leaf_nodes()):  # where nothing waits the command still takes seconds
            call_command("migrate", interactive=False, verbosity=0)
        if not settings.DEMO:
            return
        fill_people()
        for model, fill in ((Material, fill_shelf), (Tool, fill_crib), (Machine, fill_floor), (Job, fill_jobs), (Trial, fill_trials)):
            if not model.objects.exists():
                fill()
