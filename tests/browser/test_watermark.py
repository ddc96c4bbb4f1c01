"""A mark laid into the corner of pictures, as a person does it: from its card to the ZIP."""

import pytest
from PIL import Image
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.make import saved

WATERMARKS = "/api/workspaces/ottermoor/watermarks"
LIGHT, DARK = (saved(Image.new("RGB", (900, 600), colour), "JPEG") for colour in ("#f4f1ea", "#181a1d"))


@pytest.fixture
def marking(person: Person) -> Person:
    """A watermark of the sample's mark, which has a version for dark grounds, begun on its card."""
    person.go("/w/ottermoor/artwork")
    for one in person.ask(WATERMARKS):  # one that is open is gone on with
        person.delete(f"{WATERMARKS}/{one['id']}")
    person.find("//button[contains(., 'ottermoor-dark.svg')]").click()
    person.button("Into the corner of pictures").click()
    person.sees("Drop pictures, clips or a whole folder here")
    return person


def drop(person: Person, name: str, data: bytes) -> None:
    person.drop(person.find("//main"), name, data)


def test_pictures_are_dropped_looked_at_marked_and_saved(marking: Person) -> None:
    person = marking
    drop(person, "yard.jpg", LIGHT)
    drop(person, "night.jpg", DARK)
    person.sees("in the corner of 2 pictures")
    person.sees("It is seen well on all of them")
    person.find("//img[@alt='night.jpg with its mark']")
    person.button("Mark 2 pictures").click()
    person.sees("2 marked")
    assert person.link("Save all as ZIP").get_attribute("href").endswith("/zip")
    key = person.driver.current_url.rpartition("/")[2]
    entries = person.ask(f"{WATERMARKS}/{key}")["entries"]
    assert [(entry["state"], entry["version"]) for entry in entries] == [("done", 0), ("done", 1)]
    assert not person.complaints()


def test_its_corner_and_size_are_chosen_by_keyboard(marking: Person) -> None:
    person = marking
    drop(person, "yard.jpg", LIGHT)
    person.sees("in the corner of 1 picture")
    key = person.driver.current_url.rpartition("/")[2]
    person.wait(lambda: person.ask(f"{WATERMARKS}/{key}")["reading"] == 0)
    person.driver.execute_script("document.querySelector(\"input[aria-label='bottom right']\").focus()")
    person.press(Keys.ARROW_LEFT)
    person.wait(lambda: person.ask(f"{WATERMARKS}/{key}")["stamp"]["corner"] == "bottom left")
    person.driver.execute_script("document.querySelector(\"[role='slider'][aria-label='size']\").focus()")
    person.press(Keys.PAGE_UP)
    person.wait(lambda: person.ask(f"{WATERMARKS}/{key}")["stamp"]["size"] > 0.12)


def test_one_that_is_no_picture_is_named_and_taken_out(marking: Person) -> None:
    person = marking
    drop(person, "notes.jpg", b"no picture at all")
    drop(person, "yard.jpg", LIGHT)
    person.sees("notes.jpg: this is not a picture that Fitzle knows")
    person.sees("1 picture could not be marked")
    person.button("Take notes.jpg out").click()
    person.sees("in the corner of 1 picture")
    person.button("Mark 1 picture").click()
    person.sees("1 marked")
