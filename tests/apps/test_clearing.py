"""What nobody needs goes after a while, and nothing else; a workspace has so much room and no more."""

from collections.abc import Iterator
from datetime import timedelta
from typing import Any

import pytest
from django.core.management import call_command
from django.test import Client
from django.utils import timezone

from fitzle.apps.artwork.models import Artwork
from fitzle.apps.files import keeping
from fitzle.apps.files.checking import damaged_files
from fitzle.apps.files.clearing import take_away
from fitzle.apps.files.models import KeptFile
from fitzle.apps.files.shelves import Shelf
from fitzle.apps.jobs.clearing import clear_away
from fitzle.apps.jobs.models import Job
from fitzle.apps.jobs.sweeping import clear_daily
from fitzle.apps.pieces.models import PieceRevision, PieceState, Rendition
from tests.apps.helpers import Bring, deliver, mark_in_a_place, send
from tests.make import photo, saved, svg

pytestmark = pytest.mark.django_db
PHOTO = saved(photo(900, 600), "JPEG")


def age(days: float = 40) -> None:
    """Lets everything have happened so many days ago."""
    when = timezone.now() - timedelta(days=days)
    KeptFile.objects.update(kept_at=when)
    Artwork.objects.update(changed_at=when)
    Rendition.objects.update(made_at=when)


def kept(*shelves: Shelf) -> int:
    return KeptFile.objects.filter(shelf__in=shelves or list(Shelf)).count()


def put_away(client: Client, artwork: Any) -> None:
    assert send(client, "patch", f"workspaces/juno/artwork/{artwork['id']}", {"put_away": True}).status_code == 200


def test_artwork_that_was_put_away_goes_with_its_files(signed_in: Client, bring: Bring) -> None:
    gone, stays = bring("gone.jpg", PHOTO), bring("stays.jpg", saved(photo(900, 600, 2), "JPEG"))
    put_away(signed_in, gone)
    age()
    call_command("clear_away")
    assert list(Artwork.objects.values_list("pk", flat=True)) == [Artwork.objects.get(name="stays.jpg").pk]
    assert {note.key for note in KeptFile.objects.filter(shelf=Shelf.ORIGINALS)} == {
        Artwork.objects.get(pk=stays["id"]).sha256
    }
    assert not list(damaged_files())


def test_nothing_goes_before_its_time(signed_in: Client, bring: Bring) -> None:
    put_away(signed_in, bring("a.jpg", PHOTO))
    before = kept()
    age(20)
    clear_away()
    assert (Artwork.objects.count(), kept()) == (1, before)


def test_what_a_piece_shows_or_showed_stays(signed_in: Client, place: Any, run: Any, bring: Bring) -> None:
    fit = mark_in_a_place(signed_in, place, run)
    first = Artwork.objects.get()
    other = bring("other.svg", svg('<rect width="50" height="50" fill="#123456"/>'))
    body = {"revision": fit["piece"]["revision"], "artwork": other["id"], "instead": "mark"}
    assert send(signed_in, "post", f"workspaces/juno/fits/{fit['id']}/parts", body).status_code == 200
    put_away(signed_in, {"id": str(first.pk)})
    put_away(signed_in, other)
    age()
    clear_away()
    assert Artwork.objects.count() == 2, "undo may bring the first one back"
    PieceState.objects.filter(position=0).delete()
    PieceRevision.objects.exclude(revision=PieceRevision.objects.latest("revision").revision).delete()
    clear_away()
    assert [str(entry.pk) for entry in Artwork.objects.all()] == [other["id"]]


