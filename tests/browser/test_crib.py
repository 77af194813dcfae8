"""Crib, shelf, floor and exchange as people use them: find, read, change, drag, import, and what it means for a job."""

from __future__ import annotations

import os
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import pytest
from django.db import connection
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from server.crib.models import Geometry, Tool
from server.floor.models import Machine
from server.shelf.models import Material
from tests.browser.person import Person

pytestmark = pytest.mark.browser
TOOL = "CNMG 120408 middle P20 CVD"


@pytest.fixture
def workers(site: str) -> Iterator[None]:
    """The process that takes up imports and exports, on the tests' database."""
    environment = os.environ | {"ARROW_BENCH_DB_NAME": str(connection.settings_dict["NAME"])}
    process = subprocess.Popen([sys.executable, "-m", "django", "work"], env=environment)
    yield
    process.terminate()
    process.wait(timeout=10)


def rows(person: Person) -> list[str]:
    return [row.text for row in person.all("[role=rowgroup] [role=row]")]


def find(person: Person, words: str, count: int) -> None:
    field = person.see("input[aria-label='Search tools']")
    field.send_keys(Keys.CONTROL, "a")
    field.send_keys(words)
    person.see_text("section[aria-label=Tools] [role=status]", f"{count} of")
    person.until(lambda: len(rows(person)) == count and all("…" not in row for row in rows(person)), f"{count} rows")


def field(person: Person, label: str) -> str:
    """The selector of a field in the open dialog, by the words of its label."""
    for one in person.all("[role=dialog] label"):
        if one.text.split(",")[0].removesuffix(" *").strip() == label:
            return f"#{one.get_attribute('for')}"
    raise AssertionError(f"no field is labelled {label}")


def enter(person: Person, label: str, text: str) -> None:
    css = field(person, label)
    one = person.see(css)
    one.send_keys(Keys.CONTROL, "a")
    one.send_keys(text)


def press_button(person: Person, text: str, css: str = "button") -> None:
    person.until(lambda: next((b for b in person.all(css) if b.text == text and b.is_enabled()), None), text).click()


def test_find_a_tool_in_any_spelling_and_read_its_code(person: Person) -> None:
    person.go("/crib")
    find(person, "cnmg-432 p20", Tool.objects.filter(designation="CNMG 120408", grade__name__startswith="P20").count())
    find(person, "ccmt09t304", Tool.objects.filter(designation="CCMT 09T304").count())
    person.see("input[aria-label=Designation]").send_keys("dnmg 442")
    decoded = person.see_text("section[aria-label='Decode a designation']", "DNMG 150608").text
    assert "rhombic 55°" in decoded
    assert "4 edges" in decoded
    assert person.see("section[aria-label='Decode a designation'] svg polygon")
    person.type_over("input[aria-label=Designation]", "CNMG 110408", "")
    assert "position 5" in person.see_text("[role=alert]", "allowed here").text


def test_facets_narrow_and_keys_walk(person: Person) -> None:
    person.go("/crib")
    person.see_text("section[aria-label=Tools] [role=status]", "tools")
    person.see_text("section[aria-label='Narrow by'] label", "boring bar").find_element("css selector", "input").click()
    bars = Tool.objects.filter(kind="boring bar").count()
    person.until(lambda: len(rows(person)) == bars, f"the {bars} bars")
    person.see("h2").click()
    person.press("j", "j", "j", "j")
    person.pause(0.2)
    person.press(Keys.ENTER)
    sheet = person.see_text("section[aria-label=Tool]", "A16R-SDUCR 11").text
    assert "κr 93°" in sheet
    person.press(Keys.ESCAPE)
    person.see("section[aria-label='Decode a designation']")


def test_a_dearer_tool_makes_its_job_stale_until_somebody_looks(person: Person) -> None:
    person.go(f"/crib/tools/{Tool.objects.get(name=TOOL).pk}")
    press_button(person, "Change")
    person.see_text("[role=dialog] label", "pack price")
    enter(person, "pack price", "-3")
    press_button(person, "Save")
    assert "outside 0 to 1000000" in person.see_text("[role=dialog] [role=alert]", "ack price").text
    assert person.value(field(person, "pack price")) == "-3"  # what was typed stays
    enter(person, "pack price", "184")
    press_button(person, "Save")
    person.see_text("section[aria-label=Tool]", "92.0 → 184.0")
    person.see_text("section[aria-label=Tool] a", "Runner shaft").click()
    press_button(person, "What would change")
    changes = person.see_text("[role=dialog]", "whole piece").text
    assert "pack price changed" in changes
    press_button(person, "Accept new figures")
    person.until(lambda: not person.all("[role=dialog]") and not person.all(".area-stale"), "no longer stale")


