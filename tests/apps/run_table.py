"""A run over HTTP, as the pages use it."""

from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile

from tests.apps.helpers import send


class Table:
    """One run, and somebody who works on it."""

    def __init__(self, client: Any, run: Any, piece: str, slug: str = "juno") -> None:
        self.client, self.later, self.piece, self.path = client, run, piece, f"workspaces/{slug}/pieces/{piece}/run"

    def read(self) -> Any:
        return self.client.get(f"/api/{self.path}").json()

    def ask(self, method: str, tail: str = "", body: Any = None) -> Any:
        with self.later(execute=True):
            return send(self.client, method, self.path + tail, body)

    def change(self, *changes: Any, step: str = "change a cell") -> Any:
        return self.ask("patch", "", {"changes": list(changes), "step": step})

    def cell(self, row: str, field: str, text: str, had: str | None = None) -> Any:
        return self.change({"act": "cell", "row": row, "field": field, "text": text, "had": had})

    def add(self, **cells: str) -> Any:
        row = f"r{len(self.read()['rows'])}"
        return self.change({"act": "add", "entry": {"id": row, "cells": cells}}, step="add a row")

    def bring(self, name: str, data: bytes) -> Any:
        with self.later(execute=True):
            return self.client.post(f"/api/{self.path}/table", {"file": SimpleUploadedFile(name, data)})

    def seen(self) -> list[dict[str, Any]]:
        rows = ",".join(row["id"] for row in self.read()["rows"])
        return self.client.get(f"/api/{self.path}/seen?rows={rows}").json()  # type: ignore[no-any-return]

    def cells(self, field: str) -> list[str]:
        return [row["cells"].get(field, "") for row in self.read()["rows"]]


def words_of(table: Table) -> str:
    """The first field for words."""
    return next(one["name"] for one in table.read()["fields"] if one["kind"] == "words")
