"""How a process of a pool behaves. It is read before anything of the application is."""

from __future__ import annotations

import ctypes
import os
import signal

NICER = 5


def with_parent(parent: int) -> None:
    """Ends with who asked, and lets who waits at a page go first."""
    ctypes.CDLL(None).prctl(1, signal.SIGKILL)  # PR_SET_PDEATHSIG
    if os.getppid() != parent:  # gone before that was said
        os._exit(1)
    os.nice(NICER)
