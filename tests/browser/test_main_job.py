"""The main job, as a person does it: from the jobs list to a saved and undone change."""

from __future__ import annotations

import pytest
from selenium.webdriver.common.keys import Keys

from server.jobs.models import Job
from tests.browser.edits import edit_unseen
from tests.browser.person import Person

pytestmark = pytest.mark.browser


def open_rough_turn(person: Person, by_address: bool = False) -> None:
    if by_address:
        person.go(f"/jobs/{Job.objects.get(name='Runner shaft').pk}/operations/op30")
    else:
        person.see_text("a span", "Runner shaft").click()
        person.see_text("table a", "Rough turn Ø49.5").click()
    person.see("#feed_per_rev")
    person.settled()


def test_from_sign_in_to_a_defended_recommendation(person: Person) -> None:
    # open the job and change the material by the name people use
    person.see_text("a span", "Runner shaft").click()
    field = person.see("input[aria-label=Material]")
    assert field.get_attribute("value") == "34CrNiMo6"
    field.click()
    field.send_keys(Keys.CONTROL, "a")
    field.send_keys("4140")
    person.see_text("[role=option]", "42CrMo4").click()
    person.saved(2)
    person.see_text("h2", "42CrMo4")

    # open the operation and take the first candidate with the keyboard
    person.see_text("table a", "Rough turn Ø49.5").click()
    person.see("#feed_per_rev")
    person.settled()
    cost_before = float(person.read("[data-testid=operation_cost]").split()[0])
    first = person.see("tr[data-row='0']")
    assert "first" in first.text or "chosen" in first.text
    tool = first.find_element("css selector", "button").text
    person.press("j", Keys.ENTER)
    person.saved(3)
    person.settled()
    assert tool in person.see_text("tr[data-row]", "chosen").text
    assert float(person.read("[data-testid=operation_cost]").split()[0]) <= cost_before

    # nudge the feed up with arrow keys until a limit breaks
    person.press("f")
    feed = person.value("#feed_per_rev")
    for _ in range(60):  # what is close comes before what is over; without a pause, so that all is one gesture
        person.press(Keys.ARROW_UP)
        if "over its bound" in person.chrome.execute_script("return document.querySelector('ul[aria-label^=Limits]').innerText"):
            break
    assert person.value("#feed_per_rev") != feed
    person.settled()
    broken = person.see_text("ul[aria-label^=Limits] li", "over its bound").text
    assert "To meet this limit" in person.read("section[aria-label^=Limits] h3")
    person.until(lambda: "rev 4" in person.read("[data-testid=saved]"), "the run of nudges saved as one gesture")

    # its remedy brings it below, and is saved
    person.see("[data-testid=remedy]").click()
    person.saved(5)
    person.settled()
    name = broken.splitlines()[0].lstrip("■▲ ").split(",")[0]
    assert name not in " ".join(e.text for e in person.all("ul[aria-label^=Limits] li") if "over its bound" in e.text)
    kept = person.value("#feed_per_rev")
    cost = person.read("[data-testid=operation_cost]")

    # reload: still there; the tape gives passes, seconds and money
    person.reload()
    person.settled()
    assert person.value("#feed_per_rev") == kept
    assert person.read("[data-testid=operation_cost]") == cost
    assert "€ per piece" in person.read("section[aria-label='Cycle time']")

    # undo returns to the nudged feed, and redo brings the remedy back
    person.see("h2").click()
    person.chord(Keys.CONTROL, "z")
    person.saved(6)
    person.settled()
    person.until(lambda: person.value("#feed_per_rev") != kept, "the feed before the remedy")
    person.chord(Keys.CONTROL, "y")
    person.saved(7)
    person.settled()
    person.until(lambda: person.value("#feed_per_rev") == kept, "the remedy again")


def test_a_run_of_nudges_is_one_revision_and_one_undo(person: Person) -> None:
    open_rough_turn(person)
    person.press("f")
    person.press(*[Keys.ARROW_DOWN] * 4)
    person.saved(2)
    person.settled()
    assert person.value("#feed_per_rev") == "0.26 mm/rev"
    person.press(Keys.PAGE_UP)
    person.saved(3)
    assert person.value("#feed_per_rev") == "0.31 mm/rev"
    person.see("button[aria-label=Undo]").click()
    person.saved(4)
    person.until(lambda: person.value("#feed_per_rev") == "0.26 mm/rev", "undone")


