"""What a person does with the pages, in words of the pages."""

from __future__ import annotations

import base64
import json
import tempfile
from collections.abc import Callable
from typing import Any

from selenium import webdriver
from selenium.common.exceptions import StaleElementReferenceException
from selenium.webdriver.chrome.service import Service
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement
from selenium.webdriver.support.ui import WebDriverWait

from fitzle.apps.accounts.sample import EMAIL, PASSWORD

PATIENCE_S = 90  # these machines stall for many seconds at times
FLAGS = (
    "--headless=new", "--no-sandbox", "--disable-gpu", "--disable-dev-shm-usage", "--no-first-run",
    "--disable-background-networking", "--disable-component-update", "--disable-sync", "--window-size=1280,800",
)  # fmt: skip
DROP = """
const [target, name, encoded] = arguments;
const bytes = Uint8Array.from(atob(encoded), (letter) => letter.charCodeAt(0));
const transfer = new DataTransfer();
transfer.items.add(new File([bytes], name));
for (const kind of ['dragenter', 'dragover', 'drop']) {
  target.dispatchEvent(new DragEvent(kind, {bubbles: true, cancelable: true, dataTransfer: transfer}));
}
"""


def start_browser() -> Any:
    """Headless Chromium from Debian's packages, downloading nothing."""
    options = webdriver.ChromeOptions()
    for flag in (*FLAGS, f"--user-data-dir={tempfile.mkdtemp()}"):
        options.add_argument(flag)
    options.set_capability("goog:loggingPrefs", {"browser": "ALL"})
    return webdriver.Chrome(options=options, service=Service("/usr/bin/chromedriver"))


