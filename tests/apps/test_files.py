"""What is kept is whole or not there: full disks, damaged files, processes that are killed while they write."""

import hashlib
import os
import signal
import subprocess
import sys
from collections.abc import Iterator
from io import StringIO
from pathlib import Path
from typing import Any

import pytest
from django.core.files.storage import default_storage
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import call_command

from fitzle.apps.artwork.models import Artwork
from fitzle.apps.files.errors import DamagedFileError, StorageFullError
from fitzle.apps.files.keeping import keep, keep_by_content, open_checked, read
from fitzle.apps.files.models import KeptFile
from fitzle.apps.files.shelves import Shelf, kept_path
from fitzle.apps.files.storage import UNFINISHED
from fitzle.apps.pieces.making import make_file
from fitzle.apps.pieces.models import Fit, Rendition
from tests.apps.helpers import Bring, deliver, send, wall_proofs
from tests.make import disc, photo, saved

pytestmark = pytest.mark.django_db
MEGABYTE = 1_000_000


@pytest.fixture
def small_disk(tmp_path: Path, settings: Any) -> Iterator[Path]:
    """A file system of its own with room for 2 MB, in which files are kept."""
    folder = tmp_path / "small"
    folder.mkdir()
    mounted = ["mount", "-t", "tmpfs", "-o", "size=2m", "tmpfs", str(folder)]
    if subprocess.run(mounted, check=False, capture_output=True).returncode:
        pytest.skip("only root may mount a file system")
    settings.STORAGES = {
        **settings.STORAGES,
        "default": {**settings.STORAGES["default"], "OPTIONS": {"location": str(folder / "files")}},
    }
    yield folder
    subprocess.run(["umount", str(folder)], check=True)


@pytest.fixture
def made(place: Any, bring: Bring) -> tuple[Fit, Path]:
    """A fit whose file is made, and where that file is kept."""
    entry = place()
    bring("disc.png", saved(disc(), "PNG"), str(entry.pk))
    fit = Fit.objects.get(placement=entry)
    rendition = Rendition.objects.get(workspace=fit.piece.workspace)
    path = kept_path(Shelf.MADE, fit.piece.workspace_id, rendition.files[0]["sha256"])
    return fit, Path(default_storage.path(path))


def stored(folder: Path) -> list[Path]:
    return [path for path in folder.rglob("*") if path.is_file()]


def test_an_upload_to_a_full_disk_is_told_so_and_leaves_nothing(small_disk: Path, signed_in: Any, run: Any) -> None:
    filler = small_disk / "filler"
    filler.write_bytes(bytes(1_900_000))
    data = saved(photo(500, 400), "PNG")
    assert 200_000 < len(data) < MEGABYTE

    def upload() -> Any:
        files = {"files": [SimpleUploadedFile("a.png", data)], "targets": ""}
        with run(execute=True):
            return signed_in.post("/api/workspaces/juno/artwork", files)

    answer = upload()
    assert answer.status_code == 507
    assert "disk of this server is full" in answer.json()["message"]
    assert stored(small_disk) == [filler], "not even a part of it"
    assert not Artwork.objects.exists() and not KeptFile.objects.exists()
    filler.unlink()
    assert upload().status_code == 202
    assert Artwork.objects.get().state == "ready"


def test_a_file_that_finds_no_room_is_no_verdict_and_is_made_once_there_is(
    small_disk: Path, place: Any, bring: Bring, signed_in: Any
) -> None:
    entry = place(size={"width": 1200, "height": 900}, max_bytes=None)
    bring("photo.jpg", saved(photo(1200, 900), "JPEG", quality=70))
    filler = small_disk / "filler"
    artwork = Artwork.objects.get()
    filler.write_bytes(bytes(1_980_000 - sum(path.stat().st_size for path in stored(small_disk))))
    with pytest.raises(StorageFullError):
        send(signed_in, "post", "workspaces/juno/fits", {"artwork": str(artwork.pk), "placements": [str(entry.pk)]})
        make_file(Fit.objects.get().pk)
    assert not Rendition.objects.exists()
    assert wall_proofs(signed_in, "juno")["Test place"]["state"] == "working"
    assert not list(small_disk.rglob(f"{UNFINISHED}*"))
    filler.unlink()
    make_file(Fit.objects.get().pk)
    assert wall_proofs(signed_in, "juno")["Test place"]["state"] == "fits"


def test_a_process_that_is_killed_while_it_writes_leaves_no_file_of_that_name(tmp_path: Path) -> None:
    script = """
import os, signal, sys
import django
from django.conf import settings
settings.configure()
from django.core.files.base import File
from fitzle.apps.files.storage import DurableFileSystemStorage
class Killed(File):
    def chunks(self, chunk_size=None):
        yield b"x" * 100_000
        os.kill(os.getpid(), signal.SIGKILL)
DurableFileSystemStorage(sys.argv[1]).save("made/1/ab/abc", Killed(None))
"""
    environment = {**os.environ, "PYTHONPATH": "src"}
    ended = subprocess.run([sys.executable, "-c", script, str(tmp_path)], check=False, env=environment)
    assert ended.returncode == -signal.SIGKILL
    assert [path.name.startswith(UNFINISHED) for path in stored(tmp_path)] == [True]


