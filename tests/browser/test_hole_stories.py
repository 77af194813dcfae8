"""Whole stories of holes on the demo jobs: the panel that had no field, the deep hole that packed, a trace that was learned from."""

from __future__ import annotations

import re

import pytest
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from devices.dynamometer import samples, truth_of
from server.jobs.models import Job
from tests.browser.edits import change
from tests.browser.person import Person
from tests.browser.test_crib import enter, field
from tests.browser.test_slot_stories import draw, sheet, take_remedy
from tests.browser.test_turning_stories import LIMITS, broken, leave, number, open_operation

pytestmark = pytest.mark.browser
CANDIDATES = "section.area-candidates tbody tr"


def predicted(person: Person) -> str:
    """What the map says of thrust and torque where it stands."""
    return str(person.see("#operation-map").get_attribute("aria-label"))


def seconds(person: Person) -> float:
    found = re.search(r"operation time\s+([\d.:]+)", person.read("section[aria-label^=Result]"))
    assert found
    return number(found[1])


def test_a_tool_that_nobody_has_is_entered_from_the_list_and_then_makes_the_hole(person: Person) -> None:
    job = int(Job.objects.get(name="Gate spindle Tr 20x4").pk)
    feature = {"diameter": "2.35 mm", "depth": "60 mm"}
    change(job, {"action": "set_part", "operation": "", "machine": "two-axis lathe"})
    change(job, {"action": "add_operation", "operation": "", "kind": "drill", "title": "Oil hole", "feature": feature})
    person.go(f"/jobs/{job}")
    assert "no tool yet" in person.see_text("tbody tr", "Oil hole").text
    person.see_text("section.area-order button", "tools").click()
    assert "a drill Ø2.35 mm that reaches 60" in person.read("ul[aria-label='Tools that are wanted']")
    person.see_text("ul[aria-label='Tools that are wanted'] a", "enter it in the crib").click()
    person.see_text("[role=dialog]", "Add tool")
    person.see_text("[role=dialog] label", "cutting diameter")
    assert person.value(field(person, "cutting diameter (DC)")) == "2.35", "its size is filled in"
    enter(person, "grade", "HSS cobalt PVD")
    enter(person, "pack price", "12")
    person.see_text("[role=dialog] button", "Save").click()
    person.see_text("section h2", "Gate spindle Tr 20x4")  # back on the job
    person.press("t")
    person.see_text("[role=dialog] button", "Take them").click()
    person.until(lambda: "no tool yet" not in person.see_text("tbody tr", "Oil hole").text, "it is planned")
    assert "2.35" in person.see_text("tbody tr", "Oil hole").text


def test_the_panel_from_no_field_to_a_proven_speed_feed_and_count(person: Person) -> None:
    open_operation(person, "Screen-frame panel", "Drill 112 × Ø6.35")
    # the present gear harms the laminate, and the drill does not last the panel
    assert "recommended speed" in broken(person)
    assert "GFRP" in broken(person)
    assert "reliable holes, per drill" in broken(person)
    assert "layer" in person.read("table[aria-label='What each layer asks']")

    # the second map says who conflicts with whom, and what would open it
    person.see_text("section.area-map button", "speed × feed").click()
    person.see_text("[data-testid=window-says]", "No field")
    assert "GFRP laminate" in person.read("[data-testid=window-says]")
    person.see("[data-testid=window-says] button").click()
    person.saved(2)
    person.settled()
    person.see_text("[data-testid=window-says]", "Field open")

    # the laminate is no longer harmed; that the faster gear wears the drill before the panel is done is said, and which drills last longer
    assert "recommended speed" not in broken(person)
    assert "reliable holes, per drill" in broken(person)
    person.see("main h2").click()
    person.press("z")
    person.see_text("table[aria-label='Other drills of this size'] tr", "laminate carbide 6.35")
    assert "Works, but is not ideal" in person.see("[role=dialog]").text
    person.press(Keys.ESCAPE)
    # what stays is said: this unit runs out too much for carbide
    assert "runout at the corner" in broken(person)
    person.see_text("section.area-map button", "over depth").click()
    person.see_text("#operation-map text", "thrust")


