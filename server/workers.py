"""Settings of the web workers (gunicorn)."""

from __future__ import annotations

import gc
from typing import Any

limit_request_line = 8190  # what is longer than the application takes gets its own answer
keepalive = 75  # s; who asks every other second finds the line open
max_requests, max_requests_jitter = 40_000, 10_000  # answers after which a worker makes room for a fresh one: memory goes back
RARELY = (50_000, 20, 50)  # what is kept of rankings and outcomes holds no cycles; an answer makes a few thousand objects


def when_ready(server: Any) -> None:
    """Called by gunicorn before the workers part from it."""
    gc.collect()


def post_worker_init(worker: Any) -> None:
    """Called by gunicorn in each new worker."""
    # what is read by now stays: walking it again and again for cycles stops a worker for 150 ms, in the middle of somebody's nudge
    gc.freeze()
    gc.set_threshold(*RARELY)
