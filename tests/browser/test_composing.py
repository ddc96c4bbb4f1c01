"""Composing at the bench: parts added, dragged, resized, typed, replaced, ordered, undone, by mouse and by keyboard."""

from typing import Any

import pytest
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.browser.test_wall import check_layout
from tests.make import svg

PLACE = "Course card"


@pytest.fixture
def bench(person: Person) -> Person:
    """A new piece from the first starting point of an empty placement, at the bench."""
    person.button(f"{PLACE}: ").click()
    person.sees("Begin with")
    person.button("Headline over a picture").click()
    person.sees("Parts, front to back")
    person.wait(lambda: person.fit()["file"], "the file")
    return person


def part(person: Person, name: str) -> Any:
    return next(entry for entry in person.fit()["parts"] if entry["part"] == name)


def grip(person: Person, words: str) -> Any:
    return person.find(f"//*[@data-stage]//div[@role='button'][contains(@aria-label, '{words}')]")


def row(person: Person, words: str) -> Any:
    return person.find(f"//li//button[@aria-expanded][contains(., '{words}')]")


def waits_for(person: Person, name: str, what: str, until: Any) -> None:
    person.wait(lambda: until(part(person, name)), what)


def set_field(person: Person, label: str, value: str) -> None:
    field = person.find(f"//input[@aria-label='{label}']")
    field.send_keys(Keys.CONTROL, "a")
    field.send_keys(value, Keys.ENTER)


def undo(person: Person) -> None:
    person.driver.find_element("tag name", "body").send_keys(Keys.CONTROL, "z")


def test_a_part_is_dragged_with_its_own_picture_and_the_drag_is_undone(bench: Person) -> None:
    before = part(bench, "headline")["stands"]
    handle = grip(bench, "headline")
    actions = ActionChains(bench.driver, duration=20)
    actions.click_and_hold(handle).move_by_offset(3, 30).move_by_offset(2, 25).perform()
    carried = bench.find("//*[@data-stage]//img[contains(@src, 'only=headline')]")
    assert "translate" in carried.get_attribute("style")
    bench.find("//img[contains(@alt, 'Proof of') and contains(@src, 'without=headline')]")
    ActionChains(bench.driver).release().perform()
    waits_for(bench, "headline", "the headline to move down", lambda now: now["stands"]["y"] > before["y"] + 40)
    bench.sees("Undo move “Your headline here”")
    bench.wait(lambda: bench.driver.find_elements("xpath", "//img[contains(@src, 'only=')]") == [], "the drag to end")
    undo(bench)
    waits_for(bench, "headline", "the headline to be back", lambda now: now["stands"] == before)


def test_a_part_snaps_to_the_middle_and_shows_the_line(bench: Person) -> None:
    row(bench, "headline").click()
    set_field(bench, "Width", "300")
    waits_for(bench, "headline", "300 px", lambda now: abs(now["stands"]["width"] - 300) < 0.1)
    set_field(bench, "Left", "60")
    waits_for(bench, "headline", "60 px", lambda now: abs(now["stands"]["x"] - 60) < 0.1)
    box = part(bench, "headline")["stands"]
    scale = bench.find("//*[@data-stage]").size["width"] / 640
    away = round((320 - box["width"] / 2 - 60) * scale) + 3  # a little too far: it snaps back to the middle
    ActionChains(bench.driver, duration=20).click_and_hold(grip(bench, "headline")).move_by_offset(away, 0).perform()
    bench.find("//*[@data-stage]//span[normalize-space(text())='middle']")
    ActionChains(bench.driver).release().perform()
    waits_for(bench, "headline", "the middle", lambda now: abs(now["stands"]["x"] + box["width"] / 2 - 320) < 0.1)


def test_a_part_is_resized_by_its_handle_and_turned(bench: Person) -> None:
    row(bench, "headline").click()
    before = part(bench, "headline")["stands"]
    bench.drag(bench.find("//span[@data-handle='1,1']"), -60, -20)
    waits_for(bench, "headline", "a smaller box", lambda now: now["stands"]["width"] < before["width"] - 50)
    after = part(bench, "headline")["stands"]
    assert after["x"] == pytest.approx(before["x"], abs=0.1), "the opposite corner stays"
    bench.drag(bench.find("//span[@title='Turn']"), 30, 60)
    waits_for(bench, "headline", "a turn", lambda now: now["rotation"] > 10)


