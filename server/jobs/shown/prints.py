"""A print of a part as a picture on the screen: decoded and drawn apart, one at a time, within a time and a memory of its own."""

from __future__ import annotations

import resource
import subprocess
import sys
from pathlib import Path
from threading import Semaphore

from server.errors import Refusal
from server.jobs.models import Print

DRAWER = Path(__file__).with_name("draw_apart.py")
LONGEST = 15.0  # s
MOST_MEMORY = 1_500_000_000  # bytes of address space: 80 million pixels of four colours, twice, and what is read
PATIENCE = 20.0  # s that somebody waits for the turn of their drawing
REFUSED = 3  # how the drawer ends where it says why
_turn = Semaphore(1)


def drawn_anew(content: bytes, media_type: str) -> bytes:
    """A PNG or JPEG decoded and written again, upright, with nothing but its pixels; a PDF as it is.

    Raises a 422 refusal for a giant, and for what is no whole picture.
    """
    return content if media_type == "application/pdf" else _apart("upright", content, media_type)


def picture_of(found: Print) -> tuple[bytes, str]:
    """The picture and its media type: of a PDF its first page, drawn once. Raises a 422 refusal for a file that cannot be drawn."""
    if found.media_type != "application/pdf":
        return bytes(found.content), found.media_type
    if found.picture is None:
        found.picture = _apart("page", bytes(found.content), found.media_type)
        found.save(update_fields=["picture"])
    return bytes(found.picture), "image/png"


def _bounded() -> None:
    resource.setrlimit(resource.RLIMIT_AS, (MOST_MEMORY, MOST_MEMORY))


def _apart(what: str, content: bytes, media_type: str) -> bytes:
    if not _turn.acquire(timeout=PATIENCE):
        raise Refusal(503, "Other drawings are being drawn: try again in a moment. The file is kept.")
    try:
        done = subprocess.run(
            [sys.executable, str(DRAWER), what, media_type],
            input=content, capture_output=True, timeout=LONGEST, check=False, preexec_fn=_bounded,
        )  # fmt: skip
    except subprocess.TimeoutExpired as error:
        raise _refusal(f"takes longer than {LONGEST:.0f} s to draw; it can be opened as a file.") from error
    finally:
        _turn.release()
    if done.returncode:
        said = done.stderr.decode(errors="replace").strip().splitlines()
        raise _refusal(said[-1] if done.returncode == REFUSED and said else "cannot be drawn: it is not whole, or too large.")
    return done.stdout


def _refusal(said: str) -> Refusal:
    message, _, bound = said.partition("|")
    return Refusal(422, f"file: {message}", [{"field": "file", "message": message, **({"bound": bound} if bound else {})}])
