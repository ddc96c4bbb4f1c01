"""Runs over HTTP: a table of rows, seen in their places, made into files by workers and handed over."""

import io
import zipfile
from datetime import timedelta
from typing import Any

import openpyxl
import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from django.utils import timezone

from fitzle.apps.accounts.models import Joining, Membership
from fitzle.apps.jobs.later import Later
from fitzle.apps.jobs.models import Job
from fitzle.apps.jobs.queue import ROW_WORKERS
from fitzle.apps.pieces import row_files, row_looking
from fitzle.apps.pieces.models import RowFile, RowJudgement, Run
from fitzle.core.errors import ArtworkError
from tests.apps.helpers import content, send, upload
from tests.apps.run_table import Table, words_of
from tests.make import opened, photo, saved

pytestmark = pytest.mark.django_db


def test_a_run_begins_with_a_row_that_says_what_the_piece_says(table: Table) -> None:
    found = table.read()
    document = table.client.get(f"/api/workspaces/juno/pieces/{table.piece}").json()["document"]
    texts = {part["id"]: part.get("text") for part in document["parts"]}
    assert [one["kind"] for one in found["fields"]].count("words") >= 1 and len(found["rows"]) == 1
    for field in found["fields"]:
        if field["kind"] == "words":
            assert found["rows"][0]["cells"][field["name"]] == texts[field["part"]]
    assert [one["name"] for one in found["places"]] == ["Lesson card"]
    assert table.ask("post").json()["rows"] == found["rows"], "beginning it again changes nothing"


def test_what_is_typed_is_seen_and_can_be_taken_back(table: Table) -> None:
    name = words_of(table)
    row = table.read()["rows"][0]["id"]
    before = table.seen()[0]["key"]
    had = table.cells(name)[0]
    assert table.cell(row, name, "Gears that shift", had).json()["clashes"] == []
    [seen] = table.seen()
    assert seen["key"] != before
    address = f"/api/{table.path}/{row}/{seen['placement']}/proof?width=320&key={seen['key']}"
    proof = table.client.get(address)
    assert opened(proof.content).size == (320, 180) and "immutable" in proof["Cache-Control"]
    assert table.ask("post", "/undo").json()["redo"] == "change a cell"
    assert table.cells(name) == [had] and table.seen()[0]["key"] == before
    table.ask("post", "/redo")
    assert table.cells(name) == ["Gears that shift"]


def test_two_people_merge_and_a_clash_shows_both(table: Table, make_person: Any, juno: Any) -> None:
    name = words_of(table)
    row = table.read()["rows"][0]["id"]
    Membership.objects.create(user=make_person("kit")[0], workspace=juno[1], role="maker")
    other = Client()
    other.force_login(Membership.objects.get(user__email__startswith="kit", workspace=juno[1]).user, BACKEND)
    kit = Table(other, table.later, table.piece)
    had = table.cells(name)[0]
    table.cell(row, name, "Juno's", had)
    answer = kit.cell(row, name, "Kit's", had).json()
    assert [one["newest"] for one in answer["clashes"]] == ["Juno's"] and table.cells(name) == ["Juno's"]
    kit.add(**{name: "Another"})
    assert table.cells(name) == ["Juno's", "Another"]
    table.ask("post", "/undo")
    assert table.cells(name) == [had, "Another"], "each takes back their own"
    kit.ask("post", "/undo")
    assert table.cells(name) == [had]


BACKEND = "django.contrib.auth.backends.ModelBackend"


def test_a_step_that_somebody_built_on_is_not_taken_back(table: Table, make_person: Any, juno: Any) -> None:
    name, row = words_of(table), table.read()["rows"][0]["id"]
    person = make_person("kit")[0]
    Membership.objects.create(user=person, workspace=juno[1], role="maker")
    other = Client()
    other.force_login(person, BACKEND)
    table.cell(row, name, "One")
    Table(other, table.later, table.piece).cell(row, name, "Two")
    answer = table.ask("post", "/undo")
    assert answer.status_code == 422 and "cannot be taken back" in answer.json()["message"]
    assert table.cells(name) == ["Two"]


