"""Composing over HTTP: parts, placings, starting points, typefaces, contrasts, SVG, the proof in the same answer."""

import base64
from typing import Any

import pytest

from fitzle.apps.api import fits
from fitzle.apps.drawing.errors import DrawingTooHeavy
from fitzle.apps.pieces.fits import stand
from fitzle.apps.pieces.models import Piece
from tests.apps.helpers import send, upload, wall_proofs
from tests.make import opened, photo, saved, svg

pytestmark = pytest.mark.django_db
SIZE = {"width": 320, "height": 180}


@pytest.fixture
def entry(place: Any) -> Any:
    return place(size=SIZE, seen=[{"name": "list", "width": 168}], transparency="forbidden", grounds=["#ffffff"])


@pytest.fixture
def fit(signed_in: Any, entry: Any, run: Any) -> dict[str, Any]:
    """A piece begun from a starting point, in a workspace with a photo and a mark."""
    upload(signed_in, "juno", "mark.svg", svg(), "", run)
    upload(signed_in, "juno", "photo.png", saved(photo(), "PNG"), "", run)
    with run(execute=True):
        answer = send(signed_in, "post", f"workspaces/juno/placements/{entry.pk}/pieces", {"starting_point": 1})
    assert answer.status_code == 201, answer.content
    return answer.json()


def add(client: Any, fit: dict[str, Any], **part: Any) -> Any:
    body = {"revision": part.pop("revision", fit["piece"]["revision"]), **part}
    return send(client, "post", f"workspaces/juno/fits/{fit['id']}/parts", body)


def edit(client: Any, fit: dict[str, Any], **more: Any) -> Any:
    body = {"revision": fit["piece"]["revision"], "step": "edit", "changes": [], **more}
    return send(client, "patch", f"workspaces/juno/fits/{fit['id']}", body)


def ids(fit: dict[str, Any]) -> list[str]:
    return [part["id"] for part in fit["piece"]["document"]["parts"]]


def placed(fit: dict[str, Any], part: str) -> dict[str, Any]:
    return next(entry for entry in fit["parts"] if entry["part"] == part)


def test_there_are_many_starting_points_each_with_a_picture(signed_in: Any, entry: Any, fit: dict[str, Any]) -> None:
    points = signed_in.get(f"/api/workspaces/juno/placements/{entry.pk}/starting-points").json()
    assert len(points) >= 6 and len({point["name"] for point in points}) == len(points)
    for point in points:
        picture = signed_in.get(
            f"/api/workspaces/juno/placements/{entry.pk}/starting-points/{point['number']}/proof?width=120"
        )
        assert opened(picture.content).size[0] == 120
    assert wall_proofs(signed_in, "juno")["Test place"]["fit"] == fit["id"]
    body = {"starting_point": 99}
    assert send(signed_in, "post", f"workspaces/juno/placements/{entry.pk}/pieces", body).status_code == 422


@pytest.mark.parametrize("role", ["headline", "second line", "byline", "badge", "shape"])
def test_a_part_is_added_by_its_role_in_house_colours(signed_in: Any, fit: dict[str, Any], role: str) -> None:
    after = add(signed_in, fit, role=role).json()
    new = next(part for part in after["piece"]["document"]["parts"] if part["id"] not in ids(fit))
    assert new["role"] == role
    assert after["piece"]["undo"] == f"add a {role}"
    assert placed(after, new["id"])["box"]["width"] > 10


def test_an_unknown_role_or_artwork_is_refused(signed_in: Any, fit: dict[str, Any]) -> None:
    assert add(signed_in, fit, role="title").status_code == 422
    answer = add(signed_in, fit, artwork="00000000-0000-4000-8000-000000000000")
    assert answer.status_code == 422 and "cannot be used" in answer.json()["message"]


