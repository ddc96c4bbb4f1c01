"""A whole workspace saved as a ZIP, brought in again, and deleted with a way back."""

import io
import json
import zipfile
from collections.abc import Callable
from datetime import timedelta
from typing import Any

import pytest
from django.core.files.storage import default_storage
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from django.utils import timezone

from fitzle.apps.accounts.models import Membership, Role, Workspace
from fitzle.apps.artwork.models import Artwork
from fitzle.apps.files.models import KeptFile
from fitzle.apps.jobs.sweeping import clear_daily
from fitzle.apps.pieces.fits import fits_on_wall
from fitzle.apps.pieces.opening import open_fits
from tests.apps.helpers import content, deliver, send, upload, wall_proofs
from tests.make import svg

pytestmark = pytest.mark.django_db
STEPS = [{"id": "a", "kind": "crop", "x": 0.1, "y": 0.1, "width": 0.5, "height": 0.5}]
Change = Callable[[dict[str, Any]], None]


@pytest.fixture
def full(signed_in: Any, place: Any, run: Any) -> Any:
    """Juno's workspace with artwork, versions, a preparation, pieces, sheets and a delivery."""
    header, badge = place(name="Header"), place(name="Badge", size={"width": 64, "height": 64})
    mark = upload(signed_in, "juno", "wheel.svg", svg(), f"{header.pk},{badge.pk}", run)
    dark = svg('<circle cx="50" cy="25" r="24" fill="#f4d06f"/>')
    other = upload(signed_in, "juno", "wheel-dark.svg", dark, "", run)
    with run(execute=True):
        send(signed_in, "put", f"workspaces/juno/artwork/{other['id']}/version-of", {"artwork": mark["id"]})
    cropped = upload(signed_in, "juno", "disc.svg", svg('<rect width="60" height="50" fill="#b4541a"/>'), "", run)
    with run(execute=True):
        path = f"workspaces/juno/artwork/{cropped['id']}/preparation"
        send(signed_in, "put", path, {"revision": 0, "document": {"steps": STEPS}, "step": "crop"})
    send(signed_in, "patch", f"workspaces/juno/artwork/{mark['id']}", {"tags": ["wheel"]})
    assert deliver(signed_in, {}).status_code == 201
    send(signed_in, "patch", f"workspaces/juno/places/{badge.pk}", {"name": "Round badge"})
    return signed_in


def saved_zip(client: Any, slug: str = "juno") -> bytes:
    answer = client.get(f"/api/workspaces/{slug}/export")
    assert answer.status_code == 200, answer.content
    return b"".join(answer.streaming_content)


def brought_in(client: Any, data: bytes, run: Any) -> Any:
    with run(execute=True):
        return client.post("/api/workspaces/bring-in", {"file": SimpleUploadedFile("juno.zip", data)})


def keys_of(slug: str) -> dict[str, tuple[str, str, str]]:
    space = Workspace.objects.get(slug=slug)
    return {opened.fit.placement.slug: tuple(opened.keys) for opened in open_fits(space, fits_on_wall(space))}


def artwork_of(slug: str) -> list[Any]:
    fields = ("name", "sha256", "bytes", "tags", "put_away", "facts", "prepared", "version_of__name", "created_at")
    return list(Artwork.objects.filter(workspace__slug=slug).order_by("created_at").values_list(*fields))


def test_a_workspace_comes_back_with_the_same_artwork_and_the_same_keys(full: Any, run: Any) -> None:
    answer = brought_in(full, saved_zip(full), run)
    assert (answer.status_code, answer.json()) == (201, {"name": "Juno's", "slug": "juno-s"})
    assert keys_of("juno-s") == keys_of("juno") and len(keys_of("juno")) == 2
    assert artwork_of("juno-s") == artwork_of("juno") and len(artwork_of("juno")) == 3
    wall, other = wall_proofs(full, "juno"), wall_proofs(full, "juno-s")
    assert {name: proof["state"] for name, proof in other.items()} == {name: p["state"] for name, p in wall.items()}
    for listed in ("house-style", "deliveries"):
        ours, theirs = (full.get(f"/api/workspaces/{slug}/{listed}").json() for slug in ("juno", "juno-s"))
        assert _without_ids(theirs) == _without_ids(ours), listed
    delivery = full.get("/api/workspaces/juno-s/deliveries").json()[0]["id"]
    packed = [content(full.get(f"/api/workspaces/{slug}/deliveries/{one}/zip")) for slug, one in (
        ("juno", full.get("/api/workspaces/juno/deliveries").json()[0]["id"]), ("juno-s", delivery))]  # fmt: skip
    files = [{name: zipfile.ZipFile(io.BytesIO(one)).read(name) for name in _pictures(one)} for one in packed]
    assert files[0] == files[1] and len(files[0]) == 2, "what was handed over is still there"


