"""The real interface in headless Chromium against a live server with the demo data."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import pytest
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
        fill_all()
    return str(live_server.url)


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
