"""Somebody says in words where it goes, fills the place, and changes its sheet."""

from typing import Any

from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.make import svg

WORDS = "Group badge: square PNG, at least 150 x 150 px, max. 1 MB, splendid, shown in a circle at 48 px"


def says(person: Person, words: str) -> None:
    field = person.find("//textarea[@aria-label='What the upload page says']")
    field.send_keys(Keys.CONTROL + "a" + Keys.NULL + words)


def marked(person: Person, look: str) -> list[str]:
    """The words with this line under them."""
    found = person.driver.find_elements("xpath", f"//div[@aria-hidden]/span[contains(@class, '{look}')]")
    return [one.text for one in found]


def at(person: Person, destination: str) -> None:
    person.find("//input[@list='destinations']").send_keys(destination)


def test_a_place_is_said_in_words_looked_at_and_filled(visitor: Person) -> None:
    visitor.sign_in()
    visitor.link("Add a place").click()
    says(visitor, WORDS)
    visitor.sees("At least 150 × 150 px.")
    visitor.sees("Not understood, and nothing made of it: “splendid”")
    visitor.wait(lambda: marked(visitor, "border-risky") == ["splendid"], "the line under it")
    assert marked(visitor, "border-measure")[:3] == ["Group badge", "square", "PNG"]
    at(visitor, "Riders' forum")
    visitor.button("Put it on the wall").click()
    visitor.sees("Riders' forum")
    visitor.wait(lambda: "empty" in visitor.state_of("Group badge"), "the empty place")
    visitor.drop(visitor.proof("Group badge"), "wheel.svg", svg())
    visitor.wait(lambda: "fits" in visitor.state_of("Group badge"), "the fit")
    assert not visitor.complaints()


def test_a_place_begins_from_a_kind_of_the_catalogue(visitor: Person) -> None:
    visitor.sign_in()
    visitor.go("/w/ottermoor/places/new")
    visitor.find("//button[contains(., 'Profile cover')]").click()
    visitor.sees("The round portrait covers the lower left.")
    visitor.sees("portrait covers 16 % × 38 %, bottom, left.")
    at(visitor, "Video channel")
    visitor.button("Put it on the wall").click()
    visitor.wait(lambda: "empty" in visitor.state_of("Profile cover"), "the place on the shelf that is there")
    assert visitor.text().count("Video channel") == 1


def test_a_new_sheet_says_what_it_would_do_to_what_stands_there(visitor: Person) -> None:
    visitor.sign_in()
    visitor.button("Header logo: replace").click()
    visitor.link("Its sheet").click()
    visitor.button("Say it anew").click()
    says(visitor, "PNG, 400 x 100 px, 20 KB")
    visitor.sees("What stands there")
    visitor.sees("its file is made anew")


def test_words_that_contradict_each_other_make_no_place(visitor: Person) -> None:
    visitor.sign_in()
    visitor.go("/w/ottermoor/places/new")
    says(visitor, "Square JPG of 1280 x 720 px")
    visitor.sees("“1280 x 720 px” and “Square”: 1280 × 720 px are not 1:1.")
    visitor.wait(lambda: marked(visitor, "border-refused") == ["Square", "1280 x 720 px"], "both places")
    assert "Put it on the wall" not in visitor.text()
    says(visitor, "JPG of 1280 x 720 px")
    visitor.button("Put it on the wall")


def test_a_sheet_is_said_anew_named_and_put_away(visitor: Person) -> None:
    visitor.sign_in()
    visitor.link("Course card").click()  # an empty place has no bench yet
    visitor.sees("Exactly 640 × 640 px.")
    visitor.button("Say it anew").click()
    says(visitor, "Square WebP, at least 300 x 300 px, 90 KB")
    visitor.button("Use this sheet").click()
    visitor.sees("At most 90 KB.")
    visitor.find("//button[starts-with(@aria-label, 'Bring back the sheet 640')]").click()
    visitor.sees("At most 150 KB.")
    name: Any = visitor.field("Name of the place")
    name.send_keys(Keys.CONTROL + "a" + Keys.NULL + "Lesson card", Keys.ENTER)
    visitor.wait(lambda: visitor.field("Name of the place").get_attribute("value") == "Lesson card", "its name")
    visitor.link("Wall").click()
    visitor.sees("Lesson card")
    visitor.button("Lesson card: fill").click()
    visitor.link("Its sheet").click()
    visitor.button("Put it away").click()
    visitor.wait(lambda: "Lesson card" not in visitor.text() and "places," in visitor.text(), "the wall without it")
    visitor.link("Add a place").click()
    visitor.button("Bring back Lesson card").click()
    visitor.wait(lambda: "Bring back" not in visitor.text(), "nothing put away")
    visitor.link("Wall").click()
    visitor.sees("Lesson card")


def test_a_workspace_of_ones_own_asks_where_it_goes(visitor: Person) -> None:
    visitor.sign_in()
    visitor.button("Ottermoor Cycle Works").click()
    visitor.field("Begin another").send_keys("Bell foundry", Keys.ENTER)
    visitor.sees("Your logo, if you have one")
    assert "/w/bell-foundry/begin" in visitor.driver.current_url
    visitor.link("Later: to the empty wall").click()
    visitor.link("Say where it goes").click()
    says(visitor, "Logo, PNG, 300 x 100 px, 60 KB")
    at(visitor, "Website")
    visitor.button("Put it on the wall").click()
    visitor.wait(lambda: "empty" in visitor.state_of("Logo"), "the place")
    visitor.drop(visitor.proof("Logo"), "bell.svg", svg())
    visitor.wait(lambda: "1 place, 1 fit" in visitor.text(), "the fit")
    visitor.button("Bell foundry").click()
    visitor.link("Ottermoor Cycle Works").click()
    visitor.sees("Lesson thumbnail")
    assert "bell.svg" not in visitor.text(), "nothing of the other workspace"
