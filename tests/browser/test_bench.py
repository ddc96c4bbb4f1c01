"""The bench: dragging, typing, mending, undoing, and two windows at once."""

import json
from typing import Any

import pytest
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from tests.browser.conftest import DATABASE, connected
from tests.browser.person import Person
from tests.browser.test_wall import check_layout

FOCUS = "//div[@role='slider']"


def part(person: Person) -> Any:
    """The first placed part with what its picture shows."""
    first = person.fit()["parts"][0]
    return {**first, **first["artwork"]}


def open_row(person: Person, name: str) -> None:
    """Opens a part in the list."""
    person.find(f"//li//button[@aria-expanded='false'][contains(., '{name}')]").click()


def undo_all(person: Person, steps: int) -> None:
    for _ in range(steps):
        person.driver.find_element("tag name", "body").send_keys(Keys.CONTROL, "z")
        person.sees("saved")
        person.wait(lambda: "saving" not in person.text(), "the undo to be saved")


def test_the_picture_is_moved_by_dragging_and_the_drag_can_be_undone(person: Person) -> None:
    person.open_bench("Lesson thumbnail")
    before = part(person)["window"]
    person.drag(person.find(FOCUS), 0, 80)
    person.wait(lambda: part(person)["window"]["y"] < before["y"] - 10, "the window to move up")
    person.sees("Undo move the focus")
    undo_all(person, 1)
    person.wait(lambda: part(person)["window"] == before, "the window to be back")


def test_the_picture_is_moved_by_the_arrow_keys(person: Person) -> None:
    person.open_bench("Page header")
    before = part(person)["window"]
    person.driver.execute_script("arguments[0].focus()", person.find(FOCUS))
    person.press(Keys.SHIFT, Keys.ARROW_DOWN)
    person.wait(lambda: part(person)["window"]["y"] != before["y"], "the window to move")
    moved = part(person)["window"]["y"] - before["y"]
    scale = part(person)["box"]["width"] / before["width"]
    assert moved * scale == pytest.approx(10, abs=0.6)
    undo_all(person, 1)


def test_a_finding_is_mended_with_one_click_and_the_proof_changes(person: Person) -> None:
    person.open_bench("Sign-in logo")
    person.sees("reads only 1.4 : 1")
    image = person.find("//img[starts-with(@alt, 'Proof of')]")
    before = image.get_attribute("src")
    person.button("Put a readable ground behind it").click()
    person.sees("Nothing to mend")
    person.wait(lambda: image.get_attribute("src") != before, "the new proof")
    person.sees("1 adjustment only here.")
    person.button("Take back").click()
    person.sees("reads only 1.4 : 1")


def test_padding_is_typed_and_made_automatic_again(person: Person) -> None:
    person.open_bench("Record glyph")
    field = person.field("Padding")
    field.send_keys(Keys.CONTROL, "a")
    field.send_keys("0", Keys.ENTER)
    person.sees("touches the edge")
    assert part(person)["clearance_px"] == 0
    person.button("Add padding").click()
    person.sees("Nothing to mend")
    field = person.field("Padding")
    field.send_keys(Keys.CONTROL, "a")
    field.send_keys("7.5", Keys.ENTER)
    person.wait(lambda: part(person)["padding_px"] == 7.5, "7.5 px")
    person.button("automatic").click()
    person.wait(lambda: part(person)["padding_px"] == 2, "automatic padding")


def test_a_tint_and_a_ground_are_chosen_from_the_house_and_by_hex(person: Person) -> None:
    person.open_bench("Record glyph")
    person.button("Tint #17443c").click()
    person.sees("Undo tint the mark")
    open_row(person, "Ground")
    field = person.field("Colour as a hex code")
    field.send_keys("f4d06f", Keys.ENTER)
    person.sees("Undo change the ground")
    person.wait(lambda: person.fit()["ground"] == "#f4d06f", "the ground")
    person.sees("opaque")
    assert person.fit()["state"] == "refused"
    undo_all(person, 2)
    person.wait(lambda: person.fit()["ground"] is None, "the clear ground")


# What a browser's palette does, which drivers cannot open: a value for each colour on the way, and a change at its end.
PALETTE = """
const [input, colours] = arguments;
const setter = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set;
for (const colour of colours) {
  setter.call(input, colour);
  input.dispatchEvent(new Event('input', {bubbles: true}));
}
input.dispatchEvent(new Event('change', {bubbles: true}));
"""


def test_a_palette_gives_its_last_colour_and_passing_through_it_none(person: Person) -> None:
    person.open_bench("Record glyph")
    open_row(person, "Ground")
    palette = person.find("//input[@aria-label='Colour from a palette']")
    person.driver.execute_script("arguments[0].focus(); arguments[0].blur()", palette)
    person.driver.execute_script(PALETTE, palette, ["#123456", "#2a7f62"])
    person.wait(lambda: person.fit()["ground"] == "#2a7f62", "the last colour")
    undo_all(person, 1)
    person.wait(lambda: person.fit()["ground"] is None, "the clear ground after one step back")


