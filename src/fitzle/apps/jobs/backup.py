"""A backup in one file, and all of it back again: the database at one moment, and every file that it names.

The file is a tar: manifest.json, database.sql, then files/SHELF/WORKSPACE/KEY. Nothing in it is packed: pictures are
packed already, and a tar can be looked into and repaired with what every system has.
"""

from __future__ import annotations

import hashlib
import io
import json
import os
import tarfile
import tempfile
from collections.abc import Iterator
from pathlib import Path
from typing import IO, Any, NamedTuple

from django.core.cache import cache
from django.core.files.base import File
from django.core.files.storage import default_storage
from django.core.management import call_command
from django.core.management.base import CommandError
from django.db import connection
from django.db.migrations.loader import MigrationLoader
from django.utils import timezone

from fitzle.apps.files.keeping import hash_of, kept_files, store_again
from fitzle.apps.jobs.database_dump import dump_database, load_database
from fitzle.apps.jobs.leases import release_all

FORMAT = 1
NO_BACKUP = "This is no backup of Fitzle, or it was cut off."
MANIFEST, DATABASE, FILES = "manifest.json", "database.sql", "files/"


class Counted(NamedTuple):
    """What a backup or a restore went over; `damaged` are files that were lost or damaged."""

    files: int
    bytes: int
    damaged: list[str]


def write_backup(target: Path) -> tuple[Path, Counted]:
    """Writes a backup to a file, or into a folder under the name of the moment; the name is there once it is whole."""
    if target.is_dir():
        target = target / f"fitzle-{timezone.now():%Y-%m-%d-%H%M%S}.tar"
    if target.exists():
        raise CommandError(f"{target} is there already. Give another name.")
    unfinished = target.with_name(f".{target.name}.unfinished")
    try:
        with tempfile.NamedTemporaryFile(dir=target.parent) as sql, unfinished.open("xb") as out:
            dump_database(sql)
            sql.seek(0)
            with tarfile.open(fileobj=out, mode="w") as archive:
                _add(archive, MANIFEST, json.dumps(_manifest(hash_of(sql)), indent=2).encode())
                _add_file(archive, DATABASE, sql)
                counted = _add_kept(archive)
            out.flush()
            os.fsync(out.fileno())
        unfinished.replace(target)
    finally:
        unfinished.unlink(missing_ok=True)
    return target, counted


def read_backup(source: Path, *, replace: bool) -> Counted:
    """Puts what a backup holds in the place of everything; an older version is brought up to date."""
    with _opened(source) as archive, tempfile.TemporaryDirectory(dir=source.parent) as folder:
        manifest = _checked_manifest(archive)
        if not replace and _in_use():
            raise CommandError("There are workspaces here already. --replace puts the backup in their place.")
        sql = Path(folder) / DATABASE
        _take_out(archive, DATABASE, sql, manifest["database_sha256"])
        load_database(sql)
        call_command("migrate", verbosity=0)
        release_all()
        cache.clear()
        return _take_out_kept(archive)


def _opened(source: Path) -> tarfile.TarFile:
    try:
        return tarfile.open(source)
    except tarfile.TarError as error:
        raise CommandError(NO_BACKUP) from error


def _manifest(database_sha256: str) -> dict[str, Any]:
    applied = sorted(f"{app}.{name}" for app, name in MigrationLoader(connection).applied_migrations)
    made_at = timezone.now().isoformat(timespec="seconds")
    return {"fitzle_backup": FORMAT, "made_at": made_at, "database_sha256": database_sha256, "migrations": applied}


def _checked_manifest(archive: tarfile.TarFile) -> dict[str, Any]:
    try:
        stream = archive.extractfile(MANIFEST)
        found: dict[str, Any] = json.load(stream) if stream else {}
    except (KeyError, ValueError, tarfile.TarError) as error:
        raise CommandError(NO_BACKUP) from error
    if found.get("fitzle_backup") != FORMAT:
        raise CommandError("This is no backup that this version of Fitzle can read.")
    known = {f"{app}.{name}" for app, name in MigrationLoader(connection).disk_migrations}
    newer = sorted(set(found["migrations"]) - known)
    if newer:
        raise CommandError(f"This backup is of a newer version ({newer[-1]}). Upgrade Fitzle first.")
    return found


def _in_use() -> bool:
    tables = connection.introspection.table_names()
    if "accounts_workspace" not in tables:
        return False
    with connection.cursor() as cursor:
        cursor.execute("SELECT 1 FROM accounts_workspace LIMIT 1")
        return cursor.fetchone() is not None


def _add_kept(archive: tarfile.TarFile) -> Counted:
    count, weight, damaged = 0, 0, list[str]()
    for note in kept_files():
        if not default_storage.exists(note.path) or default_storage.size(note.path) != note.bytes:
            damaged.append(note.path)
            continue
        with default_storage.open(note.path) as file:
            reading = _Hashed(file)
            _add_stream(archive, FILES + note.path, reading, note.bytes)
        if reading.digest.hexdigest() != note.sha256:
            damaged.append(note.path)
        count, weight = count + 1, weight + note.bytes
    return Counted(count, weight, damaged)


def _take_out_kept(archive: tarfile.TarFile) -> Counted:
    """All files, each compared with what the database says of it."""
    inside = {member.name: member for member in archive if member.isfile() and member.name.startswith(FILES)}
    count, weight, damaged = 0, 0, list[str]()
    for note in kept_files():
        member = inside.get(FILES + note.path)
        stream = archive.extractfile(member) if member else None
        if stream is None or not store_again(note, File(stream, note.key)):
            damaged.append(note.path)
            continue
        count, weight = count + 1, weight + note.bytes
    return Counted(count, weight, damaged)


def _take_out(archive: tarfile.TarFile, name: str, path: Path, sha256: str) -> None:
    stream = archive.extractfile(name)
    digest = hashlib.sha256()
    with path.open("wb") as out:
        for piece in _pieces(stream):
            digest.update(piece)
            out.write(piece)
    if digest.hexdigest() != sha256:
        raise CommandError("The database in this backup is damaged. Nothing was changed.")


def _pieces(stream: IO[bytes] | None) -> Iterator[bytes]:
    while stream and (piece := stream.read(1_000_000)):
        yield piece


def _add(archive: tarfile.TarFile, name: str, data: bytes) -> None:
    _add_stream(archive, name, io.BytesIO(data), len(data))


def _add_file(archive: tarfile.TarFile, name: str, file: Any) -> None:
    file.seek(0, os.SEEK_END)
    size = file.tell()
    file.seek(0)
    _add_stream(archive, name, file, size)


def _add_stream(archive: tarfile.TarFile, name: str, stream: Any, size: int) -> None:
    entry = tarfile.TarInfo(name)
    entry.size, entry.mtime = size, int(timezone.now().timestamp())
    archive.addfile(entry, stream)


class _Hashed:
    """A file that is hashed while somebody reads it."""

    def __init__(self, file: Any) -> None:
        self._file, self.digest = file, hashlib.sha256()

    def read(self, count: int = -1) -> bytes:
        data = bytes(self._file.read(count))
        self.digest.update(data)
        return data
