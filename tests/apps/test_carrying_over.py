"""A database made by the version before renditions, carried over: nothing lost, nothing made anew, nothing stale."""

import gzip
import json
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from django.core import serializers
from django.core.management import call_command
from django.db import connection
from django.db.migrations.executor import MigrationExecutor

KEPT = Path(__file__).parent / "data" / "before_renditions.json.gz"
BEFORE = [
    ("accounts", "0001_initial"), ("artwork", "0003_versions"), ("destinations", "0001_initial"),
    ("pieces", "0001_initial"), ("deliveries", "0001_initial"),
]  # fmt: skip
ROWS: list[dict[str, Any]] = json.loads(gzip.decompress(KEPT.read_bytes()))

pytestmark = pytest.mark.django_db(transaction=True)


@pytest.fixture
def carried(transactional_db: None) -> Iterator[None]:
    """The database of the version before, brought up to date."""
    executor = MigrationExecutor(connection)
    executor.migrate(BEFORE)
    old = MigrationExecutor(connection).loader.project_state(BEFORE).apps
    _load(old)
    executor = MigrationExecutor(connection)
    executor.migrate(executor.loader.graph.leaf_nodes())
    yield
    call_command("flush", "--no-input", verbosity=0)


def _load(apps: Any) -> None:
    """The rows as they were kept, through the models as they were then."""
    live = serializers.python.apps
    serializers.python.apps = apps
    try:
        with connection.constraint_checks_disabled():
            for row in serializers.deserialize("python", ROWS):
                row.save()
    finally:
        serializers.python.apps = live


def kept(model: str) -> dict[str, Any]:
    return {row["pk"]: row["fields"] for row in ROWS if row["model"] == model}


def opened() -> dict[str, Any]:
    """Every fit as the application opens it now, by its id."""
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.pieces.fits import all_fits
    from fitzle.apps.pieces.opening import open_fits

    [space] = Workspace.objects.all()
    return {str(entry.fit.pk): entry for entry in open_fits(space, all_fits(space))}


STALE = "Corner watermark"  # its piece was changed after its file was made
ENDED = "Floor patch"  # its file could not be made


@pytest.mark.usefixtures("carried")
def test_every_workspace_is_carried_over() -> None:
    _every_fit_keeps_its_file_and_its_verdict()
    _the_fit_placed_last_is_the_chosen_one()
    _documents_are_renewed_with_their_history()
    _deliveries_point_to_fit_and_rendition()
    _uses_are_written_down()


def _every_fit_keeps_its_file_and_its_verdict() -> None:
    before, now = kept("pieces.fit"), opened()
    assert before.keys() == now.keys()
    sheets = kept("destinations.placement")
    stale = {pk for pk, row in before.items() if sheets[row["placement"]]["sheet"]["name"] == STALE}
    pieces = {before[pk]["piece"] for pk in stale}
    for pk, row in before.items():
        name, entry = sheets[row["placement"]]["sheet"]["name"], now[pk]
        if row["piece"] in pieces:
            assert entry.record is None, f"{name}: what was made of an earlier state is not of this one"
        elif name == ENDED:
            assert entry.record.outcome.kind == "failed" and "too much memory" in entry.record.outcome.message
        else:
            assert entry.record is not None, f"{name} would be made anew"
            result = row["result"]
            assert _without_reasons(entry.findings) == result["findings"], name
            assert [one.model_dump(mode="json") for one in entry.demands] == result["demands"], name
            if result["file"]:
                file = entry.record.files[0]
                words = file.settings.words.removesuffix(", mozjpeg")  # said since an encoder's name is kept too
                assert (file.sha256, file.bytes, words) == (
                    result["file"]["sha256"], result["file"]["bytes"], result["file"]["settings"],
                )  # fmt: skip


def _the_fit_placed_last_is_the_chosen_one() -> None:
    rows = kept("pieces.fit")
    last = {row["placement"]: pk for pk, row in sorted(rows.items(), key=lambda entry: entry[1]["placed_at"])}
    now = opened()
    assert {pk for pk, entry in now.items() if entry.fit.chosen} == set(last.values())
    assert len(rows) > len(last), "the kept database has two fits in one placement"


