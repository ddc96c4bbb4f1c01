"""Preparing artwork: steps saved, undone, shown at once, made by a worker; every fit that shows it follows."""

from collections.abc import Callable
from typing import Any

import numpy as np
import pytest
from demo.people import GUEST, person, room, together
from PIL import Image

from fitzle.core.artwork.steps.document import MOST_STEPS
from tests.apps.helpers import Bring, deliver, send, wall_proofs
from tests.make import disc, opened, photo, saved, svg

pytestmark = pytest.mark.django_db


@pytest.fixture
def prepare(signed_in: Any, run: Any) -> Callable[..., Any]:
    """Saves steps and has the workers make them; the preparation afterwards."""

    def saved_steps(artwork: str, *steps: dict[str, Any], revision: int | None = None) -> Any:
        path = f"workspaces/juno/artwork/{artwork}/preparation"
        if revision is None:
            revision = signed_in.get(f"/api/{path}").json()["revision"]
        numbered = [{"id": f"s{number}", **step} for number, step in enumerate(steps)]
        body = {"revision": revision, "document": {"steps": numbered}, "step": "try it"}
        with run(execute=True):
            answer = send(signed_in, "put", path, body)
        if answer.status_code != 200:
            return answer
        return signed_in.get(f"/api/{path}").json()

    return saved_steps


def listed(client: Any, artwork: str) -> Any:
    return next(entry for entry in client.get("/api/workspaces/juno/artwork").json() if entry["id"] == artwork)


def shown(client: Any, artwork: str, upto: int, width: int = 400) -> Image.Image:
    answer = client.get(f"/api/workspaces/juno/artwork/{artwork}/preparation/picture?upto={upto}&width={width}")
    assert answer.status_code == 200
    return opened(answer.content)


def test_steps_are_made_and_the_original_stays(signed_in: Any, bring: Bring, prepare: Callable[..., Any]) -> None:
    data = saved(photo(400, 300), "JPEG", quality=95)
    artwork = bring("photo.jpg", data)["id"]
    before = listed(signed_in, artwork)
    window = {"x": 0, "y": 0, "width": 0.5, "height": 1}
    view = prepare(artwork, {"kind": "crop", "window": window}, {"kind": "turn"})
    assert [step["size"] for step in view["steps"]] == [
        {"width": 200, "height": 300}, {"width": 300, "height": 200}]  # fmt: skip
    assert (view["working"], view["undo"], view["redo"]) == (False, "try it", None)
    after = listed(signed_in, artwork)
    assert (after["prepared_facts"]["width"], after["prepared_facts"]["height"]) == (300, 200)
    assert (after["facts"]["width"], after["facts"]["height"]) == (400, 300)
    assert after["key"] != before["key"]
    assert signed_in.get(f"/api/workspaces/juno/artwork/{artwork}/original").getvalue() == data
    assert opened(signed_in.get(f"/api/workspaces/juno/artwork/{artwork}/picture?width=300").content).size == (300, 200)


def test_each_step_is_shown_before_and_after(signed_in: Any, bring: Bring, prepare: Callable[..., Any]) -> None:
    artwork = bring("mark.png", saved(disc(200, "#17443c", 40, "#ffffff"), "PNG"))["id"]
    prepare(artwork, {"kind": "trim"}, {"kind": "cut out"})
    assert [shown(signed_in, artwork, upto).size for upto in range(3)] == [(200, 200), (120, 120), (120, 120)]
    assert shown(signed_in, artwork, 1).getpixel((1, 1)) == (255, 255, 255)
    assert shown(signed_in, artwork, 2).getpixel((1, 1))[3] == 0


def test_the_address_of_a_picture_changes_with_it(signed_in: Any, bring: Bring, prepare: Callable[..., Any]) -> None:
    artwork = bring("photo.png", saved(photo(80, 60), "PNG"))["id"]
    first = prepare(artwork, {"kind": "turn"})["steps"][0]["key"]
    assert prepare(artwork, {"kind": "turn", "quarters": 2})["steps"][0]["key"] != first
    path = f"/api/workspaces/juno/artwork/{artwork}/preparation/picture?upto=1&width=80"
    assert "immutable" not in signed_in.get(f"{path}&key={first}")["Cache-Control"]
    assert signed_in.get(f"{path.replace('upto=1', 'upto=9')}").status_code == 404


def test_undo_and_redo_go_through_the_steps(
    signed_in: Any, bring: Bring, prepare: Callable[..., Any], run: Any
) -> None:
    artwork = bring("photo.png", saved(photo(80, 60), "PNG"))["id"]
    prepare(artwork, {"kind": "turn"})
    prepare(artwork, {"kind": "turn"}, {"kind": "mirror"})
    path = f"workspaces/juno/artwork/{artwork}/preparation"
    kinds = []
    for way in ("undo", "undo", "undo", "redo", "redo", "redo"):
        with run(execute=True):
            view = send(signed_in, "post", f"{path}/history/{way}").json()
        kinds.append([step["kind"] for step in view["document"]["steps"]])
    assert kinds == [["turn"], [], [], ["turn"], ["turn", "mirror"], ["turn", "mirror"]]
    assert listed(signed_in, artwork)["prepared_facts"]["height"] == 80


