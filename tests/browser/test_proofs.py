"""Somebody looks at a fit in its scenes, makes another take, and asks people which one they like better."""

import io

import numpy as np
from PIL import Image
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person, start_browser


def open_proofs(person: Person, place: str) -> None:
    person.open_bench(place)
    person.link("As it will be seen").click()
    person.sees("scenes at real size")


def picture_of(person: Person, element: object) -> np.ndarray:
    person.driver.execute_script("arguments[0].scrollIntoView({block: 'center'})", element)
    return np.asarray(Image.open(io.BytesIO(element.screenshot_as_png)).convert("RGB"), dtype=int)  # type: ignore[attr-defined]


def test_a_scene_of_the_browser_is_that_of_the_server(person: Person) -> None:
    """Drawn twice from one description: they differ where letters are smoothed, and nowhere else."""
    open_proofs(person, "Floor patch")
    scene = person.find(
        "//figure[.//figcaption[contains(., 'Underfoot')]]//div[@style][contains(@style, 'width: 640px')]"
    )
    person.wait(lambda: scene.find_elements(By.CSS_SELECTOR, "img[src*='shown']")[0].get_property("complete"))
    person.sees("the very file that is delivered")
    ours = picture_of(person, scene)
    drawn = person.driver.execute_async_script(
        """const done = arguments[arguments.length - 1];
        const src = document.querySelector("img[src*='/shown']").src;
        const base = src.replace(/shown.*$/, 'scenes/floor/picture?scale=1');
        fetch(base).then((answer) => answer.arrayBuffer()).then((data) =>
          done(Array.from(new Uint8Array(data))));"""
    )
    theirs = np.asarray(Image.open(io.BytesIO(bytes(drawn))).convert("RGB"), dtype=int)
    assert ours.shape == theirs.shape == (400, 640, 3)
    assert np.abs(ours - theirs).mean() < 4


def test_what_is_found_is_mended_by_a_click_and_seen_mended_in_the_scene(person: Person) -> None:
    open_proofs(person, "Sign-in logo")
    person.sees("The mark reads only")
    before = person.find("//img[contains(@src, '/shown')]").get_attribute("src")
    person.find("//aside//button[not(contains(., 'Right as it is')) and not(contains(., 'measured'))]").click()
    person.sees("Nothing to mend")
    person.wait(lambda: person.find("//img[contains(@src, '/shown')]").get_attribute("src") != before, "a new picture")
    person.sees("the very file that is delivered")
    person.button("Undo").click()
    person.sees("1 thing to look at")


def test_other_sights_the_magnifier_and_one_scene_alone(person: Person) -> None:
    open_proofs(person, "Tab icon")
    person.button("Green-blind").click()
    assert person.find("//div[contains(@style, 'sight-deutan')]")
    person.button("Across the room").click()
    person.find("//img[contains(@src, 'sight=far')]")
    person.button("Usual").click()
    person.button("4 ×").click()
    loupe = person.find("//div[@role='application']")
    loupe.send_keys(Keys.ARROW_RIGHT)
    person.find("//div[@role='application']/span[contains(@style, 'pixelated')]")
    person.button("Off").click()
    person.button("Open pages in a window, light, alone").click()
    person.sees("show the others")
    person.driver.switch_to.active_element.send_keys(Keys.ARROW_RIGHT)
    person.sees("Open pages in a window, light, density 2")
    person.driver.switch_to.active_element.send_keys(Keys.ESCAPE)
    person.wait(lambda: "show the others" not in person.text())


def test_a_phone_shows_the_scenes_by_a_link(person: Person) -> None:
    open_proofs(person, "Sticker")
    person.button("On my phone").click()
    address = person.find("//input[@aria-label='Address']").get_attribute("value")
    phone = Person(start_browser(), person.address)
    try:
        phone.driver.set_window_size(390, 844)
        phone.driver.get(address)
        phone.sees("A chat with stickers, light (1 of")
        phone.button("Next").click()
        phone.sees("A chat with stickers, dark (2 of")
        phone.driver.get(address + "x")
        phone.sees("This link has ended")
        phone.go("/w/ottermoor")
        phone.sees("Mail address")
    finally:
        phone.driver.quit()


def test_two_takes_are_sent_by_a_link_voted_on_a_phone_and_one_is_chosen(person: Person) -> None:
    person.open_bench("Lesson thumbnail")
    person.link("Another take").click()
    person.sees("1 take for Lesson thumbnail")
    person.button("Make it a take").click()
    person.sees("2 takes for Lesson thumbnail")
    person.button("Make the link").click()
    address = person.find("//input[@aria-label='Link to send']").get_attribute("value")
    phone = Person(start_browser(), person.address)
    try:
        phone.driver.set_window_size(390, 844)
        phone.driver.get(address)
        phone.sees("Which one do you like better?")
        wide = phone.driver.execute_script("return document.documentElement.scrollWidth - window.innerWidth")
        assert wide <= 0, "nothing runs over the side of a phone"
        phone.button("Number 2").click()
        phone.field("Why?").send_keys("it can be read <i>from afar</i>")
        phone.button("Send my answer").click()
        phone.sees("Thank you. Your answer is counted")
        phone.driver.get(address)
        phone.sees("Thank you. Your answer is counted")
    finally:
        phone.driver.quit()
    person.sees("with 1 of 1 answer")
    person.sees("it can be read <i>from afar</i>")
    person.button("Choose B here").click()
    person.wait(lambda: person.text().count("stands there") == 1 and "Choose A here" in person.text())
    person.go("/w/ottermoor")
    person.open_bench("Lesson thumbnail")
    person.sees("take B")
    person.link("All takes").click()
    person.button("Blink between them").click()
    person.button("Hold it").click()
    person.sees("Go on by itself")