class Person:
    """Somebody at the screen."""

    def __init__(self, driver: Any, address: str) -> None:
        self.driver, self.address = driver, address

    def go(self, path: str) -> None:
        """Opens a page."""
        self.driver.get(self.address + path)

    def sign_in(self, password: str = PASSWORD) -> None:
        """Types mail address and password."""
        self.go("/")
        self.field("Mail address").send_keys(EMAIL)
        self.field("Password").send_keys(password, Keys.ENTER)
        if password == PASSWORD:
            self.sees("places,")

    def sees(self, words: str) -> None:
        """Waits until these words are on the screen."""
        self.wait(lambda: words in self.text(), f"“{words}” on the screen, but it says: {self.text()[:1500]}")

    def text(self) -> str:
        """All words on the screen."""
        return str(self.driver.execute_script("return document.body.innerText"))

    def wait(self, until: Callable[[], object], what: str = "") -> Any:
        """Waits for something to come true."""
        try:
            return WebDriverWait(self.driver, PATIENCE_S, poll_frequency=0.1).until(lambda _: _quietly(until))
        except Exception as error:
            raise AssertionError(f"waited in vain for {what or until}: {self.text()[:600]}") from error

    def find(self, xpath: str) -> Any:
        """The first visible element, once it is there.

        Pages draw themselves anew as answers come in: a click on one that was replaced goes to what stands there now.
        """
        element = self._found(xpath)

        def click() -> None:
            try:
                WebElement.click(element)
            except StaleElementReferenceException:
                WebElement.click(self._found(xpath))

        element.click = click
        return element

    def _found(self, xpath: str) -> Any:
        return self.wait(
            lambda: next((entry for entry in self.driver.find_elements(By.XPATH, xpath) if entry.is_displayed()), None),
            xpath,
        )

    def button(self, words: str) -> Any:
        """A button by its words or its name for screen readers."""
        return self.find(f"//button[contains(normalize-space(.), '{words}') or contains(@aria-label, '{words}')]")

    def link(self, words: str) -> Any:
        """A link by its words."""
        return self.find(f"//a[contains(normalize-space(.), '{words}')]")

    def field(self, label: str) -> Any:
        """A field by its label."""
        return self.find(f"//label[contains(., '{label}')]//input | //input[@aria-label='{label}']")

    def proof(self, name: str) -> Any:
        """A proof on the wall by the name of its placement."""
        return self.find(f"//li[.//*[normalize-space(text())='{name}']]/div")

    def state_of(self, name: str) -> str:
        """All words under a proof on the wall."""
        return str(self.proof(name).text)

    def open_bench(self, name: str) -> None:
        """Opens the bench of a placement from the wall."""
        self.go("/w/ottermoor")
        self.link(name).click()
        self.sees("Parts, front to back")

    def drop(self, target: Any, name: str, data: bytes) -> None:
        """Drops a file on something."""
        self.driver.execute_script(DROP, target, name, base64.b64encode(data).decode())

    def drag(self, target: Any, dx: int, dy: int) -> None:
        """Drags something by so many px."""
        ActionChains(self.driver).click_and_hold(target).move_by_offset(dx // 2, dy // 2).move_by_offset(
            dx - dx // 2, dy - dy // 2
        ).release().perform()

    def press(self, *keys: str) -> None:
        """Presses keys on whatever has the focus."""
        self.driver.switch_to.active_element.send_keys(*keys)

    def ask(self, path: str) -> Any:
        """What the API answers to the page."""
        script = "const done = arguments[1]; fetch(arguments[0]).then((a) => a.json()).then(done);"
        return self.driver.execute_async_script(script, path)

    def post(self, path: str, body: dict[str, Any]) -> Any:
        """What the API answers to something new."""
        script = """const [address, body, done] = arguments;
        const token = document.cookie.match(/fitzle_csrf=([^;]*)/)[1];
        const headers = {'Content-Type': 'application/json', 'X-CSRFToken': token};
        fetch(address, {method: 'POST', body, headers}).then((answer) => answer.json()).then(done);"""
        return self.driver.execute_async_script(script, path, json.dumps(body))

    def delete(self, path: str) -> None:
        """Takes something away through the API."""
        script = """const done = arguments[1]; const token = document.cookie.match(/fitzle_csrf=([^;]*)/)[1];
        fetch(arguments[0], {method: 'DELETE', headers: {'X-CSRFToken': token}}).then(() => done());"""
        self.driver.execute_async_script(script, path)

    def save_elsewhere(self, fit: Any, change: dict[str, Any]) -> None:
        """Saves a change of a fit as another window would, on the revision that the fit was read with."""
        script = """const [address, body, done] = arguments;
        const token = document.cookie.match(/fitzle_csrf=([^;]*)/)[1];
        const headers = {'Content-Type': 'application/json', 'X-CSRFToken': token};
        fetch(address, {method: 'PATCH', body, headers}).then((answer) => done(answer.status));"""
        body = {"revision": fit["piece"]["revision"], "step": "elsewhere", "changes": [change]}
        address = f"/api/workspaces/ottermoor/fits/{fit['id']}"
        assert self.driver.execute_async_script(script, address, json.dumps(body)) == 200

    def fit(self) -> Any:
        """The fit that is on the bench, from the API."""
        fit = self.driver.current_url.rpartition("/")[2]
        return self.ask(f"/api/workspaces/ottermoor/fits/{fit}")

    def size_window(self, width: int, height: int) -> None:
        """Another screen."""
        metrics = {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": False}
        self.driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)

    def clear_log(self) -> None:
        """Forgets what the console said."""
        self.driver.get_log("browser")

    def complaints(self) -> list[str]:
        """Errors in the console, other than the answers that tests bring about on purpose."""
        meant = ("status of 400", "status of 401", "status of 409", "status of 422", "status of 404")
        entries = [entry["message"] for entry in self.driver.get_log("browser") if entry["level"] == "SEVERE"]
        return [message for message in entries if not any(part in message for part in meant)]


def _quietly(until: Callable[[], object]) -> object:
    try:
        return until()
    except StaleElementReferenceException:
        return None
