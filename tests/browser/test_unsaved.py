"""What the server does not have yet is kept in the browser: while the network is away, over a reload, signed out."""

from typing import Any

import pytest
from selenium.webdriver.common.keys import Keys

from fitzle.apps.accounts.sample import PASSWORD
from tests.browser.person import Person


def cut_off(person: Person, *, away: bool) -> None:
    """Cuts the browser off from the server, or brings it back."""
    conditions = {"offline": away, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1}
    person.driver.execute_cdp_cmd("Network.enable", {})
    person.driver.execute_cdp_cmd("Network.emulateNetworkConditions", conditions)


@pytest.fixture
def at_work(visitor: Person) -> Any:
    """Somebody with the lesson's thumbnail on the bench; what they bring about on purpose is no complaint."""
    visitor.sign_in()
    visitor.open_bench("Lesson thumbnail")
    visitor.button("True a wheel").click()
    yield visitor
    cut_off(visitor, away=False)
    visitor.clear_log()


def space(person: Person, percent: int, signed_out: bool = False) -> None:
    """Types another letter spacing of the headline; the session may end just before it is sent."""
    field = person.field("Letter spacing")
    field.click()
    field.send_keys(Keys.CONTROL + "a" + Keys.NULL + str(percent))
    if signed_out:
        person.driver.delete_cookie("fitzle_session")
    field.send_keys(Keys.ENTER)


def spacing(person: Person) -> Any:
    parts = person.fit()["piece"]["document"]["parts"]
    return round(100 * next(part for part in parts if part["id"] == "headline")["letter_spacing"])


def test_what_is_typed_while_the_server_is_away_is_saved_once_it_is_back(at_work: Person) -> None:
    cut_off(at_work, away=True)
    space(at_work, 7)
    at_work.sees("not saved yet")
    assert at_work.field("Letter spacing").get_attribute("value") == "7", "the field keeps what was typed"
    space(at_work, 9)
    at_work.sees("2 changes are not saved yet")
    cut_off(at_work, away=False)
    at_work.button("Try now").click()
    at_work.wait(lambda: "saved " in at_work.text() and "not saved" not in at_work.text(), "saved")
    assert spacing(at_work) == 9


def test_a_session_that_ended_asks_for_the_password_in_place_and_goes_on(at_work: Person) -> None:
    space(at_work, 11, signed_out=True)
    at_work.sees("You were signed out.")
    at_work.sees("not saved yet")
    at_work.field("Password of").send_keys("wrong-password-here", "\n")
    at_work.sees("do not belong together")
    field = at_work.field("Password of")
    field.clear()
    field.send_keys(PASSWORD, "\n")
    at_work.wait(lambda: "You were signed out" not in at_work.text() and "not saved" not in at_work.text(), "back")
    assert spacing(at_work) == 11


def test_a_name_typed_in_the_house_style_while_the_server_is_away_is_saved_later(at_work: Person) -> None:
    at_work.go("/w/ottermoor/house")
    field = at_work.field("Name of #17443c")
    cut_off(at_work, away=True)
    field.send_keys(Keys.CONTROL + "a" + Keys.NULL + "Workshop green", Keys.ENTER)
    at_work.sees("not saved yet")
    assert at_work.field("Name of #17443c").get_attribute("value") == "Workshop green"
    cut_off(at_work, away=False)
    at_work.wait(lambda: "saved " in at_work.text() and "not saved" not in at_work.text(), "saved")
    at_work.driver.refresh()
    assert at_work.field("Name of #17443c").get_attribute("value") == "Workshop green"


def test_what_is_unsaved_outlives_a_reload(at_work: Person) -> None:
    space(at_work, 13, signed_out=True)
    at_work.sees("You were signed out.")
    here = at_work.driver.current_url
    at_work.sign_in()
    at_work.driver.get(here)
    at_work.wait(lambda: spacing(at_work) == 13, "the change of before the reload")
    assert not at_work.driver.execute_script(
        "return Object.keys(localStorage).filter((name) => name.startsWith('fitzle/unsent/')).length"
    )
