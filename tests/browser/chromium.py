"""Headless Chromium as the tests, pictures and measurements open it."""

from __future__ import annotations

from pathlib import Path

from selenium import webdriver
from selenium.webdriver.chrome.service import Service

AXE = Path(__file__).parents[2] / "web" / "node_modules" / "axe-core" / "axe.min.js"

FLAGS = (
    "--headless=new", "--no-sandbox", "--disable-gpu", "--disable-dev-shm-usage", "--disable-background-networking",
    "--disable-component-update", "--disable-sync", "--no-first-run", "--hide-scrollbars", "--font-render-hinting=none",
    "--window-size=1280,800",
)  # fmt: skip


def open_browser(width: int = 1280, height: int = 800) -> webdriver.Chrome:
    """A Chromium of exactly this page size."""
    options = webdriver.ChromeOptions()
    for flag in FLAGS:
        options.add_argument(flag)
    options.set_capability("goog:loggingPrefs", {"browser": "ALL"})
    options.binary_location = "/usr/bin/chromium"
    chrome = webdriver.Chrome(options=options, service=Service("/usr/bin/chromedriver"))
    metrics = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": False}
    chrome.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
    return chrome
