"""Fills a table with shipped records; what is there already is left as it is."""

from __future__ import annotations

from django.db import transaction

from cutting.exchange.columns import Record
from server.records.models import Stamp
from server.records.registry import KEEPERS


def fill(table: str, records: list[Record]) -> None:
    """Add those of the records whose key is not kept yet."""
    keeper = KEEPERS[table]
    with transaction.atomic():
        names = keeper.names_needed(records)
        finished = {keeper.table.key(made): made for made in (keeper.finish(record, names) for record in records)}
        there = keeper.existing(list(finished))
        fresh = [record for key, record in finished.items() if key not in there]
        if fresh:
            keeper.insert_many(fresh, names, Stamp.bump(keeper.room), "shipped with the application")