def test_the_deep_hole_that_packs_then_pecks_then_gets_its_pressure(person: Person) -> None:
    open_operation(person, "Gate-valve body", "Drill Ø10 × 90")
    assert "flute packing" in broken(person)
    take_remedy(person, "pecks to clear chips")
    person.saved(2)
    person.settled()
    assert "packed flutes" not in broken(person)
    person.see("#first_peck")

    # the tape knows what the pecks cost
    pecked = seconds(person)

    # the same part on the mill-turn, with pressure through a carbide drill
    person.go(person.chrome.current_url.split("#")[1].split("/operations")[0])
    person.type_over("#machine", "mill-turn")
    person.saved(3)
    person.see_text("table a", "Drill Ø10 × 90").click()
    person.see("#cutting_speed")
    person.settled()
    Select(person.see("#coolant")).select_by_visible_text("high")
    person.saved(4)
    person.settled()
    # under that pressure the long carbide drill comes back no more
    person.until(
        lambda: any("12xD" in row.text and "clear" not in row.text for row in person.all(CANDIDATES)), "the carbide drill, no pecks"
    )
    next(row for row in person.all(CANDIDATES) if "12xD" in row.text).find_element("css selector", "button").click()
    person.saved(5)
    person.settled()
    assert Select(person.see("#pecks")).first_selected_option.text == "none"
    assert "packed flutes" not in broken(person)
    washed = seconds(person)
    assert washed < 0.5 * pecked


def test_a_recorded_trace_is_laid_over_and_learned(person: Person, tmp_path: object) -> None:
    open_operation(person, "Coupling cup", "Drill 8 × Ø10")
    before = predicted(person)
    point = {"radius": 5.0, "inner": 0.0, "chisel": 1.25, "tangent": 2.1445}
    layer = {"name": "EN AC-48000", "near": 0.0, "far": 25.0, "force": 440.0, "margin": 0.03}
    asked = {"point": point, "back": 0.4532, "chisel_share": 0.28, "feed_rate": 3119.4, "hole": 1, "layers": [layer]}
    rows = [f"{one['time']};{one['thrust']};{one['torque']}" for one in samples(asked, truth_of(5, ["EN AC-48000"]), 3)]
    file = tmp_path / "hole 1.csv"  # type: ignore[operator]
    file.write_text("time [s];thrust [N];torque [N·m]\n" + "\n".join(rows), encoding="utf-8")

    sheet(person, "d", "Recorded traces")
    person.see_text("[role=dialog]", "Nothing is recorded yet")
    person.until(lambda: person.all("#trace-file"), "the file field")
    person.all("#trace-file")[0].send_keys(str(file))
    person.see_text("[data-testid=trace-preview]", "What is what?")
    person.see_text("[data-testid=trace-preview] button", "keep as hole 1").click()
    taught = person.see_text("table[aria-label='What the traces teach']", "force in EN AC-48000").text
    assert "friction of the margins" in taught
    # nothing is adopted silently
    leave(person)
    person.settled()
    assert predicted(person) == before
    sheet(person, "d", "Recorded traces")
    person.see_text("[role=dialog] button", "Accept for this drill").click()
    person.see_text("[role=dialog]", "In use")
    leave(person)
    person.settled()
    person.until(lambda: predicted(person) != before, "another prediction")
    assert "Learned from traces" in person.caution("learned")
    sheet(person, "d", "Recorded traces")
    person.see_text("[role=dialog] button", "Remove").click()
    person.until(lambda: "In use" not in person.read("[role=dialog]"), "the lesson is taken back")
    leave(person)
    person.settled()
    person.until(lambda: predicted(person) == before, "the prediction of the tables")


def test_a_hole_that_one_drill_cannot_make_is_made_by_two(person: Person) -> None:
    open_operation(person, "Nozzle-ring bolt circle", "Drill 12 × Ø8.5")
    draw(person, diameter="10 H7", position="", burr="")
    person.saved(2)
    person.until(lambda: any("drill, ream" in row.text for row in person.all(CANDIDATES)), "the chain in the ranking")
    next(row for row in person.all(CANDIDATES) if "drill, ream" in row.text).find_element("css selector", "button").click()
    person.saved(3)
    person.settled()
    person.until(lambda: len(person.all("nav[aria-label='Run order'] a, ol[aria-label='Run order'] a, table a")) >= 1, "the run order")
    assert "over its bound" not in "".join(row.text for row in person.all(LIMITS) if "■" in row.text)
    assert "Drill Ø9.8" in person.read("main") or "Drill Ø9." in person.read("main")
