"""A series from a table, as a person makes it: typed, pasted, dropped, found, changed by hand, made and handed over."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import pytest
from selenium.webdriver import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.browser.test_composing import grip
from tests.make import photo, saved

PASTE = """
const data = new DataTransfer();
data.setData("text/plain", arguments[0]);
const event = new ClipboardEvent("paste", {clipboardData: data, bubbles: true, cancelable: true});
document.activeElement.dispatchEvent(event);
"""


@pytest.fixture
def table(person: Person) -> Iterator[Person]:
    person.open_bench("Lesson thumbnail")
    person.button("All 12 rows").click()
    person.sees("Wheel school, row by row")
    person.find("//*[@role='grid']//img")
    yield person


def cell(person: Person, row: int, field: str) -> Any:
    return person.find(f"//*[@role='gridcell' and starts-with(@aria-label, 'Row {row}, {field}:')]")


def focused(person: Person) -> str:
    return str(person.driver.switch_to.active_element.get_attribute("aria-label") or "")


def rows(person: Person) -> int:
    return len(person.ask(run_path(person))["rows"])


def run_path(person: Person) -> str:
    return f"/api/workspaces/ottermoor/pieces/{person.driver.current_url.rpartition('/')[2]}/run"


def test_cells_are_typed_by_keys_alone_and_taken_back(table: Person) -> None:
    cell(table, 1, "title").click()
    table.press(Keys.ARROW_DOWN, "Swap a tyre", Keys.ENTER)
    table.wait(lambda: "Swap a tyre" in cell(table, 2, "title").get_attribute("aria-label"))
    table.press(Keys.ARROW_UP, Keys.F2, " at night", Keys.TAB)
    table.wait(lambda: "Swap a tyre at night" in cell(table, 2, "title").get_attribute("aria-label"))
    table.wait(lambda: focused(table).startswith("Row 2, lesson"))
    ActionChains(table.driver).key_down(Keys.CONTROL).send_keys("z").key_up(Keys.CONTROL).perform()
    table.button("Redo change a cell")
    table.wait(lambda: cell(table, 2, "title").get_attribute("aria-label").endswith("Swap a tyre"))
    table.button("Undo change a cell").click()
    table.wait(lambda: "Change" in cell(table, 2, "title").get_attribute("aria-label"))


def test_cells_come_from_a_spreadsheet_and_rows_with_them(table: Person) -> None:
    before = rows(table)
    cell(table, 1, "title").click()
    ActionChains(table.driver).key_down(Keys.CONTROL).send_keys(Keys.ARROW_DOWN).key_up(Keys.CONTROL).perform()
    table.wait(lambda: focused(table).startswith("Row 12"))
    table.driver.execute_script(PASTE, "True a wheel\tLesson 12\nPaint a frame\tLesson 13\nBuild a rack\tLesson 14")
    table.sees("14 rows in 2 places")
    assert rows(table) == before + 2
    table.button("Undo paste cells").click()
    table.sees("12 rows in 2 places")


def test_a_picture_dropped_on_a_cell_stands_in_that_row(table: Person) -> None:
    table.drop(cell(table, 1, "guest"), "rowan-at-work.png", saved(photo(400, 400, 9), "PNG"))
    table.wait(lambda: "rowan-at-work.png" in cell(table, 1, "guest").get_attribute("aria-label"))
    kept = table.ask(run_path(table))["rows"]
    assert len(kept) == 12 and kept[0]["cells"]["guest"] != kept[1]["cells"]["guest"]
    table.button("Undo put a picture into a row").click()
    table.wait(lambda: "workbench" in cell(table, 1, "guest").get_attribute("aria-label"))


def test_what_is_wrong_is_found_and_shown_alone(table: Person) -> None:
    cell(table, 3, "guest").click()
    table.press("nobody-here", Keys.ENTER)
    table.sees("there is no picture 'nobody-here'")
    table.button("To look at").click()
    table.wait(lambda: not table.driver.find_elements("xpath", "//*[starts-with(@aria-label, 'Row 1, title')]"))
    assert cell(table, 3, "guest")
    table.button("Undo change a cell").click()
    table.button("All").click()


def test_a_row_is_changed_by_hand_and_says_so(table: Person) -> None:
    table.button("Change row by hand in Lesson thumbnail").click()
    table.sees("Wheel school, row 1")
    table.sees("The same row elsewhere")
    ActionChains(table.driver).drag_and_drop_by_offset(grip(table, "headline"), 30, 0).perform()
    table.wait(lambda: table.fit()["row"]["by_hand"] > 0, "what differs in this row")
    assert table.fit()["piece"]["undo"]
    table.link("All rows").click()
    table.sees(" by hand")
    table.find("//button[contains(@aria-label, 'Row 1: what')]").click()
    table.find("//*[@role='menuitem' and contains(., 'Let it follow the piece again')]").click()
    table.wait(lambda: " by hand\n" not in table.text())


def test_chosen_rows_are_made_and_handed_over(table: Person) -> None:
    for number in (2, 3):
        table.find(f"//input[@aria-label='Choose row {number}']").click()
    table.button("Make the files of 2 rows").click()
    table.wait(lambda: table.ask(f"{run_path(table)}/state")["progress"]["done"] == 4)
    table.button("Deliver 2 rows").click()
    table.sees("wheel-school-2")


def test_it_is_handed_on_by_a_link_that_says_what_it_is_for(table: Person) -> None:
    table.button("Hand it on").click()
    table.button("Make a link").click()
    table.sees("/join/")
    found = str(table.driver.execute_script("return document.body.innerText.match(/\\/join\\/[\\w-]+/)[0]"))
    table.go(found)
    table.sees("Juno Marsh asks you to fill in rows of Ottermoor Cycle Works")
    table.button("Fill in the rows").click()
    table.sees("row by row")
    assert not table.complaints()
