"""`./manage clear_away`: takes away what nobody has needed for a while."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from fitzle.apps.jobs.clearing import clear_away
from fitzle.core.units import words_for_bytes


class Command(BaseCommand):
    help = "Takes away what no document, history or delivery has needed for a while; the workers do so once a day."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--days", type=float, help="for how long it was not needed (FITZLE_KEPT_DAYS, 30)")

    def handle(self, *args: Any, **options: Any) -> None:
        found = clear_away(options["days"])
        self.stdout.write(
            f"{found.files} files ({words_for_bytes(found.bytes)}), {found.artwork} artworks and"
            f" {found.renditions} renditions are gone."
        )