def test_artwork_is_added_where_it_is_dropped_and_takes_anothers_place(signed_in: Any, fit: dict[str, Any]) -> None:
    mark = next(part for part in fit["piece"]["document"]["parts"] if part["role"] == "mark")
    after = add(signed_in, fit, artwork=mark["artwork"], x=0.75, y=0.5).json()
    new = next(part for part in ids(after) if part not in ids(fit))
    box = placed(after, new)["box"]
    assert box["x"] + box["width"] / 2 == pytest.approx(0.75 * 320, abs=1)
    assert box["width"] / box["height"] == pytest.approx(1, rel=0.02), "the circle on the mark, not stretched"
    photo_part = next(part for part in after["piece"]["document"]["parts"] if part["role"] == "picture")
    swapped = add(signed_in, after, artwork=mark["artwork"], instead=photo_part["id"]).json()
    there = next(part for part in swapped["piece"]["document"]["parts"] if part["id"] == photo_part["id"])
    assert (there["artwork"], there["stands"]) == (mark["artwork"], photo_part["stands"])
    assert add(signed_in, swapped, artwork=mark["artwork"], instead="headline").status_code == 422


@pytest.mark.parametrize("target", ["into/{fit}/0.25/0.5", "instead/{fit}/picture"])
def test_a_file_dropped_on_the_proof_becomes_a_part_when_it_is_read(
    signed_in: Any, fit: dict[str, Any], run: Any, target: str
) -> None:
    art = upload(signed_in, "juno", "new.png", saved(photo(seed=9), "PNG"), target.format(fit=fit["id"]), run)
    after = signed_in.get(f"/api/workspaces/juno/fits/{fit['id']}").json()
    own = [part for part in after["piece"]["document"]["parts"] if part.get("artwork") == art["id"]]
    assert len(own) == 1
    assert (len(ids(after)) > len(ids(fit))) is target.startswith("into")


def test_a_drop_on_a_fit_that_is_gone_leaves_the_artwork_in_peace(
    signed_in: Any, fit: dict[str, Any], run: Any
) -> None:
    from fitzle.apps.artwork.models import Artwork
    from fitzle.apps.jobs.tasks import take_in_artwork

    art = upload(signed_in, "juno", "late.png", saved(photo(seed=3), "PNG"), f"into/{fit['id']}/0.5/0.5", run)
    signed_in.delete(f"/api/workspaces/juno/fits/{fit['id']}")
    take_in_artwork.run(art["id"])
    assert Artwork.objects.get(pk=art["id"]).state == "ready"


@pytest.mark.parametrize(
    "target", ["into/{fit}/2/0.5", "into/{fit}/x/y", "above/{fit}/1", "instead/{fit}", "into/7/0/0"]
)
def test_a_drop_on_nothing_is_refused(signed_in: Any, fit: dict[str, Any], target: str) -> None:
    from django.core.files.uploadedfile import SimpleUploadedFile

    data = {"files": [SimpleUploadedFile("a.svg", svg())], "targets": target.format(fit=fit["id"])}
    assert signed_in.post("/api/workspaces/juno/artwork", data).status_code == 422


def test_a_part_stands_where_it_is_put_everywhere_or_only_here(signed_in: Any, fit: dict[str, Any]) -> None:
    rect = {"part": "headline", "x": 20, "y": 100, "width": 120, "height": 60}
    after = edit(signed_in, fit, placings=[rect]).json()
    stands = placed(after, "headline")["stands"]
    assert [stands[key] for key in ("x", "y", "width", "height")] == pytest.approx([20, 100, 120, 60], abs=0.05)
    assert after["adjusted"] == []
    here = edit(signed_in, after, placings=[{**rect, "x": 40}], everywhere=False).json()
    assert here["adjusted"] == ["headline.beyond", "headline.stands"]
    assert placed(here, "headline")["stands"]["x"] == pytest.approx(40, abs=0.05)