def test_without_steps_the_original_stands_for_itself_again(
    signed_in: Any, bring: Bring, prepare: Callable[..., Any]
) -> None:
    artwork = bring("photo.png", saved(photo(80, 60), "PNG"))
    prepare(artwork["id"], {"kind": "turn"})
    prepare(artwork["id"], {"kind": "turn", "on": False})
    after = listed(signed_in, artwork["id"])
    assert (after["prepared_facts"], after["key"]) == (None, artwork["key"])


def test_every_fit_that_shows_it_follows(
    signed_in: Any, place: Any, bring: Bring, prepare: Callable[..., Any], run: Any
) -> None:
    """A delivered fit is out of date after the artwork in it was prepared, and fits again once that is undone."""
    entry = place(destination="Here")
    artwork = bring("photo.png", saved(photo(640, 360), "PNG"), str(entry.pk))["id"]
    first = wall_proofs(signed_in, "juno")["Test place"]
    deliver(signed_in, {})
    prepare(artwork, {"kind": "mirror"})
    changed = wall_proofs(signed_in, "juno")["Test place"]
    assert changed["key"] != first["key"]
    assert changed["state"] == "out of date"
    with run(execute=True):
        send(signed_in, "post", f"workspaces/juno/artwork/{artwork}/preparation/history/undo")
    again = wall_proofs(signed_in, "juno")["Test place"]
    assert (again["key"], again["state"]) == (first["key"], first["state"])


def test_a_vector_mark_stays_one(signed_in: Any, bring: Bring, prepare: Callable[..., Any]) -> None:
    artwork = bring("mark.svg", svg())["id"]
    prepare(artwork, {"kind": "trim"}, {"kind": "recolour", "one": "#b4541a"})
    facts = listed(signed_in, artwork)["prepared_facts"]
    assert (facts["vector"], facts["kind"], facts["colours"][0]["hex"]) == (True, "mark", "#b4541a")
    assert facts["width"] == pytest.approx(facts["height"], abs=0.5)


def test_a_cut_out_says_its_engine_and_how_sure_it_is(bring: Bring, prepare: Callable[..., Any]) -> None:
    portrait = Image.fromarray(together(person(480, 360, GUEST), room(480, 360))).convert("RGB")
    artwork = bring("guest.jpg", saved(portrait, "JPEG", quality=92))["id"]
    step = prepare(artwork, {"kind": "cut out"})["steps"][0]
    assert (step["engine"], step["waiting"], step["problem"]) == ("person", False, "")
    assert step["confidence"] > 0.5


def test_the_colours_to_change_are_those_before_the_step(bring: Bring, prepare: Callable[..., Any]) -> None:
    """The backdrop is a colour of the logo until it is cut away."""
    logo = saved(disc(200, "#17443c", 40, "#f2e6d0"), "PNG")
    artwork = bring("logo.png", logo)["id"]
    recolour = {"kind": "recolour", "colours": [["#17443c", "#b4541a"]]}
    plain = prepare(artwork, recolour)["steps"][-1]
    assert plain["colours"] == ["#f2e6d0", "#17443c"]
    cut, after = prepare(artwork, {"kind": "cut out", "method": "flat"}, recolour)["steps"]
    assert (cut["colours"], after["colours"]) == ([], ["#17443c"])


def test_a_tracing_says_its_colours(bring: Bring, prepare: Callable[..., Any]) -> None:
    artwork = bring("logo.png", saved(disc(200, "#17443c", 40, "#f2e6d0"), "PNG"))["id"]
    step = prepare(artwork, {"kind": "trace"})["steps"][0]
    assert sorted(step["colours"]) == ["#17443c", "#f2e6d0"]


def test_a_drawing_that_is_traced_is_told_that_it_is_one(bring: Bring, prepare: Callable[..., Any]) -> None:
    artwork = bring("mark.svg", svg())["id"]
    step = prepare(artwork, {"kind": "trace"})["steps"][0]
    assert "drawing already" in step["problem"]
    assert step["size"] == {"width": 100, "height": 50}


def test_a_cut_out_that_fails_is_said_at_its_step_and_the_rest_is_made(
    signed_in: Any, bring: Bring, prepare: Callable[..., Any]
) -> None:
    artwork = bring("photo.png", saved(photo(80, 60), "PNG"))["id"]
    view = prepare(artwork, {"kind": "cut out"}, {"kind": "turn"})
    assert "Draw a box" in view["steps"][0]["problem"]
    assert listed(signed_in, artwork)["prepared_facts"]["height"] == 80


