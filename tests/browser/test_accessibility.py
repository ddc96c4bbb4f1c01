"""axe finds nothing to complain about on any screen, in either theme; its rule on names of buttons included."""

from typing import Any

import pytest

from tests.browser.conftest import ROOT
from tests.browser.person import Person

AXE = (ROOT / "web" / "node_modules" / "axe-core" / "axe.min.js").read_text()
RUN = """
const done = arguments[0];
const rules = {'label-content-name-mismatch': {enabled: true}, 'target-size': {enabled: true}};
axe.run(document, {rules, resultTypes: ['violations']}).then(
  (result) => done(result.violations.map((found) => [found.id, found.nodes.map((node) => node.html.slice(0, 200))])),
  (error) => done([['axe itself', [String(error)]]]),
);
"""


def check(person: Person) -> None:
    """Asserts that axe finds nothing on the screen as it is."""
    person.driver.execute_script(AXE)
    assert person.driver.execute_async_script(RUN) == []


def wall(person: Person) -> None:
    person.go("/w/ottermoor")
    person.sees("places,")


def deliver_list(person: Person) -> None:
    wall(person)
    person.find("//button[starts-with(normalize-space(.), 'Deliver')]").click()
    person.sees("together")


def artwork(person: Person) -> None:
    person.go("/w/ottermoor/artwork")
    person.button("dusk-ride.jpg").click()
    person.sees("2400 × 1600 px")


def house(person: Person) -> None:
    person.go("/w/ottermoor/house")
    person.sees("What can be read on what")


def deliveries(person: Person) -> None:
    person.go("/w/ottermoor/deliveries")
    person.find("//h1")


def bench(person: Person) -> None:
    person.open_bench("Lesson thumbnail")
    person.find("//section[@aria-labelledby='parts']//button[@aria-expanded='false']").click()
    person.sees("As people will see it")


def preparation(person: Person) -> None:
    artwork(person)
    person.link("Prepare").click()
    person.find("//h1")


SCREENS = [wall, deliver_list, artwork, house, deliveries, bench, preparation]


@pytest.mark.parametrize("theme", ["Dark", "Light"])
@pytest.mark.parametrize("screen", SCREENS)
def test_axe_finds_nothing(person: Person, screen: Any, theme: str) -> None:
    person.button(theme).click() if theme == "Dark" else None
    screen(person)
    check(person)


def test_axe_finds_nothing_where_people_sign_in(visitor: Person) -> None:
    visitor.go("/")
    visitor.field("Password")
    check(visitor)