def test_a_part_is_moved_and_resized_by_the_keyboard_to_the_pixel(bench: Person) -> None:
    bench.driver.execute_script("arguments[0].focus()", grip(bench, "headline"))
    before = part(bench, "headline")["stands"]
    bench.press(Keys.ARROW_DOWN)
    bench.press(Keys.ARROW_DOWN)
    waits_for(bench, "headline", "2 px", lambda now: abs(now["stands"]["y"] - before["y"] - 2) < 0.05)
    bench.wait(lambda: "saved" in bench.text(), "saved")
    ActionChains(bench.driver).key_down(Keys.SHIFT).send_keys(Keys.ARROW_UP).key_up(Keys.SHIFT).perform()
    waits_for(bench, "headline", "10 px back", lambda now: abs(now["stands"]["y"] - before["y"] + 8) < 0.05)
    ActionChains(bench.driver).send_keys(".").perform()
    waits_for(bench, "headline", "a turn of one degree", lambda now: now["rotation"] == 1)


def test_words_are_typed_on_the_proof_and_in_the_list(bench: Person) -> None:
    ActionChains(bench.driver).double_click(grip(bench, "headline")).perform()
    editor = bench.find("//textarea[@aria-label='Words of the headline']")
    editor.send_keys("True a wheel")
    editor.send_keys(Keys.CONTROL, Keys.ENTER)
    waits_for(bench, "headline", "the words", lambda now: "True a" in " ".join(now["words"]["lines"]))
    bench.wait(
        lambda: bench.find("//textarea[@aria-label='Words']").get_attribute("value") == "True a wheel", "the list"
    )
    area = bench.find("//textarea[@aria-label='Words']")
    area.send_keys(Keys.CONTROL, "a")
    area.send_keys("Lace a wheel", Keys.CONTROL, Keys.ENTER)
    waits_for(bench, "headline", "the other words", lambda now: "Lace a" in " ".join(now["words"]["lines"]))
    undo_body = bench.driver.find_element("tag name", "body")
    bench.driver.execute_script("document.activeElement.blur()")
    undo_body.send_keys(Keys.CONTROL, "z")
    waits_for(bench, "headline", "the words before", lambda now: "True a" in " ".join(now["words"]["lines"]))


def test_a_headline_is_written_and_moved_without_the_mouse(bench: Person) -> None:
    before = part(bench, "headline")["stands"]
    for _ in range(6):
        ActionChains(bench.driver).send_keys("n").perform()
        if "headline" in focused(bench):
            break
    assert focused(bench).endswith(", headline")
    bench.press(Keys.ENTER)
    editor = bench.find("//textarea[@aria-label='Words of the headline']")
    room = editor.size["height"]
    editor.send_keys(Keys.CONTROL, "a")
    editor.send_keys("Seven long climbs, three lakes and a very late lunch by the old mill")
    assert bench.driver.execute_script("return arguments[0].scrollHeight", editor) <= room + 2, "all of it is seen"
    editor.send_keys(Keys.CONTROL, Keys.ENTER)
    bench.sees("Undo change the words")
    assert "headline" in focused(bench), "the keys go on working on the part"
    bench.press(Keys.SHIFT + Keys.ARROW_UP)
    waits_for(bench, "headline", "10 px up", lambda now: abs(now["stands"]["y"] - before["y"] + 10) < 0.2)


def focused(person: Person) -> str:
    """What a screen reader would say has the focus."""
    return person.driver.switch_to.active_element.get_attribute("aria-label") or ""


def test_parts_are_added_duplicated_ordered_hidden_and_taken_away(bench: Person) -> None:
    bench.button("+ words or shape").click()
    bench.button("Badge").click()
    bench.wait(lambda: any(entry["part"] == "badge" for entry in bench.fit()["parts"]), "the badge")
    bench.wait(lambda: focused(bench) == "Words", "its words, to be typed over")
    names = lambda: [entry["id"] for entry in bench.fit()["piece"]["document"]["parts"]]  # noqa: E731
    bench.button("Duplicate").click()
    bench.wait(lambda: "badge-2" in names(), "the duplicate")
    bench.wait(lambda: "saved" in bench.text(), "saved")
    bench.button("Back").click()
    bench.wait(lambda: names()[-1] == "badge-2" and names().index("badge") < len(names()) - 2, "the order")
    bench.button("Hide New").click()
    bench.wait(lambda: sum(entry["role"] == "badge" for entry in bench.fit()["parts"]) == 1, "one hidden")
    row(bench, "New").click()
    bench.driver.execute_script("document.activeElement.blur()")
    bench.driver.find_element("tag name", "body").send_keys(Keys.DELETE)
    bench.wait(lambda: len([name for name in names() if name.startswith("badge")]) == 1, "one left")


def test_several_parts_are_lined_up(bench: Person) -> None:
    row(bench, "headline").click()
    ActionChains(bench.driver).key_down(Keys.SHIFT).click(row(bench, "second line")).key_up(Keys.SHIFT).perform()
    bench.sees("2 parts selected")
    bench.button("right sides").click()

    def level() -> bool:
        one, two = part(bench, "headline")["stands"], part(bench, "second-line")["stands"]
        return abs(one["x"] + one["width"] - two["x"] - two["width"]) < 0.1

    bench.wait(level, "the same right side")


