"""axe finds nothing to complain about on any screen, in either theme; its rule on names of buttons included."""

from typing import Any

import pytest
from PIL import Image

from tests.browser.conftest import ROOT
from tests.browser.person import Person
from tests.browser.test_composing import PLACE
from tests.make import saved

AXE = (ROOT / "web" / "node_modules" / "axe-core" / "axe.min.js").read_text()
THEMES = ["dark", "light"]
RUN = """
const done = arguments[0];
const rules = {'label-content-name-mismatch': {enabled: true}, 'target-size': {enabled: true}};
axe.run(document, {rules, resultTypes: ['violations']}).then(
  (result) => done(result.violations.map((found) => [found.id, found.nodes.map((node) => node.html.slice(0, 200))])),
  (error) => done([['axe itself', [String(error)]]]),
);
"""


def choose(person: Person, theme: str) -> None:
    """From the next page on the theme is this one, as after a click on its button."""
    person.driver.execute_script(f"localStorage.setItem('fitzle-theme', '{theme}')")


def check(person: Person, theme: str) -> None:
    """Asserts that axe finds nothing on the screen as it is, in this theme."""
    assert person.driver.execute_script("return document.documentElement.dataset.theme") == theme
    person.driver.execute_script(AXE)
    assert person.driver.execute_async_script(RUN) == []


def wall(person: Person) -> None:
    person.go("/w/ottermoor")
    person.sees("places,")


def deliver_list(person: Person) -> None:
    wall(person)
    person.find("//a[starts-with(normalize-space(.), 'Deliver ')]").click()
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


def stills(person: Person) -> None:
    person.go("/w/ottermoor/artwork")
    person.find("//button[contains(., 'lesson-opening.mp4')]").click()
    person.link("Take stills").click()
    person.sees("worth having")


def watermark(person: Person) -> None:
    person.go("/w/ottermoor/artwork")
    person.find("//button[contains(., 'ottermoor-dark.svg')]").click()
    person.button("Into the corner of pictures").click()
    person.sees("How it stands")
    person.drop(person.find("//main"), "yard.jpg", saved(Image.new("RGB", (90, 60), "#f4f1ea"), "JPEG"))
    person.find("//img[@alt='yard.jpg with its mark']")


def glyphs(person: Person) -> None:
    person.go("/w/ottermoor/artwork")
    person.button("Make a mark of a glyph").click()
    person.field("Find a glyph").send_keys("bicycle")
    person.find("//button[contains(@title, 'bike,')]")


def starting_points(person: Person) -> None:
    wall(person)
    person.button(f"{PLACE}: ").click()
    person.sees("Begin with")


def new_place(person: Person) -> None:
    person.go("/w/ottermoor/places/new")
    person.find("//textarea").send_keys("Badge: PNG, at least 150 x 150 px, shiny, in a circle at 48 px")
    person.sees("Put it on the wall")


def place_sheet(person: Person) -> None:
    person.go("/w/ottermoor")
    person.link("Course card").click()
    person.sees("Exactly 640 × 640 px.")


def workspaces(person: Person) -> None:
    person.go("/w/ottermoor/deliveries")
    person.button("Ottermoor Cycle Works").click()
    person.sees("Begin another")


def proofs(person: Person) -> None:
    person.open_bench("Tab icon")
    person.link("As it will be seen").click()
    person.sees("scenes at real size")


def takes(person: Person) -> None:
    person.open_bench("Lesson thumbnail")
    person.link("take").click()
    person.sees("Ask people")
    person.sees("Make it a take")


def series(person: Person) -> None:
    person.open_bench("Lesson thumbnail")
    person.button("All 12 rows").click()
    person.sees("row by row")
    person.find("//*[@role='grid']//img")


SCREENS = [
    series,
    proofs,
    takes,
    new_place,
    place_sheet,
    workspaces,
    wall,
    deliver_list,
    artwork,
    house,
    deliveries,
    bench,
    preparation,
    stills,
    watermark,
    glyphs,
    starting_points,
]


@pytest.mark.parametrize("theme", THEMES)
@pytest.mark.parametrize("screen", SCREENS)
def test_axe_finds_nothing(person: Person, screen: Any, theme: str) -> None:
    choose(person, theme)
    screen(person)
    check(person, theme)


@pytest.mark.parametrize("theme", THEMES)
def test_axe_finds_nothing_where_people_sign_in(visitor: Person, theme: str) -> None:
    choose(visitor, theme)
    visitor.go("/")
    visitor.field("Password")
    check(visitor, theme)