@pytest.fixture
def tall(fit: dict[str, Any], place: Any, signed_in: Any) -> dict[str, Any]:
    """The same piece in a place of another shape."""
    piece = Piece.objects.get(pk=fit["piece"]["id"])
    [other] = stand(piece, [place(name="Tall", size={"width": 200, "height": 480}, seen=[{"name": "a", "width": 200}])])
    return dict(signed_in.get(f"/api/workspaces/juno/fits/{other.pk}").json())


def read(client: Any, fit: dict[str, Any]) -> dict[str, Any]:
    return dict(client.get(f"/api/workspaces/juno/fits/{fit['id']}").json())


def compose(client: Any, fit: dict[str, Any], on: bool) -> dict[str, Any]:
    answer = send(client, "put", f"workspaces/juno/fits/{fit['id']}/composed", {"on": on})
    assert answer.status_code == 200, answer.content
    return dict(answer.json())


def test_a_place_of_another_shape_follows_by_calculation_when_somebody_says_so(
    signed_in: Any, fit: dict[str, Any], tall: dict[str, Any]
) -> None:
    compose(signed_in, fit, False)
    tall = read(signed_in, tall)
    assert not tall["arranged"] and tall["piece"]["document"]["composed"] is None
    here = compose(signed_in, fit, True)
    own = here["piece"]["document"]["composed"]
    assert own.pop("placement") and own == SIZE
    assert not here["arranged"] and here["stance"] == "as composed"
    arranged = read(signed_in, tall)
    assert arranged["arranged"] and arranged["stance"] == "arranged" and arranged["by_hand"] == []
    assert arranged["key"] != tall["key"] and arranged["adjusted"] == []
    assert {one["part"]: one["box"] for one in arranged["parts"]} != {one["part"]: one["box"] for one in tall["parts"]}
    assert compose(signed_in, fit, False)["piece"]["document"]["composed"] is None
    assert read(signed_in, tall)["key"] == tall["key"]


def test_a_part_moved_where_it_was_arranged_moves_there_alone_and_can_be_let_go(
    signed_in: Any, fit: dict[str, Any], tall: dict[str, Any]
) -> None:
    compose(signed_in, fit, True)
    before, arranged = read(signed_in, fit), read(signed_in, tall)
    rect = {"x": 20, "y": 300, "width": 160, "height": 90}
    moved = edit(signed_in, arranged, placings=[{"part": "headline", **rect}], everywhere=True).json()
    assert {entry.partition(".")[2] for entry in moved["by_hand"]} == {"stands", "beyond"}
    assert placed(moved, "headline")["stands"] == pytest.approx(rect) and moved["stance"] == "by hand"
    assert placed(moved, "headline")["stance"] == "by hand"
    shelves = signed_in.get("/api/workspaces/juno/wall").json()["shelves"]
    shown = {proof["fit"]: proof["stance"] for shelf in shelves for proof in shelf["placements"] if proof["fit"]}
    assert (shown[fit["id"]], shown[tall["id"]]) == ("as composed", "by hand")
    assert read(signed_in, fit)["key"] == before["key"], "the place that it was composed for stays as it is"
    free = edit(signed_in, moved, take_back=moved["by_hand"]).json()
    assert free["key"] == arranged["key"] and free["stance"] == "arranged"


def test_the_others_can_be_arranged_from_a_place_that_was_arranged(
    signed_in: Any, fit: dict[str, Any], tall: dict[str, Any]
) -> None:
    compose(signed_in, fit, True)
    rect = {"x": 20, "y": 300, "width": 160, "height": 90}
    arranged = read(signed_in, tall)
    moved = edit(signed_in, arranged, placings=[{"part": "headline", **rect}], everywhere=True).json()
    here = compose(signed_in, tall, True)
    own = here["piece"]["document"]["composed"]
    assert (own["width"], own["height"]) == (200, 480) and own["placement"]
    assert not here["arranged"] and here["by_hand"] == []
    assert placed(here, "headline")["box"] == placed(moved, "headline")["box"], "it looks as before"
    assert read(signed_in, fit)["arranged"]
    with_undo = send(signed_in, "post", f"workspaces/juno/pieces/{fit['piece']['id']}/undo", {})
    assert with_undo.status_code == 200 and read(signed_in, tall)["stance"] == "by hand"


