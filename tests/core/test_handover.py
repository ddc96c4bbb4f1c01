"""What an upload form asks for, names on replacement, delivery.json, and folders that are kept current."""

from __future__ import annotations

import hashlib
import json
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fitzle.core.errors import DocumentError
from fitzle.core.handover.document import DeliveryDocument, HandedOver, delivery_schema, delivery_text, read_delivery
from fitzle.core.handover.emoji_names import MOST_FOUND, all_emoji, emoji_named, find_emoji
from fitzle.core.handover.fields import kind_of, prepared_fields, said_fields, trouble_with
from fitzle.core.handover.folder import FolderError, keep_current
from fitzle.core.handover.handing import Handing, variant_sheet, variants_of, words_of
from fitzle.core.handover.names import replacement_name
from fitzle.core.spec.sheet import UploadField
from tests.make import sheet

SCHEMA_FILE = Path(__file__).parents[2] / "docs" / "delivery.schema.json"


@pytest.mark.parametrize(
    ("name", "label", "kind"),
    [
        ("alt", "Alt text", "alternative text"), ("text", "Description for the blind", "alternative text"),
        ("alternative_text", "What is seen", "alternative text"),
        ("alternativtext", "Alternativtext", "alternative text"),
        ("tag", "Tag", "tag"), ("emoji", "Related emoji", "tag"), ("label", "Label", "text"), ("note", "Stage", "text"),
        ("altitude", "Altitude", "text"), ("salt", "Salt", "text"), ("vintage", "Vintage", "text"),
    ],
)  # fmt: skip
def test_what_a_field_wants_is_told_by_its_words(name: str, label: str, kind: str) -> None:
    assert kind_of(UploadField(name=name, label=label)) == kind


@pytest.mark.parametrize(
    ("field", "value", "trouble"),
    [
        ({"label": "Label", "required": True}, "", "missing"),
        ({"label": "Label"}, "", ""),
        ({"label": "Label", "max_length": 5}, "Wheel", ""),
        ({"label": "Label", "max_length": 5}, "Wheels", "6 letters, at most 5"),
        ({"label": "Tag"}, "bicycle", ""),
        ({"label": "Tag"}, "🚲", ""),
        ({"label": "Tag"}, "a bike of ours", "none"),
    ],
)
def test_what_would_not_be_taken_is_said(field: dict[str, Any], value: str, trouble: str) -> None:
    said = trouble_with(UploadField(name="x", **field), value)
    assert trouble in said and bool(said) == bool(trouble)


def test_the_alternative_text_of_the_piece_stands_where_a_place_has_none_of_its_own() -> None:
    place = sheet(fields=[{"name": "alt", "label": "Alt text", "required": True}, {"name": "t", "label": "Title"}])
    own = prepared_fields(place, {}, "A wheel before a hill")
    assert said_fields(own) == {"alt": "A wheel before a hill"} and not own[0].trouble
    assert said_fields(prepared_fields(place, {"alt": "Wheel", "t": "Bells"}, "x")) == {"alt": "Wheel", "t": "Bells"}
    assert prepared_fields(place, {}, "")[0].trouble


def test_emoji_are_found_by_their_standard_names() -> None:
    assert len(all_emoji()) > 1500 and not any("skin tone" in name for name in all_emoji())
    assert next(one.name for one in find_emoji("bicycle")) == "bicycle" and len(find_emoji("face")) == MOST_FOUND
    assert find_emoji("") == [] and find_emoji("no such thing") == []
    for said in ("wrench", ":wrench:", "Wrench", "🔧"):
        assert (found := emoji_named(said)) and found.text == "🔧"
    assert (heart := emoji_named("❤")) and heart.name == "red heart"
    assert emoji_named("ottermoor") is None and emoji_named("") is None


@pytest.mark.parametrize(
    ("name", "how", "version", "before", "expected"),
    [
        ("a.png", "rule", 3, "b.png", "a.png"), ("a.png", "same", 2, "b.jpg", "b.png"),
        ("a.png", "same", 1, "", "a.png"),
        ("a.png", "version", 1, "", "a.png"), ("a.png", "version", 2, "a.png", "a-v2.png"),
        ("a_v2.png", "version", 2, "", "a_v2.png"),
    ],
)  # fmt: skip
def test_what_replaces_a_file_is_called_as_the_place_wants(
    name: str, how: Any, version: int, before: str, expected: str
) -> None:
    assert replacement_name(name, how, version, before) == expected


def test_the_bitmap_of_a_file_that_moves_is_its_still() -> None:
    assert words_of("png") == "as a bitmap (PNG)" and "still" in words_of("png", moving=True)
    assert words_of("dark", moving=True) == words_of("dark")


def test_variants_are_other_sheets_and_none_is_the_file_itself() -> None:
    handing = Handing(also=("dark", "svg", "png", "dark"))
    assert variants_of(handing, "png") == ["dark", "svg"]
    place = sheet(grounds=["#ffffff"], formats=["png", "webp"], max_bytes=9000)
    assert variant_sheet(place, "dark").grounds == ("#17181a",) and variant_sheet(place, "dark").max_bytes == 9000
    vector = variant_sheet(place, "svg")
    assert vector.formats == ("svg",) and vector.max_bytes is None and variant_sheet(place, "png").max_bytes == 9000


