"""Fills an empty installation with the sample workspace: `python -m demo.load`."""

from __future__ import annotations

import os
import sys
from pathlib import Path
from typing import Any

SLUG = "ottermoor"
HOUSE_STYLE = {
    "colours": [
        {"name": "Bottle green", "hex": "#17443c"},
        {"name": "Lamp yellow", "hex": "#f4d06f"},
        {"name": "Rust", "hex": "#b4541a"},
        {"name": "Sand", "hex": "#f6e7b8"},
    ],
    "typefaces": {"heading": "Bricolage Grotesque", "text": "Work Sans"},
}
FOCUS = {"misty-street.jpg": (0.35, 0.75)}


def load() -> None:
    """Makes the workspace unless it is there: all of it or, where this is ended in the middle, nothing."""
    from django.db import transaction

    from fitzle.apps.accounts.access import found_workspace
    from fitzle.apps.accounts.models import User, Workspace
    from fitzle.apps.accounts.sample import EMAIL, PASSWORD, is_public

    if is_public():
        sys.exit("fitzle: the sample's password is known to everybody; it is not loaded where others can reach Fitzle.")
    if Workspace.objects.filter(slug=SLUG).exists():
        return
    with transaction.atomic():
        owner = User.objects.create_user(EMAIL, PASSWORD, "Juno Marsh")
        workspace = found_workspace(name="Ottermoor Cycle Works", slug=SLUG, owner=owner, house_style=HOUSE_STYLE)
        fill(workspace, owner)


def fill(workspace: Any, owner: Any) -> None:
    """Brings in the sample's artwork and fills its placements, the way a person would."""
    from demo.clips import guest_photo, lesson_clip
    from demo.marks import MARKS
    from demo.photos import all_photos
    from demo.sheets import FILLED, shelves
    from fitzle.apps.artwork.clips import propose_stills, usable
    from fitzle.apps.artwork.intake import bring_in, take_in
    from fitzle.apps.artwork.versions import join
    from fitzle.apps.destinations.shelves import add_destination, placements_of

    for name, sheets in shelves().items():
        add_destination(workspace, name, sheets)
    by_name = {entry.spec.name: str(entry.pk) for entry in placements_of(workspace)}
    others = {"lesson-opening.mp4": lesson_clip(), "guest-rowan.jpg": guest_photo()}
    files = others | {name: text.encode() for name, text in MARKS.items()} | all_photos()
    read: dict[str, Any] = {}
    for name, data in files.items():
        artwork = take_in(bring_in(workspace, owner, name, [data], []).pk)
        assert artwork is not None
        if usable(artwork):
            propose_stills(artwork)
        read[name] = artwork
    join(read["ottermoor-light.svg"], read["ottermoor-dark.svg"])
    for name, places in ((name, places) for name, places in FILLED.items() if places):
        _place(workspace, owner, read[name], [by_name[place] for place in places])
    _compose(workspace, owner, {name: str(artwork.pk) for name, artwork in read.items()}, by_name)


def _compose(workspace: Any, owner: Any, brought: dict[str, str], by_name: dict[str, str]) -> None:
    """The sample's composed piece: a lesson, in two places of different shapes, and a run of twelve."""
    from demo import school
    from demo.lesson import lesson
    from fitzle.apps.destinations.shelves import placements_of
    from fitzle.apps.jobs.queue import ROW_WORKERS
    from fitzle.apps.pieces.fits import stand
    from fitzle.apps.pieces.making import make_file
    from fitzle.apps.pieces.row_looking import look_at_rows
    from fitzle.apps.pieces.row_portable import add_portable_run
    from fitzle.apps.pieces.saving import create_piece
    from fitzle.core.piece.document import Piece
    from fitzle.core.runs.document import Entry

    places = [by_name["Lesson thumbnail"], by_name["Page header"]]
    placements = placements_of(workspace, places)
    header = next(entry.slug for entry in placements if str(entry.pk) == places[1])
    piece = create_piece(workspace, owner, Piece.model_validate(lesson(brought, page_header=header)))
    for fit in stand(piece, placements):
        make_file(fit.pk)
    add_portable_run(piece, owner, [Entry.model_validate(row) for row in school.rows()], school.NAMING)
    for share in range(ROW_WORKERS):
        look_at_rows(str(piece.pk), share)


# A tile with a ground of its own colour has no seam where the destination rounds its corners.
GROUNDS = {"Touch icon": "#17443c", "Floor patch": "#17443c"}


def _place(workspace: Any, owner: Any, artwork: Any, placements: list[str]) -> None:
    from fitzle.apps.pieces.fits import place
    from fitzle.apps.pieces.making import make_file
    from fitzle.apps.pieces.saving import save_changes
    from fitzle.core.piece.changes import SetField

    fits = place(workspace, owner, artwork.pk, placements)
    piece = fits[0].piece
    if artwork.name in FOCUS:
        x, y = FOCUS[artwork.name]
        change = SetField(part="picture", field="focal_point", value={"x": x, "y": y})
        piece = save_changes(piece, owner, piece.revision, [change], "move the focus")
    for fit in fits:
        colour = GROUNDS.get(fit.placement.spec.name)
        if colour:
            change = SetField(
                part="ground", field="fill", value={"kind": "solid", "colour": colour}, placement=fit.placement.slug
            )
            piece = save_changes(piece, owner, piece.revision, [change], "change the ground")
        make_file(fit.pk)


if __name__ == "__main__":
    import django

    sys.path.insert(0, str(Path(__file__).parents[1] / "src"))
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "fitzle.config.settings")
    django.setup()
    load()