def test_what_was_half_written_by_an_older_version_is_healed_by_the_same_upload(juno: Any) -> None:
    data = saved(disc(), "PNG")
    sha256, _ = keep_by_content(Shelf.ORIGINALS, juno[1].pk, [data])
    Path(default_storage.path(kept_path(Shelf.ORIGINALS, juno[1].pk, sha256))).write_bytes(data[:200])
    assert read(Shelf.ORIGINALS, juno[1].pk, sha256) is None
    KeptFile.objects.all().delete()  # as an older version left it
    assert read(Shelf.ORIGINALS, juno[1].pk, sha256) is None, "its name says that it is not whole"
    assert keep_by_content(Shelf.ORIGINALS, juno[1].pk, [data[:100], data[100:]]) == (sha256, len(data))
    assert read(Shelf.ORIGINALS, juno[1].pk, sha256, check=True) == data


@pytest.mark.parametrize("harm", ["emptied", "one bit", "taken away"])
def test_a_made_file_that_was_damaged_is_not_delivered_but_made_anew(
    made: tuple[Fit, Path], signed_in: Any, run: Any, harm: str
) -> None:
    _, path = made
    whole = path.read_bytes()
    if harm == "taken away":
        path.unlink()
    else:
        path.write_bytes(b"" if harm == "emptied" else bytes([whole[0] ^ 1]) + whole[1:])
    answer = deliver(signed_in, {})
    assert answer.status_code == 201 and path.read_bytes() == whole
    assert [one["state"] for one in signed_in.get("/api/workspaces/juno/deliveries").json()[0]["files"]] == ["done"]
    file = answer.json()["files"][0]["id"]
    got = signed_in.get(f"/api/workspaces/juno/deliveries/files/{file}")
    assert got.content == whole


def test_a_delivered_file_that_was_lost_is_told_so_and_made_again(
    made: tuple[Fit, Path], signed_in: Any, run: Any
) -> None:
    _, path = made
    whole = path.read_bytes()
    answer = deliver(signed_in, {}).json()
    path.write_bytes(whole[:-1])
    one, all_ = f"files/{answer['files'][0]['id']}", f"{answer['id']}/zip"
    with run(execute=True):
        for address in (one, all_):
            got = signed_in.get(f"/api/workspaces/juno/deliveries/{address}")
            assert got.status_code == 422 and "lost or damaged" in got.json()["message"]
    assert signed_in.get(f"/api/workspaces/juno/deliveries/{one}").content == whole


def test_an_original_is_sent_in_pieces_and_only_as_it_came(bring: Bring, signed_in: Any, juno: Any) -> None:
    data = saved(photo(), "PNG")
    artwork = bring("photo.png", data)
    address = f"/api/workspaces/juno/artwork/{artwork['id']}/original"
    answer = signed_in.get(address)
    assert answer.streaming and b"".join(answer.streaming_content) == data
    assert "photo.png" in answer["Content-Disposition"] and "sandbox" in answer["Content-Security-Policy"]
    path = Path(default_storage.path(kept_path(Shelf.ORIGINALS, juno[1].pk, hashlib.sha256(data).hexdigest())))
    path.write_bytes(data[:-1] + bytes([data[-1] ^ 1]))
    assert signed_in.get(address).status_code == 422
    path.unlink()
    assert signed_in.get(address).status_code == 404


def test_a_working_copy_that_was_lost_is_made_again(bring: Bring, signed_in: Any) -> None:
    artwork = bring("photo.jpg", saved(photo(3000, 2000), "JPEG"))
    [note] = KeptFile.objects.filter(shelf=Shelf.WORKING)
    Path(default_storage.path(note.path)).unlink()
    picture = signed_in.get(f"/api/workspaces/juno/artwork/{artwork['id']}/picture?width=300")
    assert picture.status_code == 200
    assert read(Shelf.WORKING, note.workspace_id, note.key) is not None


def test_a_kept_file_is_read_only_as_it_was_written(juno: Any) -> None:
    keep(Shelf.COSTLY, juno[1].pk, "abc", b"one")
    keep(Shelf.COSTLY, juno[1].pk, "abc", b"another")
    assert read(Shelf.COSTLY, juno[1].pk, "abc") == b"another"
    path = Path(default_storage.path(kept_path(Shelf.COSTLY, juno[1].pk, "abc")))
    path.write_bytes(b"anothex")
    assert read(Shelf.COSTLY, juno[1].pk, "abc", check=True) is None
    with pytest.raises(DamagedFileError):
        open_checked(Shelf.COSTLY, juno[1].pk, "abc", check=True)
    with pytest.raises(FileNotFoundError):
        open_checked(Shelf.COSTLY, juno[1].pk, "xyz")


def test_all_kept_files_are_checked_by_one_command(made: tuple[Fit, Path], run: Any) -> None:
    _, path = made
    whole = path.read_bytes()

    def checked(*options: str) -> tuple[int, str]:
        said = StringIO()
        try:
            with run(execute=True):
                call_command("check_files", *options, stdout=said)
        except SystemExit as ended:
            return int(str(ended.code)), said.getvalue()
        return 0, said.getvalue()

    assert checked()[0] == 0
    original = KeptFile.objects.get(shelf=Shelf.ORIGINALS)
    path.write_bytes(whole[:-1])
    Path(default_storage.path(original.path)).unlink()
    KeptFile.objects.filter(shelf=Shelf.MADE).delete()  # as an older version left it
    stranger, words = checked()
    assert stranger == 1 and f"{path.name}: is not what its name says" in words
    KeptFile.objects.create(
        workspace=original.workspace, shelf=Shelf.MADE, key=path.name, bytes=len(whole), sha256=path.name
    )
    code, words = checked()
    assert code == 1 and "--mend" in words
    assert f"{original.path}: is not there; only a backup has it" in words
    Path(default_storage.path(original.path)).write_bytes(saved(disc(), "PNG"))
    code, words = checked("--mend")
    assert code == 1 and "it is made anew" in words
    assert path.read_bytes() == whole
    assert checked()[0] == 0
