"""A mark's versions for light and dark grounds: joined, chosen by contrast, and artwork put away."""

from typing import Any

import pytest

from fitzle.apps.pieces.fits import place as fill
from fitzle.apps.pieces.making import make_file
from fitzle.apps.pieces.models import Fit
from fitzle.apps.pieces.opening import decided, open_fit
from tests.apps.helpers import send, upload
from tests.make import photo, saved, svg

pytestmark = pytest.mark.django_db
DARK_INK = svg('<circle cx="50" cy="25" r="20" fill="#102a2a"/>')
LIGHT_INK = svg('<circle cx="50" cy="25" r="20" fill="#f4efe4"/>')


@pytest.fixture
def marks(signed_in: Any, run: Any) -> dict[str, Any]:
    return {
        name: upload(signed_in, "juno", f"{name}.svg", data, run=run)["id"]
        for name, data in (("ink", DARK_INK), ("paper", LIGHT_INK))
    }


def join(client: Any, one: str, other: str | None) -> Any:
    return send(client, "put", f"workspaces/juno/artwork/{one}/version-of", {"artwork": other})


def shown(client: Any, artwork: str) -> Any:
    listed = client.get("/api/workspaces/juno/artwork").json()
    return next(entry for entry in listed if entry["id"] == artwork)


def standing(space: Any, fit: Fit) -> str:
    """The name of the artwork that really stands in a fit."""
    opened = open_fit(space, Fit.objects.get(pk=fit.pk))
    assert opened.sources(preview=True)
    return str(opened.standing_in(opened.planned.plan.artworks[0].artwork).name)


def test_the_version_with_contrast_stands_on_each_ground(signed_in: Any, juno: Any, place: Any, marks: Any) -> None:
    light, dark = place(name="Page", grounds=["#ffffff"]), place(name="Night", grounds=["#101214"])
    fits = fill(juno[1], juno[0], marks["ink"], [str(light.pk), str(dark.pk)])
    by_ground = {fit.placement.spec.name: fit for fit in fits}
    assert {standing(juno[1], fit) for fit in fits} == {"ink.svg"}
    before = open_fit(juno[1], by_ground["Night"]).file_key
    assert join(signed_in, marks["paper"], marks["ink"]).status_code == 204
    assert standing(juno[1], by_ground["Page"]) == "ink.svg"
    assert standing(juno[1], by_ground["Night"]) == "paper.svg"
    opened = open_fit(juno[1], by_ground["Night"])
    findings = decided(juno[1], opened).findings
    note = next(finding for finding in findings if finding.rule == "version")
    assert note.severity == "note" and float(note.measured) > 10 and float(note.limit) < 3
    assert opened.file_key != before, "the file is out of date"
    assert not any(finding.rule == "contrast" for finding in findings)
    for fit in fits:
        make_file(fit.pk)
    view = signed_in.get(f"/api/workspaces/juno/fits/{by_ground['Night'].pk}").json()
    assert {entry["state"] for entry in view["rail"]} == {"fits"}, "the files are of this very state"
    assert view["parts"][-1]["name"] == "paper.svg"


def test_a_mark_parted_from_its_version_stands_alone_again(signed_in: Any, juno: Any, place: Any, marks: Any) -> None:
    [fit] = fill(juno[1], juno[0], marks["ink"], [str(place(grounds=["#101214"]).pk)])
    join(signed_in, marks["paper"], marks["ink"])
    assert standing(juno[1], fit) == "paper.svg"
    assert {one["name"] for one in shown(signed_in, marks["ink"])["versions"]} == {"ink.svg", "paper.svg"}
    join(signed_in, marks["ink"], None)
    assert standing(juno[1], fit) == "ink.svg"
    assert [one["name"] for one in shown(signed_in, marks["ink"])["versions"]] == ["ink.svg"]


def test_only_marks_have_versions(signed_in: Any, marks: Any, run: Any) -> None:
    picture = upload(signed_in, "juno", "a.jpg", saved(photo(), "JPEG"), run=run)["id"]
    answer = join(signed_in, picture, marks["ink"])
    assert answer.status_code == 422
    assert "only marks" in answer.json()["message"]
    assert shown(signed_in, picture)["versions"] == []


def test_a_version_for_dark_grounds_is_made_and_joined(signed_in: Any, marks: Any, run: Any) -> None:
    with run(execute=True):
        answer = send(signed_in, "post", f"workspaces/juno/artwork/{marks['ink']}/dark-version")
    assert answer.status_code == 201, answer.content
    made = shown(signed_in, answer.json()["id"])
    assert made["name"] == "ink, for dark grounds.svg"
    by_name = {one["name"]: one["showing"] for one in made["versions"]}
    assert not by_name["ink.svg"]["shows_on_dark"]
    assert by_name["ink, for dark grounds.svg"]["shows_on_dark"]
    house = signed_in.get("/api/workspaces/juno/house-style").json()
    mark = next(entry for entry in house["marks"] if entry["versions"] == 2)
    assert (mark["light"]["name"], mark["dark"]["name"]) == ("ink.svg", "ink, for dark grounds.svg")
    again = send(signed_in, "post", f"workspaces/juno/artwork/{marks['paper']}/dark-version")
    assert again.status_code == 422
    assert "stand out" in again.json()["message"]


def test_joining_a_mark_brings_its_versions_along(signed_in: Any, marks: Any, juno: Any) -> None:
    from fitzle.apps.artwork.models import Artwork
    from fitzle.apps.artwork.versions import versions_with

    third = Artwork.objects.get(pk=marks["ink"])
    third.pk = None
    third.save()
    join(signed_in, marks["paper"], marks["ink"])
    join(signed_in, marks["ink"], str(third.pk))
    assert versions_with(juno[1], marks["paper"]) == {marks["ink"], marks["paper"], str(third.pk)}
    join(signed_in, str(third.pk), None)
    assert versions_with(juno[1], marks["paper"]) == {marks["ink"], marks["paper"]}


def test_another_workspace_s_mark_cannot_be_joined(signed_in: Any, make_person: Any, marks: Any) -> None:
    from fitzle.apps.artwork.intake import bring_in

    user, space = make_person("noor")
    theirs = bring_in(space, user, "theirs.svg", [svg()], [])
    assert join(signed_in, marks["ink"], str(theirs.pk)).status_code == 404
    assert join(signed_in, str(theirs.pk), marks["ink"]).status_code == 404
    assert send(signed_in, "post", f"workspaces/juno/artwork/{theirs.pk}/dark-version").status_code == 404


def test_artwork_is_put_away_and_brought_back(signed_in: Any, juno: Any, place: Any, marks: Any) -> None:
    [fit] = fill(juno[1], juno[0], marks["ink"], [str(place().pk)])
    path = f"workspaces/juno/artwork/{marks['ink']}"
    assert send(signed_in, "patch", path, {"put_away": True}).json()["put_away"] is True
    house = signed_in.get("/api/workspaces/juno/house-style").json()
    assert [mark["name"] for mark in house["marks"]] == ["paper.svg"]
    assert standing(juno[1], fit) == "ink.svg", "what shows it goes on"
    assert shown(signed_in, marks["ink"])["put_away"] is True
    assert send(signed_in, "patch", path, {"put_away": False}).json()["put_away"] is False
