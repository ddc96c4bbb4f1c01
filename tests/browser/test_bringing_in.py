"""Bringing artwork in as a person does: folders, a dialog for folders, addresses, pasted addresses; put away again."""

from pathlib import Path
from typing import Any

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.browser.test_finding import entry, names
from tests.make import disc, photo, saved, svg

INSIDE = "http://127.0.0.1:9/wheel.png"
PASTE = """
const transfer = new DataTransfer();
transfer.setData('text/plain', arguments[0]);
document.body.dispatchEvent(new ClipboardEvent('paste', {bubbles: true, clipboardData: transfer}));
"""


def folder_of(tmp_path: Path) -> Path:
    """A folder with a folder in it, and what systems leave in folders."""
    inner = tmp_path / "Spring course" / "Icons"
    inner.mkdir(parents=True)
    (inner.parent / "hill.jpg").write_bytes(saved(photo(90, 60, 51), "JPEG"))
    (inner.parent / ".DS_Store").write_bytes(b"x")
    (inner / "dot.png").write_bytes(saved(disc(40, margin=4), "PNG"))
    (inner / "Thumbs.db").write_bytes(b"x")
    return inner.parent


def drop_path(person: Person, path: Path) -> None:
    """Drops something from the disk in the middle of the page, as the system does."""
    data = {"items": [], "files": [str(path)], "dragOperationsMask": 1}
    for kind in ("dragEnter", "dragOver", "drop"):
        person.driver.execute_cdp_cmd("Input.dispatchDragEvent", {"type": kind, "x": 400, "y": 500, "data": data})


def both_ready(person: Person) -> Any:
    found = [entry(person, name) for name in ("hill.jpg", "dot.png")]
    return all(one and one["state"] == "ready" for one in found) and found


def artwork_screen(person: Person) -> None:
    person.go("/w/ottermoor/artwork")
    person.sees("artworks")


def test_a_dropped_folder_comes_in_with_its_names_as_tags(person: Person, tmp_path: Path) -> None:
    artwork_screen(person)
    drop_path(person, folder_of(tmp_path))
    hill, dot = person.wait(lambda: both_ready(person), "both files")
    assert (hill["tags"], dot["tags"]) == (["Spring course"], ["Icons"])
    assert not any(one["name"] in (".DS_Store", "Thumbs.db") for one in person.ask("/api/workspaces/ottermoor/artwork"))


def test_artwork_is_put_away_and_brought_back(person: Person) -> None:
    artwork_screen(person)
    person.wait(lambda: "dot.png" in names(person), "the picture of the folder")
    person.find("//main//ul//button[contains(., 'dot.png')]").click()
    person.button("Put it away").click()
    person.wait(lambda: "dot.png" not in names(person), "it to go")
    person.find("//label[contains(., 'Seen in')]//select").send_keys("put away")
    person.wait(lambda: names(person) == ["dot.png"], "what was put away")
    person.button("Bring it back").click()
    person.wait(lambda: entry(person, "dot.png")["put_away"] is False, "it to come back")


def test_many_files_are_counted_and_those_not_taken_come_first(person: Person, tmp_path: Path) -> None:
    for number in range(4):
        (tmp_path / f"stall {number}.jpg").write_bytes(saved(photo(90, 60, 60 + number), "JPEG"))
    (tmp_path / "prices.txt").write_text("tea, mugs")
    (tmp_path / "torn.png").write_bytes(saved(disc(), "PNG")[:200])
    artwork_screen(person)
    drop_path(person, tmp_path)
    person.sees("2 files not taken")
    tray = person.find("//section[@aria-label='Files on their way']")
    person.wait(lambda: tray.find_element(By.XPATH, ".//*[@role='status']").text == "2 files not taken", "the others")
    assert "not a picture" in tray.text and "cut off" in tray.text
    assert tray.rect["y"] >= 0
    person.button("Put all away").click()
    person.wait(lambda: not person.driver.find_elements(By.XPATH, "//section[@aria-label='Files on their way']"), "it")
    assert "stall 3.jpg" in names(person)


def test_a_folder_is_chosen_in_the_dialog(person: Person, tmp_path: Path) -> None:
    artwork_screen(person)
    (tmp_path / "Stickers").mkdir()
    (tmp_path / "Stickers" / "tail-light.svg").write_bytes(svg())
    person.button("Bring in artwork").click()
    person.button("Choose a folder")
    person.driver.find_element(By.CSS_SELECTOR, "input[aria-label='Choose a folder']").send_keys(
        str(tmp_path / "Stickers")
    )
    found = person.wait(
        lambda: (one := entry(person, "tail-light.svg")) and one["state"] == "ready" and one, "the mark"
    )
    assert found["tags"] == ["Stickers"]


def test_an_address_that_leads_inside_is_refused_in_words(person: Person) -> None:
    artwork_screen(person)
    person.button("Bring in artwork").click()
    person.field("Or the address of a picture on the web").send_keys(INSIDE, Keys.ENTER)
    person.sees("127.0.0.1: this address is not on the public web")
    person.sees("not taken")


def test_what_is_no_address_is_refused_at_once_and_kept_in_sight(person: Person) -> None:
    artwork_screen(person)
    person.button("Bring in artwork").click()
    person.field("Or the address of a picture on the web").send_keys("file:///etc/passwd", Keys.ENTER)
    person.sees("it begins with file:, not with https:")
    person.clear_log()  # the browser notes the 422 that the words come from


def test_a_pasted_address_is_fetched(person: Person) -> None:
    artwork_screen(person)
    person.driver.execute_script(PASTE, "http://[::1]/pasted.png")
    person.sees("::1: this address is not on the public web")
