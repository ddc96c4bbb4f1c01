"""Handing over as people do it: chosen, filled in, rehearsed, refused, mended, live, taken back; icons of a site."""

from __future__ import annotations

import io
import json
from pathlib import Path
from typing import Any

from PIL import Image

from fitzle.core.artwork.limits import DEFAULT_LIMITS
from fitzle.core.learning.finding import learn
from fitzle.core.learning.reading import read_pair
from tests.browser.conftest import Running
from tests.browser.person import Person, start_browser

DELIVERIES = "/api/workspaces/ottermoor/deliveries"


def chosen(person: Person, destination: str) -> None:
    person.go("/w/ottermoor/deliver")
    person.find(f"//select[@aria-label='One destination']/option[. = \"{destination}\"]").click()


def row(name: str) -> str:
    return f"//ul[@aria-label='Files to deliver']/li[.//*[normalize-space(text())='{name}']]"


def newest(person: Person) -> Any:
    return person.ask(DELIVERIES)[0]


def handed_over(person: Person, count: int) -> Any:
    before = len(person.ask(DELIVERIES))
    person.button(f"Deliver {count} file").click()
    person.wait(
        lambda: len(person.ask(DELIVERIES)) > before and newest(person)["state"] == "done", "the delivery to be done"
    )
    return newest(person)


def test_a_refused_sticker_is_understood_and_mended(person: Person, running: Running) -> None:
    chosen(person, "Riders' chat")
    person.find("//label[contains(., 'Upload them')]").click()
    person.sees("Hearth Chat (rehearsal)")
    person.sees("1 form is not filled in")
    told = handed_over(person, 1)
    assert told["files"][0]["state"] == "failed"
    person.sees("refused there")
    person.sees("please fill this in")
    chosen(person, "Riders' chat")
    person.find(f"{row('Sticker')}//button[contains(., 'Form and more')]").click()
    person.find("//input[@id='field-label']").send_keys("Ding")
    person.find("//input[@id='field-tag']").send_keys("bell")
    person.find("//div[@aria-label='Standard emoji']//button[contains(., 'bellhop bell')]")
    person.find("//textarea[@id='field-description']").send_keys("An orange speech bubble that says ding")
    person.find("//h1").click()
    person.wait(lambda: "is missing" not in person.text(), "the form to be kept")
    person.find("//label[contains(., 'Upload them')]").click()
    told = handed_over(person, 1)
    assert told["files"][0]["state"] == "done" and told["files"][0]["answer"]["agree"]
    person.sees("1 of 60 slots")
    person.sees("live since")
    page = start_browser()
    try:
        page.get(f"{running.rehearsal}/chat/")
        shown = page.find_element("css selector", "[data-place=sticker]")
        assert shown.get_attribute("alt") == "An orange speech bubble that says ding"
        assert page.execute_script("return arguments[0].naturalWidth", shown) == 296
    finally:
        page.quit()


def test_a_place_is_learnt_from_the_page_of_its_rehearsal(person: Person, running: Running) -> None:
    chosen(person, "Office sign-in")
    person.find("//label[contains(., 'Upload them')]").click()
    [file] = handed_over(person, 1)["files"]
    person.button("Side by side").click()
    person.sees("as it was sent and as it is shown")
    person.link("Learn the place from a screenshot").click()
    person.wait(lambda: person.driver.find_elements("xpath", "//img[starts-with(@src, 'blob:')]"), "the picture")
    page = start_browser()
    try:
        page.get(f"{running.rehearsal}/sign-in/")
        shot = page.get_screenshot_as_png()
        wanted = page.find_element("css selector", "[data-place=sign-in]").rect
    finally:
        page.quit()
    address = f"{DELIVERIES}/files/{file['id']}/picture"
    data = bytes(
        person.driver.execute_async_script(
            "const done = arguments[1];"
            "fetch(arguments[0]).then((a) => a.arrayBuffer()).then((b) => done([...new Uint8Array(b)]));",
            address,
        )
    )
    picture, screen, reduced = read_pair(data, shot, DEFAULT_LIMITS)
    found = learn(picture, screen, 1.0).in_picture_of(reduced).found[0].model_dump(mode="json")
    assert abs(found["box"]["x"] - wanted["x"]) <= 1 and abs(found["box"]["width"] - wanted["width"]) <= 2