def test_the_window_is_dragged_and_nudged_on_the_map(person: Person) -> None:
    person.go("/crib/geometries")
    person.see_text("section[aria-label=Geometries] button", "heavy").click()
    person.see_text("section[aria-label='Chip window'] h2", "heavy")
    before = Geometry.objects.get(name="heavy").window
    person.until(lambda: len(person.all("g[role=slider]")) == len(before), "a handle per point")
    handle = person.all("g[role=slider]")[4].find_elements("css selector", "circle")[1]
    person.until(lambda: handle.rect == (person.pause(0.2), handle.rect)[1], "a handle that stands still")
    ActionChains(person.chrome).move_to_element(handle).click_and_hold().move_by_offset(18, -12).release().perform()
    person.see_text("section[aria-label='Chip window'] [role=status]", "version 2")
    dragged = Geometry.objects.get(name="heavy").window
    assert [p for k, p in enumerate(dragged) if k != 4] == [p for k, p in enumerate(before) if k != 4]
    assert dragged[4][0] > before[4][0]
    assert dragged[4][1] > before[4][1]
    handle = person.all("g[role=slider]")[0]
    person.until(lambda: handle.rect == (person.pause(0.2), handle.rect)[1], "a handle that stands still")
    handle.send_keys(Keys.ARROW_RIGHT)
    person.see_text("section[aria-label='Chip window'] [role=status]", "version 3")
    assert Geometry.objects.get(name="heavy").window[0][0] == pytest.approx(before[0][0] + 0.025)


def test_a_material_of_ones_own_from_group_and_hardness(person: Person) -> None:
    person.go("/shelf")
    press_button(person, "Enter a material")
    person.see_text("[role=dialog] label", "hardness from")
    for label, text in (("name", "Gate steel"), ("group", "7"), ("hardness from", "270"), ("hardness to", "290")):
        enter(person, label, text)
    assert "ISO 18265" in person.see_text("[role=dialog] table", "strength").text
    press_button(person, "Save")
    person.see_text("section[aria-label='Material sheet'] h2", "Gate steel")
    assert Material.objects.get(name="Gate steel").numbers["strength"] == 950
    person.type_over("input[aria-label=Hardness]", "15 HRC", "")
    person.see_text("section[aria-label='Convert hardness'] [role=alert]", "20.3 to 68 HRC")
    person.type_over("input[aria-label=Hardness]", "300 HV", "")
    assert "29.8" in person.see_text("section[aria-label='Convert hardness'] dl", "HRC").text


def test_a_machine_s_gears_are_pasted_and_its_curve_nudged(person: Person) -> None:
    person.go("/floor")
    person.see_text("main button", "geared lathe").click()
    press_button(person, "Change")
    person.until(lambda: len(person.all("[role=dialog] g[role=slider]")) == 4, "the curve's points")
    person.see("textarea").send_keys("28, 40; 56 80\n112 160 224 315 450 630 900 1250 1800")
    press_button(person, "take as speeds")
    person.see_text("[role=dialog] [role=status]", "13 steps from 28 to 1800")
    person.all("[role=dialog] g[role=slider]")[3].send_keys(Keys.ARROW_UP)
    enter(person, "least speed", "28")
    press_button(person, "Save")
    person.see_text("section[aria-label='Machine sheet']", "28 · 40 · 56")
    lathe = Machine.objects.get(name="geared lathe")
    assert lathe.power_curve[-1] == [1800, 6.0]
    assert lathe.version == 2


def test_tool_materials_answer_with_their_economics(person: Person) -> None:
    person.go("/crib/tool-materials")
    first = person.see_text("tbody tr", "cheapest").text
    assert first.startswith("coated carbide")
    person.see_text("tbody button", "coated carbide").click()
    person.see_text("tbody", "Gilbert's cheapest life gives")
    person.type_over("label input", "3 mm", Keys.TAB)
    person.see_text("tbody tr", "the spindle gives 33 m/min")


def test_import_with_a_preview_then_export(person: Person, workers: None, tmp_path: Path) -> None:
    file = tmp_path / "prices.csv"
    head = "kind,designation,geometry,grade,pack price,pack size\n"
    bodies = ("cnmg 433,middle,K15 CVD,96,10", "CNMG 110408,middle,P20 CVD,92,10")
    file.write_text(head + "".join(f"turning insert,{body}\n" for body in bodies), encoding="utf-8")
    person.go("/exchange")
    person.see("input[type=file]").send_keys(str(file))
    person.see_text("[data-testid=run-state]", "ready for review")
    table = person.see_text("[aria-label='Fate of every row'] tbody", "position 5").text
    assert "CNMG 120412 middle K15 CVD" in table
    assert not Tool.objects.filter(name="CNMG 120412 middle K15 CVD").exists()
    press_button(person, "Import valid rows, skip 1")
    person.see_text("section[aria-label=Run]", "1 rows written")
    assert Tool.objects.filter(name="CNMG 120412 middle K15 CVD").exists()
    press_button(person, "Write the file")
    link = person.see_text("section[aria-label=Run] a", "Fetch the file").get_attribute("href")
    text = person.chrome.execute_async_script("fetch(arguments[0]).then(r => r.text()).then(arguments[1])", link)
    assert "KAPR tool cutting edge angle [°]" in text
    assert text.count("\n") == Tool.objects.count() + 1


def test_an_assembly_is_checked_while_it_is_put_together(person: Person) -> None:
    person.go("/crib/assemblies")
    for css, text in (("#a-insert", TOOL), ("#a-holder", "SCLCR 1616 H09"), ("#a-overhang", "2 in"), ("#a-name", "odd")):
        person.see(css).send_keys(text)
    person.see_text("section[aria-label='New assembly'] li", "the pocket is made for size 09")
    person.type_over("#a-holder", "PCLNR 2525 M12", "")
    person.type_over("#a-overhang", "1 in", Keys.TAB)
    person.until(lambda: "does not fit" not in person.see("section[aria-label='New assembly']").text, "everything fits")
    press_button(person, "Keep it")
    assert "25.4 mm" in person.see_text("section[aria-label=Assemblies] li", "odd").text
