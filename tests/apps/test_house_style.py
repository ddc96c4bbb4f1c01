"""The house style: saved, checked, seen in pairs, and used as the default everywhere."""

from typing import Any

import pytest

from tests.apps.helpers import deliver, send, upload, wall_proofs
from tests.make import disc, saved, svg

pytestmark = pytest.mark.django_db
PATH = "workspaces/juno/house-style"
COLOURS = [{"name": "Ink", "hex": "#101010"}, {"name": "", "hex": "#F4D06F"}, {"name": "Sand", "hex": "#f6e7b8"}]


def test_colours_come_back_in_order_with_all_their_contrasts(signed_in: Any) -> None:
    answer = send(signed_in, "put", PATH, {"colours": COLOURS})
    assert answer.status_code == 200
    style = signed_in.get(f"/api/{PATH}").json()
    assert [colour["hex"] for colour in style["colours"]] == ["#101010", "#f4d06f", "#f6e7b8"]
    assert style["contrasts"][0][1] > 10
    assert style["contrasts"][1][2] < 1.5
    assert (style["readings"][0][1], style["readings"][1][2], style["readable"]) == ("reads", "too faint", 2)
    assert style["contrasts"][0][1] == style["contrasts"][1][0]


@pytest.mark.parametrize(
    ("given", "words"),
    [
        ({"colours": [{"hex": "greenish"}]}, "not a colour"),
        ({"colours": COLOURS * 6}, "at most 16"),
        ({"colours": [], "heading": "Nobody Has This"}, "no typeface"),
        ({"colours": [], "naming": "{subjet}"}, "unknown token"),
    ],
)
def test_what_cannot_be_is_said_and_nothing_is_lost(signed_in: Any, given: dict[str, Any], words: str) -> None:
    before = signed_in.get(f"/api/{PATH}").json()
    answer = send(signed_in, "put", PATH, given)
    assert (answer.status_code, words in answer.json()["message"]) == (422, True)
    assert signed_in.get(f"/api/{PATH}").json() == before


def test_the_naming_rule_names_files_where_a_place_has_none(signed_in: Any, place: Any, run: Any) -> None:
    plain, own = place(name="Plain"), place(name="Own", naming="{placement}", destination="Other")
    for entry in (plain, own):
        upload(signed_in, "juno", f"{entry.pk}.svg", svg(), str(entry.pk), run)
    with run(execute=True):  # what a house colour could have changed is judged once more
        style = send(signed_in, "put", PATH, {"colours": [], "naming": "{placement}-{size}"}).json()
    assert style["example"] == "header-1280x720.png"
    expected = signed_in.get("/api/workspaces/juno/deliveries/ready").json()
    files = deliver(signed_in, {}).json()["files"]
    names = sorted(file["name"] for file in files)
    assert sorted(file["name"] for fit in expected["fits"] for file in fit["files"]) == names, "as it was shown before"
    assert sorted(file["name"] for file in files) == ["own.png", "plain-320x180.png"]


def test_marks_are_measured_on_light_and_dark_grounds(signed_in: Any, run: Any) -> None:
    upload(signed_in, "juno", "dark.png", saved(disc(colour="#17443c"), "PNG"), "", run)
    [mark] = signed_in.get(f"/api/{PATH}").json()["marks"]
    assert (mark["name"], mark["versions"]) == ("dark.png", 1)
    assert mark["light"]["showing"]["shows_on_light"] is True
    assert mark["dark"]["showing"]["shows_on_dark"] is False


def test_five_harmonies_of_a_colour(signed_in: Any) -> None:
    found = signed_in.get("/api/workspaces/juno/harmonies?colour=%23b4541a").json()
    assert [len(entry["colours"]) for entry in found] == [1, 2, 2, 2, 3]
    assert signed_in.get("/api/workspaces/juno/harmonies?colour=nope").status_code == 422


def test_new_words_are_in_the_house_s_typeface_and_colour(signed_in: Any, place: Any, run: Any) -> None:
    entry = place()
    upload(signed_in, "juno", "m.svg", svg(), str(entry.pk), run)
    send(signed_in, "put", PATH, {"colours": [{"hex": "#b4541a"}], "heading": "Anton"})
    fit = wall_proofs(signed_in, "juno")["Test place"]["fit"]
    body = {"revision": 1, "role": "headline"}
    parts = send(signed_in, "post", f"workspaces/juno/fits/{fit}/parts", body).json()["piece"]["document"]["parts"]
    assert next(part for part in parts if part["role"] == "headline")["family"] == "Anton"


def test_a_logo_proposes_a_house_style_that_is_taken_in_one_step(signed_in: Any, bring: Any, run: Any) -> None:
    logo = bring("bell.svg", svg('<circle cx="50" cy="25" r="24" fill="#0a2342"/>'))
    path = f"workspaces/juno/artwork/{logo['id']}/house-style"
    proposed = send(signed_in, "get", path).json()
    assert proposed["colours"][0] == {"name": "Deep blue", "hex": "#0a2342"}
    assert (proposed["readable"] > 0, proposed["wants_dark_version"]) == (True, True)
    assert proposed["naming"] == "juno-s_{placement}_{width}x{height}"
    assert signed_in.get("/api/workspaces/juno/house-style").json()["naming"] == "", "nothing is taken yet"
    with run(execute=True):
        taken = send(signed_in, "post", path).json()
    assert [one["hex"] for one in taken["colours"]] == [one["hex"] for one in proposed["colours"]]
    assert taken["naming"] == proposed["naming"] and taken["example"] == "juno-s_header_1280x720.png"
    [mark] = signed_in.get("/api/workspaces/juno/house-style").json()["marks"]
    assert mark["versions"] == 2 and mark["dark"]["showing"]["shows_on_dark"]


def test_what_is_not_read_proposes_nothing(signed_in: Any, bring: Any) -> None:
    failed = bring("broken.png", b"\x89PNG\r\n\x1a\n")
    answer = send(signed_in, "get", f"workspaces/juno/artwork/{failed['id']}/house-style")
    assert answer.status_code == 422 and "no colours to take" in answer.json()["message"]
