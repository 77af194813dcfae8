"""Jobs, job bench, crib, shelf and floor as people use them, and the bench's manners."""

from __future__ import annotations

from pathlib import Path

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.edits import edit_unseen
from tests.browser.person import Person
from tests.browser.test_main_job import open_rough_turn

pytestmark = pytest.mark.browser


def test_the_jobs_list_is_walked_by_keys(person: Person) -> None:
    first = person.see("main li a b").text
    assert first == "over"
    person.press("j", "j", Keys.ENTER)
    person.see("input[aria-label=Material]")
    person.press("b")
    person.see_text("h1", "Jobs")


def test_machine_goal_batch_and_rules_are_edits_with_undo(person: Person) -> None:
    person.see_text("a span", "Runner shaft").click()
    money = person.read("section[aria-label='Cycle time'] .figure.shrink-0")
    person.see_text("#machine option", "mill-turn").click()
    person.saved(2)
    person.until(lambda: person.read("section[aria-label='Cycle time'] .figure.shrink-0") != money, "another price")
    person.see_text("header button", "cheapest").click()
    person.saved(3)
    person.type_over("#pieces", "600", Keys.TAB)
    person.saved(4)
    person.see_text("button", "house rules").click()
    person.see_text("#house-never_above_book option", "may go above").click()
    person.saved(5)
    person.press(Keys.ESCAPE)
    person.until(lambda: not person.all("[role=dialog]"), "the rules are closed")
    person.type_over("#hardness", "5000", Keys.TAB)
    assert "outside" in person.see("#hardness-refused").text
    assert person.value("#hardness") == "5000"
    for revision in (6, 7, 8, 9):
        person.see("button[aria-label=Undo]").click()
        person.saved(revision)
    person.until(lambda: person.read("section[aria-label='Cycle time'] .figure.shrink-0") == money, "the first price again")
    assert not person.see("button[aria-label=Undo]").is_enabled()


def test_the_present_process_and_a_print(person: Person, tmp_path: Path) -> None:
    person.see_text("a span", "Wear bush").click()
    person.see_text("button", "Enter the current process").click()
    person.see("#base-seconds").send_keys("120")
    person.see("#base-cost").send_keys("12.5", Keys.ENTER)
    person.saved(2)
    assert "saves" in person.see_text("section[aria-label^=Compared] p", "per piece").text
    drawing = tmp_path / "bush.pdf"
    drawing.write_bytes(b"%PDF-1.7 bush")
    person.see("input[type=file]").send_keys(str(drawing))
    person.see_text("section[aria-label^=Compared] a", "bush.pdf")
    wrong = tmp_path / "bush.exe"
    wrong.write_bytes(b"MZ")
    person.see("input[type=file]").send_keys(str(wrong))
    person.see_text("section[aria-label^=Compared] [role=alert]", "not a PDF, PNG or JPEG")


def test_the_tape_switches_to_money(person: Person) -> None:
    person.see_text("a span", "Runner shaft").click()
    seconds = [r.get_attribute("width") for r in person.all("section[aria-label='Cycle time'] g rect")]
    person.see_text("section[aria-label='Cycle time'] button", "money").click()
    person.until(
        lambda: [r.get_attribute("width") for r in person.all("section[aria-label='Cycle time'] g rect")] != seconds, "other widths"
    )
    person.count("section[aria-label='Cycle time'] g rect", 6)


def test_order_can_be_changed_and_operations_removed(person: Person) -> None:
    person.until(lambda: next((one for one in person.all("a span") if one.text == "Wear bush"), None), "the job").click()
    person.see("button[aria-label='Move Turn Ø68.4 earlier']").click()
    person.saved(2)
    assert "Turn Ø68.4" in person.all("main table tbody tr")[0].text
    person.see("button[aria-label='Remove Turn Ø68.4']").click()
    person.saved(3)
    person.until(lambda: len(person.all("main table tbody tr")) == 2, "two operations left")
    person.see("button[aria-label=Undo]").click()
    person.until(lambda: len(person.all("main table tbody tr")) == 3, "three again")


def test_a_material_sheet_from_the_list(person: Person) -> None:
    person.go("/shelf")
    person.see("input[aria-label='Search materials']").send_keys("duplex")
    person.see_text("section[aria-label=Materials] button", "X2CrNiMoN22-5-3").click()
    sheet = person.see_text("section[aria-label='Material sheet']", "X2CrNiMoN22-5-3").text
    assert "110 m/min" in sheet
    assert "common practice" in sheet
    person.see("h2").click()
    person.press("u")
    person.see_text("section[aria-label='Material sheet']", "sfm")


def test_the_floor_shows_gears_and_curves(person: Person) -> None:
    person.go("/floor")
    person.see_text("main button", "geared lathe").click()
    geared = person.see_text("section[aria-label='Machine sheet']", "geared lathe").text
    assert "30 · 45 · 63" in geared
    assert len(person.all("section[aria-label='Machine sheet'] svg path")) >= 3
    person.see_text("main button", "feed-drilling unit").click()
    assert "no cermet, ceramic" in person.see_text("section[aria-label='Machine sheet']", "worn").text


