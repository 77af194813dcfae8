"""People come and go, and the shop's own troubles: signed out while typing, the database away, a backup brought back."""

from __future__ import annotations

import os
import signal
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from django.contrib.auth.models import User
from selenium import webdriver
from selenium.webdriver.common.keys import Keys

from house import backup, database
from server.people.models import Happening, Session
from tests.browser.person import Person
from tests.browser.test_main_job import open_rough_turn
from tests.server.killable import Shop, shop
from tests.server.test_backup import _bring_up

__all__ = ["shop"]
pytestmark = pytest.mark.browser
OWN = "a-lathe-of-my-own"


def _choose(person: Person, old: str, new: str) -> None:
    for field, text in (("old", old), ("new", new), ("again", new)):
        person.see(f"#password-{field}").send_keys(text)
    person.see("form button").click()


def _enter(person: Person, name: str, password: str) -> None:
    person.chrome.delete_all_cookies()
    person.chrome.get(person.site)
    person.see("input[name=name]").send_keys(name)
    person.see("input[name=password]").send_keys(password, Keys.ENTER)


def test_an_administrator_adds_a_person_and_locks_one(person: Person) -> None:
    assert not person.all("[role=menuitem]")
    person.sign_in("administrator")
    person.see("button[aria-label='administrator, menu']").click()
    person.see_text("[role=menuitem]", "People").click()
    person.see("#new-name").send_keys("Operator", Keys.ENTER)
    assert "called Operator already" in person.see("#new-name-refused").text
    person.type_over("#new-name", "ann")
    password = person.read("[data-testid=given]")
    person.see_text("[role=dialog] button", "Done").click()
    person.see_text("section[aria-label='What happened'] td", "added")
    person.see_text("section[aria-label=People] button", "never signed in").click()
    person.see_text("section[aria-label='The person'] button", "Lock").click()
    person.see_text("section[aria-label='What happened'] td", "locked")
    assert not User.objects.get(username="operator").is_active

    _enter(person, "operator", "read-the-chips")
    person.see_text("[role=alert]", "Wrong name or password")
    _enter(person, "ann", password)
    _choose(person, password, "short")
    assert "12" in person.see("#password-new-refused").text
    for field in ("old", "new", "again"):
        person.see(f"#password-{field}").clear()
    _choose(person, password, OWN)
    person.see_text("h1", "Jobs")
    assert person.see("button[aria-label='ann, menu']")
    assert set(Happening.objects.values_list("what", flat=True)) >= {"added", "locked", "refused", "password changed"}


def test_signed_out_while_typing_one_signs_in_and_goes_on(person: Person) -> None:
    open_rough_turn(person)
    person.type_over("#feed_per_rev", "0.31 mm/rev", "")  # still in the field
    Session.objects.filter(person__username="engineer").delete()
    person.press(Keys.ENTER)
    person.see("[aria-label='Sign in again'] input[name=password]").send_keys("turn-the-arrow", Keys.ENTER)
    person.until(lambda: not person.all("[aria-label='Sign in again']"), "the door closes behind")
    assert person.value("#feed_per_rev").startswith("0.31")
    person.saved(2)


@pytest.fixture
def own_shop(chrome: webdriver.Chrome, shop: Shop) -> Iterator[tuple[Person, Shop]]:
    """An engineer at a shop of the test's own, whose processes may be killed."""
    shop.start(prepare=True)
    somebody = Person(chrome, f"http://127.0.0.1:{shop.port}")
    somebody.sign_in("engineer")
    yield somebody, shop
    chrome.get("about:blank")
    chrome.get_log("browser")
    chrome.delete_all_cookies()


def test_the_database_is_away_while_typing_and_a_backup_comes_back(own_shop: tuple[Person, Shop], tmp_path: Path) -> None:
    person, there = own_shop
    person.see_text("a span", "Runner shaft").click()
    saved = backup.back_up(there.instance.environment(), tmp_path / "shop.zip")
    person.see_text("table a", "Rough turn Ø49.5").click()
    person.see("#feed_per_rev")
    person.settled()
    there.kill_database()
    person.type_over("#feed_per_rev", "0.31 mm/rev")
    person.see_text("[role=alert]", "The database does not answer")
    assert person.value("#feed_per_rev").startswith("0.31")
    database.start(there.instance)
    person.saved(2)  # by itself
    person.until(lambda: person.value("#feed_per_rev").startswith("0.31"), "what was typed")

    person.see_text("header nav a", "Runner shaft").click()
    person.see("#pieces")
    there.kill_database()
    person.type_over("#pieces", "777")
    person.see("#pieces-refused")
    database.start(there.instance)
    person.see_text("#pieces-refused button", "Try again").click()
    person.saved(3)
    assert person.value("#pieces") == "777"

    _stop(there)
    restored: dict[str, Any] = backup.restore(there.instance.environment(), saved, True, _bring_up, there.instance.use)
    assert restored["jobs"] > 0
    there.start(prepare=True)
    person.sign_in("engineer")  # nobody's session came back with it
    person.see_text("a span", "Runner shaft").click()
    person.saved(1)
    assert person.value("#pieces") != "777"


def _stop(there: Shop) -> None:
    assert there.server is not None
    os.killpg(there.server.pid, signal.SIGKILL)
    there.server.wait()
