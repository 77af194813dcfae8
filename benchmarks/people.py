"""What people do at human pace, for locust: nudge, read the ranking that follows, save, search the crib."""

from __future__ import annotations

import itertools
import os
import random
from typing import Any

import gevent
from locust import FastHttpUser, constant_pacing, task

from server.people.demo_people import PEOPLE

NUDGES = {"feed_per_rev": (0.12, 0.3, "mm/rev"), "cutting_speed": (120, 240, "m/min")}

seated: list[FastHttpUser] = []


class Engineer(FastHttpUser):
    """Somebody at a bench of their own copy of a demo job."""

    wait_time = constant_pacing(2)

    def on_start(self) -> None:
        name, password, _ = PEOPLE[0]
        self.token = self._ask("get", "/api/session", "sign in").json()["token"]
        self.token = self._ask("post", "/api/session", "sign in", {"name": name, "password": password}).json()["token"]
        made = self._ask("post", f"/api/jobs/{self._shaft()}/copy", "copy a job", {}).json()
        self.job, self.revision = made["id"], made["revision"]
        self.turned = [row["id"] for row in made["document"]["operations"] if "feed_per_rev" in row["settings"]] or ["op30"]
        self._sit_down()

    def _shaft(self) -> int:
        """The demo's own, among the copies of earlier runs."""
        for start in itertools.count(0, 200):
            rows = self._ask("get", f"/api/jobs?q=runner&limit=200&offset={start}", "jobs").json()["rows"]
            for job in rows:
                if job["name"] == "Runner shaft":
                    return int(job["id"])
            if not rows:
                break
        raise LookupError("The demo's Runner shaft is not there.")

    def _sit_down(self) -> None:
        """What is measured begins when the last has signed in and has a job of their own."""
        runner = self.environment.runner
        seated.append(self)
        if runner and len(seated) == runner.target_user_count:
            runner.stats.reset_all()
            gevent.spawn_later(float(os.environ.get("LOAD_SECONDS", "60")), runner.quit)

    @task
    def nudge(self) -> None:
        operation = random.choice(self.turned)
        name = random.choice(list(NUDGES))
        low, high, unit = NUDGES[name]
        tried = {"settings": {name: f"{random.uniform(low, high):.3g} {unit}"}}
        place = f"/api/jobs/{self.job}/operations/{operation}"
        self._ask("post", f"{place}/evaluate", "evaluate", tried)
        self._ask("post", f"{place}/follow", "follow", tried)
        what = random.random()
        if what < 0.2:
            edit = {"action": "set_settings", "operation": operation, **tried}
            saved = self._ask("post", f"/api/jobs/{self.job}/edits", "save", {"base_revision": self.revision, "edit": edit}).json()
            self.revision = saved.get("revision", self.revision)
        elif what < 0.3:
            self._ask("get", "/api/crib/tools?q=CNMG", "search the crib")

    def _ask(self, method: str, path: str, name: str, data: Any = None) -> Any:
        headers = {"X-CSRFToken": getattr(self, "token", "")}
        return self.client.request(method, path, name=name, json=data, headers=headers)
