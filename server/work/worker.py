"""The worker processes: as many as asked for, each bounded in memory and polite to the web; what dies is replaced."""

from __future__ import annotations

import ctypes
import gc
import logging
import os
import resource
import signal
import time
from collections.abc import Callable
from types import FrameType
from typing import Any

from django.conf import settings
from django.db import OperationalError, connections
from django.utils.crypto import get_random_string
from django_tasks_db.management.commands.db_worker import Worker

import server.jobs.sheet.drawn  # noqa: F401 - read before the workers part from this process
from cutting.quantities.kinds import registry
from server.jobs.kept.reckonings import catch_up
from server.work.housekeeping import tidy
from server.work.tasks import rescue

log = logging.getLogger(__name__)
PAUSE = 0.2  # s between two looks into an empty queue
RESCUE_EVERY = 3.0  # s
CATCH_UP_EVERY = 15.0  # s between two looks for jobs whose reckoning does not hold
TIDY_EVERY = 3600.0  # s
GROWN = 500  # MB from which a worker makes room for a fresh one
AT_ONCE = 5  # tasks between two looks around
PATIENCE = 8.0  # s that a stopping worker may finish in


def supervise(processes: int) -> None:
    """Keep so many workers until told to stop."""
    stopping = False

    def stop(_signal: int, _frame: FrameType | None) -> None:
        nonlocal stopping
        stopping = True

    for one in (signal.SIGTERM, signal.SIGINT):
        signal.signal(one, stop)
    workers: set[int] = set()
    tidied = -TIDY_EVERY
    registry()
    gc.freeze()  # what is read by now is shared between the workers
    while not stopping:
        while len(workers) < processes:
            workers.add(_fork())
        if time.monotonic() - tidied > TIDY_EVERY:
            tidied = time.monotonic()
            _tolerant(tidy)
            connections.close_all()
        _bury(workers)
        time.sleep(PAUSE)
    for pid in workers:
        os.kill(pid, signal.SIGTERM)
    until = time.monotonic() + PATIENCE
    while workers and time.monotonic() < until:
        _bury(workers)
        time.sleep(0.05)
    for pid in workers:  # taken up again at the next start
        os.kill(pid, signal.SIGKILL)
        os.waitpid(pid, 0)


def _bury(workers: set[int]) -> None:
    for pid in list(workers):
        if os.waitpid(pid, os.WNOHANG)[0]:
            workers.discard(pid)


def _fork() -> int:
    connections.close_all()  # a connection serves one process
    if pid := os.fork():
        return pid
    try:
        ctypes.CDLL(None).prctl(1, signal.SIGKILL)  # PR_SET_PDEATHSIG: no worker outlives its keeper
        os.nice(5)  # who waits at a page comes first
        bound = settings.WORK_MEGABYTES * 1024 * 1024
        resource.setrlimit(resource.RLIMIT_DATA, (bound, bound))
        serve()
    except SystemExit:
        pass
    except OperationalError as error:
        log.warning("a worker ends, the database does not answer: %s", error)
        time.sleep(1)
    except BaseException:
        log.exception("a worker ends")
        time.sleep(1)  # no storm of workers where the database is away
    finally:
        os._exit(0)


def serve(once: bool = False) -> None:
    """Work through the queue; ends when told to, when it has grown, or, asked so, when nothing waits."""
    rescued, look_again = -RESCUE_EVERY, 0.0
    while True:
        if time.monotonic() - rescued > RESCUE_EVERY:
            rescued = time.monotonic()
            _tolerant(rescue)
        worker = Worker(
            queue_names=["*"],
            interval=0,
            batch=True,
            backend_name="default",
            startup_delay=False,
            max_tasks=AT_ONCE,
            worker_id=get_random_string(32),
            excluded_queue_names=[],
        )
        worker.configure_signals()
        worker.run()
        if not worker.running or resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024 > GROWN:
            return
        if worker._run_tasks == 0:
            if once:
                return
            if time.monotonic() > look_again and not _tolerant(catch_up):
                look_again = time.monotonic() + CATCH_UP_EVERY
            time.sleep(PAUSE)


def _tolerant(act: Callable[[], Any]) -> Any:
    try:
        return act()
    except OperationalError as error:
        log.warning("the database does not answer: %s", error)
        connections.close_all()
