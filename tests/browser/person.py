"""A person at the bench: does with mouse and keys what people do, and reads what they read."""

from __future__ import annotations

import time
from collections.abc import Callable
from typing import Any

from selenium import webdriver
from selenium.common.exceptions import StaleElementReferenceException, WebDriverException
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement
from selenium.webdriver.support.ui import WebDriverWait

from server.people.demo_people import PEOPLE

PASSWORDS = {name: password for name, password, _ in PEOPLE}


class Person:
    def __init__(self, chrome: webdriver.Chrome, site: str) -> None:
        self.chrome, self.site = chrome, site

    def sign_in(self, name: str) -> None:
        self.chrome.delete_all_cookies()
        self.chrome.get(self.site)
        self.see("input[name=name]").send_keys(name)
        self.see("input[name=password]").send_keys(PASSWORDS[name], Keys.ENTER)
        self.see("header")

    def go(self, path: str) -> None:
        self.chrome.get(f"{self.site}/#{path}")

    def reload(self) -> None:
        self.chrome.refresh()

    def until(self, condition: Callable[[], Any], what: str, seconds: float = 25) -> Any:
        def tried(_: Any) -> Any:
            try:
                return condition()
            except (StaleElementReferenceException, WebDriverException):
                return False

        return WebDriverWait(self.chrome, seconds, poll_frequency=0.05).until(tried, f"did not see: {what}")

    def all(self, css: str) -> list[WebElement]:
        return self.chrome.find_elements(By.CSS_SELECTOR, css)

    def see(self, css: str) -> WebElement:
        return self.until(lambda: next((e for e in self.all(css) if e.is_displayed()), None), css)  # type: ignore[no-any-return]

    def count(self, css: str, many: int) -> None:
        """So many of them, once the page has drawn them."""
        self.until(lambda: len(self.all(css)) == many, f"{many} of {css}")

    def see_text(self, css: str, text: str) -> WebElement:
        """An element whose words hold the text."""
        return self.until(lambda: next((e for e in self.all(css) if text in e.text), None), f"{css} with '{text}'")  # type: ignore[no-any-return]

    def read(self, css: str) -> str:
        return str(self.until(lambda: self.see(css).text, f"{css} with words"))

    def value(self, css: str) -> str:
        return str(self.until(lambda: self.see(css).get_attribute("value"), f"{css} with a value"))

    def press(self, *keys: str) -> None:
        """Keys to whatever has the focus."""
        for key in keys:
            ActionChains(self.chrome).send_keys(key).perform()

    def chord(self, modifier: str, key: str) -> None:
        ActionChains(self.chrome).key_down(modifier).send_keys(key).key_up(modifier).perform()

    def settled(self) -> None:
        """Nothing on the page is stale or following any more."""
        self.until(lambda: self.all("section[aria-label]") and not self.all("section[aria-busy=true]"), "a settled page")

    def saved(self, revision: int) -> None:
        self.until(lambda: f"rev {revision}" in self.see("[data-testid=saved]").text, f"revision {revision} saved")

    def type_over(self, css: str, text: str, end: str = Keys.ENTER) -> None:
        field = self.see(css)
        field.click()
        field.send_keys(Keys.CONTROL, "a")
        field.send_keys(text + end)

    def caution(self, name: str, words: str = "") -> str:
        """What a warning says, wherever it stands: the worst is on the bench, all of them are a key away."""
        css = f"[data-testid=caution-{name}]"
        self.see("main h2").click()
        self.press("v")
        said = self.see_text(f"[role=dialog] {css}", words).text
        self.press(Keys.ESCAPE)
        self.until(lambda: not self.all("[role=dialog]"), "the warnings are closed")
        return said

    def pause(self, seconds: float) -> None:
        time.sleep(seconds)