def test_cells_are_pasted_from_a_corner_and_new_rows_are_added(table: Table) -> None:
    name, first = words_of(table), table.read()["rows"][0]["id"]
    body = {"rows": [first], "fields": [name], "text": "One\tbeyond\nTwo\nThree"}
    assert table.ask("post", "/paste", body).status_code == 200
    assert table.cells(name) == ["One", "Two", "Three"]
    table.ask("post", "/undo")
    assert len(table.cells(name)) == 1


def test_a_table_is_read_and_written(table: Table) -> None:
    name = words_of(table)
    came = table.bring("lessons.csv", f"{name};Teacher\nGears;Mara\n=1+1;Ilse\n".encode("cp1252"))
    assert came.json()["added"] == 2 and came.json()["left_over"] == ["Teacher"]
    assert table.cells(name)[1:] == ["Gears", "=1+1"]
    written = content(table.client.get(f"/api/{table.path}/table?format=csv")).decode("utf-8-sig")
    assert "'=1+1" in written
    book = openpyxl.load_workbook(io.BytesIO(content(table.client.get(f"/api/{table.path}/table?format=xlsx"))))
    assert [cell.value for cell in book.active["A"]][-1] == "=1+1" and book.active["A4"].data_type == "s"
    refused = table.bring("x.csv", b"Colour\nred\n")
    assert refused.status_code == 422 and "no heading" in refused.json()["message"]
    assert len(table.cells(name)) == 3


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"a\n" + b"x\n" * 5_001, "more than 5,000 rows"),
        (",".join(f"c{number}" for number in range(500)).encode(), "500 columns"),
        (b"a\n" + b"x" * 100_000, "100,000 letters"),
        (b"", "empty"),
        (b"PK\x03\x04broken", "x.csv"),
    ],
    ids=["rows", "columns", "letters", "empty", "broken"],
)
def test_tables_that_cannot_be_read_say_why(table: Table, data: bytes, words: str) -> None:
    answer = table.bring("x.csv", data)
    assert answer.status_code == 422 and words in answer.json()["message"], answer.json()
    assert len(table.read()["rows"]) == 1


def test_problems_are_found_before_anybody_looks(table: Table) -> None:
    name = words_of(table)
    table.add(**{name: "Why the longest road of the whole season ends at the one bridge that nobody crosses " * 6})
    table.add(**{name: "Same words"})
    table.add(**{name: "Same words"})
    found = table.read()
    assert not found["looking"]
    by_row = {problem["number"]: problem for problem in found["problems"]}
    assert 2 in by_row and by_row[2]["placement"], found["problems"]
    assert "looks like row 3" in by_row[4]["words"] and by_row[4]["twin"] == found["rows"][2]["id"]
    assert 1 not in by_row


def test_a_place_that_shows_no_field_is_told_once(table: Table, place: Any) -> None:
    piece = table.client.get(f"/api/workspaces/juno/pieces/{table.piece}").json()
    name = words_of(table)
    part = next(one["part"] for one in table.read()["fields"] if one["name"] == name)
    hide = {"act": "set", "part": part, "field": "hidden", "value": True}
    others = [one["name"] for one in table.read()["fields"] if one["name"] != name]
    changes = [hide, *({"act": "name", "name": one, "target": None} for one in others)]
    with table.later(execute=True):
        body = {"revision": piece["revision"], "step": "x", "changes": changes}
        assert send(table.client, "patch", f"workspaces/juno/pieces/{table.piece}", body).status_code == 200
    table.add(**{name: "Gears"})
    table.add(**{name: "Brakes"})
    found = table.read()
    assert found["alike"] == [found["places"][0]["placement"]]
    assert not [one for one in found["problems"] if one["twin"]], "not row by row"


