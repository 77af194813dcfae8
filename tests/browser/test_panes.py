"""The bench's panes: as much room as the work wants, moved and folded with keys, kept for the person."""

from __future__ import annotations

import pytest
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.browser.test_main_job import open_rough_turn

pytestmark = pytest.mark.browser
HEIGHT = "return document.querySelector(arguments[0]).getBoundingClientRect().height"
WHOLE = """const box = document.querySelector('.area-candidates table').closest('.overflow-auto').getBoundingClientRect();
return [...document.querySelectorAll('[data-row]')].filter(e => e.getBoundingClientRect().bottom <= box.bottom + 1).length"""


def edge(person: Person, label: str) -> None:
    person.chrome.execute_script("document.querySelector(`[role=separator][aria-label='${arguments[0]}']`).focus()", label)


def height(person: Person, area: str) -> float:
    return float(person.chrome.execute_script(HEIGHT, area))


def test_panes_are_moved_folded_and_remembered(person: Person) -> None:
    open_rough_turn(person)
    person.until(lambda: person.all("[data-row]"), "the ranking")
    assert person.chrome.execute_script(WHOLE) >= 5  # as it came, at 1280 x 800
    before = height(person, ".area-scene")
    edge(person, "height of the scene")
    person.press(Keys.ARROW_DOWN, Keys.ARROW_DOWN)
    person.until(lambda: height(person, ".area-scene") == pytest.approx(before + 32, abs=1), "a taller scene")
    edge(person, "width of the limits")
    person.press(Keys.ENTER)
    person.until(lambda: person.chrome.execute_script("return document.querySelector('.area-rails').offsetWidth") < 40, "limits folded")
    person.pause(1.5)  # the sizes are kept after a rest
    person.reload()
    person.until(lambda: person.all("[data-row]"), "the ranking again")
    assert height(person, ".area-scene") == pytest.approx(before + 32, abs=1)
    assert person.chrome.execute_script("return document.querySelector('.area-rails').offsetWidth") < 40
    edge(person, "width of the limits")
    person.press(Keys.ENTER)
    person.until(lambda: person.chrome.execute_script("return document.querySelector('.area-rails').offsetWidth") > 250, "limits back")
    edge(person, "height of the scene")
    person.press(Keys.HOME)
    person.until(lambda: height(person, ".area-scene") == pytest.approx(before, abs=1), "the scene as it came")
