"""Stories of threads: a wrong sense caught, a tap given up for a mill by its risk, a spindle over wires, three tools against one."""

from __future__ import annotations

import pytest
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from tests.browser.person import Person
from tests.browser.test_turning_stories import broken, leave, number, open_operation

pytestmark = pytest.mark.browser
ROWS = "section[aria-label^='Tool ranking'] tbody tr"


def result(person: Person, word: str) -> float:
    return number(person.see_text("section[aria-label=Result]", word).text.split(word)[1])


def test_the_wrong_sense_is_caught(person: Person) -> None:
    open_operation(person, "Needle seat", "Thread M8x1")
    assert broken(person) == ""
    Select(person.see("#along")).select_by_visible_text("up, out of the hole")
    person.saved(2)
    person.settled()
    assert "left-hand thread" in person.caution("hand")
    # put right again, against the feed: the thread is right, the wall is not
    person.chord(Keys.CONTROL, "z")
    person.saved(3)
    person.settled()
    Select(person.see("#sense")).select_by_visible_text("counter-clockwise")
    person.saved(4)
    person.settled()
    assert "rub" in person.caution("sense")
    # what more passes give is picked from their table
    person.see_text("section.area-map button", "2 + 1").click()
    person.saved(5)
    person.settled()
    assert "2 + 1" in person.see("section.area-map tr.font-semibold").text


def test_what_the_part_is_worth_moves_the_choice_from_the_tap(person: Person) -> None:
    open_operation(person, "Valve block", "Six threads")
    assert "tap safety factor" in broken(person) + person.read("section[aria-label=Limits], [aria-label^=Limits]")
    assert result(person, "scrap risk") > 0.5
    assert "part is worth" in person.caution("risk")
    row = person.until(lambda: person.all(ROWS)[0], "the ranking")
    assert "milled" in row.text
    row.find_element(By.CSS_SELECTOR, "button").click()
    person.saved(2)
    person.settled()
    assert result(person, "scrap risk") < 0.1
    assert "flank error" in person.read("section.area-scene")


def test_a_spindle_is_measured_over_wires_and_corrected(person: Person) -> None:
    open_operation(person, "Gate spindle", "Spindle thread")
    assert "towards the chuck" in person.read("section.area-scene")
    person.see_text("section.area-map button", "hands").click()
    person.see_text("section.area-map", "against it")
    person.see("main h2").click()
    person.press("z")
    person.see_text("[role=dialog]", "20.266 mm to 20.53 mm")
    field = "[role=dialog] input[placeholder='20.398 mm']"
    person.type_over(field, "20.62", Keys.TAB)
    person.see_text("[role=dialog] section[aria-live]", "material left: cut again")
    assert "+111 µm" in person.read("[role=dialog] section[aria-live]")
    person.type_over(field, "12", Keys.TAB)
    person.see_text("[role=dialog] [role=alert]", "not this thread")
    person.type_over(field, "20.41", Keys.TAB)
    person.see_text("[role=dialog] section[aria-live]", "inside its zone")
    person.see_text("[role=dialog] button", "Keep").click()
    person.see_text("[role=dialog] table", "20.41 mm")
    leave(person)
    # what was kept stands when it is looked for again
    person.reload()
    person.settled()
    person.see("main h2").click()
    person.press("z")
    person.see_text("[role=dialog] table", "20.41 mm")


def test_three_tools_against_one(person: Person) -> None:
    person.go("/")
    person.see_text("main li", "Valve block").find_element(By.CSS_SELECTOR, "a").click()
    person.see_text("main", "Run order")
    person.press("a")
    person.see_text("#kind option", "Tap a thread")
    Select(person.see("#kind")).select_by_visible_text("Tap a thread")
    person.type_over("#drawing-thread", "M8x9", Keys.TAB)
    person.type_over("#drawing-length", "14 mm", Keys.TAB)
    person.type_over("#drawing-hole", "22 mm", Keys.TAB)
    person.see_text("[role=dialog] button", "Add").click()
    person.see_text("[role=dialog] [role=alert], [role=dialog] [id$=problem], [role=dialog]", "M8x1")  # what exists is offered
    assert person.value("#drawing-thread") == "M8x9"
    person.type_over("#drawing-thread", "M8", Keys.TAB)
    person.see_text("[role=dialog] button", "Add").click()
    person.saved(2)
    person.see_text("main table", ", chamfer")  # the best way is a chain, and stands there as a whole
    drilled = next(row for row in person.all("main table tbody tr") if ", chamfer" in row.text)
    drilled.find_element(By.CSS_SELECTOR, "button[aria-label^=Remove]").click()
    person.saved(3)
    person.see_text("main table a", "Thread M8").click()
    person.settled()
    assert "No hole" in person.caution("no_hole")
    rows = person.until(lambda: [row for row in person.all(ROWS) if row.text], "the ranking")
    said = [row.text for row in rows]
    assert any("drill, chamfer, tap" in text for text in said)
    assert any("from solid" in text for text in said)
    chain = next(row for row in rows if "drill, chamfer, tap" in row.text)
    person.chrome.execute_script("arguments[0].scrollIntoView({block: 'center'})", chain)
    chain.find_element(By.CSS_SELECTOR, "button").click()
    person.saved(4)
    person.settled()
    assert not person.all("[data-testid=caution-no_hole]")
    person.see_text("header a", "Valve block").click()
    person.see_text("main table", "Drill Ø6.8, chamfer")


def test_the_search_answers_a_thread(person: Person) -> None:
    person.go("/")
    person.see("main li a")
    person.press("/")
    person.see("[role=dialog] input").send_keys("1/2-14 unc")
    person.see_text("[role=dialog] li", "14 threads per inch")
    person.see_text("[role=dialog] li", "1/2-13 UNC")
    person.type_over("[role=dialog] input", "m10x1,25", "")
    person.see_text("[role=dialog] li", "M10x1.25")
    person.press(Keys.ENTER)
    person.see_text("main", "9.16 mm")  # largest pitch diameter of 6g, ISO 965-2
    Select(person.see("select[aria-label='Class outside']")).select_by_visible_text("4h")
    person.see_text("section[aria-label='Limits outside']", "9.188 mm")