def test_a_cut_waits_for_the_worker_and_the_picture_is_shown_without_it(signed_in: Any, bring: Bring, run: Any) -> None:
    artwork = bring("mark.png", saved(disc(200, "#17443c", 40, "#ffffff"), "PNG"))["id"]
    path = f"workspaces/juno/artwork/{artwork}/preparation"
    document = {"steps": [{"id": "a", "kind": "cut out"}, {"id": "b", "kind": "turn"}]}
    body = {"revision": 0, "document": document, "step": "cut it out"}
    with run() as queued:
        view = send(signed_in, "put", path, body).json()
    assert ([step["waiting"] for step in view["steps"]], view["working"]) == ([True, False], True)
    assert shown(signed_in, artwork, 2).mode == "RGB"
    with run(execute=True):
        for callback in queued:
            callback()
    after = signed_in.get(f"/api/{path}").json()
    assert (after["steps"][0]["waiting"], after["working"]) == (False, False)
    assert after["steps"][1]["key"] != view["steps"][1]["key"]
    assert shown(signed_in, artwork, 2).mode == "RGBA"


def test_an_older_result_never_replaces_a_newer_one(signed_in: Any, bring: Bring, run: Any) -> None:
    """A worker that was asked for an earlier revision leaves the artwork alone."""
    from fitzle.apps.artwork.library import artwork_named
    from fitzle.apps.artwork.preparing import Prepared, make_costly_steps, make_prepared, settle_prepared

    artwork = bring("photo.png", saved(photo(80, 60), "PNG"))["id"]
    path = f"workspaces/juno/artwork/{artwork}/preparation"
    for revision, quarters in ((0, 1), (1, 2)):
        document = {"steps": [{"id": "a", "kind": "turn", "quarters": quarters}]}
        with run():
            send(signed_in, "put", path, {"revision": revision, "document": document, "step": "turn"})
    found = artwork_named(artwork)
    assert make_prepared(found, 1) is None
    assert not settle_prepared(found, 1, Prepared(None))
    assert not make_costly_steps(found, 1)
    assert listed(signed_in, artwork)["prepared_facts"] is None
    newest = make_prepared(found, 2)
    assert newest and settle_prepared(found, 2, newest)
    assert listed(signed_in, artwork)["prepared_facts"]["height"] == 60


def test_a_stale_save_gets_the_newest_and_changes_nothing(bring: Bring, prepare: Callable[..., Any]) -> None:
    artwork = bring("photo.png", saved(photo(80, 60), "PNG"))["id"]
    prepare(artwork, {"kind": "turn"})
    answer = prepare(artwork, {"kind": "mirror"}, revision=0)
    assert answer.status_code == 409
    assert answer.json()["newest"]["document"]["steps"][0]["kind"] == "turn"
    assert "in the meantime" in answer.json()["message"]


@pytest.mark.parametrize(
    ("steps", "words"),
    [
        ([{"kind": "wobble"}], "cannot be used"),
        ([{"kind": "crop", "window": {"x": 0.5, "y": 0, "width": 0.9, "height": 1}}], "beyond the picture"),
        ([{"kind": "adjust", "brightness": 9}], "less than or equal"),
        ([{"kind": "turn"}] * (MOST_STEPS + 1), "at most"),
    ],
)
def test_steps_that_cannot_be_are_refused_in_words(
    bring: Bring, prepare: Callable[..., Any], steps: list[dict[str, Any]], words: str
) -> None:
    answer = prepare(bring("photo.png", saved(photo(80, 60), "PNG"))["id"], *steps)
    assert answer.status_code == 422
    assert words in answer.json()["message"]


def test_what_is_not_ready_cannot_be_prepared(signed_in: Any, bring: Bring) -> None:
    artwork = bring("broken.png", b"nothing")["id"]
    answer = signed_in.get(f"/api/workspaces/juno/artwork/{artwork}/preparation")
    assert (answer.status_code, "not ready" in answer.json()["message"]) == (422, True)


@pytest.mark.parametrize(
    ("kind", "said"),
    [("improve", "adjust"), ("dark-version", "recolour"), ("subject", "crop"), ("red-eyes", "no red eyes")],
)
def test_proposals_are_steps_or_a_plain_no(signed_in: Any, bring: Bring, kind: str, said: str) -> None:
    mark = Image.fromarray((np.asarray(disc(200, "#17443c", 50, "#808080")) * 0.7).astype(np.uint8))
    artwork = bring("mark.png", saved(mark, "PNG"))["id"]
    path = f"workspaces/juno/artwork/{artwork}/preparation/proposals/{kind}"
    answer = send(signed_in, "post", path, {"step": "new", "ratio": 1.5})
    assert said in str(answer.json())
    assert answer.json().get("id", "new") == "new"


def test_large_photos_are_shown_small_and_made_whole(signed_in: Any, bring: Bring, prepare: Callable[..., Any]) -> None:
    artwork = bring("large.jpg", saved(photo(3000, 2000), "JPEG", quality=85))["id"]
    view = prepare(artwork, {"kind": "adjust", "brightness": 0.3})
    assert view["steps"][0]["size"] == {"width": 3000, "height": 2000}
    assert max(shown(signed_in, artwork, 1, 2400).size) == 1280
    after = listed(signed_in, artwork)
    assert (after["prepared_facts"]["width"], after["prepared_facts"]["format"]) == (3000, "png")