def test_variants_and_names_are_chosen_and_an_earlier_file_is_taken_back(person: Person) -> None:
    chosen(person, "Job records")
    person.find(f"{row('Record glyph')}//button[contains(., 'More')]").click()
    person.find("//label[contains(., 'as a vector')]//input").click()
    person.sees("wheel-glyph_32x32.svg")
    told = handed_over(person, 2)
    assert sorted(file["name"] for file in told["files"]) == ["wheel-glyph_32x32.png", "wheel-glyph_32x32.svg"]
    person.button("Record glyph is live").click()
    person.sees("live since")
    fit = next(
        one["fit"] for shelf in person.ask("/api/workspaces/ottermoor/wall")["shelves"] for one in shelf["placements"]
        if one["name"] == "Record glyph"
    )  # fmt: skip
    change(person, fit, "#b4541a")
    person.go("/w/ottermoor/deliveries")
    person.sees("another file by now")
    person.link("Deliver what changed").click()
    chosen(person, "Job records")
    handed_over(person, 2)
    before = len(person.ask(DELIVERIES))
    person.button("History of Record glyph").click()
    person.button("Take it back").click()
    person.wait(lambda: len(person.ask(DELIVERIES)) > before and newest(person)["state"] == "done", "the earlier file")
    assert [file["version"] for file in newest(person)["files"]] == [3, 3]


def change(person: Person, fit: str, colour: str) -> None:
    """Tints a mark by the API, as the bench does, and waits for its file."""
    path = f"/api/workspaces/ottermoor/fits/{fit}"
    revision = person.ask(path)["piece"]["revision"]
    body = {
        "revision": revision, "step": "tint", "everywhere": False,
        "values": [{"part": "mark", "field": "tint", "value": colour}],
    }  # fmt: skip
    person.driver.execute_async_script(
        "const [path, body, done] = arguments;"
        "const token = document.cookie.match(/fitzle_csrf=([^;]+)/)[1];"
        "fetch(path, {method: 'PATCH', body, headers: {'Content-Type': 'application/json', 'X-CSRFToken': token}})"
        ".then(() => done());",
        path, json.dumps(body),
    )  # fmt: skip
    person.wait(lambda: not person.ask(path)["measuring"] and person.ask(path)["file"], "its file")


def test_icons_for_a_site_from_a_mark(person: Person, running: Running, tmp_path: Path) -> None:
    person.go("/w/ottermoor/artwork")
    person.button("wheel-badge.svg").click()
    person.button("Icons for a site").click()
    person.sees("9 files for a site")
    person.wait(
        lambda: (
            person.driver.execute_script(
                "return [...document.querySelectorAll('figure img')].filter((i) => i.src.includes('tab-strip'))"
                ".map((i) => i.naturalWidth).join()"
            )
            == "16,32,16,32"
        ),
        "the very icons in the tabs",
    )
    person.find("//label[contains(., 'folder that the files stand in')]//input").clear()
    person.find("//label[contains(., 'folder that the files stand in')]//input").send_keys("icons/")
    person.button("Use these").click()
    person.wait(lambda: 'href="/icons/icon.svg"' in person.text(), "the lines for that folder")
    person.go("/w/ottermoor/deliver")
    person.find("//label[contains(., 'Upload them')]").click()
    person.button("None").click()
    person.find("//input[@aria-label='Deliver Icon set']").click()
    told = handed_over(person, 9)
    assert {file["state"] for file in told["files"]} == {"done"}, [file["message"] for file in told["files"]]
    page = start_browser()
    try:
        page.get(f"{running.rehearsal}/site/")
        icon = page.find_element("css selector", "[data-place=icons]")
        assert page.execute_script("return arguments[0].complete && arguments[0].naturalWidth > 0", icon)
        drawn = Image.open(io.BytesIO(icon.screenshot_as_png)).convert("RGB")
        assert len(set(drawn.getdata())) > 10, "the badge is seen in the tab"
    finally:
        page.quit()


def test_a_token_is_made_shown_once_and_revoked(person: Person) -> None:
    person.go("/w/ottermoor/workspace")
    person.field("What it is for").send_keys("nightly build")
    person.find("//label[contains(., 'hand files over')]//input").click()
    person.button("Make a token").click()
    secret = person.find("//code").text
    assert secret.startswith("fitzle_")
    person.go("/w/ottermoor/workspace")
    person.sees("may look, hand files over")
    assert secret not in person.text()
    person.button("Revoke nightly build").click()
    person.wait(lambda: "nightly build" not in person.text(), "the token to be gone")
