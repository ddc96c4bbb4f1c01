"""`./manage check_files`: every kept file against its weight and hash."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from fitzle.apps.files.checking import Damage, count_kept, damaged_files, note_strangers
from fitzle.apps.jobs.mending import MENDABLE, mend


class Command(BaseCommand):
    help = "Compares every kept file with its weight and hash; ends with 1 where one is lost or damaged."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--mend", action="store_true", help="have made anew what can be made anew")

    def handle(self, *args: Any, **options: Any) -> None:
        strangers = list(note_strangers())
        for path in strangers:
            self.stdout.write(f"{path}: is not what its name says")
        damaged = list(damaged_files())
        for damage in damaged:
            self.stdout.write(f"{damage.words}{self._answer(damage, options['mend'])}")
        self.stdout.write(
            f"{count_kept()} files were checked, {len(damaged) + len(strangers)} of them are lost or damaged."
        )
        if damaged or strangers:
            raise SystemExit(1)

    def _answer(self, damage: Damage, wanted: bool) -> str:
        if damage.shelf not in MENDABLE:
            return "; only a backup has it"
        if not wanted:
            return "; it can be made anew: --mend"
        mend(damage)
        return "; it is made anew"
