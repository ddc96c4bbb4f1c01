"""`./fitzle render` with composed pieces: what comes out, and what bad pieces get."""

import json
import time
from pathlib import Path
from typing import Any

import numpy as np
import pytest

from fitzle.cli import main
from fitzle.core.artwork.reading import read_artwork
from tests.core.composed import gradient, picture, piece, shape, words
from tests.make import opened, photo, saved, solid, svg

SPEC: dict[str, Any] = {
    "fitzle_spec": 1, "name": "Card", "size": {"width": 320, "height": 180}, "formats": ["png"],
    "naming": "{subject}_{size}",
}  # fmt: skip
PATIENCE_S = 5  # the time within which bad input must be answered


@pytest.fixture
def desk(tmp_path: Path) -> Path:
    """A folder with artwork to make pieces of."""
    (tmp_path / "photo").write_bytes(saved(photo(), "JPEG"))
    (tmp_path / "mark.svg").write_bytes(svg())
    return tmp_path


def render(desk: Path, capsys: pytest.CaptureFixture[str], data: Any, **place: Any) -> tuple[int, dict[str, Any]]:
    """Renders a piece for a place; the exit code and the answer."""
    text = data if isinstance(data, str) else json.dumps({"fitzle_piece": 1, **data})
    (desk / "piece.json").write_text(text)
    (desk / "place.json").write_text(json.dumps({**SPEC, **place}))
    arguments = ["render", str(desk / "piece.json"), "--spec", str(desk / "place.json"), "--out", str(desk / "out")]
    started = time.monotonic()
    code = main([*arguments, "--json"])
    assert time.monotonic() - started < 4 * PATIENCE_S, "answered in time, with room for a stalling machine"
    return code, json.loads(capsys.readouterr().out)


def test_a_composed_piece_becomes_a_file_that_fits(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    data = piece(
        picture(stands={"anchor": "right", "width": 0.8, "height": 1}),
        words(plate={"colour": "#17443c"}),
        ground=gradient("linear"),
    )
    code, answer = render(desk, capsys, data)
    assert (code, answer["verdict"]) == (0, "fits"), answer["findings"]
    pixels = np.asarray(opened(Path(answer["file"]).read_bytes()).convert("RGB"))
    assert pixels.shape == (180, 320, 3)
    assert np.abs(pixels[0, 0].astype(int) - (0x17, 0x44, 0x3C)).max() <= 3


@pytest.mark.parametrize("side", [(16, 16), (31, 17), (4096, 512), (640, 2048)])
def test_a_piece_is_made_in_any_size(side: tuple[int, int], desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    data = piece(
        shape("star", solid("#f4d06f"), stands={"width": 0.8, "height": 0.8}), words("Ride"), ground=solid("#17443c")
    )
    code, answer = render(desk, capsys, data, size={"width": side[0], "height": side[1]})
    assert code == 0 and (answer["width"], answer["height"]) == side
    assert opened(Path(answer["file"]).read_bytes()).size == side


def test_an_adjustment_for_the_sheets_name_counts(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    data = {**piece(words(), ground=solid("#ffffff")), "adjustments": {"Card": {"ground": {"fill": solid("#17443c")}}}}
    _, answer = render(desk, capsys, data)
    assert opened(Path(answer["file"]).read_bytes()).convert("RGB").getpixel((0, 0)) == (0x17, 0x44, 0x3C)


def test_svg_is_written_where_the_place_asks_for_it(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    code, answer = render(desk, capsys, piece(words(), ground=solid("#17443c")), formats=["svg"])
    assert code == 0 and answer["file"].endswith(".svg")
    assert read_artwork(Path(answer["file"]).read_bytes(), "x.svg").facts.vector


def test_small_words_are_a_finding_and_no_refusal(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    data = piece(words(stands={"width": 0.5, "height": 0.05}), ground=solid("#ffffff"))
    code, answer = render(desk, capsys, data, seen=[{"name": "list", "width": 120}])
    assert (code, answer["verdict"]) == (0, "risky")
    assert answer["findings"][0]["rule"] == "letters"


@pytest.mark.parametrize(
    ("data", "said"),
    [
        ("", "not valid JSON"),
        ("[1, 2]", "not a JSON object"),
        ('{"parts": []}', 'It needs "fitzle_piece"'),
        ('{"fitzle_piece": "one"}', "whole number"),
        (piece({**words(), "glitter": True}), "glitter"),
        (piece(words("x" * 10_000)), "at most 1000"),
        (piece(*({**words(), "id": f"w{n}"} for n in range(500))), "at most 100"),
        (piece(words(stands={"width": 1e300, "height": 1})), "width"),
        (piece(picture(artwork="gone.png")), "gone.png"),
        ({"subject": "", "parts": []}, "subject"),
    ],
)
def test_a_bad_piece_gets_a_clear_message(data: Any, said: str, desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    code, answer = render(desk, capsys, data)
    assert code == 2
    assert said in answer["error"]
    assert not (desk / "out").exists()


def test_a_hundred_dressed_parts_are_drawn(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    dressed = {
        "glow": {"radius": 1, "colour": "#ffffff"}, "shadow": {"softness": 1},
        "outline": {"width": 0.2, "colour": "#000"},
        "plate": {"colour": "#17443c", "shape": "burst"}, "rotation": 30, "opacity": 0.5, "blend": "soft light",
    }  # fmt: skip
    parts = [{**words(f"Part {n}", **dressed), "id": f"w{n}"} for n in range(99)]
    code, answer = render(desk, capsys, piece(*parts, ground=solid("#888888")))
    assert code == 0 and answer["file"]


def test_a_thousand_letters_without_a_space_are_drawn(desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    code, answer = render(desk, capsys, piece(words("x" * 1000), ground=solid("#ffffff")))
    assert code == 0 and answer["file"]


@pytest.mark.parametrize("text", ["", "   ", "\n\n\n", "\u200b", "\u00ad", "مرحبا hello שלום 🚲", "e" + "\u0301" * 200])
def test_strange_words_are_drawn_too(text: str, desk: Path, capsys: pytest.CaptureFixture[str]) -> None:
    code, answer = render(desk, capsys, piece(words(text), ground=solid("#ffffff")))
    assert code == 0 and answer["file"]
