"""A composed piece as a run."""

from typing import Any

import pytest

from tests.apps.helpers import send
from tests.apps.run_table import Table


@pytest.fixture
def piece(signed_in: Any, place: Any, run: Any) -> str:
    """A composed piece in one place: words and no picture."""
    seen = [{"name": "list", "width": 320}]
    card = place(name="Lesson card", size={"width": 640, "height": 360}, transparency="forbidden", seen=seen)
    with run(execute=True):
        path = f"workspaces/juno/placements/{card.pk}/pieces"
        fit = send(signed_in, "post", path, {"starting_point": 0}).json()
    return str(fit["piece"]["id"])


@pytest.fixture
def table(signed_in: Any, run: Any, piece: str) -> Table:
    table = Table(signed_in, run, piece)
    assert table.ask("post").status_code == 201
    return table