def _documents_are_renewed_with_their_history() -> None:
    from fitzle.apps.pieces.history import step_back, step_forward
    from fitzle.apps.pieces.models import Piece, PieceRevision, PieceState
    from fitzle.apps.pieces.saving import document_of
    from fitzle.core.piece.document import parts_in

    places = {pk: row["position"] for pk, row in kept("pieces.piece").items()}
    undone = sum(row["position"] > places[row["piece"]] for row in kept("pieces.piecestate").values())
    assert undone and PieceState.objects.count() == len(kept("pieces.piecestate")) + undone, "each was taken back"
    assert PieceRevision.objects.count() == len(kept("pieces.piecerevision"))
    lesson = next(piece for piece in Piece.objects.all() if document_of(piece).subject.startswith("Lesson 12"))
    document = document_of(lesson)
    assert document.adjustments.keys() == {"course-page-page-header", "video-channel-lesson-thumbnail"}
    there = {part.id: part for part in parts_in(document, "video-channel-lesson-thumbnail")}
    assert there["second-line"].letter_spacing == 1 and there["guest"].rotation == 10  # type: ignore[union-attr]
    assert there["headline"].vertical_align == "top" and not there["headline"].outline_only  # type: ignore[union-attr]
    maker = lesson.states.last().made_by
    words = [part.text for part in document.parts if part.id == "headline"]  # type: ignore[union-attr]
    again = [part.text for part in document_of(step_forward(lesson, maker)).parts if part.id == "headline"]  # type: ignore
    assert (words, again) == (["True a\nwheel"], ["True a\nwheel!"]), "redo still knows what was undone"
    for _ in range(3):
        lesson = step_back(lesson, maker)
    assert document_of(lesson).adjustments.keys() == {"course-page-page-header"}


def _without_reasons(findings: Any) -> list[dict[str, Any]]:
    """As they were kept before a finding could be muted, or have several repairs."""
    later = {"muted": True, "other_repairs": True, "repair": {"becomes"}}
    return [one.model_dump(mode="json", exclude=later) for one in findings]


def _deliveries_point_to_fit_and_rendition() -> None:
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.deliveries.models import DeliveredFile
    from fitzle.apps.deliveries.record import last_delivered

    rows, now = kept("deliveries.deliveredfile"), opened()
    for file in DeliveredFile.objects.select_related("rendition"):
        assert file.rendition is not None and file.rendition.files[0]["sha256"] == file.sha256
        assert rows[str(file.pk)]["sha256"] == file.sha256
    by_name = {entry.sheet.name: entry for entry in now.values() if entry.fit.chosen}
    delivered = last_delivered(Workspace.objects.get())
    made = {name: entry.record.contents for name, entry in by_name.items() if entry.record and entry.record.files}
    current = {name for name, files in made.items() if delivered.get(by_name[name].fit.placement_id) == files}
    assert current == {"Header logo", "Page header", "Record glyph", "Sticker", "Tab icon", "Touch icon"}
    assert by_name.keys() - current == {
        STALE, "Sign-in logo",  # of one piece, which was changed since
        "Lesson thumbnail",  # another picture was put there since
        ENDED, "Wide banner",  # one was ended since, one would have been refused
    }  # fmt: skip


def _uses_are_written_down() -> None:
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.pieces.uses import fits_in_house_colours, fits_showing, uses_of_artwork
    from fitzle.core.piece.document import artworks_in

    [space], now = Workspace.objects.all(), opened()
    for artwork in uses_of_artwork(space):
        showing = {str(fit.pk) for fit in fits_showing(space, artwork)}
        seen = {pk for pk, entry in now.items() if artwork in artworks_in(entry.document, entry.fit.placement.slug)}
        assert seen <= showing
    assert fits_in_house_colours(space), "the lesson's words take their colour from the house"
