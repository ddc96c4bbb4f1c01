"""Finding artwork again as a person does: words, tags, use, likeness, newer files, and glyphs made into marks."""

from pathlib import Path
from typing import Any

from PIL import Image
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.browser.test_preparing import ARTWORK, brought
from tests.make import photo, saved


def names(person: Person) -> list[str]:
    """What the library lists."""
    items = person.driver.find_elements("xpath", "//main//ul/li/button[@aria-pressed]")
    return [item.text.split("\n")[0] for item in items]


def entry(person: Person, name: str) -> Any:
    return next((one for one in person.ask(ARTWORK) if one["name"] == name), None)


def test_artwork_is_found_by_words_tags_and_use(person: Person) -> None:
    person.go("/w/ottermoor/artwork")
    person.sees("artworks")
    person.field("Find artwork").send_keys("wheel mark")
    person.wait(lambda: set(names(person)) == {"wheel-badge.svg", "wheel-glyph.svg"}, "both wheels")
    person.find("//button[contains(., 'wheel-badge.svg')]").click()
    person.field("Tags").send_keys("logo, round", Keys.ENTER)
    person.wait(lambda: entry(person, "wheel-badge.svg")["tags"] == ["logo", "round"], "the tags")
    person.button("Show all").click()
    person.field("Find artwork").send_keys("round")
    person.wait(lambda: names(person) == ["wheel-badge.svg"], "what is tagged")
    person.button("Show all").click()
    person.find("//label[contains(., 'Seen in')]//select").send_keys("no place yet")
    person.wait(lambda: "guest-rowan.jpg" in names(person), "what is not used")
    assert "workbench.jpg" not in names(person)


def test_a_larger_picture_of_the_same_is_a_click_away(person: Person) -> None:
    scene = photo(900, 600, seed=41)
    brought(person, "large-scene.jpg", saved(scene, "JPEG", quality=90))
    brought(person, "small-scene.jpg", saved(scene.resize((225, 150), Image.BICUBIC), "JPEG", quality=60))
    person.go("/w/ottermoor/artwork")
    person.find("//main//ul//button[contains(., 'small-scene.jpg')]").click()
    person.sees("You have a larger one of this")
    person.find("//aside//button[contains(., 'large-scene.jpg')]").click()
    person.find("//aside[contains(@aria-label, 'large-scene.jpg')]")


def test_a_newer_file_replaces_an_artwork_and_the_earlier_one_comes_back(person: Person, tmp_path: Path) -> None:
    artwork = brought(person, "front.jpg", saved(photo(300, 200, seed=51), "JPEG"))
    newer = tmp_path / "front-v2.png"
    newer.write_bytes(saved(photo(320, 240, seed=52), "PNG"))
    person.go(f"/w/ottermoor/artwork?chosen={artwork}")
    person.sees("Replace by a newer one")
    person.driver.find_element("xpath", "//input[@aria-label='A newer file']").send_keys(str(newer))

    def width() -> float:
        return float(next(one for one in person.ask(ARTWORK) if one["id"] == artwork)["facts"]["width"])

    person.wait(lambda: width() == 320, "the newer file")
    person.button("1 earlier").click()
    person.button("Bring it back").click()
    person.wait(lambda: width() == 300, "the earlier file")


def test_a_glyph_is_found_by_another_word_and_made_a_mark(person: Person) -> None:
    person.go("/w/ottermoor/artwork")
    person.button("Make a mark of a glyph").click()
    person.field("Find a glyph").send_keys("bicycle")
    person.find("//button[contains(@title, 'bike,')]").click()
    person.wait(lambda: (entry(person, "bike.svg") or {}).get("state") == "ready", "the mark")
    person.find("//aside[contains(@aria-label, 'bike.svg')]")
    person.sees("vector: crisp at any size")
