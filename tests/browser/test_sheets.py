"""A sheet is changed where it stands: edges and zones by pointer and keys, the rest by its fields."""

import json
from typing import Any

from PIL import Image
from selenium.webdriver import ActionChains
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.make import saved, svg

NAME = "Lesson thumbnail"


def places(person: Person) -> dict[str, str]:
    wall = person.ask("/api/workspaces/ottermoor/wall")
    return {one["name"]: one["id"] for shelf in wall["shelves"] for one in shelf["placements"]}


def open_sheet(person: Person, name: str = NAME) -> str:
    person.sign_in()
    place = places(person)[name]
    person.go(f"/w/ottermoor/places/{place}")
    person.sees("Asked")
    return place


def kept(person: Person, place: str) -> Any:
    return person.ask(f"/api/workspaces/ottermoor/places/{place}")["shown"]["sheet"]


def row(person: Person, title: str) -> Any:
    return person.find(f"//button[@aria-expanded and starts-with(@aria-label, '{title}: ')]")


def fill(person: Person, label: str, text: str) -> None:
    person.find(f"//input[@aria-label='{label}']").send_keys(Keys.CONTROL + "a" + Keys.NULL + text + Keys.ENTER)


def save(person: Person) -> None:
    person.wait(lambda: person.button("Use this sheet").is_enabled(), "a sheet that can be used")
    person.button("Use this sheet").click()
    person.wait(lambda: "Changed, and not used yet" not in person.text(), "the saved sheet")


def test_edges_are_dragged_and_moved_by_keys(visitor: Person) -> None:
    place = open_sheet(visitor)
    before = kept(visitor, place)["size"]
    visitor.drag(visitor.find("//*[@role='slider' and starts-with(@aria-label, 'Width')]"), -60, 0)
    visitor.sees("Changed, and not used yet")
    width = visitor.find("//*[@role='slider' and starts-with(@aria-label, 'Width')]").get_attribute("aria-valuenow")
    assert int(width) < before["width"]
    assert int(width) % 5 == 0, "dragged to a round figure"
    visitor.find("//*[@role='slider' and starts-with(@aria-label, 'Height')]").send_keys(Keys.ARROW_UP, Keys.ARROW_UP)
    visitor.sees(f"Exactly {width} × {before['height'] + 2} px.")
    assert kept(visitor, place)["size"] == before, "nothing counts before it is used"
    visitor.sees("its file is made anew")
    save(visitor)
    assert kept(visitor, place)["size"] == {"width": int(width), "height": before["height"] + 2}
    visitor.sees("Earlier sheets")
    assert not visitor.complaints()


def test_a_zone_is_drawn_named_moved_and_resized(visitor: Person) -> None:
    place = open_sheet(visitor)
    layer = visitor.find("//div[contains(@class, 'cursor-crosshair')]")
    ActionChains(visitor.driver).move_to_element_with_offset(layer, -150, -70).click_and_hold().move_by_offset(
        60, 30
    ).move_by_offset(20, 10).release().perform()
    fill(visitor, "What zone 2 is called", "channel sign")
    drawn = visitor.find("//*[starts-with(@aria-label, 'channel sign, covered zone')]")
    drawn.send_keys(Keys.ARROW_RIGHT, Keys.SHIFT + Keys.ARROW_DOWN)
    corner = "//button[starts-with(@aria-label, 'bottom right corner of channel sign')]"
    visitor.drag(visitor.find(corner), 25, 15)
    visitor.find(corner).send_keys(Keys.ARROW_LEFT)
    save(visitor)
    first, second = kept(visitor, place)["covered"]
    assert first["label"] == "running time"
    assert second["label"] == "channel sign"
    assert 0.2 < second["width"] < 0.3
    assert 0.1 < second["height"] < 0.3
    visitor.find("//*[starts-with(@aria-label, 'channel sign, covered zone')]").send_keys(Keys.DELETE)
    save(visitor)
    assert [zone["label"] for zone in kept(visitor, place)["covered"]] == ["running time"]


def test_formats_are_ordered_figures_typed_and_a_ground_picked_from_a_screenshot(visitor: Person) -> None:
    place = open_sheet(visitor)
    row(visitor, "Formats").click()
    visitor.find("//button[starts-with(@aria-label, 'PNG, 2 of 2')]").send_keys(Keys.ARROW_LEFT)
    visitor.sees("PNG, else JPEG.")
    row(visitor, "Weight").click()
    fill(visitor, "At most", "250")
    visitor.sees("At most 250 KB.")
    row(visitor, "Grounds").click()
    visitor.button("Pick one from a screenshot").click()
    page = Image.new("RGB", (400, 240), "#2f4f3e")
    page.paste("#f4e9d1", (0, 0, 200, 240))
    visitor.drop(visitor.find("//section[@aria-label='A screenshot of the page']"), "page.png", saved(page, "PNG"))
    shot = visitor.find("//canvas")
    visitor.driver.execute_script("arguments[0].scrollIntoView({block: 'center'})", shot)
    ActionChains(visitor.driver).move_to_element_with_offset(shot, 60, -60).click().perform()
    visitor.sees("#2f4f3e")
    save(visitor)
    sheet = kept(visitor, place)
    assert (sheet["formats"], sheet["max_bytes"]) == (["png", "jpeg"], 250_000)
    assert sheet["grounds"][-1] == "#2f4f3e"


