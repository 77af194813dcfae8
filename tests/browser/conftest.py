"""The real interface in headless Chromium against a live server with the demo data."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import pytest
from django.db import connection
from selenium import webdriver

from server.jobs.models import Job
from tests.browser.chromium import open_browser
from tests.browser.person import Person
from tests.server.conftest import fill_all


@pytest.fixture(scope="session")
def chrome() -> Iterator[webdriver.Chrome]:
    made = open_browser()
    yield made
    made.quit()


@pytest.fixture
def site(transactional_db: None, live_server: Any) -> str:
    """The address of a server with fresh demo data."""
    if not Job.objects.exists():
        filled()
    return str(live_server.url)


KEPT = "as_filled_"  # tables that no test empties: the demo data as it was filled in once


def filled() -> None:
    """Fill in the demo data: by the application the first time, from its own rows after that."""
    with connection.cursor() as cursor:
        there = connection.introspection.table_names(cursor)
        tables = [name for name in connection.introspection.django_table_names(only_existing=True) if name != "django_migrations"]
        if not any(name.startswith(KEPT) for name in there):
            fill_all()
            for name in tables:
                cursor.execute(f"CREATE TABLE `{KEPT}{name}` AS SELECT * FROM `{name}`")
            return
        cursor.execute("SET FOREIGN_KEY_CHECKS = 0")
        for name in tables:
            cursor.execute(f"DELETE FROM `{name}`")
            cursor.execute(f"INSERT INTO `{name}` SELECT * FROM `{KEPT}{name}`")
        cursor.execute("SET FOREIGN_KEY_CHECKS = 1")


@pytest.fixture
def person(chrome: webdriver.Chrome, site: str) -> Iterator[Person]:
    """An engineer at the jobs list. At the end the console must hold no violation and no error."""
    chrome.get_log("browser")
    somebody = Person(chrome, site)
    somebody.sign_in("engineer")
    yield somebody
    log = chrome.get_log("browser")
    chrome.get("about:blank")
    somebody.pause(0.4)  # requests under way end before the database is taken away
    chrome.delete_all_cookies()
    said = [entry["message"] for entry in log if entry["level"] == "SEVERE"]
    # refusals that a test provokes are answers, not failures; the network log line for them is the browser's own
    assert [line for line in said if "the server responded with a status of 4" not in line] == []
