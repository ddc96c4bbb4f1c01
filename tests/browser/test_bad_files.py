"""Bad files in a running Fitzle: each gets its words on the screen, the workers live on, and the next file is taken."""

import os
import signal
import time
from pathlib import Path
from typing import Any

from PIL import Image

from tests.browser.conftest import Running
from tests.browser.person import Person
from tests.browser.test_preparing import ARTWORK, brought
from tests.hostile import claiming, good_file, locked_pdf, many_frames
from tests.make import disc, photo, saved, svg

BAD = {
    "cut.jpg": (good_file("jpeg")[:700], "cut off"),
    "wide.png": (claiming("png", 65_535, 65_535), "too large"),
    "nothing.gif": (claiming("gif", 0, 0), "no pixels"),
    "endless.webp": (many_frames("webp", 10_001), "10001 frames"),
    "secret.pdf": (locked_pdf(), "behind a password"),
    "script.svg": ("<?xml version='1.0' encoding='UTF-16'?>" + svg("<script/>").decode()).encode("utf-16"),
    "clip.mp4": (good_file("mp4")[:3000], "damaged"),
}


def found(person: Person, name: str) -> Any:
    return next((entry for entry in person.ask(ARTWORK) if entry["name"] == name), None)


def test_every_bad_file_gets_its_words_and_the_next_file_is_taken(person: Person) -> None:
    person.go("/w/ottermoor/artwork")
    person.sees("artworks")
    for name, given in BAD.items():
        data, words = given if isinstance(given, tuple) else (given, "script")
        person.drop(person.find("//main"), name, data)
        entry = person.wait(
            lambda name=name: (entry := found(person, name)) and entry["state"] in ("failed", "ready") and entry, name
        )
        assert (entry["state"], words in entry["message"]) == ("failed", True), entry["message"]
        person.find(f"//main//ul//button[contains(., '{name}')]").click()
        person.sees(words)
    assert brought(person, "after-all.png", saved(disc(), "PNG"))


def busy_child(parent: int) -> int | None:
    """The pool's process that uses the processor now."""
    children = [int(pid) for pid in Path(f"/proc/{parent}/task/{parent}/children").read_text().split()]
    before = {pid: ticks(pid) for pid in children}
    time.sleep(0.2)
    return next((pid for pid in children if ticks(pid) - before[pid] >= 5), None)


def ticks(pid: int) -> int:
    """Hundredths of a second of processor time that a process has used."""
    return int(Path(f"/proc/{pid}/stat").read_text().rpartition(")")[2].split()[11])


def test_when_a_worker_is_killed_another_one_reads_its_file(person: Person, running: Running) -> None:
    """A picture that takes seconds to read; the process that reads it is killed as the system does without memory."""
    slow = Image.effect_noise((5000, 5000), 60).convert("RGB")
    person.go("/w/ottermoor/artwork")
    person.sees("artworks")
    person.drop(person.find("//main"), "heavy.tiff", saved(slow, "JPEG", quality=30, progressive=True))
    person.wait(lambda: (entry := found(person, "heavy.tiff")) and entry["state"] == "reading", "the reading")
    os.kill(person.wait(lambda: busy_child(running.worker), "a busy worker"), signal.SIGKILL)
    person.wait(lambda: (one := found(person, "heavy.tiff")) and one["state"] == "ready", "its end")
    assert brought(person, "next.png", saved(photo(90, 60), "PNG"))