def test_a_part_put_beyond_the_edge_is_left_there(signed_in: Any, fit: dict[str, Any]) -> None:
    rect = {"part": "headline", "x": -50, "y": 100, "width": 120, "height": 60}
    after = edit(signed_in, fit, placings=[rect]).json()
    assert placed(after, "headline")["stands"]["x"] == pytest.approx(-50, abs=0.05)


@pytest.mark.parametrize("too_heavy", ["the proof", "all of it"])
def test_a_change_that_is_too_heavy_to_draw_is_said_to_be_saved(
    signed_in: Any, fit: dict[str, Any], monkeypatch: pytest.MonkeyPatch, too_heavy: str
) -> None:
    ask = fits.draw_fit.ask

    def refused(state: str, *args: Any) -> Any:
        if too_heavy == "all of it" or args[-1] is not None:
            raise DrawingTooHeavy
        return ask(state, *args)

    monkeypatch.setattr(fits.draw_fit, "ask", refused)
    change = {"act": "set", "part": "headline", "field": "text", "value": "True a wheel"}
    answer = edit(signed_in, fit, changes=[change], proof_width=200)
    saved_as = Piece.objects.get(pk=fit["piece"]["id"])
    assert "True a wheel" in str(saved_as.document)
    if too_heavy == "the proof":
        assert (answer.status_code, answer.json()["proof"]) == (200, None)
    else:
        said = answer.json()
        assert (answer.status_code, said["saved_revision"]) == (422, saved_as.revision)
        assert said["message"].startswith("your change is saved, but")


def test_one_answer_brings_plan_findings_and_proof(signed_in: Any, fit: dict[str, Any]) -> None:
    change = {"act": "set", "part": "headline", "field": "text", "value": "True a wheel"}
    after = edit(signed_in, fit, changes=[change], proof_width=200).json()
    head, _, data = after["proof"].partition(",")
    assert head == "data:image/jpeg;base64"
    assert opened(base64.b64decode(data)).size[0] == 200
    headline = placed(after, "headline")["words"]
    assert " ".join(headline["lines"]) == "True a wheel"
    assert headline["colour"].startswith("#") and headline["contrast"] > 3
    again = signed_in.get(f"/api/workspaces/juno/fits/{fit['id']}/proof?width=200&key={after['key']}")
    assert again.content == base64.b64decode(data), "drawn once"


def test_one_part_is_drawn_alone_or_left_out(signed_in: Any, fit: dict[str, Any]) -> None:
    address = f"/api/workspaces/juno/fits/{fit['id']}/proof?width=160&key={fit['key']}"
    alone = opened(signed_in.get(f"{address}&only=headline").content)
    assert alone.mode == "RGBA" and alone.getextrema()[3] == (0, 255)
    rest = opened(signed_in.get(f"{address}&without=headline").content)
    assert rest.mode == "RGB"
    assert rest.tobytes() != opened(signed_in.get(address).content).tobytes()


def test_a_small_mark_is_shown_fitted_to_the_grid_and_as_drawn(signed_in: Any, place: Any, run: Any) -> None:
    icon = place(name="Icon", size={"width": 32, "height": 32})
    bars = svg('<path d="M8 8H42V92H8zM55 8H92V20H55z" fill="#17443c"/>', "0 0 100 100")
    upload(signed_in, "juno", "bars.svg", bars, str(icon.pk), run)
    address = f"/api/workspaces/juno/fits/{wall_proofs(signed_in, 'juno')['Icon']['fit']}/proof?width=32"
    fitted, drawn = (opened(signed_in.get(address + more).content) for more in ("", "&as_drawn=true"))
    partial = [sum(picture.getchannel("A").histogram()[13:243]) for picture in (fitted, drawn)]
    assert partial[0] < partial[1]


