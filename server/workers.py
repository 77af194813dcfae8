"""Settings of the web workers (gunicorn): each reads the crib's search index in the background as it starts."""

from __future__ import annotations

import logging
import threading
from typing import Any

log = logging.getLogger(__name__)


def post_worker_init(worker: Any) -> None:
    """Called by gunicorn in each new worker."""
    threading.Thread(target=_warm, daemon=True).start()


def _warm() -> None:
    from django.db import connection

    from server.crib.index import crib_index

    try:
        crib_index()
    except Exception:  # a worker serves without it too: the first search reads the crib then
        log.warning("the crib's index could not be read ahead", exc_info=True)
    finally:
        connection.close()
