"""A library of 5,000 artworks and a wall of 300 places in a running Fitzle, asked for over HTTP."""

from __future__ import annotations

import random
import statistics
import time

from django.utils import timezone

from benchmarks.load import Person
from benchmarks.workspace import OwnWorkspace

ARTWORKS, SITES, PLACES_EACH, ROUNDS, FITS = 5000, 20, 15, 9, 300
WORDS = ("bell", "rim", "spoke", "chain")


def fill_library(space: OwnWorkspace) -> None:
    """Rows like those of the sample's artwork, each with a likeness of its own; two of them show the same."""
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.artwork.models import Artwork

    workspace = Workspace.objects.get(slug=space.slug)
    known = list(Artwork.objects.filter(workspace=workspace, state="ready").exclude(likeness=""))
    chance, rows = random.Random(1), list[Artwork]()
    for number in range(ARTWORKS):
        like, name = chance.choice(known), f"artwork {number} {chance.choice(WORDS)}.jpg"
        rows.append(
            Artwork(
                workspace=workspace, name=name, said=f"{name} {like.kind}", kind=like.kind, sha256=f"{number:064x}",
                bytes=1000, state="ready", facts=like.facts, likeness=f"{chance.getrandbits(64):016x}",
                tags=[f"tag {number % 40}"],
            )
        )  # fmt: skip
    rows[7].likeness, rows[7].facts = rows[4900].likeness, rows[4900].facts
    Artwork.objects.bulk_create(rows, batch_size=500)


def library_ms(space: OwnWorkspace) -> dict[str, float]:
    """The first page, a search for two words, and the artwork that is like one, in ms."""
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.artwork.finding import alike_among_all
    from fitzle.apps.artwork.models import Artwork

    person = Person(space, 1, [])
    workspace = Workspace.objects.get(slug=space.slug)
    one = [Artwork.objects.get(workspace=workspace, name__startswith="artwork 7 ")]
    found = {"page": person.median_ms("artwork?count=60"), "search": person.median_ms("artwork?count=60&words=bell 17")}
    taken = []
    for _ in range(ROUNDS):
        began = time.perf_counter()
        assert alike_among_all(workspace, one)
        taken.append((time.perf_counter() - began) * 1000)
    return {**found, "alike": statistics.median(taken)}


def wall_of_300_ms(space: OwnWorkspace) -> float:
    """The wall's answer once all 300 files are made and judged."""
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.destinations.shelves import add_destination
    from fitzle.apps.pieces.fits import stand
    from fitzle.apps.pieces.making import make_file
    from fitzle.apps.pieces.models import Piece
    from fitzle.core.spec.sheet import SpecSheet

    workspace = Workspace.objects.get(slug=space.slug)
    pieces, places = list(Piece.objects.filter(workspace=workspace)), []
    for site in range(SITES):
        sheets = [
            SpecSheet.model_validate(
                {"fitzle_spec": 1, "name": f"Place {site} {number}", "formats": ["png"], "max_bytes": 200_000,
                 "size": {"width": 100 + number * 10, "height": 80}}
            )
            for number in range(PLACES_EACH)
        ]  # fmt: skip
        places += list(add_destination(workspace, f"Site {site}", sheets).placements.all())
    for number, place in enumerate(places):
        [fit] = stand(pieces[number % len(pieces)], [place])
        make_file(fit.pk)
    return Person(space, 1, []).median_ms("wall")


def shared_files_ms(space: OwnWorkspace) -> float:
    """Which of all places one file serves, or could."""
    return Person(space, 1, []).median_ms("shared-files")


def effect_ms(space: OwnWorkspace) -> float:
    """Which of the fits of a place with 300 of them another sheet affects, and how."""
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.destinations.shelves import add_destination
    from fitzle.apps.pieces.effects import effects_of
    from fitzle.apps.pieces.models import Fit, Piece
    from fitzle.core.spec.sheet import SpecSheet

    workspace = Workspace.objects.get(slug=space.slug)
    sheet = SpecSheet.model_validate(
        {"fitzle_spec": 1, "name": "Rows", "formats": ["png"], "size": {"width": 300, "height": 200}}
    )
    [place] = add_destination(workspace, "Rows", [sheet]).placements.all()
    pieces = list(Piece.objects.filter(workspace=workspace))
    now = timezone.now()
    Fit.objects.bulk_create(
        Fit(piece=pieces[number % len(pieces)], placement=place, row=f"r{number}", placed_at=now, chosen=True)
        for number in range(FITS)
    )
    other = sheet.model_copy(update={"max_bytes": 9000})
    taken = []
    for _ in range(ROUNDS):
        began = time.perf_counter()
        effects_of(workspace, place, other)
        taken.append((time.perf_counter() - began) * 1000)
    return statistics.median(taken)