def test_a_file_dropped_on_the_proof_becomes_a_part_and_on_a_part_replaces_it(bench: Person) -> None:
    stage = bench.find("//*[@data-stage]")
    bench.drop(stage, "bolt.svg", svg())
    bench.wait(lambda: any(entry["role"] == "mark" for entry in bench.fit()["parts"]), "the mark")
    box = part(bench, "mark")["box"]
    assert box["width"] / box["height"] == pytest.approx(1, abs=0.03)
    bench.button("+ picture or mark").click()
    bench.button("workbench.jpg").click()
    bench.wait(lambda: any(entry["role"] == "picture" for entry in bench.fit()["parts"]), "the picture")


def test_the_ground_gets_a_gradient_whose_stops_stand_on_the_bar(bench: Person) -> None:
    row(bench, "Ground").click()
    bench.button("gradient").click()
    ground = lambda: bench.fit()["piece"]["document"]["parts"][0]["fill"]  # noqa: E731
    bench.wait(lambda: ground()["kind"] == "gradient", "the gradient")
    bar = bench.find("//div[@title='Click to add a stop']")
    ActionChains(bench.driver).move_to_element(bar).click().perform()
    bench.wait(lambda: len(ground()["stops"]) == 3, "a third stop")
    assert ground()["stops"][1]["at"] == pytest.approx(0.5, abs=0.05)
    handle = bench.find("//span[@role='slider'][@aria-label='Angle of the gradient']")
    before = ground()["angle"]
    bench.driver.execute_script("arguments[0].focus()", handle)
    bench.press(Keys.ARROW_DOWN)
    bench.wait(lambda: ground()["angle"] == before + 1, "the angle")


def test_a_typeface_is_chosen_by_search_and_shows_the_own_words(bench: Person) -> None:
    row(bench, "headline").click()
    bench.button("Bricolage Grotesque").click()
    bench.field("Search typefaces").send_keys("slab")
    bench.wait(lambda: "Zilla Slab" in bench.text() and "Anton" not in bench.text(), "only slabs")
    sample = bench.find("//li[contains(., 'Zilla Slab')]//img")
    assert sample.get_attribute("alt") == "Your headline here"
    bench.button("Zilla Slab").click()
    waits_for(bench, "headline", "the typeface", lambda now: now["words"]["family"] == "Zilla Slab")


def test_a_colour_shows_its_contrast_and_is_taken_from_the_proof(bench: Person) -> None:
    row(bench, "headline").click()
    bench.wait(lambda: bench.driver.find_elements("xpath", "//button[contains(@title, ' : 1')]"), "contrasts")
    bench.button("Colour #f4d06f").click()
    waits_for(bench, "headline", "yellow", lambda now: now["words"]["colour"] == "#f4d06f")
    bench.button("Colour from the proof").click()
    stage = bench.find("//*[@data-stage]")
    ActionChains(bench.driver).move_to_element_with_offset(stage, 0, 150).click().perform()
    waits_for(bench, "headline", "a colour of the proof", lambda now: now["words"]["colour"] not in ("#f4d06f", "auto"))


def test_only_here_marks_an_adjustment_and_counts_it_on_the_row(bench: Person) -> None:
    row(bench, "headline").click()
    bench.find("//button[normalize-space()='only here']").click()
    set_field(bench, "Turn", "5")
    bench.sees("1 only here")
    bench.button("Take back what differs here").click()
    waits_for(bench, "headline", "no turn", lambda now: now["rotation"] == 0)


def test_the_keys_are_listed_with_a_question_mark(bench: Person) -> None:
    ActionChains(bench.driver).send_keys("?").perform()
    bench.sees("At the bench, by keyboard")
    bench.sees("make it larger or smaller by 1 px")
    ActionChains(bench.driver).send_keys(Keys.ESCAPE).perform()


@pytest.mark.parametrize("width", [1280, 900])
def test_the_bench_with_an_open_part_fits_the_screen(bench: Person, width: int) -> None:
    row(bench, "headline").click()
    bench.size_window(width, 800)
    check_layout(bench)
    bench.size_window(1280, 800)


@pytest.fixture(autouse=True)
def _emptied(person: Person) -> Any:
    """The placement is empty again for the next test."""
    yield
    wall = person.ask("/api/workspaces/ottermoor/wall")
    proof = next(entry for shelf in wall["shelves"] for entry in shelf["placements"] if entry["name"] == PLACE)
    if proof["fit"]:
        person.delete(f"/api/workspaces/ottermoor/fits/{proof['fit']}")
