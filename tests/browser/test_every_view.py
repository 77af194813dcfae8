"""Each view: accessible, within 1280×800 where it must be, in both themes, with nothing blocked by the content policy."""

from __future__ import annotations

import json
from collections.abc import Callable, Iterator

import pytest

from server.crib.models import Tool
from server.jobs.models import Job
from server.trials.models import Trial
from tests.browser.chromium import AXE
from tests.browser.person import Person

pytestmark = pytest.mark.browser
# benches of the other kinds: job and operation
BENCHES = {"cut-off": ("Guide-vane pin", "op40"), "groove": ("Bearing carrier", "op20"), "inside": ("Bearing carrier", "op30"),
         "bore": ("Carrier, bored seats", "op20"), "milled-hole": ("Valve cap, flat floors", "op20"),
         "turned-thread": ("Gate spindle Tr 20x4", "op20"), "tap": ("Valve block, six M10", "op20"),
         "milled-thread": ("Needle seat M8x1, hardened", "op10"),
         "face-groove": ("Nozzle ring", "op20"), "trepan": ("Screen cover disc", "op10"),
         "stack": ("Screen-frame panel", "op10"), "deep-hole": ("Gate-valve body", "op20")}  # fmt: skip
# each theme at a width of its own: colours do not change with the width, targets and order do
LOOKS = (("light", 1280, 800), ("dark", 820, 1180))
VIEWS = ("jobs", "job", "at-machine", "sheet-a", "sheet-l", "sheet-t",
         "operation", "crib", "tool", "geometries", "assemblies", "heavy-tools", "tool-materials", "exchange", "shelf", "threads", "floor",
         "people", "account", "programs", "trials", "trial", "clinic", "operation-clinic", "exercises",
         "study-z", "study-r", "study-l", "study-t", "study-g", "study-c", "study-h", "study-q", "study-i", "log",
         "help", "document", *BENCHES)  # fmt: skip


def path_of(view: str) -> str:
    if view in BENCHES:
        name, operation = BENCHES[view]
        return f"/jobs/{Job.objects.get(name=name).pk}/operations/{operation}"
    job = Job.objects.get(name="Runner shaft").pk
    tool = Tool.objects.get(name="CNMG 120408 middle P20 CVD").pk
    paths = {"jobs": "/", "job": f"/jobs/{job}", "operation": f"/jobs/{job}/operations/op30", "tool": f"/crib/tools/{tool}"}
    paths |= {name: f"/crib/{name}" for name in ("geometries", "assemblies", "heavy-tools", "tool-materials")}
    if view == "trial":
        return f"/trials/{Trial.objects.filter(watched='roughness').get().pk}"
    if view == "operation-clinic":
        return f"/jobs/{job}/operations/op30/clinic"
    if view == "at-machine":
        return f"/jobs/{job}/at-machine/op30"
    if view.startswith("sheet"):
        return paths["job"]
    if view.startswith("study") or view in ("log", "help"):
        return paths["operation"]
    paths |= {"threads": "/shelf/threads/Tr%2020x4", "document": "/help/good-sense"}
    return paths.get(view, f"/{view}")


def open_view(person: Person, view: str) -> None:
    if view == "people":
        person.sign_in("administrator")
    person.go(path_of(view))
    person.see("main section, main li a, main article li")
    person.settled() if "/operations/" in path_of(view) else person.pause(0.6)
    if view.startswith(("study", "sheet")) or view == "log":
        person.see("main h2").click()
        person.press("n" if view == "log" else view[-1])
        person.see("[role=dialog]")
        person.pause(1.0)
    if view == "help":
        person.see("main h2").click()
        person.press("?")
        person.see_text("[data-testid=help-terms]", "kerf")


@pytest.fixture
def sized(person: Person) -> Iterator[Callable[[int, int], None]]:
    """Sets the window; afterwards it has its usual size again."""

    def size(width: int, height: int) -> None:
        metrics = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": False}
        person.chrome.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)

    yield size
    size(1280, 800)


@pytest.mark.parametrize("view", VIEWS)
def test_no_serious_accessibility_finding(person: Person, sized: Callable[[int, int], None], view: str) -> None:
    open_view(person, view)
    person.chrome.execute_script(AXE.read_text(encoding="utf-8"))
    for theme, width, height in LOOKS:
        sized(width, height)
        person.chrome.execute_script("document.documentElement.dataset.theme = arguments[0]", theme)
        person.pause(0.3)
        found = person.chrome.execute_async_script("axe.run(document, {resultTypes: ['violations']}).then(arguments[0])")
        serious = [
            f"{violation['id']}: {node['html'][:160]} {json.dumps(node['any'][:1])[:300]}"
            for violation in found["violations"]
            if violation["impact"] in ("serious", "critical")
            for node in violation["nodes"]
        ]
        assert serious == [], f"{view}, {theme}, {width} by {height}"


def test_sign_in_is_accessible(person: Person) -> None:
    person.see("header button[aria-label^='engineer']").click()
    person.see_text("[role=menuitem]", "Sign out").click()
    person.see("input[name=name]")
    person.chrome.execute_script(AXE.read_text(encoding="utf-8"))
    found = person.chrome.execute_async_script("axe.run(document).then(arguments[0])")
    assert [v["id"] for v in found["violations"] if v["impact"] in ("serious", "critical")] == []


@pytest.mark.parametrize("view", ["operation", *BENCHES])
def test_the_operation_bench_fits_without_scrolling(person: Person, view: str) -> None:
    open_view(person, view)
    sizes = person.chrome.execute_script(
        "const m = document.getElementById('main');"
        "return [m.scrollHeight, m.clientHeight, document.documentElement.scrollWidth, innerHeight]"
    )
    assert sizes[0] <= sizes[1]
    assert sizes[2] <= 1280
    assert sizes[3] == 800
    boxes = person.chrome.execute_script(
        "return [...document.querySelectorAll('main section')].map(s => [s.getAttribute('aria-label'), s.getBoundingClientRect().bottom])"
    )
    assert all(bottom <= 800 for _, bottom in boxes), boxes


@pytest.mark.parametrize("view", BENCHES)
def test_every_operation_has_its_card_at_the_machine(person: Person, view: str) -> None:
    """With its tool, its speeds and nothing that the page stumbles over."""
    person.go(path_of(view).replace("operations", "at-machine"))
    for heading in ("Tool", "Speeds"):
        assert person.see(f"section[aria-label='{heading}'] dd").text
    assert [one for one in person.chrome.get_log("browser") if "Uncaught" in one["message"]] == []


def test_a_stranger_s_address_says_so(person: Person) -> None:
    person.go("/jobs/987654")
    assert "no such job" in person.see_text("[role=alert]", "job").text
    person.go("/nowhere")
    person.see_text("h1", "nothing here")
