"""Somebody shows where a picture appears, and the place is on the wall."""

import io
from pathlib import Path
from typing import Any

import pytest
from PIL import Image
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.learning_cases import Look, Maker, put


@pytest.fixture(scope="module")
def shown(tmp_path_factory: pytest.TempPathFactory) -> tuple[Path, Path]:
    folder = tmp_path_factory.mktemp("shown")
    make = Maker(6)
    picture, shot = make.painted(600, 0.5), Image.new("RGB", (1000, 640), "#202428")
    put(make, shot, picture, (140, 90, 400, 160), Look("rounded", 14))
    out = io.BytesIO()
    shot.save(out, "PNG")
    picture.save(folder / "Spring banner.png")
    (folder / "page.png").write_bytes(out.getvalue())
    return folder / "Spring banner.png", folder / "page.png"


def chooses(person: Person, title: str, path: Path) -> None:
    field = f"//input[@aria-label='{title}']"  # hidden: a button opens its dialog
    person.wait(lambda: person.driver.find_elements("xpath", field), title)
    person.driver.find_element("xpath", field).send_keys(str(path))


def figures(person: Person) -> dict[str, Any]:
    terms = [one.text for one in person.driver.find_elements("xpath", "//dt")]
    return dict(zip(terms, [one.text for one in person.driver.find_elements("xpath", "//dd")], strict=True))


def test_a_place_is_shown_and_filled(person: Person, shown: tuple[Path, Path]) -> None:
    person.link("Add a place").click()
    person.link("show it").click()
    chooses(person, "The picture", shown[0])
    chooses(person, "The screenshot", shown[1])
    person.button("Look for it").click()
    person.sees("How sure")
    told = figures(person)
    assert told["Seen"].startswith(("399", "400")) and told["Cut"].startswith("rounded, 1")
    assert (told["Veil"], told["Covered"], told["On"]) == ("none", "nothing", "#202428")
    person.sees("Exactly 600 × 300 px.")
    person.button("Put it on the wall").click()
    person.wait(lambda: "empty" in person.state_of("Spring banner"), "the place")


def test_a_box_on_a_screenshot_alone_is_drawn_or_typed(person: Person, shown: tuple[Path, Path]) -> None:
    person.go("/w/ottermoor/places/show")
    chooses(person, "The screenshot", shown[1])
    picture = person.find("//img[@alt='The screenshot']")
    person.wait(lambda: picture.size["height"] > 100, "the screenshot")
    person.drag(person.find("//img[@alt='The screenshot']/.."), 60, 40)
    person.wait(lambda: int(person.field("wide").get_attribute("value")) > 20, "the drawn box")
    for label, figure in (("from the left", "137"), ("from the top", "94"), ("wide", "408"), ("high", "152")):
        person.field(label).send_keys(Keys.CONTROL + "a" + Keys.NULL + figure)
    person.button("Read it off").click()
    person.sees("The corners could not be told.")
    person.sees("Exactly 800 × 320 px.")
    person.find("//label[contains(., 'a circle')]/input").click()
    person.sees("Shown in a circle")


def test_a_picture_that_is_not_there_is_said(person: Person, shown: tuple[Path, Path], tmp_path: Path) -> None:
    Image.new("RGB", (500, 400), "#ffffff").save(tmp_path / "empty.png")
    person.go("/w/ottermoor/places/show")
    chooses(person, "The picture", shown[0])
    chooses(person, "The screenshot", tmp_path / "empty.png")
    person.button("Look for it").click()
    person.sees("The picture is not in this screenshot.")
