"""Where the many pieces of a big study run: on this machine's cores, or on a Dask cluster whose address is set.

Both are executors of the standard library's kind, so a study knows of neither, and gives the same with both.
"""

from __future__ import annotations

import logging
import multiprocessing
import os
from collections.abc import Callable, Iterator, Sequence
from concurrent.futures import Executor, ProcessPoolExecutor, as_completed
from contextlib import contextmanager, nullcontext
from typing import Any, TypeVar

from django.conf import settings

from server.errors import Refusal
from server.work.polite import with_parent
from server.work.progress import Progress

R = TypeVar("R")
PATIENCE = "10s"  # that a cluster may take to answer
log = logging.getLogger(__name__)


@contextmanager
def executor(near: bool = False) -> Iterator[Executor]:
    """What runs pieces, on this machine where they are wanted `near`. Raises a 422 refusal where the cluster does not answer."""
    if settings.STUDY_CLUSTER and not near:
        with _cluster(settings.STUDY_CLUSTER) as pool:
            yield pool
        return
    # fresh processes: what asks has threads of its own, and those are not to be copied
    fresh = multiprocessing.get_context("spawn")
    with ProcessPoolExecutor(settings.STUDY_PROCESSES, mp_context=fresh, initializer=with_parent, initargs=(os.getpid(),)) as pool:
        yield pool


@contextmanager
def _cluster(address: str) -> Iterator[Executor]:
    try:
        from distributed import Client  # a second to read, and few shops have a cluster
    except ImportError as error:
        raise Refusal(422, "The packages of a cluster are not installed here: see docs/deploy, 'More than one machine'.") from error

    try:
        client = Client(address, timeout=PATIENCE)
    except (OSError, TimeoutError, ValueError) as error:
        log.warning("no cluster at %s: %s", address, error)
        raise Refusal(422, f"The cluster at {address} does not answer.") from error
    with client, client.get_executor(pure=False) as pool:
        yield pool


def each(
    function: Callable[..., R], pieces: Sequence[tuple[Any, ...]], progress: Progress, mine: int = 0, ready: Executor | None = None
) -> list[R]:
    """The function of the arguments of every piece, in their order; it is one that needs nothing of the application.

    The first `mine` are done by this process while the others run, by what is `ready` or on this machine. Raises `Cancelled` when
    the person asked to stop.
    """
    progress.total += len(pieces)
    with nullcontext(ready) if ready else executor(near=mine > 0) as pool:
        futures = {pool.submit(function, *piece): mine + place for place, piece in enumerate(pieces[mine:])}
        found: dict[int, R] = {}
        try:
            for place in range(mine):
                found[place] = function(*pieces[place])
                progress.step()
            for future in as_completed(futures):
                found[futures[future]] = future.result()
                progress.step()
        except BaseException:
            for future in futures:
                future.cancel()
            raise
    return [found[place] for place in range(len(pieces))]