def _pictures(data: bytes) -> list[str]:
    return [name for name in zipfile.ZipFile(io.BytesIO(data)).namelist() if name != "delivery.json"]


def _without_ids(value: Any) -> Any:
    if isinstance(value, dict):
        return {
            key: _without_ids(entry)
            for key, entry in value.items()
            if key not in ("id", "fit", "placement", "ended_at")
        }
    return [_without_ids(entry) for entry in value] if isinstance(value, list) else value


def test_an_export_can_be_read_by_people_too(full: Any) -> None:
    names = zipfile.ZipFile(io.BytesIO(saved_zip(full))).namelist()
    assert "workspace.json" in names and any(name.startswith("sheets/") for name in names)
    assert sum(name.startswith("originals/") for name in names) == 3
    assert [name.rpartition("/")[2] for name in names if name.startswith("record/")]


def test_what_is_lost_is_named_and_the_rest_is_saved(full: Any) -> None:
    lost = Artwork.objects.get(name="disc.svg").sha256
    default_storage.delete(KeptFile.objects.get(shelf="originals", key=lost).path)
    archive = zipfile.ZipFile(io.BytesIO(saved_zip(full)))
    assert f"originals/{lost}" in archive.read("MISSING.txt").decode()
    assert f"originals/{lost}" not in archive.namelist()


def changed_zip(
    data: bytes, change: Change | None = None, drop: str = "", put: dict[str, bytes] | None = None
) -> bytes:
    """An export with another document, without the files whose names begin so, or with others."""
    source, out = zipfile.ZipFile(io.BytesIO(data)), io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        for name in source.namelist():
            content = (put or {}).get(name, source.read(name))
            if change and name == "workspace.json":
                document = json.loads(content)
                change(document)
                content = json.dumps(document).encode()
            archive.writestr(name, content)
        for name in (put or {}).keys() - set(source.namelist()):
            archive.writestr(name, (put or {})[name])
    return out.getvalue()


def _set(path: str, value: Any) -> Change:
    def change(document: dict[str, Any]) -> None:
        *steps, last = path.split(".")
        inside: Any = document
        for step in steps:
            inside = inside[int(step) if step.isdigit() else step]
        inside[last] = value

    return change


@pytest.mark.parametrize(
    ("change", "said"),
    [
        (_set("fitzle_workspace", 2), "newer version"),
        (_set("name", ""), "name"),
        (_set("name", "x" * 121), "name"),
        (_set("destinations.0.placements.0.sheet", {"fitzle_spec": 1}), "destinations.0.placements.0.sheet"),
        (_set("destinations.0.placements.0.sheet.surprise", 1), "surprise"),
        (_set("destinations.0.placements.0.sheet.fitzle_spec", 9), "fitzle_spec"),
        (_set("artwork.0.sha256", "../../etc/passwd"), "sha256"),
        (_set("artwork.0.sha256", "0" * 64), "is missing in this ZIP"),
        (_set("pieces.0.document.parts", "none"), "parts"),
        (_set("pieces.0.fits.0.placement", "nowhere"), "place that is not there"),
        (_set("house.colours", [{"hex": "red"}]), "house.colours"),
        (_set("deliveries.0.files.0.name", "../../x"), "name"),
    ],
)
def test_what_is_no_whole_export_leaves_nothing_behind(full: Any, run: Any, change: Change, said: str) -> None:
    before = KeptFile.objects.count()
    answer = brought_in(full, changed_zip(saved_zip(full), change), run)
    assert answer.status_code == 422 and said in answer.json()["message"], answer.json()
    assert (Workspace.objects.count(), KeptFile.objects.count()) == (1, before)


@pytest.mark.parametrize("data", [b"", b"PK\x03\x04", b"no zip at all", b"\x1f\x8b" + b"\0" * 99])
def test_what_is_no_zip_is_refused(full: Any, run: Any, data: bytes) -> None:
    answer = brought_in(full, data, run)
    assert answer.status_code == 422, answer.json()


