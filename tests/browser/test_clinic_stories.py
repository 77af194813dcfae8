"""The clinic as somebody uses it: a torn finish, a packed hole, a taper told by one measurement, and an exercise solved."""

from __future__ import annotations

import pytest
from selenium.webdriver.common.by import By

from server.clinic.models import Practice
from server.jobs.models import Job
from tests.browser.person import Person

pytestmark = pytest.mark.browser


def open_clinic(person: Person, path: str, kind: str = "") -> None:
    person.sign_in("engineer")
    person.go(path)
    if kind:
        person.see(f"select option[value='{kind}']").click()
    person.see("[role=group][aria-label='What is seen'] button")


def seen(person: Person, words: str, title: str) -> None:
    box = person.see("input[type=search]")
    box.clear()
    box.send_keys(words)
    person.see_text("[role=group][aria-label='What is seen'] button", title).click()
    person.see("[data-testid=suspect]")


def found(person: Person, *looks: str) -> None:
    """Take the round that is proposed, ticking what is there; until each of these was asked."""
    left = list(looks)
    for _ in range(6):
        panel = person.see("section[aria-label='What to look at next']")
        for label in panel.find_elements(By.TAG_NAME, "label"):
            if any(one in label.text for one in left):
                left = [one for one in left if one not in label.text]
                label.click()
        before = panel.text
        panel.find_element(By.CSS_SELECTOR, "button.control").click()
        person.until(lambda old=before: person.read("section[aria-label='What to look at next']") != old, "the next round")
        if not left:
            return
    raise AssertionError(f"never asked: {left}")


def first(person: Person) -> str:
    return person.all("[data-testid=suspect] button[aria-expanded]")[0].text


def test_a_torn_finish_on_a_small_diameter_leads_to_the_sharp_edge(person: Person) -> None:
    open_clinic(person, "/clinic", "turn")
    seen(person, "furry", "torn, dull, scaly surface")
    found(person, "run slower than planned")
    person.until(lambda: "spindle cannot reach the speed" in first(person), "the cause")
    assert "Sharp polished edge" in person.read("[data-testid=suspect]")


def test_a_packed_hole_leads_to_pressure_and_not_to_less_feed(person: Person) -> None:
    job = Job.objects.get(name="Gate-valve body").pk
    open_clinic(person, f"/jobs/{job}/operations/op20/clinic")
    seen(person, "clogged", "flutes packed with chips")
    found(person, "pressure at the tool lower")
    person.until(lambda: "pressure lost on the way" in first(person), "the cause")
    told = person.read("[data-testid=suspect]")
    assert "Clean the filter" in told
    assert "ess feed" not in told
    person.see_text("button", "it helped").click()
    person.see_text("[role=status]", "It counts from now on")


@pytest.mark.parametrize(("look", "cause"), [("take the error down", "part springs away"), ("two collars", "tailstock out of line")])
def test_a_taper_is_told_from_springing_or_from_the_tailstock_by_one_measurement(person: Person, look: str, cause: str) -> None:
    open_clinic(person, "/clinic", "turn")
    seen(person, "conical bigger end", "taper: thick at the free end")
    found(person, look)
    person.until(lambda: cause in first(person), cause)


def test_a_change_is_run_and_seen_on_the_bench(person: Person) -> None:
    job = Job.objects.get(name="Runner shaft").pk
    person.sign_in("engineer")
    person.go(f"/jobs/{job}/operations/op30")
    person.settled()
    person.see("main h2").click()
    before = person.value("#feed_per_rev")
    person.press("a")
    seen(person, "gramophone", "lines as far apart as the feed")
    found(person, "exactly as far apart")
    person.until(lambda: "feed too high for the corner" in first(person), "the cause")
    person.see_text("button", "set it, see it on the bench").click()
    person.saved(2)
    person.until(lambda: person.value("#feed_per_rev") != before, "less feed")


def test_an_exercise_is_solved(person: Person) -> None:
    person.sign_in("engineer")
    person.go("/exercises")
    person.see_text("li button", ":").click()
    person.see_text("section[aria-label='The case'] p", "Whoever is at the machine says")
    hidden = Practice.objects.get()
    person.see("select option[value='override']").click()
    person.see_text("button", "look").click()
    person.see_text("section[aria-label='What was done'] li", "override")
    person.see(f"select option[value='{hidden.cause}']").click()
    person.see_text("button", "make its change").click()
    person.see_text("[data-testid=explained]", "It was")
    person.see_text("[role=status]", "solved")
