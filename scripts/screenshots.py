"""Takes the pictures of docs/screenshots from a Fitzle with a fresh sample: `screenshots.py ADDRESS [NAME…]`."""

from __future__ import annotations

import io
import os
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
sys.path[:0] = [str(ROOT), str(ROOT / "src")]
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "fitzle.config.settings")

import django  # noqa: E402
from PIL import Image  # noqa: E402

django.setup()

from demo.marks import MARKS  # noqa: E402
from demo.photos import all_photos  # noqa: E402
from tests.browser.person import Person, start_browser  # noqa: E402
from tests.learning_cases import Look, Maker, put  # noqa: E402

FOLDER = ROOT / "docs" / "screenshots"
SIZE, PHONE = (1280, 800), (390, 844)
HOME = "/w/ottermoor"
WORDS = (
    "Group badge: square PNG with transparent background, at least 150 x 150 px, recommended 512 x 512, max. 1 MB, "
    "splendid colours, shown in a circle at 48 px on white and on #22303c"
)


def _wall(person: Person) -> None:
    person.go(HOME)
    person.sees("Round-view tour")


def _bench(person: Person) -> None:
    person.open_bench("Lesson thumbnail")


def _file(person: Person) -> None:
    person.open_bench("Page header")
    person.link("Beside the original, and what else was tried").click()
    person.sees("Fix it yourself")
    person.button("2 ×").click()
    person.wait(lambda: "looks" in person.text() or "nothing lost" in person.text(), "its score")


def _proofs(person: Person) -> None:
    _bench(person)
    person.link("As it will be seen").click()
    person.sees("the very file that is delivered")


def _takes(person: Person) -> None:
    _bench(person)
    person.link("take").click()
    for words in ("picture beside", "on a plate"):
        person.find(f"//li[contains(., '{words}')]//button[contains(., 'Make it a take')]").click()
        person.find(f"//li[contains(., 'Take ')]//li[contains(., '{words.split()[-1]}') or contains(., 'picture')]")
    person.find("//select").send_keys("Phone list")
    person.wait(lambda: "working" not in person.text(), "their files")


def _ask(person: Person) -> None:
    _bench(person)
    person.link("take").click()
    person.sees("Ask people")
    if "1 take for" in person.text():
        person.button("Make it a take").click()
    person.button("Make the link").click()
    address = person.find("//input[@aria-label='Link to send']").get_attribute("value")
    person.size_window(*PHONE)
    person.driver.get(address)
    person.button("Number 2").click()
    person.sees("Send my answer")
    person.driver.execute_script("scrollTo(0, 0)")


def _artwork(person: Person) -> None:
    person.go(f"{HOME}/artwork")
    person.find("//button[contains(., 'dusk-ride.jpg')]").click()


def _preparation(person: Person) -> None:
    person.go(f"{HOME}/artwork")
    person.find("//button[contains(., 'guest-rowan.jpg')]").click()
    person.link("Prepare it").click()
    person.button("Cut out").click()
    person.sees("Holes")


def _stills(person: Person) -> None:
    person.go(f"{HOME}/artwork")
    person.find("//button[contains(., 'lesson-opening.mp4')]").click()
    person.link("Take stills or a loop").click()
    person.sees("worth having")


def _run(person: Person) -> None:
    person.open_bench("Lesson thumbnail")
    person.button("All 12 rows").click()
    person.find("//*[@role='gridcell' and starts-with(@aria-label, 'Row 2, title')]").click()
    person.wait(
        lambda: person.driver.execute_script(
            "return [...document.querySelectorAll('[role=grid] img')].filter((one) => one.naturalWidth > 20).length > 9"
        )
    )


def _deliveries(person: Person) -> None:
    person.go(f"{HOME}/deliver")
    person.button("All that fit").click()
    person.find("//label[contains(., 'Upload them')]").click()
    person.find("//button[starts-with(normalize-space(), 'Deliver ')]").click()
    person.wait(lambda: "/deliveries" in person.driver.current_url, "the delivery")


def _rehearsal(person: Person) -> None:
    person.go(f"{HOME}/deliveries")
    person.find("//tr[contains(., 'Floor patch')]//button[contains(., 'Side by side')]").click()
    person.sees("as it was sent and as it is shown")


def _icons(person: Person) -> None:
    person.go(f"{HOME}/artwork")
    person.button("wheel-badge.svg").click()
    person.button("Icons for a site").click()
    person.sees("files for a site")