def test_contrasts_of_colours_behind_a_part(signed_in: Any, fit: dict[str, Any]) -> None:
    address = f"/api/workspaces/juno/fits/{fit['id']}/contrasts?part=headline&colours="
    found = signed_in.get(f"{address}%23ffffff,17443c").json()
    assert found["#17443c"] == pytest.approx(1, abs=0.05) and found["#ffffff"] > 8
    assert signed_in.get(f"{address}reddish").status_code == 422
    assert signed_in.get(address.replace("headline", "nobody") + "fff").status_code == 422


def test_typefaces_show_the_words_and_how_they_read(signed_in: Any, fit: dict[str, Any]) -> None:
    faces = signed_in.get(f"/api/workspaces/juno/fits/{fit['id']}/typefaces/headline").json()
    assert len(faces) >= 30 and all(face["seen_x_height_px"] > 0 for face in faces)
    assert signed_in.get(f"/api/workspaces/juno/fits/{fit['id']}/typefaces/ground").status_code == 404
    sample = signed_in.get("/api/workspaces/juno/typefaces/sample?family=Anton&text=Hello")
    assert sample["Content-Type"] == "image/svg+xml" and b"<path" in sample.content
    assert signed_in.get("/api/workspaces/juno/typefaces/file?family=Anton").content[:4] in (
        b"\x00\x01\x00\x00",
        b"OTTO",
    )
    assert signed_in.get("/api/workspaces/juno/typefaces/sample?family=Nobody&text=x").status_code == 404


def test_the_piece_is_saved_as_svg_with_words_as_outlines(signed_in: Any, fit: dict[str, Any]) -> None:
    answer = signed_in.get(f"/api/workspaces/juno/fits/{fit['id']}/svg")
    assert answer["Content-Disposition"].startswith("attachment") and ".svg" in answer["Content-Disposition"]
    assert b"<text" not in answer.content and answer.content.startswith(b"<svg")


def test_two_people_get_each_others_parts_and_a_clash_shows_both_values(signed_in: Any, fit: dict[str, Any]) -> None:
    text = {"act": "set", "part": "headline", "field": "text"}
    mine = edit(signed_in, fit, changes=[{**text, "value": "mine"}]).json()
    theirs = add(signed_in, fit, role="badge")
    assert theirs.status_code == 200, "made on the older revision, and merged"
    merged = theirs.json()["piece"]["document"]["parts"]
    assert next(part for part in merged if part["id"] == "headline")["text"] == "mine"
    clash = edit(signed_in, fit, changes=[{**text, "value": "theirs"}])
    assert clash.status_code == 409
    assert clash.json()["clashes"][0]["newest"] == "mine"
    assert clash.json()["clashes"][0]["change"]["value"] == "theirs"
    assert mine["piece"]["revision"] == fit["piece"]["revision"] + 1


def test_a_hundred_steps_can_be_undone_and_have_names(signed_in: Any, fit: dict[str, Any]) -> None:
    now = fit
    for number in range(3):
        now = edit(
            signed_in,
            now,
            step=f"step {number}",
            changes=[{"act": "set", "part": "headline", "field": "rotation", "value": number}],
        ).json()
    piece = now["piece"]["id"]
    for number in (2, 1, 0):
        answer = signed_in.get(f"/api/workspaces/juno/pieces/{piece}").json()
        assert answer["undo"] == f"step {number}"
        send(signed_in, "post", f"workspaces/juno/pieces/{piece}/undo")
    assert signed_in.get(f"/api/workspaces/juno/pieces/{piece}").json()["redo"] == "step 0"


def test_a_removed_part_comes_back_with_undo(signed_in: Any, fit: dict[str, Any]) -> None:
    after = edit(signed_in, fit, changes=[{"part": "headline", "act": "remove"}]).json()
    assert "headline" not in ids(after)
    send(signed_in, "post", f"workspaces/juno/pieces/{fit['piece']['id']}/undo")
    assert ids(signed_in.get(f"/api/workspaces/juno/fits/{fit['id']}").json()) == ids(fit)


