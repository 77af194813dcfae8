"""Trials on a tablet: away from the server and back, a life that moves the plan, two ways compared."""

from __future__ import annotations

import time

import pytest
from selenium.webdriver.common.by import By

from tests.browser.person import Person

pytestmark = pytest.mark.browser


def begin(person: Person, question: str, job: str = "Runner shaft", operation: str = "op20") -> None:
    person.sign_in("engineer")
    person.see_text("a", job).click()
    person.until(lambda: "/jobs/" in person.chrome.current_url, "the job")
    person.go(person.chrome.current_url.split("#")[1] + f"/operations/{operation}")
    person.see_text("button", "trials").click()
    person.see("input[name=question], [role=dialog] input").send_keys(question)
    person.see_text("button", "Start the trial").click()
    person.see_text("h1", question)
    person.see_text("[data-testid=outbox]", "all sent")


def field(person: Person, label: str, text: str) -> None:
    box = person.see(f"[data-reading={label}]")
    box.clear()
    box.send_keys(text)


def pieces(person: Person, count: int) -> None:
    box = person.see("input[aria-label='pieces on this edge']")
    person.chrome.execute_script(
        "arguments[0].value = arguments[1]; arguments[0].dispatchEvent(new Event('input', {bubbles: true}))", box, str(count)
    )


def press(person: Person, group: str, word: str) -> None:
    person.chrome.execute_script("document.querySelector('details').open = true")
    buttons = person.see(f"[role=group][aria-label='{group}']").find_elements(By.TAG_NAME, "button")
    button = next(one for one in buttons if one.text.strip() == word)
    person.chrome.execute_script("arguments[0].scrollIntoView({block: 'center'})", button)
    button.click()


def keep(person: Person) -> None:
    person.see_text("button", "Keep this entry").click()


def ended(person: Person, count: int, why: str = "worn") -> None:
    pieces(person, count)
    press(person, "because", why)
    keep(person)
    person.see_text("[data-testid=kept]", f"ended at {count}")


def test_typed_without_a_line_it_survives_a_reload_and_is_sent_once(person: Person) -> None:
    begin(person, "Does it hold without a line?")
    pieces(person, 5)
    press(person, "chip", "arc")
    keep(person)
    person.see_text("section[aria-label=Entries] li", "edge 1, 5")
    person.until(lambda: person.chrome.execute_script("return !!navigator.serviceWorker.controller"), "the page is at hand without a line")
    person.until(lambda: person.chrome.execute_async_script(AT_HAND), "its scripts are kept")
    line(person, broken=True)
    field(person, "wear_land", "0,12")
    pieces(person, 12)
    keep(person)
    person.see_text("[data-testid=outbox]", "1 kept on this tablet")
    person.reload()
    person.see_text("[data-testid=outbox]", "1 kept on this tablet")
    pieces(person, 20)
    keep(person)
    person.see_text("[data-testid=outbox]", "2 kept on this tablet")
    line(person, broken=False)
    person.chrome.execute_script("window.dispatchEvent(new Event('online'))")
    person.see_text("[data-testid=outbox]", "all sent")
    person.see_text("section[aria-label=Entries] li", "edge 1, 20")
    person.see_text("section[aria-label=Entries] li", "0.12 mm")
    person.count("section[aria-label=Entries] li", 3)
    person.chrome.get_log("browser")  # what the browser says of the broken line


AT_HAND = """const done = arguments[0];
caches.open('arrow-bench-1').then(async (kept) => {
  const names = (await kept.keys()).map((one) => new URL(one.url).pathname);
  done(names.includes('/') && names.some((name) => name.includes('Trial')) && names.includes('/api/session'));
});"""


def line(person: Person, broken: bool) -> None:
    conditions = {"offline": broken, "latency": 0, "download_throughput": -1, "upload_throughput": -1}
    person.chrome.set_network_conditions(**conditions)
    if broken:
        time.sleep(0.2)


def test_a_life_is_learned_and_the_plan_moves(person: Person) -> None:
    begin(person, "How long does an edge really last?", operation="op30")
    bench = person.see("section[aria-label=Log] a").get_attribute("href").split("#")[1]
    for count, why in ((40, "worn"), (36, "early"), (44, "finish"), (41, "worn")):
        ended(person, count, why)
    person.see_text("section[aria-label='What it says'] li", "3 of 4 edges that came to their end")
    person.go("/trials")
    row = person.see_text("section[aria-label='What the trials teach'] tr", "CNMG 120408 middle P20 CVD, 34CrNiMo6")
    rows = [one for one in person.all("section[aria-label='What the trials teach'] tbody tr") if "life" in one.text]
    row = next(one for one in rows if "CNMG 120408 middle P20 CVD, 34CrNiMo6" in one.text)
    row.find_element(By.TAG_NAME, "button").click()
    person.see_text("section[aria-label='What the trials teach'] li", "life of the edge")
    person.go(bench)
    assert "life of the edge" in person.see_text(".area-results a", "learned").get_attribute("title")
    # taken back, nothing of it is left
    person.go("/trials")
    person.see_text("button", "take it back").click()
    person.until(lambda: not [one for one in person.all("button") if one.text == "take it back"], "nothing accepted")


def test_two_ways_on_one_bar_and_the_money(person: Person) -> None:
    begin(person, "First way", operation="op30")
    first = person.chrome.current_url.split("/")[-1]
    for count in (20, 23, 26):
        ended(person, count)
    person.see("section[aria-label=Log] a").click()
    person.see_text("button", "trials").click()
    person.see("[role=dialog] input").send_keys("Second way")
    person.see(f"[role=dialog] option[value='{first}']").click()
    person.see_text("button", "Start the trial").click()
    person.see_text("h1", "Second way")
    for count in (45, 52, 58):
        ended(person, count)
    says = person.see_text("section[aria-label='What it says']", "They differ").text
    assert "a piece costs" in says
    person.see("input[aria-label=Why]").send_keys("twice the pieces")
    person.see_text("button", "End the trial").click()
    person.see_text("section[aria-label=Verdict]", "keep")


def test_an_instrument_that_cannot_see_the_fit_is_found_out_before_the_trial(person: Person) -> None:
    person.sign_in("engineer")
    person.go("/trials")
    person.see_text("button", "what an instrument can see").click()
    person.see("[role=dialog] input[placeholder='0.016']").send_keys("0.016")
    for p, off in enumerate((0.000, 0.003)):
        for part in range(5):
            for repeat, more in enumerate((0.0, 0.002)):
                cell = person.see(f"input[aria-label='person {p + 1}, part {part + 1}, reading {repeat + 1}']")
                cell.send_keys(f"{50 + 0.001 * part + off + more:.3f}")
    person.see_text("[role=dialog] button", "Evaluate").click()
    person.see_text("[role=dialog] section[role=status]", "cannot see this fit")
