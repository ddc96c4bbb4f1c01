"""One piece in every shape: begun in one place, seen in others before it stands there, moved there by hand, let go."""

from typing import Any

from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from tests.browser.person import Person
from tests.browser.test_composing import bench, grip, part  # noqa: F401
from tests.browser.test_wall import check_layout

CHOSEN = "//*[@role='dialog']//li//button[@aria-pressed='true']"


def shown(person: Person) -> int:
    script = "return [...document.querySelectorAll('[role=dialog] img')].filter((i) => i.naturalWidth > 20).length"
    return int(person.driver.execute_script(script))


def stance(person: Person) -> Any:
    return person.fit()["stance"]


def test_a_piece_is_put_into_other_places_by_keys_and_follows_there(bench: Person) -> None:  # noqa: F811
    person = bench
    person.sees("It stands nowhere else")
    person.sees("Places of other shapes follow by calculation")
    person.button("Put it in other places").send_keys(Keys.ENTER)
    person.sees("arranged by calculation, as shown")
    person.wait(lambda: shown(person) >= 6, "pictures of how it would look")
    check_layout(person)
    for name in ("Wide banner", "Moving header"):
        person.find(f"//*[@role='dialog']//button[contains(., '{name}')]").send_keys(Keys.SPACE)
    assert len(person.driver.find_elements(By.XPATH, CHOSEN)) == 2
    person.sees("takes the place of misty-street")
    person.button("Put it in 2 places").send_keys(Keys.ENTER)
    person.sees("The same piece elsewhere")
    person.link("Wide banner").click()
    person.sees("Arranged for this shape, from 640 × 640 px.")
    person.wait(lambda: stance(person) == "arranged", "arranged")
    before = part(person, "headline")["box"]
    ActionChains(person.driver).drag_and_drop_by_offset(grip(person, "headline"), 40, 0).perform()
    person.sees("1 part by hand; the others are arranged around it.")
    person.wait(lambda: part(person, "headline")["stance"] == "by hand", "by hand")
    assert "only here." not in person.text(), "one way back is enough"
    person.button("Let all go").click()
    person.wait(lambda: part(person, "headline")["box"] == before, "where the calculation puts it")
    person.link("Course card").click()
    person.sees("Composed in this shape")
    assert not person.complaints()


def test_parts_placed_otherwise_are_offered_as_takes(bench: Person) -> None:  # noqa: F811
    person = bench
    person.link("Another take").click()
    person.find("//li[contains(., 'Words ')]//button[contains(., 'Make it a take')]").click()
    own = person.driver.current_url.split("/fits/")[1].split("/")[0]
    person.wait(lambda: len(person.ask(f"/api/workspaces/ottermoor/fits/{own}/takes")["takes"]) == 2, "a second take")
    assert not person.complaints()