def test_hopeless_changes_get_a_clear_answer(signed_in: Any, fit: dict[str, Any]) -> None:
    for change, said in (
        ({"act": "set", "part": "headline", "field": "text", "value": "x" * 10_000}, "at most 1000"),
        ({"act": "set", "part": "headline", "field": "wobble", "value": 1}, "no 'wobble'"),
        ({"act": "set", "part": "nobody", "field": "text", "value": "x"}, "no part 'nobody'"),
        ({"act": "set", "part": "headline", "field": "stands", "value": {"width": 1e12, "height": 1}}, "width"),
    ):
        answer = edit(signed_in, fit, changes=[change])
        assert answer.status_code == 422 and said in answer.json()["message"], answer.content
    many = [{"act": "set", "part": "headline", "field": "rotation", "value": 1}] * 401
    assert edit(signed_in, fit, changes=many).status_code == 422


def test_a_change_costs_few_look_ups(signed_in: Any, fit: dict[str, Any], django_assert_max_num_queries: Any) -> None:
    body = {
        "revision": fit["piece"]["revision"],
        "step": "name it",
        "changes": [{"act": "set", "part": "ground", "field": "name", "value": "Back"}],
        "proof_width": 320,
    }
    # Two of who shares the file, two of whether the piece has rows, four of them savepoints, of which the test's own
    # transaction makes two.
    with django_assert_max_num_queries(29):
        answer = send(signed_in, "patch", f"workspaces/juno/fits/{fit['id']}", body)
    assert answer.status_code == 200, answer.content


def test_the_rail_is_at_work_until_each_file_is_made(signed_in: Any, fit: dict[str, Any], place: Any, run: Any) -> None:
    there = place(name="Beside", size={"width": 200, "height": 200})
    piece = fit["piece"]["id"]
    stand(Piece.objects.get(pk=piece), [there])
    address = f"/api/workspaces/juno/fits/{fit['id']}"
    before = states(signed_in.get(address))
    assert (before["Test place"] == "working", before["Beside"] == "working") == (False, True)
    with run(execute=True):
        answer = send(
            signed_in, "patch", f"workspaces/juno/fits/{fit['id']}",
            {"revision": fit["piece"]["revision"], "step": "fill",
             "values": [{"part": "ground", "field": "fill", "value": {"kind": "solid", "colour": "#123456"}}]},
        )  # fmt: skip
    assert states(answer) == {"Test place": "working", "Beside": "working"}
    assert "working" not in states(signed_in.get(address)).values()


def states(answer: Any) -> dict[str, str]:
    return {entry["placement_name"]: entry["state"] for entry in answer.json()["rail"]}


def test_parts_placed_otherwise_are_takes_of_that_place_alone(
    signed_in: Any, fit: dict[str, Any], tall: dict[str, Any]
) -> None:
    compose(signed_in, fit, True)
    before, arranged = read(signed_in, fit), read(signed_in, tall)
    offered = signed_in.get(f"/api/workspaces/juno/fits/{tall['id']}/proposals").json()
    otherwise = [one for one in offered if one["id"].startswith("arranged-")]
    assert otherwise and all(one["picture"].startswith("data:image/") for one in otherwise)
    answer = send(signed_in, "post", f"workspaces/juno/fits/{tall['id']}/takes", {"proposal": otherwise[0]["id"]})
    assert answer.status_code == 201, answer.content
    take = read(signed_in, {"id": answer.json()["takes"][-1]["fit"]})
    assert take["take"] == "B"
    assert placed(take, "headline")["box"] != placed(arranged, "headline")["box"]
    document = take["piece"]["document"]
    assert document["takes"].get("b", {}) == {}, "the take differs in that place alone"
    assert read(signed_in, fit)["key"] == before["key"] and read(signed_in, tall)["key"] == arranged["key"]
