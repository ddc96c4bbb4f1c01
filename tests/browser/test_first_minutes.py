"""Somebody who has never seen Fitzle: from the sign-up page to a delivered file, and an account kept in order."""

import re
import time
from pathlib import Path
from typing import Any

from allauth.mfa.totp.internal.auth import hotp_value

from tests.browser.person import Person

LOGO = b"""<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 240 80">
<path fill="#3b2a63" d="M20 60q0-40 25-40t25 40zM95 24h14v14h14v-14h14v42h-14v-16h-14v16h-14zM150 24h40v42h-40z"/>
<circle cx="45" cy="66" r="6" fill="#e0703c"/></svg>"""
WORDS = "Shop header, PNG, 400 x 120 px, transparent background, max 80 KB, shown on white"
PASSWORD = "a-bell-rings-twice"
MOST_ACTIONS, MOST_SECONDS = 9, 60


class Counted:
    """Does what a person does on purpose, and counts it: a field filled, a click, a drop."""

    def __init__(self, person: Person) -> None:
        self.person, self.actions, self.since = person, 0, time.monotonic()

    def fills(self, field: Any, words: str) -> None:
        """Types into a field."""
        self.actions += 1
        field.send_keys(words)

    def clicks(self, words: str) -> None:
        """Presses a button."""
        self.actions += 1
        self.person.button(words).click()

    def follows(self, words: str) -> None:
        """Follows a link."""
        self.actions += 1
        self.person.link(words).click()

    def drops(self, name: str, data: bytes) -> None:
        """Drops a file where it is asked for."""
        self.actions += 1
        self.person.drop(self.person.find("//div[@data-targets]"), name, data)


def signs_up(visitor: Person, email: str) -> Counted:
    visitor.go("/sign-up")
    visitor.sees("Your business")
    doing = Counted(visitor)
    doing.fills(visitor.field("Mail address"), email)
    doing.fills(visitor.field("Password"), PASSWORD)
    doing.fills(visitor.field("Your business"), "Hollow Bell Foundry")
    doing.clicks("Sign up")
    visitor.sees("Drop it here")
    return doing


def test_from_signing_up_to_a_delivered_file(visitor: Person) -> None:
    doing = signs_up(visitor, "rowan@bells.example")
    doing.drops("hollow-bell.svg", LOGO)
    visitor.sees("Make this the house style")
    visitor.sees("A version for dark grounds is made of it as well.")
    doing.fills(visitor.find("//textarea"), WORDS)
    visitor.sees("At most 80 KB.")
    doing.clicks("Put it on the wall with hollow-bell.svg")
    visitor.wait(lambda: "1 place, 1 fit" in visitor.text(), "the fit")
    doing.follows("Deliver all 1")
    doing.clicks("Deliver 1 file")
    visitor.sees("1 delivery, all up to date.")
    visitor.sees("hollow-bell-foundry_shop-header_400x120.png")
    took = time.monotonic() - doing.since
    assert (doing.actions <= MOST_ACTIONS, took < MOST_SECONDS) == (True, True), (doing.actions, took)
    visitor.link("House style").click()
    visitor.sees("4 colours")
    assert visitor.find("//input[@aria-label='Name of #3b2a63']").get_attribute("value") == "Deep violet"


def test_each_step_can_be_left_out(visitor: Person) -> None:
    visitor.go("/sign-up")
    visitor.field("Mail address").send_keys("short@bells.example")
    visitor.field("Password").send_keys(PASSWORD)
    visitor.button("Sign up").click()
    visitor.link("Later: to the empty wall").click()
    visitor.sees("Where does it go?")
    visitor.sees("My workspace")


def newest_link(visitor: Person, subject: str) -> str:
    """The path of the link in the newest mail that has this subject."""

    def found() -> str | None:
        mail = next((one for one in visitor.ask("/api/mails") if one["subject"] == subject), None)
        link = re.search(r"http://[^/]+(/\S+)", mail["body"]) if mail else None
        return link.group(1) if link else None

    return str(visitor.wait(found, subject))


