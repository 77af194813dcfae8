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


def program(person: Person) -> str:
    """The text in the editor, which stands in a root of its own."""
    return str(
        person.chrome.execute_script(
            "const host = document.querySelector('[data-testid=program-editor]');"
            "return [...(host?.shadowRoot?.querySelectorAll('.cm-line') ?? [])].map(e => e.textContent).join('\\n')"
        )
    )


def typed(person: Person, text: str) -> None:
    """Another text in place of what is there."""
    person.chrome.execute_script("document.querySelector('[data-testid=program-editor]').shadowRoot.querySelector('.cm-content').focus()")
    person.chord(Keys.CONTROL, "a")
    person.press(text)


def test_an_operation_leaves_the_bench_as_a_program(person: Person) -> None:
    open_rough_turn(person)
    person.see("main h2").click()
    person.press("i")
    text = person.until(lambda: program(person), "the program")
    assert "G99 G1" in text
    assert text.rstrip().endswith("M30")
    assert "prove it out" in person.see("[role=dialog]").text
    person.until(lambda: "Not checked" in person.see("[role=dialog]").text, "what was not checked")
    Select(person.see("[aria-label='Control']")).select_by_value("plain lathe")
    person.until(lambda: program(person).rstrip().endswith("M2"), "the other dialect")


def test_a_program_edited_by_hand_shows_its_fault_and_is_undone(person: Person) -> None:
    open_rough_turn(person)
    person.see("main h2").click()
    person.press("i")
    planned = person.until(lambda: program(person), "the program")
    person.until(lambda: person.all("[role=dialog] [role=status]"), "nothing found")
    typed(person, planned.replace("G99 G1", "G99 G0"))
    person.until(lambda: "to stop for" in person.see("[role=dialog]").text, "the fault")
    wrong = next(k for k, line in enumerate(planned.splitlines(), 1) if "G99 G1" in line)
    assert any(f"line {wrong}" in e.text and "rapid" in e.text for e in person.all("[aria-label=Findings] li"))
    person.see_text("[aria-label=Findings] button", f"line {wrong}").click()
    shown = "return document.querySelector('[data-testid=program-editor]').shadowRoot.querySelector('.cm-shown').textContent"
    assert "G99 G0" in person.chrome.execute_script(shown)
    person.see_text("[role=dialog] button", "Keep as own program").click()
    person.until(lambda: any("own program" in e.text for e in person.all("[role=dialog] [role=status]")), "kept")
    person.see_text("[role=dialog] button", "As planned").click()
    person.until(lambda: program(person) == planned, "the planned text again")


def test_a_pasted_cut_off_without_a_clamp_and_a_rapid_into_the_bar_are_caught_and_mended(person: Person) -> None:
    person.sign_in("engineer")
    person.go("/programs")
    person.see("[data-testid=program-editor]")
    typed(person, "T0101\nG96 S120 M3\nG0 X52. Z-40.\nG99 G1 X0. F0.1\nG0 X60.\nM5\nM30\n")
    person.until(lambda: any("runs away" in e.text and "line 4" in e.text for e in person.all("[aria-label=Findings] li")), "no clamp")
    person.until(lambda: len(program(person).splitlines()) > 5, "the text")
    typed(person, "T0101\nG50 S1000\nG96 S120 M3\nG0 X46. Z2.\nG0 Z-40.\nG0 X60.\nM5\nM30\n")
    person.until(lambda: any("Nothing found" in e.text for e in person.all("[role=status]")), "mended")
    for field, value in (("diameter", "50"), ("length", "80")):
        person.see(f"#program-{field}").send_keys(value)
    person.until(lambda: any("into the metal" in e.text and "line 5" in e.text for e in person.all("[aria-label=Findings] li")), "the bar")
    assert person.see("canvas").is_displayed()


def test_a_job_leaves_as_one_program_in_run_order(person: Person) -> None:
    open_rough_turn(person)
    person.chrome.execute_script("location.hash = location.hash.replace(/\\/operations.*/, '')")
    person.see_text("h2", "Run order")
    next(e for e in person.all("button") if e.text == "program").click()
    person.until(lambda: "OPERATION" in program(person), "the whole job")
    person.until(lambda: any("Nothing found" in e.text for e in person.all("[role=dialog] [role=status]")), "nothing found")


def test_columns_of_the_ranking_are_chosen_and_kept(person: Person) -> None:
    open_rough_turn(person)
    person.until(lambda: person.all("[data-row]"), "the ranking")
    heads = "return [...document.querySelectorAll('.area-candidates thead th')].map(e => e.innerText)"
    assert "pcs/edge" in person.chrome.execute_script(heads)
    person.see_text(".area-candidates button", "columns").click()
    person.see_text("[role=menuitemcheckbox]", "pieces per edge").click()
    person.press(Keys.ESCAPE)
    person.until(lambda: "pcs/edge" not in person.chrome.execute_script(heads), "the column gone")
    person.pause(0.5)
    person.reload()
    person.until(lambda: person.all("[data-row]"), "the ranking again")
    assert "pcs/edge" not in person.chrome.execute_script(heads)
    person.see_text(".area-candidates button", "columns").click()
    person.see_text("[role=menuitemcheckbox]", "pieces per edge").click()
    person.until(lambda: "pcs/edge" in person.chrome.execute_script(heads), "the column back")
