"""The whole database as SQL, by MariaDB's own tools."""

from __future__ import annotations

import os
import subprocess
from pathlib import Path
from typing import IO

from django.conf import settings
from django.core.management.base import CommandError
from django.db import connection


def dump_database(out: IO[bytes]) -> None:
    """Writes all tables as they are at one moment, while Fitzle goes on working."""
    _run(
        ["mariadb-dump", *_where(), "--single-transaction", "--quick", "--skip-lock-tables", "--hex-blob", _name()], out
    )


def load_database(path: Path) -> None:
    """Puts the tables of a dump in the place of those that are there."""
    with connection.cursor() as cursor:
        tables = connection.introspection.table_names(cursor)
        cursor.execute("SET FOREIGN_KEY_CHECKS = 0")
        for table in tables:
            cursor.execute(f"DROP TABLE {connection.ops.quote_name(table)}")
        cursor.execute("SET FOREIGN_KEY_CHECKS = 1")
    connection.close()
    with path.open("rb") as sql:
        _run(["mariadb", *_where(), _name()], None, sql)


def _name() -> str:
    return str(connection.settings_dict["NAME"])


def _where() -> list[str]:
    known = connection.settings_dict
    place = str(known["HOST"])
    host = [f"--socket={place}"] if place.startswith("/") else [f"--host={place}", f"--port={known['PORT']}"]
    return ["--no-defaults", *host, f"--user={known['USER']}", "--default-character-set=utf8mb4"]


def _run(command: list[str], out: IO[bytes] | None, given: IO[bytes] | None = None) -> None:
    environment = {**os.environ, "MYSQL_PWD": str(settings.DATABASES["default"]["PASSWORD"])}
    done = subprocess.run(command, stdin=given, stdout=out, stderr=subprocess.PIPE, env=environment, check=False)
    if done.returncode:
        raise CommandError(f"{command[0]} failed: {done.stderr.decode(errors='replace').strip()[-400:]}")
