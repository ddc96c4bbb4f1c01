"""Each kind of part at the bench: pictures in shapes, marks recoloured, grounds, edges, effects, order by keys."""

from typing import Any

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import Select

from tests.browser.person import Person
from tests.browser.test_composing import _emptied, bench, part, row, set_field, waits_for  # noqa: F401


def own(person: Person, name: str) -> Any:
    """A part of the piece's document."""
    parts = person.fit()["piece"]["document"]["parts"]
    return next(entry for entry in parts if entry["id"] == name)


def choose(person: Person, label: str, value: str) -> None:
    """Chooses from a list by its name."""
    Select(person.find(f"//select[@aria-label='{label}']")).select_by_visible_text(value)


def switch(person: Person, label: str) -> None:
    """Turns something on or off."""
    button = person.find(f"//button[@role='switch'][@aria-label='{label}']")
    person.driver.execute_script("arguments[0].scrollIntoView({block: 'center'})", button)
    button.click()


def add_picture(person: Person, name: str) -> None:
    """Adds artwork from the list and waits until it is there and open."""
    person.button("+ picture or mark").click()
    person.button(name).click()
    person.find(f"//li//button[@aria-expanded='true'][contains(., '{name}')]")


@pytest.fixture
def with_picture(bench: Person) -> Person:  # noqa: F811
    """A piece with a picture of its own box, selected."""
    add_picture(bench, "workbench.jpg")
    return bench


def test_a_picture_is_cut_to_a_shape_with_a_border_and_moved_inside(with_picture: Person) -> None:
    person = with_picture
    choose(person, "Shape of the picture", "circle")
    person.wait(lambda: (own(person, "picture")["die"] or {}).get("shape") == "circle", "the circle")
    switch(person, "Border")
    person.wait(lambda: own(person, "picture")["die"]["border"], "the border")
    person.button("move inside").click()
    slider = person.find("//*[@data-stage]//div[@role='slider']")
    before = part(person, "picture")["artwork"]["window"]
    person.driver.execute_script("arguments[0].focus()", slider)
    ActionChains(person.driver).send_keys("+").perform()
    waits_for(person, "picture", "a zoom", lambda now: now["artwork"]["window"]["width"] < before["width"] * 0.95)
    person.sees("Undo zoom the picture")
    ActionChains(person.driver).send_keys(Keys.ARROW_RIGHT).perform()
    person.wait(lambda: own(person, "picture")["focal_point"], "a focus")
    ActionChains(person.driver).send_keys(Keys.ESCAPE).perform()
    person.button("move inside")


def test_a_picture_is_replaced_in_its_place(with_picture: Person) -> None:
    person = with_picture
    before = own(person, "picture")
    person.button("replace…").click()
    person.button("misty-street.jpg").click()
    person.wait(lambda: own(person, "picture")["artwork"] != before["artwork"], "the other picture")
    assert own(person, "picture")["stands"] == before["stands"]


DRAG = """
const [from, to, share] = arguments;
const transfer = new DataTransfer();
from.dispatchEvent(new DragEvent('dragstart', {bubbles: true, dataTransfer: transfer}));
const frame = to.getBoundingClientRect();
const at = {clientX: frame.left + share * frame.width, clientY: frame.top + share * frame.height};
for (const kind of ['dragover', 'drop']) {
  to.dispatchEvent(new DragEvent(kind, {bubbles: true, cancelable: true, dataTransfer: transfer, ...at}));
}
"""


def test_artwork_is_dragged_from_the_list_onto_the_proof_and_onto_a_picture(bench: Person) -> None:  # noqa: F811
    stage = bench.find("//*[@data-stage]")
    bench.button("+ picture or mark").click()
    bench.driver.execute_script(DRAG, bench.button("workbench.jpg"), stage, 0.5)
    bench.wait(lambda: any(entry["part"] == "picture" for entry in bench.fit()["parts"]), "the picture")
    box = part(bench, "picture")["box"]
    assert box["x"] + box["width"] / 2 == pytest.approx(320, abs=1), "its middle is where it was dropped"
    bench.sees("workbench.jpg")
    before = own(bench, "picture")["artwork"]
    bench.driver.execute_script(DRAG, bench.button("misty-street.jpg"), stage, 0.5)
    bench.wait(lambda: own(bench, "picture")["artwork"] != before, "the other picture in its place")


