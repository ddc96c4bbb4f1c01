"""Preparing artwork as a person does: cut out, brush, crop, straighten, adjust, recolour; by mouse and by keyboard."""

from collections.abc import Iterator
from typing import Any

import pytest
from demo.people import GUEST, room, together
from demo.people import person as drawn
from PIL import Image
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.make import disc, photo, saved
from tests.scenes import scene

ARTWORK = "/api/workspaces/ottermoor/artwork"


def portrait() -> bytes:
    picture = Image.fromarray(together(drawn(800, 600, GUEST), room(800, 600))).convert("RGB")
    return saved(picture, "JPEG", quality=92)


def brought(person: Person, name: str, data: bytes) -> str:
    """Brings a file in on the artwork screen and gives its id once it is ready."""
    person.go("/w/ottermoor/artwork")
    person.sees("artworks")
    person.drop(person.find("//main"), name, data)

    def ready() -> Any:
        found = [entry for entry in person.ask(ARTWORK) if entry["name"] == name and entry["state"] == "ready"]
        return found[0]["id"] if found else None

    return str(person.wait(ready, f"{name} to be ready"))


def preparation(person: Person) -> Any:
    person.wait(lambda: person.driver.current_url.endswith("/preparation"), "the preparation")
    artwork = person.driver.current_url.split("/artwork/")[1].split("/")[0]
    return person.ask(f"{ARTWORK}/{artwork}/preparation")


def step(person: Person) -> Any:
    """The step added last, from the API."""
    return next(reversed(preparation(person)["document"]["steps"]), {})


@pytest.fixture
def prepared(person: Person, request: pytest.FixtureRequest) -> Iterator[Person]:
    """The preparation of a portrait that was just brought in, opened from its card."""
    artwork = brought(person, f"{request.node.name}.jpg", portrait())
    person.go(f"/w/ottermoor/artwork?chosen={artwork}")
    person.link("Prepare it").click()
    person.sees("As it came")
    yield person


def stage(person: Person) -> Any:
    return person.find("//*[@data-stage]")


