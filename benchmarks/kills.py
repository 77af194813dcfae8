"""Web, workers and database killed at random while three people save: what was lost, what was done twice."""

from __future__ import annotations

import json
import os
import random
import signal
import tempfile
import threading
import time
import urllib.request
import uuid
from collections.abc import Iterator
from http.client import HTTPException
from pathlib import Path
from typing import Any
from urllib.error import HTTPError

from benchmarks.sizes import FULL, Sizes
from house import backup, database
from tests.server.killable import Shop

WRITERS = 3
BETWEEN = (0.05, 0.8)  # s from a start to the next kill
PATIENCE = 300.0  # s that a writer tries one save; a page goes on for as long as it is open


class Writer:
    """Somebody who saves without pause, each save under its own key until it is acknowledged."""

    def __init__(self, shop: Shop, job: int) -> None:
        self.shop, self.job, self.revision = shop, job, 1
        self.said: list[str] = []  # what was acknowledged, in order
        self.wrong: list[str] = []
        self.tries = 0
        self.stop = threading.Event()
        self.thread = threading.Thread(target=self._work, daemon=True)

    def _work(self) -> None:
        while not self.stop.is_set():
            name = f"saved {len(self.said)} {uuid.uuid4().hex[:6]}"
            answer = self._save(name, uuid.uuid4().hex)
            if answer is None:
                return
            self.revision = answer["revision"]
            self.said.append(name)

    def _save(self, name: str, key: str) -> dict[str, Any] | None:
        body = json.dumps({"base_revision": self.revision, "edit": {"action": "set_part", "name": name}}).encode()
        until = time.monotonic() + PATIENCE
        while time.monotonic() < until:
            self.tries += 1
            headers = {"Content-Type": "application/json", "X-CSRFToken": self.shop.token, "Idempotency-Key": key}
            request = urllib.request.Request(f"http://127.0.0.1:{self.shop.port}/api/jobs/{self.job}/edits", body, headers)
            try:
                with self.shop.opener.open(request, timeout=20) as answer:
                    return dict(json.load(answer))
            except HTTPError as error:
                if error.code < 500:
                    self.wrong.append(f"{error.code} {error.read()[:120]!r}")
                    return None
            except (OSError, HTTPException, ValueError):  # no answer, or half of one
                pass
            time.sleep(0.1)
        self.wrong.append(f"not acknowledged within {PATIENCE:.0f} s")
        return None


def measure(site: str = "", sizes: Sizes = FULL) -> Iterator[str]:
    """Lines to print."""
    with tempfile.TemporaryDirectory() as folder:
        shop = Shop(Path(folder))
        shop.start(prepare=True)
        shop.sign_in()
        shaft = next(job["id"] for job in shop.ask("/api/jobs")["rows"] if job["name"] == "Runner shaft")
        writers = [Writer(shop, shop.ask(f"/api/jobs/{shaft}/copy", {})["id"]) for _ in range(WRITERS)]
        workers, run = shop.workers(), _export(shop)
        for writer in writers:
            writer.thread.start()
        began, killed = time.monotonic(), dict.fromkeys(("web", "workers", "database"), 0)
        for _ in range(sizes.kills):
            time.sleep(random.uniform(*BETWEEN))
            what = random.choice(list(killed))
            killed[what] += 1
            if what == "database":
                shop.kill_database()
                database.start(shop.instance, moving=False)
            elif what == "workers":
                workers.kill()
                workers.wait()
                workers = shop.workers()
            else:
                assert shop.server is not None
                os.killpg(shop.server.pid, signal.SIGKILL)
                shop.server.wait()
                shop.start(prepare=False)
        gone = sum(not writer.thread.is_alive() for writer in writers)
        for writer in writers:
            writer.stop.set()
            writer.thread.join(PATIENCE + 30)
        which = ", ".join(f"{count} of the {name}" for name, count in killed.items())
        yield f"{sizes.kills} kills in {time.monotonic() - began:.0f} s: {which}"
        if gone:
            yield f"{gone} of {WRITERS} writers gave up before the end"
        yield from _judged(shop, writers)
        shop.wait(run, "done", seconds=60)
        yield f"an export begun before them is done, {shop.ask(f'/api/exchange/runs/{run}')['seconds']:.1f} s"
        workers.terminate()
        workers.wait()
        shop.kill()


def _export(shop: Shop) -> int:
    return int(shop.ask("/api/exchange/exports", {"table": "tools", "format": "csv"})["id"])


def _patient(shop: Shop, path: str) -> Any:
    """An answer, once the last thing killed is back."""
    until = time.monotonic() + PATIENCE
    while True:
        try:
            return shop.ask(path)
        except (HTTPError, OSError):
            if time.monotonic() > until:
                raise
            time.sleep(0.2)


def _judged(shop: Shop, writers: list[Writer]) -> Iterator[str]:
    lost = twice = saves = tries = 0
    wrong: list[str] = []
    for writer in writers:
        _patient(shop, f"/api/jobs/{writer.job}")
        # all of them: the list that people see ends after two hundred
        there = backup._sql(shop.instance.environment(), f"SELECT gesture FROM jobs_revision WHERE job_id = {writer.job}").splitlines()
        for name in writer.said:
            found = sum(name in gesture for gesture in there)
            lost, twice = lost + (found == 0), twice + (found > 1)
        saves, tries, wrong = saves + len(writer.said), tries + writer.tries, [*wrong, *writer.wrong]
        if len(there) - 1 not in (len(writer.said), len(writer.said) + 1):
            wrong.append(f"{len(there) - 1} revisions for {len(writer.said)} saves")
    more = "".join(f"; {one}" for one in wrong[:5])
    yield f"{saves:,} saves acknowledged in {tries:,} tries: {lost} lost, {twice} twice, {len(wrong)} wrong{more}"
