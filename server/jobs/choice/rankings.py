"""Rankings, kept while neither their request nor the shop has changed: a nudge of speed or feed asks for the same one again."""

from __future__ import annotations

from collections import OrderedDict
from threading import Lock
from typing import Any

from cutting.advice import Advice, advise
from server.shop import Shop, Version

MOST_KEPT = 96
_kept: OrderedDict[tuple[Version, Any], Advice] = OrderedDict()
_lock = Lock()


def ranked(setup: Any, crib: Any, stock: Shop) -> Advice:
    """The ranking of a request; `crib` is what the shop has for it. Raises `CuttingError`."""
    key = (stock.version, setup)
    with _lock:
        if key in _kept:
            _kept.move_to_end(key)
            return _kept[key]
    made = advise(setup, crib)
    with _lock:
        _kept[key] = made
        while len(_kept) > MOST_KEPT:
            _kept.popitem(last=False)
    return made
