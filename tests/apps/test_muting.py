"""A finding that is right as it is: muted for one fit with a reason, which stands in the record."""

import io
import json
import zipfile
from typing import Any
from urllib.parse import quote

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from fitzle.apps.pieces.models import Fit, Rendition
from tests.apps.helpers import content, deliver, send, upload, wall_proofs
from tests.core.judged import drawings
from tests.make import svg

pytestmark = pytest.mark.django_db
REASON = "The mark is meant to fade into the page."


@pytest.fixture
def fit(signed_in: Any, place: Any, run: Any) -> Any:
    """A dark mark on a dark page: risky."""
    entry = place(grounds=["#17181a"])
    upload(signed_in, "juno", "mark.svg", svg(), str(entry.pk), run)
    proof = wall_proofs(signed_in, "juno")["Test place"]
    assert (proof["state"], proof["why"].split()[0]) == ("risky", "reads")
    return proof["fit"]


def mute(client: Any, fit: str, rule: str = "contrast", reason: str = REASON) -> Any:
    return send(client, "put", f"workspaces/juno/fits/{fit}/muted/{rule}", {"reason": reason})


def state(client: Any) -> str:
    return str(wall_proofs(client, "juno")["Test place"]["state"])


def test_a_muted_finding_counts_no_more_and_is_still_said(signed_in: Any, fit: str) -> None:
    files = list(Rendition.objects.values_list("pk", "made_at"))
    found = mute(signed_in, fit).json()
    assert (found["state"], state(signed_in)) == ("fits", "fits")
    [contrast] = [one for one in found["findings"] if one["rule"] == "contrast"]
    assert contrast["muted"] == REASON
    assert found["findings"][-1]["muted"], "those that are left stand at the end"
    assert list(Rendition.objects.values_list("pk", "made_at")) == files, "no file is made anew"


def test_it_can_be_judged_again(signed_in: Any, fit: str) -> None:
    mute(signed_in, fit)
    assert signed_in.delete(f"/api/workspaces/juno/fits/{fit}/muted/contrast").json()["state"] == "risky"
    assert state(signed_in) == "risky"


@pytest.mark.parametrize(
    ("rule", "reason"),
    [
        ("size", REASON),
        ("bytes", REASON),
        ("nonsense", REASON),
        ("contrast", ""),
        ("contrast", "  "),
        ("contrast", "x" * 301),
    ],
)
def test_what_cannot_be_muted_is_refused(signed_in: Any, fit: str, rule: str, reason: str) -> None:
    assert mute(signed_in, fit, rule, reason).status_code == 422
    assert Fit.objects.get(pk=fit).muted == {}


def test_what_would_be_refused_is_refused_all_the_same(signed_in: Any, place: Any, run: Any) -> None:
    entry = place(size={"width": 1600, "height": 1600}, formats=["bmp"], max_bytes=70_000_000, grounds=["#17181a"])
    upload(signed_in, "juno", "mark.svg", svg(), str(entry.pk), run)
    sheet = {**signed_in.get(f"/api/workspaces/juno/places/{entry.pk}").json()["shown"]["sheet"], "max_bytes": 9000}
    with run(execute=True):
        send(signed_in, "patch", f"workspaces/juno/places/{entry.pk}", {"sheet": sheet})
    proof = wall_proofs(signed_in, "juno")["Test place"]
    assert proof["state"] == "refused"
    mute(signed_in, proof["fit"], "quality")
    assert state(signed_in) == "refused"


def test_the_record_says_what_was_left_and_why(signed_in: Any, fit: str) -> None:
    mute(signed_in, fit)
    delivery = deliver(signed_in, {}).json()
    [left] = delivery["files"][0]["muted"]
    assert (left["rule"], left["reason"]) == ("contrast", REASON)
    assert left["message"].startswith("The mark reads only")
    assert left["by"], "and who said so"
    data = content(signed_in.get(f"/api/workspaces/juno/deliveries/{delivery['id']}/zip"))
    manifest = json.loads(zipfile.ZipFile(io.BytesIO(data)).read("delivery.json"))
    assert manifest["files"][0]["accepted"] == [left]