def test_a_spindle_is_entered_and_its_place_in_the_tools_shown(person: Person) -> None:
    person.go("/floor")
    person.see_text("main button", "two-axis lathe").click()
    sheet = "section[aria-label='Machine sheet']"
    assert "turret position 25 mm: 12" in person.read(sheet)
    person.see_text(f"{sheet} button", "Enter a further spindle").click()
    person.type_over("[role=dialog] input[id$='-interface']", "ER25", "")
    person.type_over("[role=dialog] input[id$='-power_curve']", "0:0 2000:3 5000:3", "")
    person.see_text("[role=dialog] button", "Save").click()
    row = person.see_text(f"{sheet} tbody tr", "driven tools")
    assert ("the tool" in row.text, "ER25" in row.text, "3.00 kW" in row.text) == (True, True, True)


def test_dark_is_kept_for_the_person(person: Person) -> None:
    person.see("button[aria-label='Dark theme']").click()
    person.until(lambda: person.chrome.execute_script("return document.documentElement.dataset.theme") == "dark", "dark")
    person.reload()
    person.see("button[aria-label='Light theme']")
    background = person.chrome.execute_script("return getComputedStyle(document.body).backgroundColor")
    assert background == "rgb(20, 23, 27)"


def test_letter_keys_can_be_switched_off(person: Person) -> None:
    person.press("?")
    person.see("aside[aria-label=Help] input[type=checkbox]").click()
    person.press(Keys.ESCAPE)
    person.until(lambda: not person.all("aside[aria-label=Help]"), "closed")
    person.press("u")
    person.pause(0.3)
    assert person.see("header button[data-state=on]").text == "mm"


def test_a_drag_on_the_map_is_one_revision(person: Person) -> None:
    open_rough_turn(person)
    surface = person.see("#operation-map")
    before = person.value("#feed_per_rev")
    drag = ActionChains(person.chrome).move_to_element_with_offset(surface, -20, -10).click_and_hold()
    for _ in range(6):
        drag = drag.move_by_offset(6, -5)
    drag.release().perform()
    person.saved(2)
    person.settled()
    assert person.value("#feed_per_rev") != before


def test_taking_theirs_drops_mine(person: Person) -> None:
    open_rough_turn(person)
    assert edit_unseen(person, '{"action": "set_settings", "operation": "op30", "settings": {"feed_per_rev": "0.22"}}') == 200
    person.press("f", Keys.ARROW_DOWN)
    person.see_text("[role=dialog] button", "Keep theirs").click()
    person.saved(2)
    person.until(lambda: person.value("#feed_per_rev") == "0.22 mm/rev", "their feed")


def test_a_remedy_by_its_key(person: Person) -> None:
    person.see_text("a span", "Deflector hub").click()
    person.see_text("table a", "Finish bearing size").click()
    person.see("#feed_per_rev")
    person.settled()
    assert "finish Ra" in person.read("section[aria-label^=Limits] h2")
    person.see("h2").click()
    person.press("1")
    person.saved(2)
    person.settled()
    finish = person.see_text("ul[aria-label^=Limits] li", "finish Ra")
    assert "over its bound" not in finish.text


def test_unsaved_nudges_do_not_look_saved(person: Person) -> None:
    open_rough_turn(person)
    person.press("f", Keys.ARROW_UP)
    assert "not saved yet" in person.read("[data-testid=saved]")
    person.saved(2)


@pytest.mark.parametrize("width", [820, 1280])
def test_no_view_scrolls_sideways(person: Person, width: int) -> None:
    metrics = {"width": width, "height": 1180, "deviceScaleFactor": 1, "mobile": False}
    person.chrome.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
    try:
        open_rough_turn(person)
        assert person.chrome.execute_script("return document.documentElement.scrollWidth") <= width
        assert person.chrome.execute_script("const m = document.getElementById('main'); return m.scrollWidth - m.clientWidth") <= 1
    finally:
        person.chrome.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", {**metrics, "width": 1280, "height": 800})


def test_help_beside_the_work_knows_the_page_its_limits_and_the_words(person: Person) -> None:
    open_rough_turn(person)
    person.press(Keys.F1)
    aside = person.see_text("aside[aria-label=Help]", "One operation")
    person.see_text("[data-testid=help-limits]", "spindle power")
    person.press("b", "i", "n", "d", "i", "n", "g")
    person.until(lambda: "closest to, or furthest beyond" in aside.text and "One operation" not in aside.text, "the term of the trade")
    before = person.value("#feed_per_rev")
    person.see("main h2").click()
    person.press("f", Keys.ARROW_UP)  # the page under it goes on
    person.until(lambda: person.value("#feed_per_rev") != before, "nudged beside the help")
    person.press(Keys.F1)
    person.until(lambda: not person.all("aside[aria-label=Help]"), "closed")


def test_the_search_finds_terms_actions_and_documents(person: Person) -> None:
    person.press("/")
    person.see("[role=dialog] input").send_keys("kerf")
    person.see_text("[role=dialog] li", "Bar length lost to the cut-off tool.").find_element("css selector", "button").click()
    person.see_text("aside[aria-label=Help]", "Bar length lost")
    person.see("button[aria-label='Close help']").click()
    person.press("/")
    person.see("[role=dialog] input").send_keys("switch to inch")
    person.see_text("[role=dialog] li", "key u")
    person.press(Keys.ENTER)
    person.until(lambda: person.see("header button[data-state=on]").text == "inch", "inches")
    person.press("u")
    person.press("/")
    person.see("[role=dialog] input").send_keys("first choice")
    person.see_text("[role=dialog] li", "document")
    person.see_text("[role=dialog] li button", "document").click()
    person.see("article table, article ol, article ul")
    assert not person.all("article a[href$='.md']"), "no link leaves the application"
