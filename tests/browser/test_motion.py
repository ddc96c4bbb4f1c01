"""A place whose picture may move: parts are let move, a coming in is put later by keys and by mouse, it is watched."""

from __future__ import annotations

from typing import Any

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from tests.browser.person import Person

COLOURS = """const {width, height} = arguments[0];
const px = new Uint32Array(arguments[0].getContext("2d").getImageData(0, 0, width, height).data.buffer);
return new Set(px).size;"""
PLAYING = "//img[contains(@src, '/motion/playing')]"
SHEET = {
    "fitzle_spec": 1, "name": "Moving board", "size": {"width": 400, "height": 120}, "formats": ["gif"],
    "max_bytes": 300_000, "motion": {"allowed": True, "max_seconds": 4}, "grounds": ["#ffffff"],
}  # fmt: skip


@pytest.fixture
def moving_bench(person: Person) -> Person:
    """The bench of a new piece in a place that takes moving pictures."""
    space = "/api/workspaces/ottermoor"
    place = person.post(f"{space}/places", {"destination": "Course page", "name": "Moving board", "sheet": SHEET})
    fit = person.post(f"{space}/placements/{place['id']}/pieces", {"starting_point": 1})
    person.go(f"/w/ottermoor/fits/{fit['id']}")
    person.sees("This place takes a picture that moves")
    return person


def choose(person: Person, what: str, how: str) -> None:
    Select(person.find(f"//select[contains(@aria-label, ': {what}')]")).select_by_visible_text(how)


def motion_of(person: Person, role: str) -> Any:
    return next(part["motion"] for part in person.fit()["piece"]["document"]["parts"] if part["role"] == role)


def it_plays_when_asked(person: Person) -> None:
    """On the wall and in its scenes: under the pointer, or all together on request."""
    person.go("/w/ottermoor")
    person.sees("moves,")
    proof = person.find("//a[@aria-label='Moving board, open']")
    assert not person.driver.find_elements(By.XPATH, PLAYING), "nothing plays by itself"
    ActionChains(person.driver).move_to_element(proof).perform()
    person.wait(lambda: person.driver.find_elements(By.XPATH, PLAYING), "it plays under the pointer")
    ActionChains(person.driver).move_to_element(person.find("//h1")).perform()
    person.wait(lambda: not person.driver.find_elements(By.XPATH, PLAYING), "and stops")
    person.button("Play what moves").click()
    person.wait(lambda: person.driver.find_elements(By.XPATH, PLAYING), "all play on request")
    person.button("Stop all").click()
    person.wait(lambda: not person.driver.find_elements(By.XPATH, PLAYING), "and stop")
    proof.click()
    person.sees("words in for")
    person.link("As it will be seen").click()
    person.button("Play all together").click()
    person.wait(lambda: person.driver.find_elements(By.XPATH, PLAYING), "in its scenes")
    person.link("At the bench").click()


def test_parts_are_let_move_timed_by_hand_and_watched(moving_bench: Person) -> None:
    person = moving_bench
    person.button("Let its parts move").click()
    person.sees("words in for")
    bar = person.find("//button[contains(@aria-label, 'comes in')]")
    before = motion_of(person, "headline")["come"]
    bar.send_keys(Keys.ARROW_RIGHT, Keys.ARROW_RIGHT)
    person.wait(lambda: motion_of(person, "headline")["come"]["start"] == round(before["start"] + 0.2, 1), "later")
    bar.send_keys(Keys.SHIFT, Keys.ARROW_RIGHT)
    person.wait(lambda: motion_of(person, "headline")["come"]["length"] > before["length"], "longer")
    start = motion_of(person, "headline")["come"]["start"]
    bar = person.find("//button[contains(@aria-label, 'comes in')]")
    ActionChains(person.driver).move_to_element_with_offset(bar, -8, 0).click_and_hold().move_by_offset(60, 0).perform()
    ActionChains(person.driver).release().perform()
    person.wait(lambda: motion_of(person, "headline")["come"]["start"] > start + 0.1, "dragged")
    person.find("//button[contains(@aria-label, 'how it moves')]").click()
    choose(person, "comes in", "from left")
    person.wait(lambda: motion_of(person, "headline")["come"]["how"] == "from left", "chosen by hand")
    choose(person, "keeps moving", "wave")
    person.wait(lambda: (motion_of(person, "headline")["keep"] or {}).get("how") == "wave", "keeps moving")
    choose(person, "goes out", "stays")
    person.wait(lambda: motion_of(person, "headline")["go"] is None, "stays")
    person.find("//input[@type='range' and contains(@aria-label, 'moment')]").send_keys(Keys.HOME)
    person.find("//*[@data-stage]//img[contains(@alt, 'at 0.00 s') and contains(@src, '/motion/moment')]")
    person.button("Show all parts in").click()
    person.find("//*[@data-stage]//img[not(contains(@alt, ' s'))]")
    person.driver.execute_script("document.activeElement.blur()")
    person.find("//body").send_keys(" ")
    picture = person.find("//canvas[contains(@aria-label, 'playing')]")
    person.wait(lambda: int(picture.get_attribute("data-frame") or 0) > 3, "it plays")
    person.wait(lambda: int(picture.get_attribute("data-frame") or 9) < 3, "again and again")
    assert person.driver.execute_script(COLOURS, picture) > 3, "and shows something"
    person.wait(lambda: person.fit()["file"] and person.fit()["file"]["format"] == "gif", "the file")
    person.sees("frames,")
    it_plays_when_asked(person)
    person.button("Stand still").click()
    person.sees("This place takes a picture that moves")
    person.button("Undo motion").click()
    person.sees("words in for")
    assert not person.complaints()


def test_the_moment_under_the_playhead_is_worked_on(moving_bench: Person) -> None:
    person = moving_bench
    person.button("Let its parts move").click()
    person.sees("words in for")
    head = person.find("//input[@type='range' and contains(@aria-label, 'moment')]")
    person.driver.execute_script("arguments[0].focus()", head)
    head.send_keys(Keys.END)
    moment = person.find("//*[@data-stage]//img[contains(@src, '/motion/moment')]")
    before, revision = moment.get_attribute("src"), person.fit()["piece"]["revision"]
    person.find("//*[@data-stage]//*[contains(@aria-label, 'headline')]").click()
    person.press(Keys.ARROW_RIGHT)
    person.wait(lambda: person.fit()["piece"]["revision"] > revision, "moved")
    now = "//*[@data-stage]//img[contains(@src, '/motion/moment')]"
    person.wait(lambda: person.find(now).get_attribute("src") != before, "the same moment as it is now")
    assert "at " in person.find(now).get_attribute("alt")