def test_what_cannot_be_is_said_at_the_demand_and_one_click_ends_it(visitor: Person) -> None:
    size = kept(visitor, open_sheet(visitor))["size"]
    row(visitor, "Formats").click()
    visitor.button("Without PNG").click()
    row(visitor, "Transparency").click()
    visitor.button("have to be").click()
    visitor.sees("It has to be transparent, and JPEG cannot be.")
    visitor.button("Take WebP too").click()
    visitor.sees("JPEG, else WebP.")
    visitor.wait(lambda: "cannot be." not in visitor.text(), "the end of it")
    row(visitor, "Size").click()
    visitor.button("a range").click()
    fill(visitor, "Least width", "2000")
    visitor.sees(f"The recommended {size['width']} px wide are less than the least, 2000 px.")
    assert not visitor.button("Use this sheet").is_enabled()
    visitor.button("Leave it as it was").click()
    visitor.sees(f"Exactly {size['width']} × {size['height']} px.")


def test_a_change_stays_over_what_somebody_else_saves_meanwhile(visitor: Person) -> None:
    place = open_sheet(visitor)
    row(visitor, "Weight").click()
    fill(visitor, "At most", "200")
    visitor.sees("Changed, and not used yet")
    sheet = {**kept(visitor, place), "formats": ["jpeg"]}
    script = """const [address, body, done] = arguments;
    const token = document.cookie.match(/fitzle_csrf=([^;]*)/)[1];
    const headers = {'Content-Type': 'application/json', 'X-CSRFToken': token};
    fetch(address, {method: 'PATCH', body, headers}).then((answer) => done(answer.status));"""
    address = f"/api/workspaces/ottermoor/places/{place}"
    assert visitor.driver.execute_async_script(script, address, json.dumps({"sheet": sheet})) == 200
    visitor.wait(lambda: visitor.button("Use this sheet").is_enabled(), "a sheet that can be used")
    visitor.button("Use this sheet").click()
    visitor.sees("Somebody else changed this sheet in the meantime.")
    visitor.sees("At most 200 KB.")
    save(visitor)
    both = kept(visitor, place)
    assert (both["formats"], both["max_bytes"]) == (["jpeg"], 200_000), "theirs and mine"


def test_the_sheet_of_words_is_changed_before_it_counts(visitor: Person) -> None:
    visitor.sign_in()
    visitor.go("/w/ottermoor/places/new")
    words = visitor.find("//textarea[@aria-label='What the upload page says']")
    words.send_keys("Banner: PNG 900 x 300 px")
    visitor.sees("Exactly 900 × 300 px.")
    visitor.button("weight").click()
    fill(visitor, "At most", "80")
    visitor.sees("At most 80 KB.")
    words.send_keys(", shown at 450 px")
    visitor.sees("Seen 450 px wide")
    visitor.sees("At most 80 KB.")
    visitor.wait(lambda: visitor.button("Put it on the wall").is_enabled(), "a sheet that can be used")
    visitor.button("Put it on the wall").click()
    visitor.wait(lambda: "empty" in visitor.state_of("Banner"), "the place")
    assert kept(visitor, places(visitor)["Banner"])["max_bytes"] == 80_000


def test_one_file_serves_several_places_until_a_sheet_parts_them(visitor: Person) -> None:
    visitor.sign_in()
    for name in ("Stamp", "Seal"):
        visitor.go("/w/ottermoor/places/new")
        visitor.find("//textarea[@aria-label='What the upload page says']").send_keys("PNG 420 x 420 px")
        visitor.sees("Exactly 420 × 420 px.")
        field = visitor.find("//form//input[@required]")
        field.send_keys(Keys.CONTROL + "a" + Keys.NULL + name)
        visitor.wait(lambda: visitor.button("Put it on the wall").is_enabled(), "a sheet that can be used")
        visitor.button("Put it on the wall").click()
        visitor.wait(lambda name=name: "empty" in visitor.state_of(name), "the place")
    visitor.find("//li[.//a[text()='Stamp'] and .//a[text()='Seal']]//button[.='One file for both']").click()
    visitor.sees("same file as Seal")
    visitor.drop(visitor.proof("Stamp"), "wheel.svg", svg())
    visitor.wait(lambda: "fits" in visitor.state_of("Seal"), "the same picture there")
    visitor.go(f"/w/ottermoor/places/{places(visitor)['Seal']}")
    visitor.sees("Seal takes the same file as Stamp")
    row(visitor, "Size").click()
    fill(visitor, "Width", "500")
    visitor.sees("One file would no longer serve all of its places")
    save(visitor)
    visitor.go("/w/ottermoor")
    visitor.wait(lambda: "no longer one file" in visitor.state_of("Stamp"), "what parted them")
    visitor.find("//li[.//a[text()='Seal']]//button[.='its sheet changed']").click()
    visitor.sees("Exactly 500 × 420 px (was: Exactly 420 × 420 px).")
    visitor.button("Noted").click()
    visitor.wait(lambda: "its sheet changed" not in visitor.state_of("Seal"), "the mark off the wall")
    visitor.find("//button[@aria-label='Seal: a file of its own']").click()
    visitor.wait(lambda: "no longer one file" not in visitor.text(), "each its own")


def test_a_shelf_is_folded_and_a_destination_deleted(visitor: Person) -> None:
    visitor.sign_in()
    visitor.find("//button[@aria-label='Fold Job records']").click()
    visitor.sees("1 place, 1 fit")
    visitor.go("/w/ottermoor")
    visitor.sees("1 place, 1 fit")
    visitor.find("//button[@aria-label='Unfold Job records']").click()
    visitor.proof("Record glyph")
    visitor.button("Job records").click()
    visitor.button("Delete it").click()
    visitor.sees("the record of what was delivered stay")
    visitor.button("Delete Job records").click()
    visitor.wait(lambda: "Job records" not in visitor.text(), "the wall without it")
    assert not visitor.complaints()
