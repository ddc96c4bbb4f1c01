"""The wall: signing in, filling by drop, keyboard and menu, delivering."""

from typing import Any

import pytest
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.make import photo, saved, svg


def test_a_file_dropped_on_an_empty_place_is_fitted_there(person: Person) -> None:
    assert "empty" in person.state_of("Course card")
    person.drop(person.proof("Course card"), "evening.jpg", saved(photo(900, 700), "JPEG", quality=90))
    person.sees("evening.jpg")  # while it comes in; a moment later it is said on the proof alone
    person.wait(lambda: "fits" in person.state_of("Course card"), "the card to fit")
    person.button("Course card: replace").click()
    person.button("Empty it").click()
    person.wait(lambda: "empty" in person.state_of("Course card"), "the card to be empty again")


def test_a_broken_file_says_what_is_wrong_and_never_hangs(person: Person) -> None:
    person.drop(person.proof("Course card"), "cut.jpg", saved(photo(), "JPEG")[:3000])
    person.sees("cut.jpg: the file is cut off")
    person.sees("not taken")
    person.button("Put away cut.jpg").click()
    person.wait(lambda: "not taken" not in person.text(), "the message to be put away")
    assert "empty" in person.state_of("Course card")


def test_a_place_is_filled_by_keyboard_alone(person: Person) -> None:
    trigger = person.button("Course card: fill")
    person.driver.execute_script("arguments[0].focus()", trigger)
    person.press(Keys.ENTER)
    person.find("//button[contains(., 'workbench.jpg')]")
    person.wait(lambda: person.driver.switch_to.active_element.tag_name == "button", "the focus in the menu")
    while "workbench.jpg" not in person.driver.switch_to.active_element.text:
        person.press(Keys.TAB)
    person.press(Keys.ENTER)
    person.wait(lambda: "fits" in person.state_of("Course card"), "the card to fit")
    person.button("Course card: replace").click()
    person.button("Empty it").click()
    person.wait(lambda: "empty" in person.state_of("Course card"), "the card to be empty again")


def test_a_shelf_takes_a_drop_for_all_its_places(person: Person) -> None:
    heading = person.find("//h2[normalize-space(.)='Video channel']")
    person.drop(heading, "ring.svg", svg('<circle cx="50" cy="25" r="20" fill="#c03020"/>'))
    person.wait(lambda: "ring" in str(names_on(person, "Video channel")), "the shelf to be filled")
    for fit in fits_on(person, "Video channel"):
        person.driver.execute_async_script(
            "const done = arguments[1]; fetch(arguments[0], {method: 'DELETE', headers: {'X-CSRFToken':"
            " document.cookie.match(/fitzle_csrf=([^;]*)/)[1]}}).then(done);",
            f"/api/workspaces/ottermoor/fits/{fit}",
        )


def fits_on(person: Person, shelf: str) -> list[str]:
    wall = person.ask("/api/workspaces/ottermoor/wall")
    found = next(entry for entry in wall["shelves"] if entry["name"] == shelf)
    return [proof["fit"] for proof in found["placements"]]


def names_on(person: Person, shelf: str) -> list[Any]:
    return [
        person.ask(f"/api/workspaces/ottermoor/fits/{fit}")["piece"]["document"]["subject"]
        for fit in fits_on(person, shelf)
    ]


def test_the_wall_is_filtered_by_state(person: Person) -> None:
    person.button("1 refused").click()
    person.wait(lambda: "Lesson thumbnail" not in person.text(), "only the refused one")
    person.sees("Wide banner")
    person.button("1 refused").click()
    person.sees("Lesson thumbnail")


def test_all_that_fit_are_delivered_and_recorded(person: Person) -> None:
    person.find("//a[starts-with(normalize-space(.), 'Deliver ')]").click()
    person.sees(" together")
    rows = person.find("//ul[@aria-label='Files to deliver']").find_elements("xpath", "./li")
    listed = [entry.text for entry in rows]
    assert any("wheel-badge_32x32.ico" in words and "4.3 K" in words for words in listed), listed
    person.sees("Not among them: ")
    assert person.ask("/api/workspaces/ottermoor/deliveries") == [], "nothing goes before the list was seen"
    person.button(f"Deliver {len(listed)} files").click()
    person.sees(", all up to date.")
    person.sees("website/wheel-badge_32x32.ico")
    link = person.link("Save all as ZIP").get_attribute("href")
    first = person.driver.execute_async_script(
        "const done = arguments[1];"
        "fetch(arguments[0]).then((a) => a.arrayBuffer()).then((b) => done([...new Uint8Array(b.slice(0, 2))]));",
        link,
    )
    assert first == [0x50, 0x4B]
    person.link("Wall").click()
    person.sees("again")


@pytest.mark.parametrize("path", ["", "/artwork", "/house", "/deliveries"])
def test_screens_keep_their_width_on_a_tablet_and_name_all_their_buttons(person: Person, path: str) -> None:
    person.size_window(820, 1180)
    person.go(f"/w/ottermoor{path}")
    person.find("//h1")
    check_layout(person)
    person.size_window(1280, 800)


def test_the_wall_and_the_deliveries_work_on_a_phone(person: Person) -> None:
    person.size_window(390, 844)
    for path in ("", "/deliveries"):
        person.go(f"/w/ottermoor{path}")
        person.find("//h1")
        check_layout(person)
    person.size_window(1280, 800)