def test_made_files_go_once_neither_a_fit_nor_a_delivery_needs_them(signed_in: Client, place: Any, run: Any) -> None:
    fit = mark_in_a_place(signed_in, place, run)
    path = f"workspaces/juno/fits/{fit['id']}"

    def repaint(colour: str) -> None:
        now = signed_in.get(f"/api/{path}").json()
        change = {"act": "set", "part": "mark", "field": "tint", "value": colour}
        with run(execute=True):
            body = {"revision": now["piece"]["revision"], "step": "tint", "changes": [change]}
            send(signed_in, "patch", path, body)

    repaint("#ffffff")
    delivery = deliver(signed_in, {"fits": [fit["id"]]}).json()
    repaint("#eeeeee")
    repaint("#dddddd")
    age()
    assert kept(Shelf.MADE) == 4
    clear_away()
    assert kept(Shelf.MADE) == 2, "what stands there now, and what was handed over"
    file = delivery["files"][0]["id"]
    assert signed_in.get(f"/api/workspaces/juno/deliveries/files/{file}").status_code == 200
    now = signed_in.get(f"/api/{path}").json()
    assert now["state"] == "out of date" and now["deliverable"], "changed since it was handed over, and made"
    for _ in range(2):
        with run(execute=True):
            send(signed_in, "post", f"workspaces/juno/pieces/{fit['piece']['id']}/undo")
    assert signed_in.get(f"/api/{path}").json()["file"], "what undo comes back to is made again"
    assert not list(damaged_files())


def test_earlier_files_and_preparations_stay(signed_in: Client, bring: Bring, run: Any) -> None:
    artwork = bring("a.jpg", PHOTO)
    with run(execute=True):
        path = f"/api/workspaces/juno/artwork/{artwork['id']}/newer"
        from django.core.files.uploadedfile import SimpleUploadedFile

        signed_in.post(path, {"file": SimpleUploadedFile("b.jpg", saved(photo(900, 600, 5), "JPEG"))})
    with run(execute=True):
        steps = {"revision": 0, "document": {"steps": [{"id": "t", "kind": "turn", "quarters": 1}]}, "step": "turn"}
        send(signed_in, "put", f"workspaces/juno/artwork/{artwork['id']}/preparation", steps)
    age()
    before = kept()
    clear_away()
    assert kept() == before
    assert kept(Shelf.ORIGINALS) == 2 and kept(Shelf.PREPARED) == 1


def test_who_keeps_the_same_file_again_at_that_moment_keeps_it(signed_in: Client, bring: Bring, juno: Any) -> None:
    bring("a.jpg", PHOTO)
    age()
    note = KeptFile.objects.get(shelf=Shelf.ORIGINALS)
    keeping.keep_by_content(Shelf.ORIGINALS, juno[1].pk, [PHOTO])
    assert not take_away(note, timezone.now() - timedelta(days=30))
    assert keeping.read(Shelf.ORIGINALS, juno[1].pk, note.key, check=True) == PHOTO


def test_the_workers_do_it_once_a_day(signed_in: Client) -> None:
    clear_daily()
    clear_daily()
    assert Job.objects.filter(kind="clear_away_unneeded").count() == 1


@pytest.fixture
def little_room(settings: Any) -> Iterator[None]:
    settings.WORKSPACE_BYTES = len(PHOTO) + 200_000
    return


def test_a_full_workspace_says_so_and_takes_nothing(signed_in: Client, bring: Bring, little_room: None) -> None:
    from django.core.files.uploadedfile import SimpleUploadedFile

    bring("a.jpg", PHOTO)
    more = saved(photo(1500, 1200, 3), "JPEG", quality=95)
    answer = signed_in.post(
        "/api/workspaces/juno/artwork", {"files": [SimpleUploadedFile("b.jpg", more)], "targets": ""}
    )
    assert answer.status_code == 422
    assert "no room for it: it may keep" in answer.json()["message"]
    assert Artwork.objects.count() == 1 and kept(Shelf.ORIGINALS) == 1


def test_a_screen_says_what_takes_the_room(signed_in: Client, bring: Bring) -> None:
    heavy, light = bring("heavy.jpg", PHOTO), bring("light.svg", svg())
    room = signed_in.get("/api/workspaces/juno/room").json()
    assert [one["id"] for one in room["heaviest"]] == [heavy["id"], light["id"]]
    assert room["heaviest"][0]["used_in"] == []
    assert sum(kind["bytes"] for kind in room["kinds"]) == sum(KeptFile.objects.values_list("bytes", flat=True))
    assert sum(kind["share"] for kind in room["kinds"]) == pytest.approx(1)