def test_files_of_rows_are_made_named_and_handed_over(table: Table, run: Any) -> None:
    name = words_of(table)
    table.add(**{name: "Gears"})
    table.add(**{name: "Brakes"})
    made = table.ask("post", "/files", {}).json()["progress"]
    assert (made["wanted"], made["done"], made["failed"]) == (3, 0, 0)
    assert table.read()["progress"]["done"] == 3
    assert {one["state"] for one in table.seen()} <= {"fits", "risky"}
    answer = table.ask("post", "/deliveries", {"changed": True})
    assert answer.status_code == 201, answer.json()
    files = table.client.get("/api/workspaces/juno/deliveries").json()[0]["files"]
    names = [file["name"] for file in files]
    assert len(names) == 3 and any("-2-gears" in one.lower() for one in names), names
    assert not any(file["out_of_date"] for file in files), "nobody compares them with the piece itself"
    assert table.ask("post", "/deliveries", {"changed": True}).status_code == 422, "nothing changed since"
    row = table.read()["rows"][1]["id"]
    table.cell(row, name, "Chains")
    assert [one["state"] for one in table.seen()].count("working") == 1, "one row alone"
    table.ask("post", "/files", {})
    again = table.ask("post", "/deliveries", {"changed": True}).json()
    files = table.client.get("/api/workspaces/juno/deliveries").json()[0]["files"]
    assert [("chains" in file["name"].lower()) for file in files] == [True], again
    delivery = again["id"]
    packed = content(table.client.get(f"/api/workspaces/juno/deliveries/{delivery}/zip"))
    assert len([one for one in zipfile.ZipFile(io.BytesIO(packed)).namelist() if "chains" in one.lower()]) == 1
    wall = table.client.get("/api/workspaces/juno/wall").json()
    proof = next(one for shelf in wall["shelves"] for one in shelf["placements"] if one["name"] == "Lesson card")
    assert proof["state"] != "out of date", "a row's file is not the one of the piece itself"


def test_names_that_are_one_are_refused_before_anything_is_made(table: Table) -> None:
    name = words_of(table)
    table.add(**{name: "Gears"})
    assert table.ask("put", "/naming", {"rule": "{subject}-{nothing}"}).status_code == 422
    assert table.ask("put", "/naming", {"rule": "{subject}"}).json()["example"]
    answer = table.ask("post", "/files", {})
    assert answer.status_code == 422 and "would both be called" in answer.json()["message"]
    assert not RowFile.objects.exists()


def test_pictures_are_named_by_cells_and_what_is_missing_is_told(signed_in: Any, place: Any, run: Any) -> None:
    wide = place(name="Card", size={"width": 320, "height": 180}, transparency="forbidden")
    upload(signed_in, "juno", "Mara.jpg", saved(photo(), "JPEG"), str(wide.pk), run)
    fit = next(
        one["fit"]
        for shelf in signed_in.get("/api/workspaces/juno/wall").json()["shelves"]
        for one in shelf["placements"]
        if one["fit"]
    )
    own = signed_in.get(f"/api/workspaces/juno/fits/{fit}").json()
    part = next(one["id"] for one in own["piece"]["document"]["parts"] if one["role"] == "picture")
    target = {"part": part, "field": "artwork"}
    body = {"revision": 1, "step": "x", "changes": [{"act": "name", "name": "guest", "target": target}]}
    assert send(signed_in, "patch", f"workspaces/juno/pieces/{own['piece']['id']}", body).status_code == 200
    table = Table(signed_in, run, own["piece"]["id"])
    table.ask("post")
    table.add(guest="ilse")
    found = table.read()
    assert [(one["number"], one["field"]) for one in found["problems"]] == [(2, "guest")]
    assert "ilse" in found["problems"][0]["words"]
    first = found["rows"][0]["cells"]["guest"]
    assert found["pictures"][first]["name"] == "Mara.jpg"
    before = {one["row"]: one["key"] for one in table.seen()}
    upload(signed_in, "juno", "Ilse.png", saved(photo(seed=3), "PNG"), f"row/{table.piece}/guest", run)
    found = table.read()
    assert found["problems"] == [] and len(found["rows"]) == 2, "a cell named it already"
    after = {one["row"]: one["key"] for one in table.seen()}
    assert [before[row] == after[row] for row in before] == [True, False]
    upload(signed_in, "juno", "Tove.png", saved(photo(seed=5), "PNG"), f"row/{table.piece}/guest", run)
    assert table.cells("guest")[2] == "Tove.png"


