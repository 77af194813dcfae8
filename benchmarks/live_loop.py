"""From key press to repainted bench, in the real browser against the server as it is started."""

from __future__ import annotations

import json
import statistics

from selenium.webdriver.common.keys import Keys

from benchmarks.holes import EIGHT
from benchmarks.sizes import FULL, Sizes
from tests.browser.chromium import open_browser
from tests.browser.edits import edit_unseen
from tests.browser.person import Person

OPERATIONS = (
    ("Runner shaft", "Rough turn Ø49.5", "fs"),
    ("Guide-vane pin", "Cut off", "f"),
    ("Bearing carrier", "Belt groove", "f"),
    ("Nozzle ring", "Seal groove", "f"),
    ("Screen cover disc", "Trepan", "f"),
    ("Screen-frame panel", "Drill 112", "f"),
    ("Gate spindle", "Spindle thread", "f"),
    ("Needle seat", "Thread M8x1", "f"),
    ("Carrier, bored seats", "Bearing seat", "f"),
    ("Valve cap, flat floors", "Plunger seat", "f"),
)


def measure(site: str, sizes: Sizes = FULL) -> list[str]:
    chrome = open_browser()
    try:
        return _measure(Person(chrome, site), sizes)
    finally:
        chrome.quit()


def _measure(person: Person, sizes: Sizes) -> list[str]:
    person.sign_in("engineer")
    found = []
    for job, operation, keys in OPERATIONS[: sizes.benches]:
        person.go("/")
        person.type_over("input[aria-label='Find a job']", job)  # other measurements leave many jobs of their own
        person.see_text("a span", job).click()
        person.see_text("table a", operation).click()
        person.see("#cutting_speed")
        if operation.startswith("Drill"):  # the hardest case: a stack of eight layers
            feature = {"action": "set_feature", "operation": "op10", "feature": {"stack": EIGHT}}
            assert edit_unseen(person, json.dumps(feature)) == 200
            person.reload()
            person.see("#cutting_speed")
        person.settled()
        person.chrome.execute_script("performance.clearResourceTimings()")
        found += [f"{operation}, {_presses(person, key, sizes.presses)}" for key in keys]
        person.settled()
        found += [f"{operation}, {line}" for line in _requests(person)]
    return found


def _presses(person: Person, key: str, presses: int) -> str:
    person.see("h2").click()
    person.press(key)
    person.chrome.execute_script("performance.clearMeasures()")
    for k in range(presses):
        person.press(Keys.ARROW_UP if k % 8 < 4 else Keys.ARROW_DOWN)
        person.pause(0.2)
    painted = "return performance.getEntriesByName('nudge-to-paint').map(m => m.duration)"
    times = sorted(person.until(lambda: person.chrome.execute_script(painted), "a nudge that was painted"))
    late = times[int(0.95 * len(times))]
    return (
        f"key {key}: press to repaint of scene, map, rails and results: median {statistics.median(times):.0f} ms, "
        f"95 % {late:.0f} ms, worst {times[-1]:.0f} ms over {len(times)} presses (wanted below 100 ms)"
    )


def _requests(person: Person) -> list[str]:
    script = "return performance.getEntriesByType('resource').filter(e => e.name.endsWith(arguments[0])).map(e => e.duration)"
    found = []
    for end, words in (("/evaluate", "evaluation request"), ("/follow", "ranking, remedies and tape (wanted within a second)")):
        times = sorted(person.chrome.execute_script(script, end))
        found.append(f"{words}: median {statistics.median(times):.0f} ms, worst {times[-1]:.0f} ms over {len(times)}")
    return found
