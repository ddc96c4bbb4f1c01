"""Finding artwork again: names, tags, pictures of the same thing, places of use; newer files and earlier ones."""

from collections.abc import Callable
from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image

from tests.apps.helpers import Bring, send, upload, wall_proofs
from tests.make import disc, opened, photo, saved

pytestmark = pytest.mark.django_db
ARTWORK = "/api/workspaces/juno/artwork"


@pytest.fixture
def replace(signed_in: Any, run: Any) -> Callable[..., Any]:
    """Gives an artwork a newer file and has the workers read it."""

    def replaced(artwork: str, name: str, data: bytes) -> Any:
        with run(execute=True):
            return signed_in.post(f"{ARTWORK}/{artwork}/newer", {"file": SimpleUploadedFile(name, data)})

    return replaced


def listed(client: Any, artwork: str) -> Any:
    return next(entry for entry in client.get(ARTWORK).json() if entry["id"] == artwork)


SCENE = photo(600, 400)


def sized(width: int, height: int, quality: int = 90) -> bytes:
    return saved(SCENE.resize((width, height), Image.BICUBIC), "JPEG", quality=quality)


def test_the_same_file_twice_is_recognised(bring: Bring) -> None:
    first = bring("a.jpg", sized(600, 400))
    second = bring("b.jpg", sized(600, 400))
    assert second["alike"] == [{"id": first["id"], "name": "a.jpg", "relation": "the same file"}]


def test_a_larger_one_of_the_same_picture_is_pointed_out(signed_in: Any, bring: Bring) -> None:
    small = bring("small.jpg", sized(150, 100, 50))
    large = bring("large.jpg", sized(600, 400))
    assert [(one["name"], one["relation"]) for one in large["alike"]] == [("small.jpg", "smaller")]
    assert [(one["name"], one["relation"]) for one in listed(signed_in, small["id"])["alike"]] == [
        ("large.jpg", "larger")
    ]


def test_an_enlarged_one_is_no_larger(bring: Bring) -> None:
    smooth = disc(1200, margin=90, ground="#ffffff").resize((300, 300), Image.LANCZOS)
    small = saved(smooth, "PNG")
    bring("logo.png", small)
    large = saved(smooth.resize((1200, 1200), Image.BICUBIC), "PNG")
    assert [(one["name"], one["relation"]) for one in bring("logo-large.png", large)["alike"]] == [
        ("logo.png", "as large")
    ]


def test_other_pictures_are_not_alike(bring: Bring) -> None:
    bring("a.jpg", sized(600, 400))
    assert bring("b.jpg", saved(photo(600, 400, seed=99), "JPEG"))["alike"] == []
    assert bring("cut.jpg", saved(SCENE.crop((0, 0, 400, 400)), "JPEG"))["alike"] == []


def test_pictures_of_another_workspace_are_nobody_elses_business(bring: Bring, make_person: Any, run: Any) -> None:
    from django.test import Client

    bring("a.jpg", sized(600, 400))
    client = Client()
    client.force_login(make_person("mallory")[0], "django.contrib.auth.backends.ModelBackend")
    theirs = upload(client, "mallory", "a.jpg", sized(600, 400), "", run)
    assert theirs["alike"] == []


@pytest.mark.parametrize(
    ("given", "kept"),
    [
        (["logo", " logo ", "spring  2026", ""], ["logo", "spring 2026"]),
        (["x" * 90], ["x" * 40]),
        ([str(number) for number in range(30)], [str(number) for number in range(20)]),
        ([], []),
    ],
)
def test_tags_are_tidied(signed_in: Any, bring: Bring, given: list[str], kept: list[str]) -> None:
    artwork = bring("a.png", saved(disc(), "PNG"))["id"]
    answer = send(signed_in, "patch", f"workspaces/juno/artwork/{artwork}", {"tags": given})
    assert answer.json()["tags"] == kept
    assert listed(signed_in, artwork)["name"] == "a.png"


def test_the_places_of_use_are_named(signed_in: Any, bring: Bring, place: Any) -> None:
    entry = place(destination="Web shop")
    artwork = bring("a.jpg", sized(600, 400), str(entry.pk))["id"]
    assert listed(signed_in, artwork)["used_in"] == ["Web shop, Test place"]


def test_a_newer_file_stands_in_all_places_and_keeps_name_tags_and_steps(
    signed_in: Any, bring: Bring, place: Any, replace: Callable[..., Any], run: Any
) -> None:
    entry = place(destination="Here")
    artwork = bring("a.jpg", sized(600, 400), str(entry.pk))["id"]
    send(signed_in, "patch", f"workspaces/juno/artwork/{artwork}", {"name": "Front", "tags": ["logo"]})
    body = {"revision": 0, "document": {"steps": [{"id": "a", "kind": "turn"}]}, "step": "turn"}
    with run(execute=True):
        send(signed_in, "put", f"workspaces/juno/artwork/{artwork}/preparation", body)
    before = wall_proofs(signed_in, "juno")["Test place"]["key"]
    assert replace(artwork, "a2.jpg", saved(photo(640, 300, seed=5), "JPEG")).status_code == 202
    after = listed(signed_in, artwork)
    assert (after["name"], after["tags"], after["facts"]["width"]) == ("Front", ["logo"], 640)
    assert (after["prepared_facts"]["width"], after["prepared_facts"]["height"]) == (300, 640)
    assert [entry["name"] for entry in after["earlier"]] == ["Front"]
    proof = wall_proofs(signed_in, "juno")["Test place"]
    assert proof["key"] != before
    assert proof["state"] != "working"
    assert len(signed_in.get(ARTWORK).json()) == 1