def test_bytes_that_are_not_those_of_the_artwork_are_refused(full: Any, run: Any) -> None:
    name = f"originals/{Artwork.objects.get(name='disc.svg').sha256}"
    answer = brought_in(full, changed_zip(saved_zip(full), put={name: svg()}), run)
    assert (answer.status_code, Workspace.objects.count()) == (422, 1)
    assert "is not what it was" in answer.json()["message"]


def test_paths_that_leave_the_zip_and_thousands_of_files_do_no_harm(full: Any, run: Any, tmp_path: Any) -> None:
    extra = {"../../outside.txt": b"x", "/etc/fitzle": b"x"} | {f"more/{n}": b"" for n in range(5000)}
    answer = brought_in(full, changed_zip(saved_zip(full), put=extra), run)
    assert answer.status_code == 201
    assert not list(tmp_path.rglob("outside.txt"))
    assert not KeptFile.objects.filter(workspace__slug="juno-s").exclude(key__regex="^[0-9a-f]{64}").exists()


def test_a_zip_that_says_less_than_it_holds_is_refused(full: Any, run: Any, settings: Any) -> None:
    settings.WORKSPACE_BYTES = 2000
    answer = brought_in(full, saved_zip(full), run)
    assert answer.status_code == 422 and "too large" in answer.json()["message"]


def test_artwork_of_others_is_not_reached_by_its_id(full: Any, run: Any, make_person: Any) -> None:
    mallory = Client()
    mallory.force_login(make_person("mallory")[0], "django.contrib.auth.backends.ModelBackend")
    theirs = str(Artwork.objects.get(name="wheel.svg").pk)

    def point_at(document: dict[str, Any]) -> None:
        document["artwork"], document["deliveries"] = [], []
        text = json.dumps(document["pieces"])
        assert theirs in text

    answer = brought_in(mallory, changed_zip(saved_zip(full), point_at), run)
    assert answer.status_code == 201
    assert {proof["state"] for proof in wall_proofs(mallory, answer.json()["slug"]).values()} == {"empty"}


def test_only_an_owner_saves_or_deletes(full: Any, juno: Any, make_person: Any) -> None:
    vera, _ = make_person("vera")
    Membership.objects.create(user=vera, workspace=juno[1], role=Role.MAKER)
    client = Client()
    client.force_login(vera, "django.contrib.auth.backends.ModelBackend")
    assert client.get("/api/workspaces/juno/export").status_code == 403
    assert send(client, "post", "workspaces/juno/leaving").status_code == 403
    stranger = Client()
    stranger.force_login(make_person("mallory")[0], "django.contrib.auth.backends.ModelBackend")
    for method, path in (("get", "export"), ("post", "leaving"), ("delete", "leaving")):
        assert send(stranger, method, f"workspaces/juno/{path}").status_code == 404


def test_a_deleted_workspace_can_be_had_back_for_14_days(full: Any, run: Any) -> None:
    assert send(full, "post", "workspaces/juno/leaving").status_code == 204
    me = full.get("/api/session").json()
    assert me["workspaces"] == []
    until = (timezone.now() + timedelta(days=14)).date().isoformat()
    assert me["leaving"] == [{"name": "Juno's", "slug": "juno", "until": until}]
    for path in ("wall", "artwork", "deliveries"):
        assert full.get(f"/api/workspaces/juno/{path}").status_code == 404
    assert saved_zip(full), "it can still be saved"
    assert send(full, "delete", "workspaces/juno/leaving").status_code == 200
    assert len(wall_proofs(full, "juno")) == 2


def test_after_14_days_it_is_gone_with_all_its_files(full: Any, run: Any, juno: Any) -> None:
    from django.core.cache import cache

    paths = [note.path for note in KeptFile.objects.all()]
    send(full, "post", "workspaces/juno/leaving")
    for days, left in ((13, 1), (15, 0)):
        Workspace.objects.update(leaving_at=timezone.now() - timedelta(days=days))
        cache.delete("clearing/today")
        with run(execute=True):
            clear_daily()
        assert Workspace.objects.count() == left
    assert not KeptFile.objects.exists() and not Artwork.objects.exists()
    assert not [path for path in paths if default_storage.exists(path)]
