"""`./manage backup FILE-OR-FOLDER`."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from fitzle.apps.jobs.backup import write_backup
from fitzle.core.units import words_for_bytes


class Command(BaseCommand):
    help = "Writes the database and all files into one file, while Fitzle goes on working."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("target", type=Path, help="a file to write, or a folder for one named by the moment")

    def handle(self, *args: Any, **options: Any) -> None:
        path, counted = write_backup(options["target"])
        self.stdout.write(f"{path}: the database and {counted.files} files, {words_for_bytes(counted.bytes)}.")
        for damaged in counted.damaged:
            self.stdout.write(f"{damaged}: is lost or damaged and could not be kept as it was. ./manage check_files")
        if counted.damaged:
            raise SystemExit(1)