ENTRY = HandedOver(
    file="shop/a.png", destination="Shop", place="Banner", piece="Bells", width=9, height=8, bytes=7, format="png",
    sha256="0" * 64, score=92.5, fields={"label": "Bells"},
)  # fmt: skip


def test_a_delivery_is_read_as_it_was_written() -> None:
    document = DeliveryDocument(fitzle_delivery=1, files=(ENTRY,))
    text = delivery_text(document)
    assert read_delivery(text) == document and "delivered_at" not in text and text.endswith("}\n")
    assert json.loads(SCHEMA_FILE.read_text()) == delivery_schema()
    for broken in ("{}", '{"fitzle_delivery": 9}', "[]", '{"fitzle_delivery": 1, "files": [{"file": ""}]}', "{"):
        with pytest.raises(DocumentError):
            read_delivery(broken)


def test_a_folder_is_kept_current_and_nothing_else_is_touched(tmp_path: Path) -> None:
    (tmp_path / "mine.txt").write_text("mine")
    assert keep_current(tmp_path, "shop/a.png", b"one") == "new"
    (tmp_path / "shop" / "b.txt").write_text("theirs")
    before = (tmp_path / "shop" / "a.png").stat()
    assert keep_current(tmp_path, "shop/a.png", b"one") == "unchanged"
    after = (tmp_path / "shop" / "a.png").stat()
    assert (before.st_mtime_ns, before.st_ino) == (after.st_mtime_ns, after.st_ino)
    assert keep_current(tmp_path, "shop/a.png", b"two") == "changed"
    assert sorted(str(one.relative_to(tmp_path)) for one in tmp_path.rglob("*") if one.is_file()) == [
        "mine.txt", "shop/a.png", "shop/b.txt",
    ]  # fmt: skip
    assert (tmp_path / "shop" / "a.png").read_bytes() == b"two" and (tmp_path / "mine.txt").read_text() == "mine"


@pytest.mark.parametrize("name", ["../a.png", "/a.png", "a/../../b", "", ".", "a\\b.png", "a/./../../c"])
def test_no_name_leads_out_of_the_folder(tmp_path: Path, name: str) -> None:
    with pytest.raises(FolderError):
        keep_current(tmp_path / "in", name, b"x")
    assert not [one for one in tmp_path.rglob("*") if one.is_file()]


def test_a_link_does_not_lead_out_of_it_either(tmp_path: Path) -> None:
    (tmp_path / "out").mkdir()
    (tmp_path / "in").mkdir()
    (tmp_path / "in" / "shop").symlink_to(tmp_path / "out")
    with pytest.raises(FolderError, match="leads out"):
        keep_current(tmp_path / "in", "shop/a.png", b"x")
    assert not list((tmp_path / "out").iterdir())


def test_a_folder_that_is_a_file_is_told_and_what_was_there_stays(tmp_path: Path) -> None:
    (tmp_path / "shop").write_text("a file")
    with pytest.raises(FolderError, match="could not be written"):
        keep_current(tmp_path, "shop/a.png", b"x")
    assert (tmp_path / "shop").read_text() == "a file"


def test_a_disk_that_is_full_leaves_the_file_before(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    keep_current(tmp_path, "a.png", b"one")

    def full(_handle: int) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr("os.fsync", full)
    with pytest.raises(FolderError, match="No space left"):
        keep_current(tmp_path, "a.png", b"two")
    assert (tmp_path / "a.png").read_bytes() == b"one" and len(list(tmp_path.iterdir())) == 1


def test_a_file_that_the_system_lets_nobody_write_whole_is_not_there(tmp_path: Path) -> None:
    """A real limit of the operating system, in a process of its own: writing ends in the middle."""
    keep_current(tmp_path, "a.png", b"one")
    script = (
        "import resource, signal, sys; from pathlib import Path\n"
        "from fitzle.core.handover.folder import FolderError, keep_current\n"
        "signal.signal(signal.SIGXFSZ, signal.SIG_IGN)\n"
        "resource.setrlimit(resource.RLIMIT_FSIZE, (4096, 4096))\n"
        "try:\n    keep_current(Path(sys.argv[1]), 'a.png', b'x' * 10_000)\n"
        "except FolderError as error:\n    print(error.message)\n"
    )
    env = {"PYTHONPATH": str(Path(__file__).parents[2] / "src")}
    done = subprocess.run(
        [sys.executable, "-c", script, str(tmp_path)], env=env, check=True, capture_output=True, text=True
    )
    assert "could not be written" in done.stdout
    assert (tmp_path / "a.png").read_bytes() == b"one" and len(list(tmp_path.iterdir())) == 1


@given(st.lists(st.tuples(st.sampled_from(["a", "b/c", "b/d"]), st.binary(max_size=9)), max_size=12))
def test_whatever_is_written_the_last_bytes_stand(tmp_path_factory: Any, writes: list[tuple[str, bytes]]) -> None:
    folder = tmp_path_factory.mktemp("kept")
    known: dict[str, bytes] = {}
    for name, data in writes:
        told = keep_current(folder, name, data)
        assert told == ("new" if name not in known else "unchanged" if known[name] == data else "changed")
        known[name] = data
    found = {str(one.relative_to(folder)): one.read_bytes() for one in folder.rglob("*") if one.is_file()}
    assert {name: hashlib.sha256(data).digest() for name, data in found.items()} == {
        name: hashlib.sha256(data).digest() for name, data in known.items()
    }