def test_it_leaves_and_comes_back_with_the_workspace(signed_in: Any, fit: str, run: Any) -> None:
    mute(signed_in, fit)
    deliver(signed_in, {})
    data = b"".join(signed_in.get("/api/workspaces/juno/export").streaming_content)
    with run(execute=True):
        answer = signed_in.post("/api/workspaces/bring-in", {"file": SimpleUploadedFile("juno.zip", data)})
    slug = answer.json()["slug"]
    assert wall_proofs(signed_in, slug)["Test place"]["state"] == "fits"
    [delivery] = signed_in.get(f"/api/workspaces/{slug}/deliveries").json()
    assert delivery["files"][0]["muted"][0]["reason"] == REASON


def test_a_crest_loses_its_small_parts_in_one_place_by_a_click(signed_in: Any, place: Any, run: Any) -> None:
    icon = {"size": {"width": 64, "height": 64}, "formats": ["png"], "grounds": ["#ffffff"]}
    places = [
        place(name="Tab", **icon, seen=[{"name": "tab", "width": 16}]),
        place(name="Large", **icon, seen=[{"name": "head", "width": 240}]),
    ]
    data = drawings.crest(1, "#17443c", "#f4d06f").encode()
    upload(signed_in, "juno", "crest.svg", data, ",".join(str(entry.pk) for entry in places), run)
    fits = {name: proof["fit"] for name, proof in wall_proofs(signed_in, "juno").items()}
    before = signed_in.get(f"/api/workspaces/juno/fits/{fits['Tab']}").json()
    finding = next(one for one in before["findings"] if one["rule"] == "smudge")
    assert finding["offer"]["step"] == "simpler"
    with run(execute=True):
        answer = send(signed_in, "post", f"workspaces/juno/fits/{fits['Tab']}/simpler/{finding['part']}")
    assert answer.status_code == 200, answer.content
    after = signed_in.get(f"/api/workspaces/juno/fits/{fits['Tab']}").json()
    assert "smudge" not in {one["rule"] for one in after["findings"]} and after["state"] == "fits"
    large = signed_in.get(f"/api/workspaces/juno/fits/{fits['Large']}").json()
    assert large["here"]["mark"]["artwork"] == before["here"]["mark"]["artwork"], "elsewhere it stays whole"
    named = {one["name"] for one in signed_in.get("/api/workspaces/juno/artwork").json()}
    assert any(name.endswith("parts.svg") for name in named)
    again = send(signed_in, "post", f"workspaces/juno/fits/{fits['Tab']}/simpler/{finding['part']}")
    assert again.status_code == 422 and "does not help" in again.json()["message"]


@pytest.mark.parametrize(
    ("rule", "step", "drawn", "page"),
    [
        ("box", "cut out", drawings.boxed("#ffffff", "#b4541a"), "#17443c"),
        ("halo", "clean edge", drawings.cut_out("#ffffff", "#3c1e0a", 2), "#b9d8c2"),
    ],
)
def test_an_edge_is_mended_in_one_place_by_a_click(
    signed_in: Any, place: Any, run: Any, rule: str, step: str, drawn: bytes, page: str
) -> None:
    sheet = {"size": {"width": 256, "height": 256}, "formats": ["png"], "transparency": "allowed"}
    places = [place(name=name, **sheet, grounds=[page]) for name in ("Head", "Foot", "Other")]
    upload(signed_in, "juno", "mark.png", drawn, ",".join(str(entry.pk) for entry in places), run)
    fits = {name: proof["fit"] for name, proof in wall_proofs(signed_in, "juno").items()}

    def read(name: str) -> dict[str, Any]:
        return dict(signed_in.get(f"/api/workspaces/juno/fits/{fits[name]}").json())

    before = read("Head")
    finding = next(one for one in before["findings"] if one["rule"] == rule)
    assert finding["offer"]["step"] == step
    for name in ("Head", "Foot"):
        with run(execute=True):
            path = f"workspaces/juno/fits/{fits[name]}/prepared/{finding['part']}?step={quote(step)}"
            answer = send(signed_in, "post", path, {})
        assert answer.status_code == 200, answer.content
        assert rule not in {one["rule"] for one in read(name)["findings"]}
    assert read("Other")["here"]["mark"]["artwork"] == before["here"]["mark"]["artwork"], "elsewhere it stays"
    assert read("Head")["here"]["mark"]["artwork"] == read("Foot")["here"]["mark"]["artwork"], "one version, twice"
    assert len(signed_in.get("/api/workspaces/juno/artwork").json()) == 2
    wrong = send(signed_in, "post", f"workspaces/juno/fits/{fits['Head']}/prepared/{finding['part']}?step=polish", {})
    assert wrong.status_code == 422 and "polish" in wrong.json()["message"]