def test_an_address_is_confirmed_and_a_forgotten_password_set_anew(visitor: Person) -> None:
    signs_up(visitor, "wren@bells.example")
    visitor.go("/mail")
    visitor.link("/confirm/").click()
    visitor.button("It is mine").click()
    visitor.sees("Your mail address is confirmed")
    visitor.go("/account")
    visitor.sees("confirmed")
    visitor.driver.delete_all_cookies()
    visitor.go("/")
    visitor.link("Forgotten your password?").click()
    visitor.field("Mail address").send_keys("wren@bells.example")
    visitor.button("Send me a link").click()
    visitor.sees("Look into your mail")
    visitor.go(newest_link(visitor, "A new password for Fitzle"))
    visitor.field("New password").send_keys("another-bell-rings")
    visitor.button("Use it").click()
    visitor.sees("Your new password holds")
    visitor.button("Sign in").click()
    visitor.field("Mail address").send_keys("wren@bells.example")
    visitor.field("Password").send_keys("another-bell-rings")
    visitor.button("Sign in").click()
    visitor.sees("Hollow Bell Foundry")


def shown_code(visitor: Person, at: int) -> str:
    """The code that a telephone shows so many half-minutes from now."""
    secret = visitor.find("//p[contains(., 'Or type it there')]/span").text
    return str(hotp_value(secret, int(time.time()) // 30 + at)).zfill(6)


def test_signing_in_takes_two_steps_and_a_recovery_code_helps(visitor: Person) -> None:
    signs_up(visitor, "tern@bells.example")
    visitor.go(newest_link(visitor, "Welcome to Fitzle: confirm your mail address"))
    visitor.button("It is mine").click()
    visitor.sees("Your mail address is confirmed")
    visitor.go("/account")
    visitor.field("Your password, to switch them on").send_keys(PASSWORD)
    visitor.button("Switch two steps on").click()
    visitor.find("//img[contains(@alt, 'The secret')]")
    visitor.field("Code").send_keys(shown_code(visitor, 0))
    visitor.button("Switch two steps on").click()
    visitor.sees("Keep these.")
    codes = [entry.text for entry in visitor.driver.find_elements("xpath", "//li[string-length(text()) = 8]")]
    assert len(codes) == 10
    visitor.driver.delete_all_cookies()
    visitor.go("/")
    visitor.field("Mail address").send_keys("tern@bells.example")
    visitor.field("Password").send_keys(PASSWORD)
    visitor.button("Sign in").click()
    visitor.field("Code").send_keys("00000000")
    visitor.button("Go on").click()
    visitor.sees("This code is not right")
    visitor.field("Code").clear()
    visitor.field("Code").send_keys(codes[3])
    visitor.button("Go on").click()
    visitor.sees("Hollow Bell Foundry")


def test_an_account_sees_where_it_is_signed_in(visitor: Person, tmp_path: Path) -> None:
    signs_up(visitor, "lark@bells.example")
    visitor.go("/account")
    visitor.sees("here, now")
    visitor.field("Your name").send_keys("Lark")
    visitor.button("Save").click()
    visitor.wait(lambda: visitor.ask("/api/session")["name"] == "Lark", "the name")


def test_a_workspace_is_saved_deleted_and_had_back(visitor: Person) -> None:
    signs_up(visitor, "ruff@bells.example")
    visitor.button("Hollow Bell Foundry").click()
    visitor.link("Save or delete this workspace").click()
    slug = visitor.driver.current_url.split("/")[-2]
    assert visitor.link("Save everything").get_attribute("href").endswith(f"/api/workspaces/{slug}/export")
    visitor.field("Type its name").send_keys("Hollow Bell Foundry")
    visitor.button("Delete it").click()
    visitor.sees("You have no workspace just now")
    visitor.button("Bring back Hollow Bell Foundry").click()
    visitor.wait(lambda: f"/w/{slug}" in visitor.driver.current_url, "its wall")
    visitor.sees("Where does it go?")