def test_a_shelf_that_runs_off_a_phone_says_how_many_more_there_are(person: Person) -> None:
    person.size_window(390, 844)
    person.go("/w/ottermoor")
    cut_off = "//button[contains(., 'more →')]"

    def hidden() -> int:
        return sum(int(button.text.split()[0]) for button in person.driver.find_elements("xpath", cut_off))

    person.wait(hidden, "what runs off")
    before = hidden()
    person.button("more →").click()
    person.wait(lambda: hidden() < before, "less")
    person.size_window(1280, 800)


def check_layout(person: Person) -> None:
    """Nothing is wider than the screen; all that can be pressed has a name and is at least 24 px high or wide."""
    wide = person.driver.execute_script("return document.documentElement.scrollWidth - innerWidth")
    assert wide <= 0
    nameless = person.driver.execute_script(
        "return [...document.querySelectorAll('button, a, input, select')].filter((e) => e.checkVisibility() &&"
        " !(e.innerText?.trim() || e.getAttribute('aria-label') || e.labels?.length || e.placeholder))"
        ".map((e) => e.outerHTML.slice(0, 120))"
    )
    assert nameless == []
    small = person.driver.execute_script(
        "return [...document.querySelectorAll('button, select, input')].filter((e) => e.checkVisibility() &&"
        " e.getBoundingClientRect().height < 23.5).map((e) => e.outerHTML.slice(0, 120))"
    )
    assert small == []


def test_the_theme_is_kept(person: Person) -> None:
    person.button("Dark").click()
    paper = "return getComputedStyle(document.documentElement).backgroundColor"
    dark = person.driver.execute_script(paper)
    person.go("/w/ottermoor/artwork")
    person.sees("as they came")
    assert person.driver.execute_script(paper) == dark
    person.button("Light").click()
    person.wait(lambda: person.driver.execute_script(paper) != dark, "the light theme")


def test_a_wall_that_cannot_be_brought_up_to_date_stays_and_says_so(visitor: Person) -> None:
    """With what it says it just needs a scroll bar, whose room must not change the scales, and these the bar."""
    visitor.sign_in()
    visitor.sees("Round-view tour")
    visitor.driver.execute_cdp_cmd("Network.enable", {})
    visitor.driver.execute_cdp_cmd("Network.setBlockedURLs", {"urls": ["*workspaces/ottermoor/wall*"]})
    visitor.button("Course card: ").click()
    visitor.find("//button[.//span[text()='dusk-ride.jpg']]").click()
    visitor.sees("Not up to date.")
    assert "Round-view tour" in visitor.text()
    visitor.driver.execute_cdp_cmd("Network.setBlockedURLs", {"urls": []})
    visitor.clear_log()


ADD_ALL = """const [most, done] = arguments;
const token = document.cookie.match(/fitzle_csrf=([^;]*)/)[1];
const headers = {'Content-Type': 'application/json', 'X-CSRFToken': token};
(async () => {
  const kinds = await (await fetch('/api/workspaces/ottermoor/places/catalogue')).json();
  for (const [number, kind] of kinds.slice(0, most).entries())
    await fetch('/api/workspaces/ottermoor/places', {method: 'POST', headers, body: JSON.stringify(
      {destination: `Site ${number % 12}`, name: `${kind.shown.name} ${number}`, sheet: kind.shown.sheet})});
  done();
})();"""


def test_a_large_wall_is_narrowed_by_words_and_by_kind(person: Person) -> None:
    assert "Find a place" not in person.driver.page_source
    person.driver.execute_async_script(ADD_ALL, 30)
    person.go("/w/ottermoor")
    person.sees("43 places")
    field = person.field("Find a place")
    field.send_keys("site 7")
    person.wait(lambda: "Site 7" in person.text() and "Site 8" not in person.text(), "that site alone")
    field.send_keys(Keys.CONTROL + "a" + Keys.NULL + "nothing is called so")
    person.sees("No place is called so")
    field.send_keys(Keys.CONTROL + "a" + Keys.DELETE)
    person.find("//label[contains(., 'Kind')]/select/option[contains(., 'site icon')]").click()
    person.wait(lambda: "Tab icon" in person.text() and "Page header" not in person.text(), "icons alone")


def test_pictures_out_of_sight_are_not_asked_for(person: Person) -> None:
    person.size_window(390, 300)  # one shelf below the other
    person.go("/w/ottermoor")
    person.sees("places,")
    pictures = "return document.querySelectorAll('main li img').length"
    person.wait(lambda: person.driver.execute_script(pictures) > 0, "those in sight")
    before = person.driver.execute_script(pictures)
    person.driver.execute_script("document.querySelectorAll('main section')[7].scrollIntoView()")
    person.wait(lambda: person.driver.execute_script(pictures) > before, "those below")
    person.size_window(1280, 800)


def test_a_destination_has_a_note_a_help_page_and_a_place_among_the_others(person: Person) -> None:
    person.go("/w/ottermoor")
    names = [shelf["name"] for shelf in person.ask("/api/workspaces/ottermoor/wall")["shelves"]]
    person.button(names[1]).click()
    person.find("//label[contains(., 'Note')]/textarea").send_keys("Ask Rowan for the password")
    person.field("Help page").send_keys("https://help.ottermoor.example/pictures", Keys.ENTER)
    person.button("Checked today").click()
    person.sees("Checked on")
    person.sees("Open the help page")
    person.button("Earlier").click()

    def moved() -> bool:
        shelves = person.ask("/api/workspaces/ottermoor/wall")["shelves"]
        return bool(shelves[0]["name"] == names[1] and shelves[0]["note"] == "Ask Rowan for the password")

    person.wait(moved, "the shelf in front")
