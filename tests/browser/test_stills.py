"""Taking stills from a clip as a person does: filmstrip, single frames, playing, proposals, candidates."""

import re
from typing import Any

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.browser.test_preparing import ARTWORK, brought
from tests.clips import clip

CLOCK = "//*[@role='status'][contains(@class, 'figure')]"


@pytest.fixture
def stills(person: Person) -> Person:
    """The sample's clip, opened from its card."""
    person.go("/w/ottermoor/artwork")
    person.find("//button[contains(., 'lesson-opening.mp4')]").click()
    person.link("Take stills").click()
    person.sees("worth having")
    return person


def shown(person: Person) -> str:
    return str(person.find(CLOCK).text)


def steps_to(person: Person, key: str, clock: str) -> None:
    ActionChains(person.driver).send_keys(key).perform()
    person.wait(lambda: shown(person) == clock, f"{clock}, but it is {shown(person)}")


def taken(person: Person) -> list[Any]:
    artwork = person.driver.current_url.split("/artwork/")[1].split("/")[0]
    return list(person.ask(f"{ARTWORK}/{artwork}/stills")["taken"])


def test_frames_are_stepped_through_by_keyboard_and_kept(stills: Person) -> None:
    person = stills
    steps_to(person, Keys.ARROW_RIGHT, "0:00.04")
    steps_to(person, ".", "0:00.08")
    steps_to(person, Keys.ARROW_LEFT, "0:00.04")
    ActionChains(person.driver).send_keys(Keys.ENTER).perform()
    person.sees("Make artwork of 1 still")
    person.find("//input[contains(@aria-label, 'Keep the still at 0:04.00')]").click()
    person.sees("Make artwork of 2 stills")
    person.button("Put 0:00.04 away").click()
    person.button("Make artwork of 1 still").click()
    person.sees("Artwork already")
    person.wait(lambda: [one["seconds"] for one in taken(person)] == [4.0], "the still")


def test_a_loop_is_trimmed_by_figures_and_keys_and_becomes_artwork(stills: Person) -> None:
    person = stills
    begin = person.field("Begins at second")
    begin.send_keys(Keys.CONTROL, "a")
    begin.send_keys("1.2", Keys.ENTER)
    person.wait(lambda: re.search(r"\d of 1\.0 MB", person.text()), "what it weighs in the place that moves")
    thumb = person.find("//*[@role='slider'][@aria-label='The loop ends']")
    before = float(thumb.get_attribute("aria-valuenow"))
    thumb.send_keys(Keys.ARROW_RIGHT)
    person.wait(lambda: float(thumb.get_attribute("aria-valuenow")) > before, "a little later")
    person.button("Make a moving picture of it").click()
    person.sees("is being made; it comes first among the artwork")
    person.find("//a[contains(., 'The loop from')]").click()
    person.sees("0:01.20 to")
    person.wait(
        lambda: person.driver.find_elements("xpath", "//button[contains(., 'Say where it goes')]"), "it is read"
    )
    assert not person.complaints()


def test_the_filmstrip_and_the_line_scrub(stills: Person) -> None:
    person = stills
    strip = person.find("//*[@role='img'][contains(@aria-label, 'frames from all over')]")
    ActionChains(person.driver).move_to_element(strip).click().perform()
    person.wait(lambda: 3.5 < float(shown(person).split(":")[1]) < 5.5, "the middle of the clip")
    proposed = person.button("Go to 0:0")
    moment = proposed.get_attribute("aria-label").removeprefix("Go to ")
    proposed.click()
    person.wait(lambda: shown(person) == moment, moment)


def test_the_clip_plays_and_pauses_on_a_whole_frame(stills: Person) -> None:
    person = stills
    person.button("Play").click()
    person.wait(lambda: shown(person) != "0:00.00", "it to move")
    person.button("Pause").click()
    person.wait(lambda: round(float(shown(person).split(":")[1]) * 100) % 4 == 0, "a whole frame")


def test_a_clip_comes_in_and_its_still_is_prepared(person: Person) -> None:
    artwork = brought(person, "short.mov", clip("mov"))
    person.go(f"/w/ottermoor/artwork/{artwork}/stills")
    person.sees("short.mov")
    person.button("Keep this frame").click()
    person.button("Make artwork of 1 still").click()
    person.link("The still at").click()
    person.sees("short at 0:00.00.png")
    person.link("Prepare it").click()
    person.sees("256 × 144 px, never touched")


def test_a_clip_dropped_on_a_place_fills_it_with_a_still(person: Person) -> None:
    person.drop(person.proof("Lesson thumbnail"), "talk.mp4", clip())

    def stands() -> bool:
        found = [entry for entry in person.ask(ARTWORK) if entry["name"].startswith("talk at")]
        return bool(found) and found[0]["state"] == "ready" and not found[0]["targets"]

    person.wait(stands, "a still that stands in its place")
    person.go("/w/ottermoor")
    person.open_bench("Lesson thumbnail")
    person.sees("talk at 0:0")
