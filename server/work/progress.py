"""How far a piece of work is, told from a thread of its own, so that it shows while the work's transaction is still open."""

from __future__ import annotations

import logging
import os
import threading
import time
from types import TracebackType

from django.conf import settings
from django.db import connection
from django.utils import timezone

from server.work.models import LongWork

INTERVAL = 0.3  # s between two signs of life
log = logging.getLogger(__name__)


class Cancelled(Exception):
    """The person asked to stop; nothing was written."""


class Progress:
    """Counts in memory; without a row (tests, command line) it only counts."""

    def __init__(self, row: LongWork | None = None) -> None:
        self.row, self.done, self.total = row, 0, 0
        self.cancelled = False
        self._stop = threading.Event()
        self._thread = threading.Thread(target=self._tell, daemon=True)

    def __enter__(self) -> Progress:
        if self.row is not None:
            self._thread.start()
        return self

    def __exit__(self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None) -> None:
        if self.row is not None:
            self._stop.set()
            self._thread.join()

    def step(self, count: int = 1) -> None:
        """Some steps further. Raises `Cancelled` when the person asked to stop."""
        self.done += count
        if self.cancelled:
            raise Cancelled
        if self.done % 200 == 0:
            time.sleep(0)  # lets the telling thread have its turn

    def _tell(self) -> None:
        assert self.row is not None
        ends = time.monotonic() + settings.WORK_SECONDS
        try:
            while not self._stop.wait(INTERVAL):
                if time.monotonic() > ends:  # nothing else ends a thread that calculates on and on
                    log.error("%s %s takes longer than %s s; this worker ends", type(self.row).__name__, self.row.pk, settings.WORK_SECONDS)
                    os._exit(70)
                mine = type(self.row).objects.filter(pk=self.row.pk, state=LongWork.State.RUNNING)
                mine.update(done=min(self.done, self.total), total=self.total, beat=timezone.now())
                self.cancelled = mine.filter(cancel=True).exists()
        finally:
            connection.close()
