"""Room to work: panes that are moved, folded and kept for the person, tables that are sorted, charts that answer."""

from __future__ import annotations

import pytest
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

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


def test_the_ranking_is_sorted_by_any_column(person: Person) -> None:
    open_rough_turn(person)
    person.until(lambda: len(person.all("[data-row]")) > 3, "the ranking")
    order = "return [...document.querySelectorAll('[data-row]')].map(e => Number(e.dataset.row))"
    assert person.chrome.execute_script(order) == sorted(person.chrome.execute_script(order))
    head = person.see_text(".area-candidates thead button", "pcs/edge")
    head.click()
    assert person.see(".area-candidates th[aria-sort=ascending]").text.startswith("pcs/edge")
    pieces = "return [...document.querySelectorAll('[data-row]')].map(e => parseFloat(e.cells[6].innerText))"
    up = person.chrome.execute_script(pieces)
    assert up == sorted(up)
    head.click()
    assert person.chrome.execute_script(pieces) == sorted(up, reverse=True)
    head.click()
    assert person.chrome.execute_script(order) == sorted(person.chrome.execute_script(order))


def test_a_chart_says_what_stands_under_the_keys(person: Person) -> None:
    open_rough_turn(person)
    person.see("main h2").click()
    person.press("l")
    chart = "[aria-label^='Cost per piece over cutting speed; arrow']"
    person.see(chart)
    person.chrome.execute_script("document.querySelector(arguments[0]).focus()", chart)
    person.press(Keys.ARROW_RIGHT)
    first = person.until(lambda: next((e.text for e in person.all("[data-testid=chart-reading]") if e.text), ""), "a reading")
    assert any(sign.isdigit() for sign in first)
    person.press(Keys.ARROW_RIGHT)
    person.until(lambda: [e.text for e in person.all("[data-testid=chart-reading]") if e.text not in ("", first)], "the next place")
    person.press(Keys.ESCAPE)  # puts the reading away, not the sheet
    person.until(lambda: not any(e.text for e in person.all("[data-testid=chart-reading]")), "no reading")
    assert person.see(chart).is_displayed()
    for form in ("CSV", "SVG", "PNG"):
        assert person.see(f"[aria-label='Cost per piece over cutting speed as {form}']").is_displayed()


def test_an_operation_leaves_the_bench_as_a_program(person: Person) -> None:
    open_rough_turn(person)
    person.see("main h2").click()
    person.press("i")
    text = person.until(lambda: person.see("[aria-label='Program text']").text, "the program")
    assert "G99 G1" in text
    assert text.rstrip().endswith("M30")
    assert "prove it out" in person.see("[role=dialog]").text
    assert "Not checked" in person.see("[role=dialog]").text
    Select(person.see("[aria-label='Control']")).select_by_value("plain lathe")
    person.until(lambda: person.see("[aria-label='Program text']").text.rstrip().endswith("M2"), "the other dialect")
