"""Takes the pictures in docs/screenshots from the demo data: one per main view. Run by `./bench shots`."""

from __future__ import annotations

import io

from PIL import Image
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webdriver import WebDriver

from house.ground import ROOT
from tests.browser.chromium import open_browser
from tests.browser.demo_site import demo_site
from tests.browser.person import Person

FOLDER = ROOT / "docs" / "screenshots"
MOST_BYTES = 120_000
# name, path with {shaft}, {hub}, {pin} and so on for the demo jobs, theme, units, what to press before the picture
PICTURES = (
    ("jobs", "/", "light", "mm", ""),
    ("job-bench", "/jobs/{shaft}", "light", "mm", ""),
    ("operation-bench", "/jobs/{shaft}/operations/op30", "light", "mm", ""),
    ("cut-off", "/jobs/{pin}/operations/op40", "light", "mm", "travel"),
    ("groove", "/jobs/{carrier}/operations/op20", "light", "mm", "step"),
    ("bore", "/jobs/{seats}/operations/op10", "light", "mm", ""),
    ("stack", "/jobs/{panel}/operations/op10", "light", "mm", "window"),
    ("milled-hole-dark-inch", "/jobs/{cap}/operations/op20", "dark", "inch", ""),
    ("heavy-tool", "/crib/heavy-tools", "light", "mm", ""),
    ("crib", "/crib?q=CNMG", "light", "mm", "Enter"),
    ("turned-thread", "/jobs/{spindle}/operations/op20", "light", "mm", ""),
    ("tap", "/jobs/{block}/operations/op20", "light", "mm", ""),
    ("thread", "/shelf/threads/M10x1.25", "light", "mm", ""),
    ("trial", "/trials/3", "light", "mm", ""),
    ("clinic", "/jobs/{shaft}/operations/op30/clinic", "light", "mm", "sight"),
    ("shelf", "/shelf", "light", "mm", ""),
    ("passes-and-size", "/jobs/{hub}/operations/op30", "light", "mm", "measure"),
)


def main() -> int:
    with demo_site() as site:
        _take(site)
    return 0


def _take(site: str) -> None:
    FOLDER.mkdir(parents=True, exist_ok=True)
    chrome = open_browser()
    person = Person(chrome, site)
    person.sign_in("engineer")
    jobs = {
        row.find_element("css selector", ".font-semibold").text: row.get_attribute("href").split("/")[-1]  # type: ignore[union-attr]
        for row in person.until(lambda: person.all("main li a"), "jobs")
    }
    known = {"shaft": jobs["Runner shaft"], "hub": jobs["Deflector hub, weld repaired"], "pin": jobs["Guide-vane pin"],
             "carrier": jobs["Bearing carrier"], "seats": jobs["Carrier, bored seats"], "cap": jobs["Valve cap, flat floors"],
             "panel": jobs["Screen-frame panel"], "spindle": jobs["Gate spindle Tr 20x4"],
             "block": jobs["Valve block, six M10"]}  # fmt: skip
    try:
        for name, path, theme, units, keys in PICTURES:
            chrome.execute_async_script(
                """const done = arguments[2];
                fetch('/api/session').then(r => r.json()).then(s => fetch('/api/session/preferences', {method: 'PATCH',
                  headers: {'Content-Type': 'application/json', 'X-CSRFToken': s.token},
                  body: JSON.stringify({theme: arguments[0], units: arguments[1]})})).then(done);""",
                theme,
                units,
            )
            person.go(path.format(**known))
            person.reload()
            person.pause(2.5)
            if keys == "measure":
                _measure_two_passes(person)
            elif keys == "window":
                person.see_text("section.area-map button", "speed × feed").click()
                person.see_text("[data-testid=window-says]", "No field")
                person.pause(0.6)
            elif keys == "sight":
                person.see_text("button.sight", "lines as far apart").click()
                person.pause(1.5)
            elif keys in ("travel", "step"):
                person.see("#operation-map").click()
                person.press(*(["."] * 6 if keys == "step" else []))
                person.pause(0.6)
            elif keys:
                person.see("h2").click()
                person.press(Keys.ENTER if keys == "Enter" else keys)
                person.pause(1.2)
            _keep(chrome, name)
            print(f"  {name}.png")
        chrome.set_window_size(900, 1200)
        chrome.get(f"{site}/api/jobs/{known['hub']}/setup-sheet?form=page&operation=op30")
        person.pause(1.0)
        _keep(chrome, "setup-sheet")
        print("  setup-sheet.png")
        chrome.set_window_size(820, 1180)
        chrome.execute_cdp_cmd(
            "Emulation.setDeviceMetricsOverride", {"width": 820, "height": 1180, "deviceScaleFactor": 1, "mobile": False}
        )
        person.go(f"/jobs/{known['hub']}/at-machine/op30")
        person.pause(2.0)
        _keep(chrome, "at-the-machine")
        print("  at-the-machine.png")
    finally:
        chrome.quit()


def _keep(chrome: WebDriver, name: str) -> None:
    """A picture with a palette: what history keeps of each stays small."""
    picture = Image.open(io.BytesIO(chrome.get_screenshot_as_png())).convert("RGB")
    for colours in (256, 128, 64):
        picture.quantize(colours, method=Image.Quantize.MEDIANCUT, dither=Image.Dither.NONE).save(FOLDER / f"{name}.png", optimize=True)
        if (FOLDER / f"{name}.png").stat().st_size <= MOST_BYTES:
            return


def _measure_two_passes(person: Person) -> None:
    person.see("main h2").click()
    person.press("z")
    for count, offset in ((1, 0.084), (2, 0.087)):
        commanded = float(person.read("[data-testid=command]").replace("Ø", "").split()[0])
        field = person.see_text("[role=dialog] label", "measured Ø").find_element("css selector", "input")
        field.send_keys(f"{commanded + offset:.3f}", Keys.ENTER)
        person.until(lambda rows=count: len(person.all("[data-testid=ledger-row]")) == rows, f"{count} measured")
    person.chrome.execute_script("document.querySelector('[role=dialog] [role=region]').scrollTop = 1e6")
    person.pause(0.5)