def test_a_row_differs_by_hand_and_follows_the_piece_elsewhere(table: Table) -> None:
    name = words_of(table)
    field = next(one for one in table.read()["fields"] if one["name"] == name)
    table.add(**{name: "Gears"})
    [first, second] = [one["id"] for one in table.read()["rows"]]
    placement = table.read()["places"][0]["placement"]
    fit = table.ask("post", f"/{second}/{placement}/fit").json()
    view = table.client.get(f"/api/workspaces/juno/fits/{fit}").json()
    assert (view["row"]["number"], view["row"]["title"]) == (2, "Gears")
    assert view["here"][field["part"]]["text"] == "Gears"
    values = [
        {"part": field["part"], "field": "colour", "value": "#c2412d"},
        {"part": field["part"], "field": "text", "value": "Gears, again"},
    ]
    body = {"revision": view["piece"]["revision"], "step": "colour", "values": values, "everywhere": True}
    with table.later(execute=True):
        changed = send(table.client, "patch", f"workspaces/juno/fits/{fit}", body).json()
    assert changed["adjusted"] == [f"{field['part']}.colour"] and changed["row"]["by_hand"] == 1
    assert table.cells(name)[1] == "Gears, again", "what a cell says is changed in the cell"
    document = table.client.get(f"/api/workspaces/juno/pieces/{table.piece}").json()
    assert "#c2412d" not in str(document["document"]), "the piece itself stays as it is"
    assert table.read()["by_hand"] == {second: 1}
    keys = {one["row"]: one["key"] for one in table.seen()}
    change = {"act": "set", "part": field["part"], "field": "colour", "value": "#17443c"}
    body = {"revision": document["revision"], "step": "colour", "changes": [change]}
    send(table.client, "patch", f"workspaces/juno/pieces/{table.piece}", body)
    now = {one["row"]: one["key"] for one in table.seen()}
    assert now[first] != keys[first] and now[second] == keys[second], "what differs by hand stays"
    assert changed["piece"]["undo"] == "colour"
    table.ask("post", "/undo")
    assert table.read()["by_hand"] == {} and table.cells(name)[1] == "Gears"


def test_a_worker_that_is_lost_goes_on_where_it_was(table: Table, monkeypatch: pytest.MonkeyPatch) -> None:
    name = words_of(table)
    for number in range(5):
        table.add(**{name: f"Lesson {number}"})
    made: list[str] = []
    really = row_files.make_open

    def lost(opened: Any, like: Any = None) -> None:
        if len(made) == 2:
            raise KeyboardInterrupt
        made.append(opened.fit.row)
        really(opened, like)

    monkeypatch.setattr(row_files, "make_open", lost)
    with pytest.raises(KeyboardInterrupt):
        table.ask("post", "/files", {})
    assert RowFile.objects.filter(state="done").count() == 2
    assert Job.objects.filter(kind="make_rows").count() == 2, "both shares are still wanted"
    monkeypatch.setattr(row_files, "make_open", really)
    for share in (0, 1):
        row_files.work_on_rows(table.piece, share)
    assert table.read()["progress"] == {"wanted": 6, "done": 6, "failed": 0, "failures": []}


def test_what_workers_are_lost_over_is_told_and_the_rest_is_done(table: Table) -> None:
    name = words_of(table)
    table.add(**{name: "Second"})
    with table.later(execute=False):
        send(table.client, "post", f"{table.path}/files", {})
    guilty = RowFile.objects.get(share=0)
    RowFile.objects.filter(pk=guilty.pk).update(attempts=row_files.MOST_ATTEMPTS)
    assert not row_files.end_unmade_rows(table.piece, 0), "nothing is left of this share"
    row_files.work_on_rows(table.piece, 1)
    progress = table.read()["progress"]
    assert (progress["done"], progress["failed"]) == (1, 1) and progress["failures"][0]["number"] == 1


def test_what_is_cancelled_stays_as_it_is(table: Table) -> None:
    table.cell(table.read()["rows"][0]["id"], words_of(table), "Not made yet")
    with table.later(execute=False):
        send(table.client, "post", f"{table.path}/files", {})
    assert table.ask("delete", "/files").json()["progress"]["wanted"] == 0
    row_files.work_on_rows(table.piece, 0)
    assert {one["state"] for one in table.seen()} == {"working"}