def read_but_not_replacing(juno: Any, target: str) -> Any:
    """A newer file between being read and standing for its artwork: pages ask in such moments too."""
    from fitzle.apps.artwork.intake import bring_in, take_in

    newer = bring_in(juno[1], juno[0], "newer.jpg", [sized(640, 300)], [], {"replaces": target})
    take_in(newer.pk)
    return newer


def test_a_newer_file_is_on_its_way_until_it_stands_for_its_artwork(signed_in: Any, juno: Any, bring: Bring) -> None:
    """Told "ready" in between, a page asked no more and showed the file before for ever."""
    first = bring("a.jpg", sized(600, 400))["id"]
    newer = read_but_not_replacing(juno, first)
    newer.refresh_from_db()
    assert newer.state == "ready"
    assert listed(signed_in, str(newer.pk))["state"] == "reading"
    assert listed(signed_in, first)["state"] == "ready"


def test_a_newer_file_whose_artwork_is_gone_becomes_its_own(signed_in: Any, juno: Any) -> None:
    from fitzle.apps.artwork.intake import settle_newer

    newer = read_but_not_replacing(juno, "5a0f0000-0000-4000-8000-000000000000")
    newer.refresh_from_db()
    assert settle_newer(newer) is None
    assert listed(signed_in, str(newer.pk))["state"] == "ready"


def test_a_newer_file_whose_worker_died_becomes_its_own(signed_in: Any, juno: Any, bring: Bring) -> None:
    from fitzle.apps.artwork.intake import end_unread

    newer = read_but_not_replacing(juno, bring("a.jpg", sized(600, 400))["id"])
    end_unread(newer.pk)
    assert listed(signed_in, str(newer.pk))["state"] == "ready"


def test_an_earlier_file_is_brought_back(signed_in: Any, bring: Bring, replace: Callable[..., Any], run: Any) -> None:
    first = bring("a.jpg", sized(600, 400))
    replace(first["id"], "b.jpg", saved(photo(640, 300, seed=5), "JPEG"))
    with run(execute=True):
        answer = send(signed_in, "post", f"workspaces/juno/artwork/{first['id']}/earlier/0")
    assert answer.status_code == 202
    after = listed(signed_in, first["id"])
    assert (after["key"], after["facts"]["width"]) == (first["key"], 600)
    assert len(after["earlier"]) == 1
    assert send(signed_in, "post", f"workspaces/juno/artwork/{first['id']}/earlier/7").status_code == 404


def test_a_newer_file_that_cannot_be_read_changes_nothing(
    signed_in: Any, bring: Bring, replace: Callable[..., Any]
) -> None:
    first = bring("a.jpg", sized(600, 400))
    replace(first["id"], "broken.jpg", b"nothing")
    after = listed(signed_in, first["id"])
    assert (after["key"], after["earlier"]) == (first["key"], [])
    failed = next(entry for entry in signed_in.get(ARTWORK).json() if entry["name"] == "broken.jpg")
    assert failed["state"] == "failed"
    assert opened(signed_in.get(f"{ARTWORK}/{first['id']}/original").getvalue()).size == (600, 400)


def test_glyphs_are_found_and_become_marks(signed_in: Any, run: Any) -> None:
    found = signed_in.get("/api/workspaces/juno/glyphs?words=bicycle").json()
    assert found["count"] == len(found["glyphs"]) < 72
    assert "bike" in [glyph["name"] for glyph in found["glyphs"]]
    assert all(glyph["paths"] for glyph in found["glyphs"])
    with run(execute=True):
        answer = send(signed_in, "post", "workspaces/juno/glyphs", {"name": "bike", "stroke": 1.5})
    mark = listed(signed_in, answer.json()["id"])
    assert (mark["name"], mark["facts"]["kind"], mark["facts"]["vector"]) == ("bike.svg", "mark", True)
    assert mark["facts"]["colours"][0]["hex"] == "#17443c"  # the first colour of the house
    assert b'stroke-width="1.5"' in signed_in.get(f"{ARTWORK}/{mark['id']}/original").getvalue()


@pytest.mark.parametrize(
    "body", [{"name": "no-such-thing"}, {"name": "bike", "stroke": 99}, {"name": "bike", "colour": "greenish"}]
)
def test_a_glyph_that_cannot_be_is_said(signed_in: Any, body: dict[str, Any]) -> None:
    assert send(signed_in, "post", "workspaces/juno/glyphs", body).status_code == 422


def test_glyphs_come_a_page_at_a_time(signed_in: Any) -> None:
    first = signed_in.get("/api/workspaces/juno/glyphs?style=filled").json()
    next_ones = signed_in.get("/api/workspaces/juno/glyphs?style=filled&start=72").json()
    assert len(first["glyphs"]) == 72 < first["count"]
    assert {one["name"] for one in first["glyphs"]}.isdisjoint(one["name"] for one in next_ones["glyphs"])
