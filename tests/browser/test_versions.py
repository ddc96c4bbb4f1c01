"""Light and dark versions of marks, offers of preparation, and the house style, as a person uses them."""

from typing import Any

from PIL import Image, ImageDraw, ImageFilter
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.browser.test_finding import entry
from tests.browser.test_preparing import preparation, step
from tests.make import saved

HOUSE = "/api/workspaces/ottermoor/house-style"


def small_logo() -> bytes:
    """A blurred logo of 300 px on white, as it comes out of an old letter."""
    picture = Image.new("RGB", (300, 300), "#ffffff")
    pen = ImageDraw.Draw(picture)
    pen.rounded_rectangle((30, 30, 270, 270), 50, fill="#26418f")
    pen.polygon([(150, 70), (220, 210), (80, 210)], fill="#f2b632")
    return saved(picture.filter(ImageFilter.GaussianBlur(1.2)), "JPEG", quality=75)


def test_a_mark_in_two_versions_stands_in_the_one_that_shows(person: Person) -> None:
    person.open_bench("Sign-in logo")
    person.sees("The version of this mark that shows best stands here")
    assert person.fit()["parts"][-1]["name"] == "ottermoor-dark.svg"
    person.open_bench("Corner watermark")
    person.wait(lambda: person.fit()["parts"][-1]["name"] == "ottermoor-light.svg", "the light one on the dark ground")


def test_a_version_for_dark_grounds_is_made_from_the_card_and_parted_again(person: Person) -> None:
    person.go("/w/ottermoor/artwork")
    person.find("//main//ul//button[contains(., 'wheel-glyph.svg')]").click()
    person.sees("1.8 on dark, too faint")
    person.button("Make a version for dark grounds").click()
    person.sees("wheel-glyph, for dark grounds.svg")
    assert step(person)["kind"] == "recolour"
    person.link("Done").click()
    person.sees("Its versions:")
    made = person.wait(lambda: entry(person, "wheel-glyph, for dark grounds.svg"), "the version")
    assert {one["name"] for one in made["versions"]} == {"wheel-glyph.svg", "wheel-glyph, for dark grounds.svg"}
    person.wait(lambda: "too faint" not in person.find("//section[@aria-label='Light and dark']").text, "it to show")
    person.button("Part it from its versions").click()
    person.wait(lambda: len(entry(person, "wheel-glyph.svg")["versions"]) == 1, "one version")
    person.find("//select[@id='version-of']").send_keys("wheel-glyph.svg")
    person.button("Join them").click()
    person.wait(lambda: len(entry(person, "wheel-glyph.svg")["versions"]) == 2, "two again")


def test_an_enlarged_logo_is_offered_outlines(person: Person) -> None:
    person.go("/w/ottermoor")
    person.sees("places,")
    person.drop(person.proof("Course card"), "kite.jpg", small_logo())
    person.wait(lambda: "risky" in person.state_of("Course card"), "the fit")
    person.open_bench("Course card")
    person.sees("It is enlarged")
    person.link("Make outlines of its pixels").click()
    person.sees("Outlines from pixels")
    person.wait(lambda: step(person).get("kind") == "trace", "the step")
    person.wait(lambda: not preparation(person)["working"], "the outlines")
    assert person.find("//img[starts-with(@alt, 'kite.jpg before')] | //*[contains(text(), 'before:')]")
    person.driver.refresh()
    person.sees("prepared in 1 step")
    assert len(preparation(person)["document"]["steps"]) == 1, "it is offered once"
    person.open_bench("Course card")
    person.wait(lambda: "enlarged" not in person.text(), "crisp outlines")
    person.go("/w/ottermoor")
    person.button("Course card: replace").click()
    person.button("Empty it").click()
    person.wait(lambda: "empty" in person.state_of("Course card"), "the card to be empty again")


def style(person: Person) -> Any:
    return person.ask(HOUSE)


def test_the_house_style_is_changed_and_what_follows_is_shown(person: Person) -> None:
    person.go("/w/ottermoor/house")
    person.sees("Marks on light and dark grounds")
    before = style(person)
    person.find("//button[starts-with(@aria-label, 'Add #') and not(@disabled)]").click()
    person.wait(lambda: len(style(person)["colours"]) == len(before["colours"]) + 1, "a colour of a palette")
    person.find("//select[@aria-label='Headlines']").send_keys("Anton")
    person.wait(lambda: style(person)["heading"] != before["heading"], "another typeface")
    rule = person.field("Naming rule")
    rule.clear()
    rule.send_keys("{placement}-{version}", Keys.ENTER)
    person.wait(lambda: style(person)["naming"] == "{placement}-{version}", "the rule")
    person.sees("header-2.png")
    rule = person.field("Naming rule")
    rule.send_keys(Keys.CONTROL, "a")
    rule.send_keys(before["naming"] or Keys.DELETE, Keys.ENTER)
    person.wait(lambda: style(person)["naming"] == before["naming"], "the rule as it was")