def test_mixed_units_and_refusals_keep_what_was_typed(person: Person) -> None:
    open_rough_turn(person)
    person.type_over("#feed_per_rev", "11 thou")
    person.saved(2)
    person.until(lambda: person.value("#feed_per_rev") in ("0.279 mm/rev", "11 thou"), "read in thou")
    person.type_over("#depth_of_cut", "1,500")
    message = person.see_text("[role=alert]", "can be 1.500 or 1500")
    assert person.value("#depth_of_cut") == "1,500"
    message.find_element("css selector", "button").click()
    person.saved(3)
    person.type_over("#cutting_speed", "fast")
    assert "is not a number" in person.see_text("[role=alert]", "fast").text
    assert person.value("#cutting_speed") == "fast"
    assert person.see("#cutting_speed").get_attribute("aria-invalid") == "true"
    person.see("#cutting_speed").click()
    person.press(Keys.ESCAPE)
    person.until(lambda: "m/min" in person.value("#cutting_speed"), "the entry given up")


def test_units_switch_everywhere_with_one_key(person: Person) -> None:
    open_rough_turn(person)
    person.see("h2").click()
    person.press("u")
    person.until(lambda: person.value("#feed_per_rev").endswith("ipr"), "inch")
    person.settled()
    assert "sfm" in person.value("#cutting_speed")
    assert "sfm" in person.read("section[aria-label^='Tool ranking'] thead")
    person.press("f", Keys.ARROW_UP)
    person.saved(2)
    assert person.value("#feed_per_rev").endswith("ipr")
    person.see("h2").click()
    person.press("u")
    person.until(lambda: person.value("#feed_per_rev").endswith("mm/rev"), "metric again")


def test_the_map_moves_feed_and_depth(person: Person) -> None:
    open_rough_turn(person)
    person.press("m")
    person.press(Keys.ARROW_RIGHT)
    person.until(lambda: person.value("#feed_per_rev") == "0.31 mm/rev", "feed from the map")
    passes = len(person.all("table[aria-label=Passes] tbody tr"))
    person.press(Keys.ARROW_DOWN)
    person.until(lambda: len(person.all("table[aria-label=Passes] tbody tr")) == passes + 1, "one pass more")
    person.saved(2)


def test_working_of_a_limit_and_of_a_result(person: Person) -> None:
    open_rough_turn(person)
    person.see_text("ul[aria-label^=Limits] button", "spindle power").click()
    text = person.see("[role=dialog]").text
    assert "kc1.1·h^(−mc)" in text
    assert "2600·" in text
    assert "Kienzle 1952" in text
    person.see_text("[role=dialog] li", "of its limit")
    person.press(Keys.ESCAPE)
    person.until(lambda: not person.all("[role=dialog]"), "closed")
    person.see_text("section[aria-label=Result] button", "cost").click()
    assert "Groover" in person.see("[role=dialog]").text
    person.press(Keys.ESCAPE)


def test_compare_and_why_not_the_others(person: Person) -> None:
    open_rough_turn(person)
    person.see("h2").click()
    person.press("p", "j", "j", "p")
    person.see_text("button", "compare 2").click()
    sheet = person.see("[role=dialog]")
    assert "cost per edge" in sheet.text
    assert len(sheet.find_elements("css selector", "thead th")) == 3
    person.press(Keys.ESCAPE)
    person.see_text("button", "rejected tools").click()
    assert "can be put together" in person.see("[role=dialog]").text


def test_bench_walks_operations_and_search_finds_anything(person: Person) -> None:
    open_rough_turn(person)
    person.see("h2").click()
    person.press("]")
    person.see_text("[aria-current=step]", "Finish bearing seat")
    person.press("[")
    person.see_text("[aria-current=step]", "Rough turn Ø49.5")
    person.settled()
    person.press("/")
    person.see("[role=dialog] input").send_keys("1.4404")
    person.see_text("[role=dialog] li", "X2CrNiMo17-12-2")
    person.press(Keys.ENTER)
    person.see_text("section[aria-label='Material sheet'] h2", "X2CrNiMo17-12-2")
    person.press("?")
    person.see_text("aside[aria-label=Help]", "change the selected setting")


def test_an_operator_reads_but_cannot_set(person: Person) -> None:
    person.sign_in("operator")
    open_rough_turn(person, by_address=True)
    assert not person.see("#feed_per_rev").is_enabled()
    assert not person.see("tr[data-row] button").is_enabled()
    assert "0.3 mm/rev" in person.value("#feed_per_rev")