def stroke(person: Person, dx: int, dy: int, start: tuple[int, int] = (0, 0)) -> None:
    """Draws on the picture from a point beside its middle."""
    ActionChains(person.driver).move_to_element_with_offset(stage(person), *start).click_and_hold().move_by_offset(
        dx // 2, dy // 2
    ).move_by_offset(dx - dx // 2, dy - dy // 2).release().perform()


def test_a_person_is_cut_out_with_one_click_and_brushed(prepared: Person) -> None:
    person = prepared
    person.button("Cut out").click()
    person.sees("a person,")
    person.sees("% sure")
    person.button("erase").click()
    brush = person.find("//*[@role='application'][contains(@aria-label, 'Brush')]")
    stroke(person, 80, 10, (-40, 120))
    person.wait(lambda: [one["act"] for one in step(person)["strokes"]] == ["erase"], "the stroke")
    person.sees("Undo erase by a stroke")
    person.driver.execute_script("arguments[0].focus()", brush)
    ActionChains(person.driver).send_keys(Keys.ARROW_DOWN, Keys.ARROW_LEFT, Keys.SPACE).perform()
    person.wait(lambda: len(step(person)["strokes"]) == 2, "a second stroke, by keyboard")
    person.button("Take back the last stroke").click()
    person.wait(lambda: len(step(person)["strokes"]) == 1, "one stroke again")
    person.button("Behind it #17443c").click()
    person.wait(lambda: step(person)["fill"] == "#17443c", "the fill")


def test_a_subject_is_cut_out_of_a_box_that_is_drawn(prepared: Person) -> None:
    person = prepared
    person.button("Cut out").click()
    person.sees("% sure")
    person.button("subject in a box").click()
    person.sees("Draw a box around the subject")
    stroke(person, 330, 300, (-165, -150))
    person.sees("the subject you marked")
    box = step(person)["box"]
    assert 0.3 < box["width"] < 0.9
    frame = person.find("//*[@role='application'][contains(@aria-label, 'Box')]")
    person.driver.execute_script("arguments[0].focus()", frame)
    ActionChains(person.driver).key_down(Keys.SHIFT).send_keys(Keys.ARROW_RIGHT).key_up(Keys.SHIFT).perform()
    person.wait(lambda: abs(step(person)["box"]["x"] - box["x"] - 10 / 800) < 0.002, "the box 10 px to the right")


def test_a_box_is_proposed_where_nothing_is_sure_and_a_wider_one_where_it_cuts(person: Person) -> None:
    artwork = brought(person, "cup.jpg", on_a_table())
    person.go(f"/w/ottermoor/artwork?chosen={artwork}")
    person.link("Prepare it").click()
    person.button("Cut out").click()
    person.sees("There is neither a flat backdrop nor a person")
    person.sees("The subject may be in this box.")
    assert person.find("//*[@data-offered]").rect["width"] > 100, "it is shown on the picture"
    person.button("Use this box").click()
    person.sees("the subject you marked")
    own = step(person)
    assert own["method"] == "object"
    assert own["box"]["width"] > 0.2
    frame = person.find("//*[@role='application'][contains(@aria-label, 'Box')]")
    handle = frame.find_element("xpath", "./span[contains(@style, 'left: 0%') and contains(@style, 'top: 50%')]")
    person.drag(handle, int(frame.rect["width"] / 2), 0)
    person.wait(lambda: step(person)["box"]["x"] > own["box"]["x"] + 0.1, "a box that cuts the cup")
    person.sees("runs along a side of the box")
    narrow = step(person)["box"]
    person.button("Use a wider box").click()
    person.wait(lambda: step(person)["box"]["x"] < narrow["x"] - 0.03, "a wider box")


def on_a_table() -> bytes:
    """A cup on a mottled table: neither a flat backdrop nor a person."""
    return saved(Image.fromarray(scene("cup", 5)[0]), "JPEG", quality=90)


def test_a_crop_is_held_to_a_place_dragged_and_moved_by_keys(prepared: Person) -> None:
    person = prepared
    person.button("Crop").click()
    choice = person.find("//select[@aria-label='Held to']")
    choice.send_keys("square")
    person.wait(lambda: step(person)["ratio"] == "square", "the square")
    window = step(person)["window"]
    assert window["width"] * 800 == pytest.approx(window["height"] * 600, abs=1)
    frame = person.find("//*[@role='application'][contains(@aria-label, 'Crop')]")
    person.driver.execute_script("arguments[0].focus()", frame)
    ActionChains(person.driver).send_keys(Keys.ARROW_LEFT).perform()
    person.wait(lambda: step(person)["window"]["x"] < window["x"] - 0.001, "the window 1 px to the left")
    person.button("Set it around the subject").click()
    person.wait(lambda: step(person)["window"]["width"] < window["width"], "a window around the face")
    person.link("Done").click()
    person.sees("Without margins")


def test_a_line_straightens_and_b_shows_the_picture_before(prepared: Person) -> None:
    person = prepared
    person.button("Straighten").click()
    person.sees("level or upright")
    stroke(person, 300, 24, (-150, 50))
    person.wait(lambda: -5.5 < step(person)["degrees"] < -3.5, "the angle of the line")
    person.button("After").click()
    pressed = "//button[normalize-space(.)='{}'][@aria-pressed='true']"
    ActionChains(person.driver).key_down("b").perform()
    person.find(pressed.format("Before"))
    ActionChains(person.driver).key_up("b").perform()
    person.find(pressed.format("After"))


def test_light_is_improved_in_figures_and_switched_off_again(prepared: Person) -> None:
    person = prepared
    person.button("Improve it").click()
    person.wait(lambda: step(person).get("kind") == "adjust", "the proposal")
    slider = person.find("//*[@role='slider'][@aria-label='brightness']")
    before = step(person)["brightness"]
    person.driver.execute_script("arguments[0].focus()", slider)
    ActionChains(person.driver).send_keys(Keys.ARROW_RIGHT).perform()
    person.wait(lambda: round(step(person)["brightness"] - before, 3) == 0.01, "one more")
    person.find("//input[@role='switch']").click()
    person.wait(lambda: not step(person)["on"], "the step to be off")
    person.sees("switched off")
    person.sees("as it came")
    person.driver.find_element("tag name", "body").send_keys(Keys.CONTROL, "z")
    person.wait(lambda: step(person)["on"], "undo")


def test_steps_are_put_in_another_order_and_removed(prepared: Person) -> None:
    person = prepared
    person.button("Turn").click()
    person.sees("1 Turn")
    person.button("Mirror").click()
    person.sees("2 Mirror")
    person.button("Make Mirror earlier").click()
    person.sees("1 Mirror")
    person.button("Remove Turn").click()
    person.wait(lambda: len(preparation(person)["document"]["steps"]) == 1, "one step")
    person.sees("prepared in 1 step")


def test_a_mark_gets_colours_for_dark_grounds_and_outlines(person: Person) -> None:
    brought(person, "stamp.png", saved(disc(180, "#17443c", 30), "PNG"))
    person.go("/w/ottermoor/artwork")
    person.find("//button[contains(., 'stamp.png')]").click()
    person.link("Prepare it").click()
    person.sees("As it came")
    person.button("For dark grounds").click()
    person.sees("1 colour")
    person.button("Outlines from pixels").click()
    person.sees("vector, 180 × 180 px")
    person.wait(lambda: not preparation(person)["working"], "the file at full size")
    person.link("Done").click()
    person.sees("vector: crisp at any size")


def test_what_cannot_be_done_is_said_at_its_step(person: Person) -> None:
    artwork = brought(person, "grain.jpg", saved(photo(640, 480), "JPEG", quality=90))
    person.go(f"/w/ottermoor/artwork/{artwork}/preparation")
    person.button("Cut out").click()
    person.sees("Draw a box")
    person.button("Crop to the subject").click()
    person.sees("Crop by hand")
