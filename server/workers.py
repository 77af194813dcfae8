"""Settings of the web workers (gunicorn): each reads what it will need in the background as it starts, and sets it aside."""

from __future__ import annotations

import gc
import logging
import threading
from typing import Any

log = logging.getLogger(__name__)


def post_worker_init(worker: Any) -> None:
    """Called by gunicorn in each new worker."""
    threading.Thread(target=_warm, daemon=True).start()


def _warm() -> None:
    from django.db import connection
    from django.urls import get_resolver

    from server.crib.index import crib_index

    try:
        _ = get_resolver().url_patterns  # with every room behind it
        crib_index()
    except Exception:  # a worker serves without it too: the first search reads the crib then
        log.warning("the crib's index could not be read ahead", exc_info=True)
    finally:
        connection.close()
    # what is read by now stays: walking it again and again for cycles stops a worker for 150 ms, in the middle of somebody's nudge
    gc.collect()
    gc.freeze()
