"""Nothing on any operation bench is cut off, lies over something else, leaves its picture or is struck through by a line."""

from __future__ import annotations

from pathlib import Path

import pytest

from server.jobs.models import Job
from server.trials.models import Trial
from tests.browser.edits import change
from tests.browser.person import Person

pytestmark = pytest.mark.browser
MEASURE = (Path(__file__).parent / "legible.js").read_text(encoding="utf-8")
SIZES = ((1280, 800), (1024, 768))
# units and theme change together: a theme moves no word, and both are seen at both sizes
JOBS = ("Runner shaft", "Deflector hub, weld repaired", "Guide-vane pin", "Wear bush", "Spear-valve needle, hardened", "Bearing carrier",
        "Nozzle ring", "Screen cover disc")  # fmt: skip
PAGE = {"width": 1280, "height": 800, "deviceScaleFactor": 1, "mobile": False}
LOOKS = (("mm", "light"), ("inch", "dark"))


def measure(person: Person, scope: str) -> list[str]:
    found = person.chrome.execute_script(MEASURE, scope)
    if found:  # fonts and sizes settle a frame later
        person.pause(0.5)
        found = person.chrome.execute_script(MEASURE, scope)
    return list(found)


@pytest.mark.parametrize("name", JOBS)
def test_every_word_of_every_demo_operation_can_be_read(person: Person, name: str) -> None:
    job = Job.objects.get(name=name)
    operations = [entry["id"] for entry in job.revisions.first().document["operations"]]
    faults: dict[str, list[str]] = {}
    try:
        for operation in operations:
            person.go(f"/jobs/{job.pk}/operations/{operation}")
            for units, theme in LOOKS:
                person.see_text("header button", units).click()
                person.chrome.execute_script("document.documentElement.dataset.theme = arguments[0]", theme)
                for width, height in SIZES:
                    metrics = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": False}
                    person.chrome.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
                    person.settled()
                    person.pause(0.15)
                    for scope in ("main", "header"):
                        for fault in measure(person, scope):
                            faults.setdefault(fault, []).append(f"{operation} {width} {units}")
    finally:
        metrics = {"width": 1280, "height": 800, "deviceScaleFactor": 1, "mobile": False}
        person.chrome.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
    assert faults == {}


def test_every_word_of_a_trial_can_be_read(person: Person) -> None:
    faults: list[str] = []
    for path in ("/trials", *(f"/trials/{one.pk}" for one in Trial.objects.all())):
        person.go(path)
        for units, _ in LOOKS:
            person.see_text("header button", units).click()
            person.see("main section table, main section form")
            person.pause(0.8)
            faults += [f"{path} {units}: {fault}" for fault in measure(person, "main")]
        try:
            for width in (1280, 820, 1280):  # wide, narrow, and wide again: nothing keeps the room that it had
                person.chrome.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", {**PAGE, "width": width})
                person.pause(0.4)
                over = person.chrome.execute_script("const m = document.getElementById('main'); return m.scrollWidth - m.clientWidth")
                faults += [f"{path}: {over} px beside the page at {width}"] if over > 1 else []
        finally:
            person.chrome.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", PAGE)
    assert faults == []


def test_a_cut_beside_the_jaws_keeps_its_words_in_the_picture(person: Person) -> None:
    """Forces, the way of the feed and what stands in the way are said at the left edge of the drawing too."""
    job = Job.objects.get(name="Runner shaft")
    near = {"start_diameter": "64 mm", "end_diameter": "60 mm", "length": "3 mm", "distance_from_chuck": "0.5 mm"}
    change(job.pk, {"action": "set_feature", "operation": "op20", "feature": near})
    person.go(f"/jobs/{job.pk}/operations/op20")
    person.settled()
    assert measure(person, "main") == []


def test_the_measure_sees_what_it_is_for(person: Person) -> None:
    """A cut label, two words over each other, a word out of its picture, a line through a word, a field that clips."""
    person.see("main li a")
    person.chrome.execute_script(
        """document.getElementById('main').innerHTML = `<section>
        <p id="cut">a label that is much too long for its place</p>
        <div id="pile"><span>one word</span><span>over another</span></div>
        <svg width="200" height="60"><text x="190" y="20">leaves it</text><text x="10" y="40">struck</text>
        <path d="M0,36H80" stroke="red"/></svg>
        <input id="clips" value="0.0145 mm/rev and more"></section>`;
        const cut = document.getElementById('cut'); cut.style.cssText = 'width:60px;overflow:hidden;white-space:nowrap';
        const pile = document.getElementById('pile'); pile.style.cssText = 'position:relative;height:20px';
        for (const one of pile.children) one.style.cssText = 'position:absolute;left:0;top:0';
        document.getElementById('clips').style.cssText = 'width:60px';"""
    )
    found = " / ".join(person.chrome.execute_script(MEASURE, "main"))
    for fault in ("cut off sideways", "over each other", "out of its picture", "a line through", "field clips"):
        assert fault in found