def test_who_fills_in_changes_cells_and_nothing_else(table: Table, make_person: Any, juno: Any) -> None:
    person = make_person("ines")[0]
    Membership.objects.create(user=person, workspace=juno[1], role="filler")
    client = Client()
    client.force_login(person, BACKEND)
    own = Table(client, table.later, table.piece)
    found = own.read()
    assert not found["may_change"] and not found["may_deliver"]
    name, row = words_of(table), found["rows"][0]["id"]
    assert own.cell(row, name, "Filled in").status_code == 200 and table.cells(name) == ["Filled in"]
    part = found["fields"][0]["part"]
    differ = {"act": "differ", "row": row, "part": part, "field": "colour", "now": {"given": True, "value": "#ff0000"}}
    assert own.change(differ).status_code == 403
    entry = {"id": "new", "cells": {name: "Added"}}
    by_hand = {**entry, "differences": {part: {"colour": "#ff0000"}}}
    assert own.change({"act": "add", "entry": by_hand}).status_code == 403, "nor with a row that is new"
    assert own.change({"act": "add", "entry": entry}).status_code == 200
    assert own.ask("put", "/naming", {"rule": ""}).status_code == 403
    body = {"revision": 1, "step": "x", "changes": []}
    answer = send(client, "patch", f"workspaces/juno/pieces/{table.piece}", body)
    assert answer.status_code == 403 and "fill in rows" in answer.json()["message"]
    assert own.ask("post", "/deliveries", {}).status_code == 403


def test_a_field_whose_part_was_removed_loses_no_cell(table: Table) -> None:
    found = table.read()
    name = words_of(table)
    field = next(one for one in found["fields"] if one["name"] == name)
    table.add(**{name: "Gears"})
    changes = [{"act": "name", "name": name, "target": None}, {"act": "remove", "part": field["part"]}]
    body = {"revision": found["piece_revision"], "step": "remove", "changes": changes}
    with table.later(execute=True):
        answer = send(table.client, "patch", f"workspaces/juno/pieces/{table.piece}", body)
    assert answer.status_code == 200, answer.json()
    after = table.read()
    assert name not in [one["name"] for one in after["fields"]]
    assert after["rows"][1]["cells"][name] == "Gears" and len(table.seen()) == 2
    with table.later(execute=True):
        send(table.client, "post", f"workspaces/juno/pieces/{table.piece}/undo")
    assert name in [one["name"] for one in table.read()["fields"]]


def test_a_run_comes_along_with_its_workspace(table: Table, juno: Any) -> None:
    name = words_of(table)
    table.add(**{name: "Gears"})
    table.ask("put", "/naming", {"rule": "{row}-{subject}"})
    before = table.read()
    packed = content(table.client.get("/api/workspaces/juno/export"))
    with table.later(execute=True):
        answer = table.client.post("/api/workspaces/bring-in", {"file": SimpleUploadedFile("a.zip", packed)})
    assert answer.status_code == 201, answer.content
    slug = answer.json()["slug"]
    piece = Run.objects.get(piece__workspace__slug=slug).piece_id
    after = Table(table.client, table.later, str(piece), slug).read()
    assert [row["cells"] for row in after["rows"]] == [row["cells"] for row in before["rows"]]
    assert after["naming"] == before["naming"] and len(after["places"]) == 1


def test_a_run_is_handed_to_a_colleague_by_a_link_that_works_once(table: Table, make_person: Any) -> None:
    path = table.ask("post", "/colleagues").json()["path"]
    secret = path.rpartition("/")[2]
    colleague, other = Client(), Client()
    colleague.force_login(make_person("ines")[0], BACKEND)
    other.force_login(make_person("otto")[0], BACKEND)
    assert Client().get(f"/api/joining/{secret}").status_code == 401
    told = colleague.get(f"/api/joining/{secret}").json()
    assert told["slug"] == "juno" and told["path"].endswith(f"/runs/{table.piece}")
    assert Table(colleague, table.later, table.piece).ask("patch").status_code in (404, 422), "not in yet"
    assert colleague.post(f"/api/joining/{secret}").status_code == 200
    own, row = Table(colleague, table.later, table.piece), table.read()["rows"][0]["id"]
    assert own.cell(row, words_of(table), "From Ines").status_code == 200
    assert not own.read()["may_change"] and own.ask("post", "/colleagues").status_code == 403
    again = other.post(f"/api/joining/{secret}")
    assert again.status_code == 422 and "used already" in again.json()["message"]
    assert table.client.post(f"/api/joining/{secret}").status_code == 422
    Joining.objects.update(used_at=None, used_by=None, made_at=timezone.now() - timedelta(days=15))
    assert other.post(f"/api/joining/{secret}").status_code == 422, "too old"
    Joining.objects.update(made_at=timezone.now())
    assert table.client.post(f"/api/joining/{secret}").status_code == 200
    assert table.read()["may_change"], "who is a member already keeps their role"


