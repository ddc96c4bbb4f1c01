"""The file beside the original: what was tried, and what somebody fixes themselves."""

from __future__ import annotations

from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person


def test_somebody_who_knows_better_fixes_the_file_and_lets_go_again(person: Person) -> None:
    person.link("Lesson thumbnail").click()
    person.sees("Parts, front to back")
    person.link("Beside the original, and what else was tried").click()
    person.sees("Fix it yourself")
    first = person.find("//tbody/tr[1]").text
    assert "delivered" in first
    line = person.find("//input[@type='range']")
    line.send_keys(Keys.ARROW_LEFT * 3)
    assert line.get_attribute("value") == "47", "the line moves by the keyboard"
    person.button("marked in red").click()
    person.wait(lambda: len(person.driver.find_elements("css selector", "section img")) == 3, "the losses are marked")
    person.find("//section[@aria-labelledby='fixing']//button[.='JPEG']").click()
    person.button("fixed").click()
    person.wait(lambda: "quality 75" in person.find("//section[@aria-labelledby='fixing']").text, "it was tried")
    person.button("Deliver it like this").click()
    person.wait(
        lambda: "quality 75" in person.find("//tbody/tr[1]").text and "delivered" in person.find("//tbody/tr[1]").text,
        "it is delivered like that",
    )
    person.button("Let Fitzle choose again").click()
    person.wait(lambda: person.find("//tbody/tr[1]").text == first, "as it was")
