"""`./manage restore FILE`."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from fitzle.apps.jobs.backup import read_backup


class Command(BaseCommand):
    help = "Puts what a backup holds in the place of the database and the files that are here."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("source", type=Path, help="a file that ./manage backup wrote")
        parser.add_argument("--replace", action="store_true", help="also where there are workspaces already")

    def handle(self, *args: Any, **options: Any) -> None:
        if not options["source"].is_file():
            raise CommandError(f"there is no file {options['source']}")
        counted = read_backup(options["source"], replace=options["replace"])
        self.stdout.write(f"The database and {counted.files} files are back, each as it was when it was kept.")
        for damaged in counted.damaged:
            self.stdout.write(f"{damaged}: is not in the backup, or damaged there.")
        if counted.damaged:
            raise SystemExit(1)