def test_rows_of_two_pieces_in_one_place_do_not_meet(table: Table, place: Any, run: Any) -> None:
    """Whoever writes a script names rows alike; one of them is no reason to leave another one out."""
    card = table.read()["places"][0]["placement"]
    with run(execute=True):
        path = f"workspaces/juno/placements/{card}/pieces"
        other = send(table.client, "post", path, {"starting_point": 1}).json()["piece"]["id"]
    second = Table(table.client, run, other)
    second.ask("post")
    for own in (table, second):
        own.change({"act": "add", "entry": {"id": "same", "cells": {words_of(own): "Gears"}}})
    made = [own.ask("post", "/files", {"rows": ["same"]}).json() for own in (second, table)]
    assert [own.read()["progress"]["done"] for own in (second, table)] == [1, 1], made


def test_rows_that_only_count_have_files_too(table: Table) -> None:
    found = table.read()
    name = words_of(table)
    field = next(one for one in found["fields"] if one["name"] == name)
    counter = {"before": "Lesson ", "start": 7, "step": 1, "digits": 2, "after": ""}
    target = {"part": field["part"], "field": "text", "counter": counter}
    others = [{"act": "name", "name": one["name"], "target": None} for one in found["fields"] if one["name"] != name]
    body = {
        "revision": found["piece_revision"],
        "step": "x",
        "changes": [{"act": "name", "name": name, "target": target}, *others],
    }
    send(table.client, "patch", f"workspaces/juno/pieces/{table.piece}", body)
    table.add()
    table.cell(table.read()["rows"][0]["id"], name, "")
    assert table.read()["counted"][name] == ["Lesson 07", "Lesson 08"]
    assert table.ask("post", "/files", {}).json()["progress"]["wanted"] == 2


def test_one_row_that_cannot_be_drawn_is_told_and_the_others_are_judged(
    table: Table, monkeypatch: pytest.MonkeyPatch
) -> None:
    really = row_looking.decide_and_remember

    def broken(workspace: Any, opened: Any, sources: Any) -> Any:
        if opened.of_row.number == 0:
            raise ArtworkError("a picture of it is damaged", advice="Bring it in again.")
        return really(workspace, opened, sources)

    monkeypatch.setattr(row_looking, "decide_and_remember", broken)
    name = words_of(table)
    table.add(**{name: "Gears"})
    table.cell(table.read()["rows"][0]["id"], name, "Brakes")
    found = table.read()
    assert [(one["number"], one["words"]) for one in found["problems"]] == [(1, "cannot be drawn")]
    assert not found["looking"] and RowJudgement.objects.exclude(cells="").count() == 1


def test_what_was_looked_at_in_earlier_turns_is_not_looked_through_again(
    table: Table, monkeypatch: pytest.MonkeyPatch
) -> None:
    """A turn that began with the first row again would, of thousands, do nothing but that."""
    entries = [{"id": f"x{number}", "cells": {words_of(table): f"Lesson {number}"}} for number in range(30)]
    table.change(*({"act": "add", "entry": entry} for entry in entries), step="add rows")
    RowJudgement.objects.all().delete()
    seen: list[Any] = []
    really = row_looking.expected_key
    monkeypatch.setattr(row_looking, "TURN_SECONDS", -1.0)
    monkeypatch.setattr(row_looking, "expected_key", lambda opened: seen.append(opened) or really(opened))
    for share in range(ROW_WORKERS):
        turns = turns_until_done(table.piece, share)
        assert turns > 10
    assert RowJudgement.objects.count() == 31
    assert len(seen) < 4 * 31, "each is asked for before and after it is judged, and once more at the end"


def turns_until_done(piece: str, share: int) -> int:
    for turn in range(100):
        try:
            row_looking.look_at_rows(piece, share)
        except Later:
            continue
        return turn + 1
    raise AssertionError("it never ends")
