"""Takes the pictures of docs/screenshots from a Fitzle with a fresh sample: `screenshots.py ADDRESS [NAME…]`."""

from __future__ import annotations

import os
import sys
import time
from collections.abc import Callable
from pathlib import Path

ROOT = Path(__file__).resolve().parents[1]
sys.path[:0] = [str(ROOT), str(ROOT / "src")]
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "fitzle.config.settings")

import django  # noqa: E402

django.setup()

from tests.browser.person import Person, start_browser  # noqa: E402

FOLDER = ROOT / "docs" / "screenshots"
SIZE = (1280, 800)
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


def _icon(person: Person) -> None:
    person.open_bench("Tab icon")


def _typefaces(person: Person) -> None:
    _bench(person)
    person.button("True a wheel").click()
    person.button("Bricolage Grotesque").click()


def _starting_points(person: Person) -> None:
    _wall(person)
    person.button("Course card: fill").click()
    person.sees("Or put artwork there")


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
    person.link("Take stills").click()
    person.sees("worth having")


def _glyphs(person: Person) -> None:
    person.go(f"{HOME}/artwork")
    person.button("Make a mark of a glyph").click()
    person.field("Find a glyph").send_keys("bicycle")


def _deliver_list(person: Person) -> None:
    _wall(person)
    person.button("Deliver all").click()


def _deliveries(person: Person) -> None:
    person.go(f"{HOME}/deliveries")


def _places(person: Person) -> None:
    person.go(f"{HOME}/places/new")
    person.find("//textarea").send_keys(WORDS)
    person.sees("Best at 512 × 512 px.")


def _catalogue(person: Person) -> None:
    person.go(f"{HOME}/places/new")
    person.find("//button[contains(., 'End card')]").click()
    person.sees("The tiles of the next films")


def _screen(path: str) -> Callable[[Person], None]:
    return lambda person: person.go(f"{HOME}/{path}")


VIEWS: dict[str, tuple[str, Callable[[Person], None]]] = {
    "wall-light": ("light", _wall),
    "wall-dark": ("dark", _wall),
    "where-does-it-go": ("light", _places),
    "catalogue": ("dark", _catalogue),
    "bench-light": ("light", _bench),
    "bench-dark": ("dark", _bench),
    "bench-icon": ("light", _icon),
    "typefaces": ("light", _typefaces),
    "starting-points": ("light", _starting_points),
    "artwork": ("light", _artwork),
    "preparation": ("light", _preparation),
    "stills": ("light", _stills),
    "glyphs": ("light", _glyphs),
    "house-style": ("light", _screen("house")),
    "room": ("light", _screen("artwork/room")),
    "doing": ("light", _screen("doing")),
    "deliver-list": ("light", _deliver_list),
    "deliveries": ("light", _deliveries),
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
        driver.execute_script("localStorage.setItem('fitzle-theme', arguments[0])", theme)
        person.go(HOME)
        view(person)
        time.sleep(2.5)  # pictures come after words
        driver.save_screenshot(str(FOLDER / f"{name}.png"))
        print(name)
    driver.quit()


if __name__ == "__main__":
    main()
