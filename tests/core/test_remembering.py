"""What a process remembers of artwork, and what it gives back."""

import gc
import subprocess
import sys
import weakref

import numpy as np
import pytest

from fitzle.core.artwork.opening import open_source
from fitzle.core.artwork.remembering import OpenSources
from fitzle.core.encode.choosing import best_file
from fitzle.core.encode.rendered import rendered_pixels
from fitzle.core.geometry.rect import Rect
from fitzle.core.units import Size
from tests.make import photo, saved, sheet

HOLES = """
from fitzle.core.bounds import give_back_memory

def held_mb():
    with open("/proc/self/smaps_rollup") as lines:
        return next(int(line.split()[1]) for line in lines if line.startswith("Anonymous")) / 1000

blocks = [bytearray(100_000) for _ in range(1500)]
del blocks[:-1:2], blocks[1:-1]  # one at the end keeps the heap from shrinking by itself
before = held_mb()
give_back_memory()
print(before - held_mb())
"""


def read(store: OpenSources, key: str, opened: list[str]) -> None:
    def open_it() -> object:
        opened.append(key)
        return open_source(saved(photo(600, 400), "PNG"))

    source = store.get(key, open_it)  # type: ignore[arg-type]
    source.pixels(Rect(0, 0, 600, 400), Size(600, 400))


def test_opened_sources_are_held_within_their_bytes_and_the_last_used_stay() -> None:
    store, opened = OpenSources(most_bytes=3_000_000), list[str]()  # each holds 720 kB of pixels and its file
    for key in ("a", "b", "a", "c", "a", "d", "e", "a", "b"):
        read(store, key, opened)
    assert opened.count("a") == 1, "what is used again and again stays"
    assert opened.count("b") == 2
    held = [source.held_bytes for source in store._entries.values()]  # type: ignore[attr-defined]
    assert sum(held[:-1]) <= 3_000_000 < sum(held) + 1_000_000, "beside the newest, which is read after it is opened"


def test_what_a_source_reads_later_counts_as_well() -> None:
    store, opened = OpenSources(most_bytes=1_000_000), list[str]()
    for key in "abcd":
        read(store, key, opened)
    assert len(store._entries) <= 2
    store.bound(1)
    read(store, "e", opened)
    assert list(store._entries) == ["e"], "the newest stays, however large"


@pytest.mark.parametrize("fmt", ["png", "jpeg", "webp", "avif"])
def test_a_search_leaves_nothing_behind_that_only_a_collection_would_free(fmt: str) -> None:
    """Rasters and their planes are tens of megabytes: a cycle would keep them until some later task."""
    gc.disable()
    try:
        pixels = np.asarray(photo(1280, 720).convert("RGBA"))
        rendered = rendered_pixels(pixels)
        raster = weakref.ref(rendered.raster)
        assert (
            best_file(
                rendered,
                sheet(size={"width": 1280, "height": 720}, formats=[fmt], max_bytes=400_000),
                Size(1280, 720),
            ).best
            is not None
        )
        del rendered
        assert raster() is None
    finally:
        gc.enable()


def test_memory_with_holes_is_given_back() -> None:
    done = subprocess.run([sys.executable, "-c", HOLES], check=True, capture_output=True, text=True)
    assert float(done.stdout) > 50
