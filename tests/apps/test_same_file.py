"""The server and the command line make the same bytes of the same document."""

import json
from pathlib import Path
from typing import Any

import pytest

from fitzle.apps.artwork.library import artwork_named
from fitzle.apps.files.keeping import read
from fitzle.apps.files.shelves import Shelf
from fitzle.apps.pieces.making import made_bytes, make_file
from fitzle.apps.pieces.models import Fit
from fitzle.apps.pieces.opening import open_fit
from fitzle.cli import main
from tests.apps.helpers import send
from tests.make import photo, saved, svg

pytestmark = pytest.mark.django_db
MARKS = {
    "ink.svg": svg('<circle cx="50" cy="25" r="20" fill="#102a2a"/>'),
    "paper.svg": svg('<circle cx="50" cy="25" r="20" fill="#f4efe4"/>'),
}
PLACES = {
    "on a light page": {"grounds": ["#ffffff"], "formats": ["png"]},
    "on a dark page": {"grounds": ["#101214"], "formats": ["png"]},
    "under a limit": {"grounds": ["#101214"], "formats": ["jpeg"], "max_bytes": 9_000},
    "cut to a circle": {"cut": {"shape": "circle"}, "size": {"width": 96, "height": 64}, "formats": ["png"]},
}


@pytest.fixture
def composed(signed_in: Any, bring: Any) -> Any:
    """A mark with a version for dark grounds and automatic words, with an adjustment at one place: ids of artwork."""
    ids = {name: bring(name, data)["id"] for name, data in MARKS.items()}
    body = {"artwork": ids["ink.svg"]}
    assert send(signed_in, "put", f"workspaces/juno/artwork/{ids['paper.svg']}/version-of", body).status_code == 204
    ids["hills.jpg"] = bring("hills.jpg", saved(photo(), "JPEG"))["id"]
    return ids


def changed(client: Any, fit: Any, part: str, here: bool = True, **fields: Any) -> None:
    """Changes one part of a fit's piece, in this place alone or everywhere."""
    view = client.get(f"/api/workspaces/juno/fits/{fit.pk}").json()
    values = [{"part": part, "field": name, "value": value} for name, value in fields.items()]
    body = {"revision": view["piece"]["revision"], "step": "as asked", "everywhere": not here, "values": values}
    answer = send(client, "patch", f"workspaces/juno/fits/{fit.pk}", body)
    assert answer.status_code == 200, answer.content


def piece_file(folder: Path, fit: Any, house: tuple[str, ...]) -> Path:
    """The piece as a file beside its artwork, as somebody keeps it who has no Fitzle running."""
    document = dict(Fit.objects.get(pk=fit.pk).piece.document)
    opened = open_fit(fit.piece.workspace, fit)
    names = {}
    for name in opened.resolved.request.artworks:
        artwork = artwork_named(name)
        assert artwork is not None
        names[name] = artwork.name
        data = read(Shelf.ORIGINALS, artwork.workspace_id, artwork.sha256)
        (folder / artwork.name).write_bytes(data or b"")
    text = json.dumps(document | {"house": list(house)})
    for identity, name in names.items():
        text = text.replace(identity, name)
    versions = {names[one]: [names[other] for other in found] for one, found in opened.resolved.versions.items()}
    path = folder / "piece.json"
    path.write_text(json.dumps(json.loads(text) | {"versions": versions}))
    return path


@pytest.mark.parametrize("name", PLACES)
def test_the_same_file_is_made_of_the_same_document(
    name: str, signed_in: Any, juno: Any, place: Any, composed: Any, tmp_path: Path, capsys: Any
) -> None:
    placement = place(name=name, destination="Own page", **PLACES[name])
    body = {"artwork": composed["ink.svg"], "placements": [str(placement.pk)]}
    assert send(signed_in, "post", "workspaces/juno/fits", body).status_code == 201
    fit = Fit.objects.get(placement=placement)
    new = {"revision": fit.piece.revision, "role": "headline"}
    assert send(signed_in, "post", f"workspaces/juno/fits/{fit.pk}/parts", new).status_code == 200
    mark = next(part["id"] for part in fit.piece.document["parts"] if part["role"] == "mark")
    changed(signed_in, fit, mark, padding={"value": 3.0, "unit": "px"})
    fit = Fit.objects.get(pk=fit.pk)
    assert fit.piece.document["adjustments"], "it differs in this place"

    make_file(fit.pk)
    kept = open_fit(juno[1], fit).rendition.files[0]
    (tmp_path / "sheet.json").write_text(placement.spec.model_dump_json())
    piece = piece_file(tmp_path, fit, ("#17443c",))
    out = tmp_path / "out"
    code = main(["render", str(piece), "--spec", str(tmp_path / "sheet.json"), "--out", str(out), "--json"])
    answer = json.loads(capsys.readouterr().out)
    assert code == 0, answer
    assert any(one["rule"] == "version" for one in answer["findings"]) == (name == "on a dark page")
    assert Path(answer["file"]).read_bytes() == made_bytes(juno[1], kept["sha256"])