def _sheet(person: Person) -> None:
    wall = person.ask("/api/workspaces/ottermoor/wall")
    ids = {one["name"]: one["id"] for shelf in wall["shelves"] for one in shelf["placements"]}
    person.go(f"{HOME}/places/{ids['Lesson thumbnail']}")
    person.find("//*[starts-with(@aria-label, 'running time, covered zone')]").click()
    person.find("//button[starts-with(@aria-label, 'Transparency: ')]").click()
    person.button("have to be").click()
    person.find("//button[starts-with(@aria-label, 'Formats: ')]").click()
    person.button("Without PNG").click()
    person.sees("It has to be transparent, and JPEG cannot be.")


def _places(person: Person) -> None:
    person.go(f"{HOME}/places/new")
    person.find("//textarea").send_keys(WORDS)
    person.sees("Best at 512 × 512 px.")


def _motion(person: Person) -> None:
    wall = person.ask("/api/workspaces/ottermoor/wall")
    ids = {one["name"]: one["id"] for shelf in wall["shelves"] for one in shelf["placements"]}
    path = f"/api/workspaces/ottermoor/placements/{ids['Moving header']}/pieces"
    fit = person.post(path, {"starting_point": 1})
    person.go(f"{HOME}/fits/{fit['id']}")
    person.button("Let its parts move").click()
    person.sees("words in for")
    person.find("//button[contains(@aria-label, 'how it moves')]").click()


def _shown_files(folder: Path) -> tuple[Path, Path]:
    """The sample's photo, and a page that shows it under a veil with a title over it."""
    make, photo = Maker(2), Image.open(io.BytesIO(all_photos()["misty-street.jpg"])).convert("RGB")
    page, _ = make.page(1366, 900)
    put(make, page, photo, (84, 150, 1198, 500), Look(veil=((16, 20, 28), 0.4), zones=2))
    photo.save(folder / "misty-street.png")
    page.save(folder / "course-page.png")
    return folder / "misty-street.png", folder / "course-page.png"


def _show_it(person: Person) -> None:
    person.go(f"{HOME}/places/show")
    person.sees("Show where it goes")
    with tempfile.TemporaryDirectory() as folder:
        for title, path in zip(("The picture", "The screenshot"), _shown_files(Path(folder)), strict=True):
            person.driver.find_element("xpath", f"//input[@aria-label='{title}']").send_keys(str(path))
        person.button("Look for it").click()
        person.sees("How sure")
    person.driver.execute_script("scrollTo(0, 0)")


def _first_minutes(person: Person) -> None:
    person.driver.delete_all_cookies()
    person.go("/sign-up")
    person.field("Mail address").send_keys(f"rowan-{time.time():.0f}@ottermoor.example")
    person.field("Password").send_keys("a-bell-rings-twice")
    person.field("Your business").send_keys("Ottermoor Cycle Works")
    person.button("Sign up").click()
    person.sees("Drop it here")
    person.drop(person.find("//div[@data-targets]"), "ottermoor.svg", MARKS["ottermoor-dark.svg"].encode())
    person.sees("Make this the house style")
    person.find("//textarea").send_keys("Site header, logo 320 px wide, 96 px high, PNG, up to 40 KB, shown on white")
    person.sees("At most 40 KB.")
    person.button("Put away ottermoor.svg").click()


def _screen(path: str) -> Callable[[Person], None]:
    return lambda person: person.go(f"{HOME}/{path}")


VIEWS: dict[str, tuple[str, Callable[[Person], None]]] = {
    "wall-light": ("light", _wall),
    "where-does-it-go": ("light", _places),
    "sheet": ("light", _sheet),
    "show-it": ("light", _show_it),
    "bench-light": ("light", _bench),
    "proofs": ("light", _proofs),
    "takes": ("dark", _takes),
    "ask": ("light", _ask),
    "artwork": ("light", _artwork),
    "preparation": ("light", _preparation),
    "stills": ("light", _stills),
    "file": ("light", _file),
    "house-style": ("light", _screen("house")),
    "run": ("light", _run),
    "deliveries": ("light", _deliveries),
    "rehearsal": ("dark", _rehearsal),
    "icons": ("light", _icons),
    "motion": ("dark", _motion),
    "first-minutes": ("light", _first_minutes),  # the last one: it signs somebody else up
}


def main() -> None:
    """Takes all, or those that are named."""
    address, names = sys.argv[1], sys.argv[2:] or list(VIEWS)
    driver = start_browser()
    person = Person(driver, address)
    person.size_window(*SIZE)
    person.sign_in()
    for name in names:
        theme, view = VIEWS[name]
        person.size_window(*SIZE)
        driver.execute_script("localStorage.setItem('fitzle-theme', arguments[0])", theme)
        person.go(HOME)
        view(person)
        time.sleep(2.5)  # pictures come after words
        driver.save_screenshot(str(FOLDER / f"{name}.png"))
        print(name)
    driver.quit()


if __name__ == "__main__":
    main()