def test_a_mark_is_recoloured_colour_by_colour(bench: Person) -> None:  # noqa: F811
    add_picture(bench, "wheel-badge.svg")
    bench.find("//button[normalize-space()='same']").click()
    bench.find("//button[starts-with(@aria-label, 'Instead of') and contains(@aria-label, '#b4541a')]").click()
    bench.wait(lambda: list(own(bench, "mark")["recolour"].values()) == ["#b4541a"], "the new colour")


def test_an_edge_is_put_around_a_part_and_made_wider(with_picture: Person) -> None:
    person = with_picture
    switch(person, "Edge")
    person.wait(lambda: own(person, "picture")["edge"], "the edge")
    set_field(person, "Width of the edge", "32")
    person.wait(lambda: (own(person, "picture")["edge"] or {}).get("width") == pytest.approx(0.05), "32 of 640 px")
    switch(person, "Edge")
    person.wait(lambda: own(person, "picture")["edge"] is None, "no edge")


@pytest.mark.parametrize("effect", ["Outline", "Glow", "Shadow", "Plate"])
def test_an_effect_is_added_with_a_name_for_undo_and_taken_away(bench: Person, effect: str) -> None:  # noqa: F811
    row(bench, "headline").click()
    switch(bench, effect)
    bench.wait(lambda: own(bench, "headline")[effect.lower()], f"the {effect}")
    bench.sees(f"Undo add a{'n' if effect == 'Outline' else ''} {effect.lower()}")
    switch(bench, effect)
    bench.wait(lambda: own(bench, "headline")[effect.lower()] is None, f"no {effect}")


def test_the_ground_is_a_picture_then_a_pattern_then_a_colour(bench: Person) -> None:  # noqa: F811
    row(bench, "Ground").click()
    for words, kind in (("pattern", "pattern"), ("picture", "picture"), ("colour", "solid")):
        bench.find(f"//div[@aria-label='Filled']//button[normalize-space()='{words}']").click()
        bench.wait(lambda kind=kind: (own(bench, "ground")["fill"] or {}).get("kind") == kind, f"the {kind}")


def test_a_shape_is_chosen_and_filled_with_a_gradient(bench: Person) -> None:  # noqa: F811
    bench.button("+ words or shape").click()
    bench.find("//button[normalize-space()='Shape']").click()
    bench.find("//select[@aria-label='Shape']")
    choose(bench, "Shape", "ribbon")
    bench.wait(lambda: own(bench, "shape")["shape"] == "ribbon", "the ribbon")
    bench.find("//div[@aria-label='Filled']//button[normalize-space()='gradient']").click()
    bench.wait(lambda: (own(bench, "shape")["fill"] or {}).get("kind") == "gradient", "the gradient")


def test_parts_are_ordered_duplicated_hidden_and_locked_by_keys(with_picture: Person) -> None:
    person = with_picture

    def order() -> list[str]:
        return [entry["id"] for entry in person.fit()["piece"]["document"]["parts"]]

    def press(*keys: str) -> None:
        person.driver.execute_script("document.activeElement.blur()")
        ActionChains(person.driver).send_keys(*keys).perform()

    front = order()
    press(Keys.PAGE_DOWN)
    person.wait(lambda: order().index("picture") == front.index("picture") - 1, "one step back")
    press("h")
    person.button("Show workbench.jpg")
    assert own(person, "picture")["hidden"]
    press("h")
    person.button("Hide workbench.jpg")
    assert not own(person, "picture")["hidden"]
    press("l")
    person.wait(lambda: own(person, "picture")["locked"], "locked")
    grip = "//*[@data-stage]//div[contains(@aria-label, 'workbench.jpg')]"
    person.wait(lambda: person.driver.find_elements("xpath", grip) == [], "nothing to take hold of")


def test_what_somebody_else_adds_appears_by_itself(bench: Person) -> None:  # noqa: F811
    fit = bench.fit()
    change = {"part": "shape", "act": "add", "value": {"role": "shape", "shape": "star", "name": "A colleague's star"}}
    bench.save_elsewhere(fit, change)
    bench.sees("A colleague's star")


def test_the_steps_are_there_after_a_reload(bench: Person) -> None:  # noqa: F811
    row(bench, "headline").click()
    set_field(bench, "Turn", "3")
    waits_for(bench, "headline", "a turn", lambda now: now["rotation"] == 3)
    bench.driver.refresh()
    bench.sees("Undo turn")
    bench.driver.find_element("tag name", "body").send_keys(Keys.CONTROL, "z")
    waits_for(bench, "headline", "no turn", lambda now: now["rotation"] == 0)
