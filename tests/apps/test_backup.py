"""Everything is backed up while Fitzle works, destroyed, and comes back as it was."""

import shutil
import tarfile
from io import StringIO
from pathlib import Path
from typing import Any

import pytest
from django.core.files.storage import default_storage
from django.core.management import CommandError, call_command
from django.test import Client

from fitzle.apps.accounts.models import Workspace
from fitzle.apps.files.models import KeptFile
from fitzle.apps.files.shelves import Shelf
from fitzle.apps.jobs.models import Job
from fitzle.apps.jobs.sweeping import catch_up_weekly
from tests.apps.helpers import deliver, wall_proofs
from tests.make import disc, photo, saved

pytestmark = pytest.mark.django_db(transaction=True)
KEPT = Path(__file__).parent / "data" / "backup-1.tar"


def run_command(name: str, *words: str) -> tuple[int, str]:
    said = StringIO()
    try:
        call_command(name, *words, stdout=said)
    except SystemExit as ended:
        return int(str(ended.code)), said.getvalue()
    return 0, said.getvalue()


@pytest.fixture
def workspace(signed_in: Any, place: Any) -> dict[str, Any]:
    """A workspace with artwork, a fit and a delivery; what its pages and downloads show."""
    from django.core.files.uploadedfile import SimpleUploadedFile

    for name, data, targets in (
        ("disc.png", saved(disc(), "PNG"), str(place().pk)),
        ("photo.jpg", saved(photo(2600, 1700), "JPEG", quality=60), ""),
    ):
        files = {"files": [SimpleUploadedFile(name, data)], "targets": targets}
        assert signed_in.post("/api/workspaces/juno/artwork", files).status_code == 202
    assert deliver(signed_in, {}).status_code == 201
    return seen(signed_in)


def seen(client: Any) -> dict[str, Any]:
    artwork = client.get("/api/workspaces/juno/artwork").json()
    [delivery] = client.get("/api/workspaces/juno/deliveries").json()
    return {
        "wall": wall_proofs(client, "juno"), "artwork": artwork, "delivery": delivery,
        "originals": [client.get(f"/api/workspaces/juno/artwork/{one['id']}/original").getvalue() for one in artwork],
        "file": client.get(f"/api/workspaces/juno/deliveries/files/{delivery['files'][0]['id']}").content,
        "pieces": [client.get(f"/api/workspaces/juno/fits/{one['fit']}").json()["piece"]
                   for one in wall_proofs(client, "juno").values()],
    }  # fmt: skip


def destroy() -> None:
    Workspace.objects.all().delete()
    call_command("flush", interactive=False, verbosity=0)
    shutil.rmtree(default_storage.path(""))


def signed_in_again() -> Client:
    client = Client()
    token = {"email": "juno@ottermoor.example", "password": "juno-turns-the-wheel"}
    assert client.post("/api/account/browser/v1/auth/login", token, content_type="application/json").status_code == 200
    return client


def test_everything_comes_back_byte_for_byte(workspace: dict[str, Any], tmp_path: Path) -> None:
    code, words = run_command("backup", str(tmp_path))
    [backup] = tmp_path.glob("fitzle-*.tar")
    assert code == 0 and f"{KeptFile.objects.count()} files" in words
    assert not list(tmp_path.glob(".*"))
    destroy()
    assert run_command("restore", str(backup))[0] == 0
    assert seen(signed_in_again()) == workspace
    assert run_command("check_files")[0] == 0


def test_what_is_there_is_replaced_only_when_asked(workspace: dict[str, Any], tmp_path: Path) -> None:
    backup = tmp_path / "a.tar"
    run_command("backup", str(backup))
    with pytest.raises(CommandError, match="already"):
        run_command("backup", str(backup))
    with pytest.raises(CommandError, match="--replace"):
        run_command("restore", str(backup))
    Workspace.objects.create(name="Newer", slug="newer")
    assert run_command("restore", str(backup), "--replace")[0] == 0
    assert not Workspace.objects.filter(slug="newer").exists()
    assert seen(signed_in_again()) == workspace


def test_a_damaged_backup_says_what_is_damaged(workspace: dict[str, Any], tmp_path: Path) -> None:
    backup = tmp_path / "a.tar"
    run_command("backup", str(backup))
    with tarfile.open(backup) as archive:
        places = {member.name: member.offset_data for member in archive}
    note = KeptFile.objects.filter(shelf=Shelf.ORIGINALS).first()
    assert note
    harmed = {"kept": places[f"files/{note.path}"], "database": places["database.sql"]}
    for what, at in harmed.items():
        data = bytearray(backup.read_bytes())
        data[at + 20] ^= 1
        (tmp_path / f"{what}.tar").write_bytes(data)
    with pytest.raises(CommandError, match="Nothing was changed"):
        run_command("restore", str(tmp_path / "database.tar"), "--replace")
    assert seen(signed_in_again()) == workspace
    destroy()
    code, words = run_command("restore", str(tmp_path / "kept.tar"))
    assert code == 1 and f"{note.path}: is not in the backup, or damaged there" in words
    (tmp_path / "cut.tar").write_bytes(backup.read_bytes()[:300])
    with pytest.raises(CommandError, match="cut off"):
        run_command("restore", str(tmp_path / "cut.tar"), "--replace")


def test_a_backup_names_what_was_lost_before_it(workspace: dict[str, Any], tmp_path: Path) -> None:
    note = KeptFile.objects.filter(shelf=Shelf.ORIGINALS).first()
    assert note
    Path(default_storage.path(note.path)).unlink()
    code, words = run_command("backup", str(tmp_path / "a.tar"))
    assert code == 1 and f"{note.path}: is lost or damaged" in words


def test_a_backup_of_a_newer_version_is_not_put_in(workspace: dict[str, Any], tmp_path: Path) -> None:
    run_command("backup", str(tmp_path / "a.tar"))
    data = (tmp_path / "a.tar").read_bytes()
    newer = data.replace(b'"jobs.0001_initial"', b'"jobs.9999_futures"', 1)
    assert newer != data
    (tmp_path / "newer.tar").write_bytes(newer)
    with pytest.raises(CommandError, match="newer version"):
        run_command("restore", str(tmp_path / "newer.tar"), "--replace")
    assert seen(signed_in_again()) == workspace


def test_a_kept_backup_of_an_earlier_version_still_comes_back(tmp_path: Path, run: Any) -> None:
    """Made by the version that wrote backups first; each later one brings it up to date, and makes its files anew."""
    copy = tmp_path / "kept.tar"
    shutil.copy(KEPT, copy)
    assert run_command("restore", str(copy))[0] == 0
    with run(execute=True):
        catch_up_weekly()  # as the workers do once they run
    client = signed_in_again()
    found = seen(client)
    assert [one["state"] for one in found["artwork"]] == ["ready", "ready"]
    # What was delivered by that version has the bytes that this one makes.
    assert {name: proof["state"] for name, proof in found["wall"].items()} == {"Test place": "fits"}
    assert not Job.objects.exists()