def test_the_file_is_delivered_from_the_bench(person: Person) -> None:
    person.open_bench("Sticker")
    person.sees("nothing lost")
    person.button("Deliver this file").click()
    person.wait(
        lambda: any(
            len(entry["files"]) == 1 and entry["files"][0]["name"] == "ding_296x296.webp"
            for entry in person.ask("/api/workspaces/ottermoor/deliveries")
        ),
        "the delivery to be recorded",
    )


def test_two_windows_on_one_field_are_shown_both_values(person: Person) -> None:
    person.open_bench("Floor patch")
    theirs = person.fit()
    person.save_elsewhere(fit := theirs, a_ground(fit, "#102030"))
    open_row(person, "Ground")
    person.find("//button[normalize-space()='only here']").click()
    person.button("Colour #f4d06f").click()
    person.sees("This was changed elsewhere in the meantime.")
    person.sees("#102030")
    person.sees("#f4d06f")
    person.button("Keep mine").click()
    person.wait(lambda: person.fit()["ground"] == "#f4d06f", "my ground")
    undo_all(person, 2)


def test_two_windows_on_different_fields_are_merged_without_a_word(person: Person) -> None:
    person.open_bench("Floor patch")
    person.save_elsewhere(fit := person.fit(), a_ground(fit, "#223344"))
    person.find("//button[normalize-space()='only here']").click()
    person.button("by weight").click()
    person.wait(lambda: person.fit()["ground"] == "#223344", "their ground")
    person.wait(lambda: "mark.centring" in person.fit()["adjusted"], "my centring")
    undo_all(person, 2)


def a_ground(fit: Any, colour: str) -> dict[str, Any]:
    """The change that gives one placement another ground."""
    value = {"kind": "solid", "colour": colour}
    return {"act": "set", "part": "ground", "field": "fill", "value": value, "placement": fit["sheet"]["slug"]}


def test_another_unit_of_the_padding_keeps_the_padding(person: Person) -> None:
    person.open_bench("Touch icon")
    mark = next(part for part in person.fit()["parts"] if part["role"] == "mark")
    per_cent, px = mark["artwork"]["padding_percent"], mark["artwork"]["padding_px"]
    Select(person.find("//select[@aria-label='Unit of the padding']")).select_by_value("%")
    person.wait(lambda: own_padding(person), "a padding of its own")
    assert own_padding(person) == {"value": per_cent, "unit": "%"}
    Select(person.find("//select[@aria-label='Unit of the padding']")).select_by_value("px")
    person.wait(lambda: own_padding(person)["unit"] == "px", "px again")
    assert abs(own_padding(person)["value"] - px) < 0.1
    undo_all(person, 2)


def own_padding(person: Person) -> Any:
    return next(part for part in person.fit()["piece"]["document"]["parts"] if part["role"] == "mark")["padding"]


def test_the_rail_leads_to_the_other_places_of_the_piece(person: Person) -> None:
    person.open_bench("Tab icon")
    person.find("//section[@aria-labelledby='rail']//a[contains(., 'Touch icon')]").click()
    person.sees("Website · Touch icon")


def test_artwork_is_sent_to_places_from_its_card(person: Person) -> None:
    person.go("/w/ottermoor/artwork")
    person.button("dusk-ride.jpg").click()
    person.sees("2400 × 1600 px")
    person.button("Say where it goes").click()
    person.find("//label[contains(., 'Course card')]").click()
    person.button("Fill it").click()
    person.sees("Course page · Course card")
    person.wait(lambda: person.fit()["state"] == "fits", "the card to fit")
    person.go("/w/ottermoor")
    person.button("Course card: replace").click()
    person.button("Empty it").click()
    person.wait(lambda: "empty" in person.state_of("Course card"), "the card to be empty again")


@pytest.mark.parametrize("width", [820, 1280, 1920])
def test_the_bench_keeps_its_width(person: Person, width: int) -> None:
    person.open_bench("Header logo")
    person.size_window(width, 900)
    person.sees("As people will see it")
    check_layout(person)
    person.size_window(1280, 800)


def test_a_file_that_could_not_be_made_says_so_on_the_bench_and_on_the_wall(person: Person) -> None:
    outcome = {"kind": "failed", "problem": "", "message": "Making it took too long. Change the piece, or try again."}
    with connected() as connection:
        say = "UPDATE {}.pieces_rendition SET outcome = JSON_MERGE_PATCH(outcome, %s), files = '[]'"
        connection.cursor().execute(say.format(DATABASE), [json.dumps(outcome)])
        connection.commit()
    person.open_bench("Record glyph")
    person.sees("Its file could not be made")
    person.sees("Making it took too long. Change the piece, or try again.")
    person.go("/w/ottermoor")
    person.wait(lambda: "the file could not be made" in person.state_of("Record glyph"), "the state on the wall")
    assert "failed" in person.state_of("Record glyph")
