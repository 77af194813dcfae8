"""Two stories: the heavy tool that falls out of the changer until it is lighter, and a hole milled because no place was left."""

from __future__ import annotations

import re

import pytest
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from tests.browser.person import Person
from tests.browser.test_turning_stories import broken, leave, number, open_operation

pytestmark = pytest.mark.browser
LIMITS = "[aria-label=Limits] li"


def moment(person: Person) -> float:
    """The tilting moment as the picture says it."""
    said = person.until(lambda: person.see("section svg[role=img]").get_attribute("aria-label"), "the picture's words")
    return float(re.findall(r"([\d.]+) N·m", said)[0])


def cell(person: Person, label: str, text: str) -> None:
    field = person.see(f"input[aria-label='{label}']")
    field.send_keys(Keys.CONTROL, "a")
    field.send_keys(text, Keys.TAB)


def test_the_heavy_tool_that_falls_out_of_the_changer(person: Person) -> None:
    person.go("/crib/heavy-tools")
    pick = Select(person.see("select[aria-label='Heavy tool']"))
    person.until(lambda: any("not carried" in one.text for one in pick.options), "the solid tool in the list")
    pick.select_by_visible_text(next(one.text for one in pick.options if "not carried" in one.text))
    person.until(lambda: "solid steel" in person.read("main h2"), "the solid tool")
    person.settled()
    assert moment(person) > 25
    top = person.read(LIMITS)
    assert "■" in top
    assert "tilting moment" in top
    assert "does not" in person.read("[aria-label='Who carries it']")

    # a body of aluminium is carried; it is saved, and comes back when it is looked for again
    row = person.until(lambda: next((r for r in person.all("[data-testid=heavy-remedy]") if "aluminium" in r.text), None), "the remedy")
    row.find_element(By.CSS_SELECTOR, "button").click()
    person.until(lambda: moment(person) < 15, "a lighter tool")
    person.see_text("header", "saved, version 2")
    assert "carries it" in person.read("[aria-label='Who carries it']")
    person.reload()
    person.until(lambda: person.all("select[aria-label='Heavy tool'] option"), "the list")

    # a tube too thin for its size is refused beside its cell, and what was typed stands
    cell(person, "inside Ø of tube", "120 mm")
    person.see_text("[role=alert]", "not below the outside")
    assert person.value("input[aria-label='inside Ø of tube']") == "120 mm"
    cell(person, "inside Ø of tube", "70 mm")
    person.until(lambda: not person.all("td [role=alert]"), "the refusal is gone")

    # undo brings back what was, and the working of a limit opens
    before = moment(person)
    person.see("body").send_keys(Keys.CONTROL, "z")
    person.until(lambda: moment(person) != before, "undone")
    person.all(LIMITS)[0].find_element(By.CSS_SELECTOR, "button").click()
    person.see_text("[role=dialog]", "Working")


def test_drill_or_helix_decided_by_places(person: Person) -> None:
    open_operation(person, "Valve cap, flat floors", "Vent hole")
    rows = person.until(lambda: person.all("section[aria-label^='Tool ranking'] tbody tr"), "the ranking")
    assert "carbide 14" in rows[0].text
    person.see_text("section[aria-label^='Tool ranking'] tbody tr", "used in op 10, 20")  # the mill that is there already makes it too

    # for itself the drill is quicker; with a price on every tool the mill takes it over
    person.see_text("header a", "Valve cap").click()
    person.see_text("main", "Run order")
    person.press("t")
    person.see_text("[role=dialog]", "The best tools")
    person.see_text("[data-testid=best-total]", "tools at")
    person.type_over("[role=dialog] input", "50", Keys.TAB)
    person.see_text("[role=dialog] tr, [role=dialog] li", "helix")
    person.see_text("[role=dialog] button", "Take").click()
    person.saved(2)
    row = person.see_text("main table a", "Vent hole")
    row.click()
    person.settled()
    assert broken(person) == ""

    # the pitch is nudged: ramp and time follow; on the map the arrow keys move it
    flat = number(person.see_text("section[aria-label=Result]", "ramp angle").text.split("ramp angle")[1])
    person.type_over("#pitch", "0.4 mm", Keys.ENTER)
    person.saved(3)
    person.settled()
    assert number(person.see_text("section[aria-label=Result]", "ramp angle").text.split("ramp angle")[1]) < flat
    person.chrome.execute_script("document.querySelector('#operation-map').focus()")
    person.press(Keys.ARROW_UP)
    person.saved(4)
    person.settled()

    # a sheet of other kinds says why it does not apply here
    person.see("main h2").click()
    person.press("l")
    assert "planned change" in person.read("[data-testid=not-here]")
    leave(person)

    # too steep for its end it says so
    person.type_over("#pitch", "3.6 mm", Keys.ENTER)
    person.until(lambda: "helix pitch" in broken(person), "the limit")