def test_a_geared_lathe_is_nudged_step_by_step(person: Person) -> None:
    person.see_text("a span", "Deflector hub").click()
    person.see_text("table a", "Face hub").click()
    person.see("#cutting_speed")
    person.settled()
    person.press("s", Keys.ARROW_UP)
    person.saved(2)
    person.settled()
    assert person.read("table[aria-label=Passes] tbody td:nth-child(4)") == "500"
    assert "152 m/min" in person.see_text("section[aria-label^=Limits] li", "recommended speed").text
    person.press(Keys.ARROW_DOWN, Keys.ARROW_DOWN)
    person.saved(3)
    person.settled()
    assert person.read("table[aria-label=Passes] tbody td:nth-child(4)") == "250"


def test_a_clamp_answers_its_caution(person: Person) -> None:
    person.see_text("a span", "Runner shaft").click()
    person.see_text("table a", "Face end").click()
    person.see("#feed_per_rev")
    person.settled()
    person.see_text("ul[aria-label^=Warnings] li", "no max. spindle speed set")
    person.type_over("#clamp", "900", Keys.TAB)
    person.saved(2)
    person.settled()
    assert "no max. spindle speed set" not in person.read("ul[aria-label^=Warnings]")
    assert "900" in person.see_text("ul[aria-label^=Limits] li", "max. spindle speed").text
    person.type_over("#clamp", "many", Keys.TAB)
    assert "is not a number" in person.see_text("[role=alert]", "many").text


def test_an_operator_notes_and_measures_at_the_machine(person: Person) -> None:
    person.sign_in("operator")
    open_rough_turn(person, by_address=True)
    person.see("h2").click()
    person.press("n")
    person.see("[role=dialog] textarea").send_keys("chips short and blue")
    person.see_text("[role=dialog] button", "Save note").click()
    person.see_text("[role=dialog] li", "chips short and blue")
    fields = [person.see_text("[role=dialog] label", name).find_element("css selector", "input") for name in ("commanded Ø", "measured Ø")]
    fields[0].send_keys("53.25")
    fields[1].send_keys("about 53", Keys.ENTER)
    person.see_text("[role=dialog] [role=alert]", "about 53")
    assert fields[1].get_attribute("aria-invalid") == "true"
    fields[1].send_keys(Keys.CONTROL, "a")
    fields[1].send_keys("53.268", Keys.ENTER)
    person.see_text("[role=dialog] td", "18.0 µm")


def test_a_job_from_nothing(person: Person) -> None:
    person.see_text("button", "New job").click()
    for name, words in (("name", "Gate spindle"), ("material", "304"), ("diameter", "40"), ("length", "90")):
        person.see(f"#new-{name}").send_keys(words)
    person.see_text("[role=dialog] button", "Start the job").click()
    person.see_text("h2", "Gate spindle · X5CrNi18-10")
    person.see_text("button", "add an operation").click()
    for name, words in (("start_diameter", "40"), ("end_diameter", "36 h9"), ("length", "60"), ("distance_from_chuck", "20")):
        person.see(f"#drawing-{name}").send_keys(words)
    person.see_text("[role=dialog] button", "Add with its best tool").click()
    person.saved(2)
    person.see_text("table a", "Turn Ø36 h9").click()
    person.see("#feed_per_rev")
    person.settled()
    assert "over its bound" not in " ".join(e.text for e in person.all("ul[aria-label^=Limits] li button span") if "■" in e.text)
    assert float(person.read("[data-testid=operation_cost]").split()[0]) > 0
    person.press("e")
    field = person.see("#drawing-roughness")
    field.send_keys("0.2", Keys.ENTER)
    person.saved(3)
    person.settled()
    person.see_text("ul[aria-label^=Limits] li", "finish Ra")


def test_two_people_on_one_job_lose_nothing(person: Person) -> None:
    open_rough_turn(person)
    assert edit_unseen(person, '{"action": "set_part", "goal": "fastest"}') == 200
    person.press("f", Keys.ARROW_DOWN)
    sheet = person.see("[role=dialog]")
    assert "saved revision 2" in sheet.text
    person.see_text("[role=dialog] button", "Keep mine").click()
    person.saved(3)
    person.until(lambda: person.value("#feed_per_rev") == "0.29 mm/rev", "my feed on top of their goal")
    assert person.see_text("header button[data-state=on]", "fastest")
