"""How far a run is, told from a thread of its own, so that it shows while the run's transaction is still open."""

from __future__ import annotations

import threading
import time
from types import TracebackType

from django.db import connection
from django.utils import timezone

from server.exchange.models import Run

INTERVAL = 0.3  # s between two signs of life


class Cancelled(Exception):
    """The person asked to stop; nothing was written."""


class Progress:
    """Counts in memory; without a run (tests, command line) it only counts."""

    def __init__(self, run_id: int | None = None) -> None:
        self.run_id, self.done, self.total = run_id, 0, 0
        self.cancelled = False
        self._stop = threading.Event()
        self._thread = threading.Thread(target=self._tell, daemon=True)

    def __enter__(self) -> Progress:
        if self.run_id is not None:
            self._thread.start()
        return self

    def __exit__(self, kind: type[BaseException] | None, error: BaseException | None, trace: TracebackType | None) -> None:
        if self.run_id is not None:
            self._stop.set()
            self._thread.join()

    def step(self, count: int = 1) -> None:
        """Some rows further. Raises `Cancelled` when the person asked to stop."""
        self.done += count
        if self.cancelled:
            raise Cancelled
        if self.done % 200 == 0:
            time.sleep(0)  # lets the telling thread have its turn

    def _tell(self) -> None:
        try:
            while not self._stop.wait(INTERVAL):
                mine = Run.objects.filter(pk=self.run_id, state=Run.State.RUNNING)
                mine.update(done=min(self.done, self.total), total=self.total, beat=timezone.now())
                self.cancelled = mine.filter(cancel=True).exists()
        finally:
            connection.close()
