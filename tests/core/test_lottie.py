"""Lottie animations: kept with what they are, and refused where they are broken, would load or would run something."""

import io
import json
import random
from typing import Any

import pytest

from fitzle.core.artwork.inspecting import inspected
from fitzle.core.artwork.limits import Limits
from fitzle.core.artwork.sniff import sniff_format
from fitzle.core.errors import ArtworkError, FitzleError, HostileFileError, LimitError
from tests.core.test_fuzz import mutated


def wheel(**keys: Any) -> dict[str, Any]:
    """A wheel that turns for two seconds, written by hand after the specification."""
    fill = {"ty": "fl", "c": {"a": 0, "k": [0.09, 0.267, 0.235, 1]}, "o": {"a": 0, "k": 100}}
    ring = {"ty": "el", "p": {"a": 0, "k": [0, 0]}, "s": {"a": 0, "k": [80, 80]}}
    stroke = {"ty": "st", "c": {"a": 0, "k": [0.706, 0.329, 0.102, 1]}, "w": {"a": 0, "k": 4}, "o": {"a": 0, "k": 100}}
    turning = {"a": 1, "k": [{"t": 0, "s": [0]}, {"t": 60, "s": [360]}]}
    layer = {"ty": 4, "nm": "wheel", "ip": 0, "op": 60, "st": 0, "ks": {"r": turning},
             "shapes": [{"ty": "gr", "it": [ring, fill, stroke, {"ty": "tr"}]}]}  # fmt: skip
    return {"v": "5.9.0", "fr": 30, "ip": 0, "op": 60, "w": 320, "h": 240, "assets": [], "layers": [layer]} | keys


def facts_of(document: Any, **limits: Any) -> Any:
    data = document if isinstance(document, bytes) else json.dumps(document).encode()
    return inspected(io.BytesIO(data), "wheel.json", Limits(**limits))


def test_an_animation_is_known_for_what_it_is() -> None:
    facts = facts_of(wheel())
    assert (facts.kind, facts.format, facts.vector) == ("clip", "lottie", True)
    assert (facts.width, facts.height, facts.seconds, facts.fps, facts.frames) == (320, 240, 2.0, 30, 60)
    assert {entry.hex for entry in facts.colours} == {"#17443c", "#b4541a"}
    assert "Make a moving picture" in facts.warnings[0]


def test_keys_may_come_in_any_order_and_with_a_byte_order_mark() -> None:
    backwards = dict(reversed(wheel().items()))
    data = b"\xef\xbb\xbf" + json.dumps(backwards, indent=2).encode()
    assert sniff_format(data) == "lottie"
    assert facts_of(data).seconds == 2.0


def test_embedded_pictures_and_words_are_said() -> None:
    asset = {"id": "a", "w": 8, "h": 8, "u": "", "p": "data:image/png;base64,iVBORw0KGgo=", "e": 1}
    layers = [*wheel()["layers"], {"ty": 2, "refId": "a"}, {"ty": 5}, {"ty": 6}]
    facts = facts_of(wheel(assets=[asset], layers=layers))
    assert facts.vector is False
    assert any("words that are not outlines" in warning for warning in facts.warnings)
    assert any("sound" in warning for warning in facts.warnings)


def expression() -> dict[str, Any]:
    document = wheel()
    document["layers"][0]["ks"]["r"]["x"] = "var $bm_rt; $bm_rt = time * 90;"
    return document


def deep(levels: int) -> bytes:
    return json.dumps(wheel()).encode()[:-1] + b',"deep":' + b"[" * levels + b"]" * levels + b"}"


@pytest.mark.parametrize(
    ("document", "kind", "words"),
    [
        (wheel(assets=[{"id": "a", "u": "images/", "p": "a.png"}]), HostileFileError, "images/a.png"),
        (wheel(assets=[{"id": "a", "u": "https://cdn.example/", "p": "a.png"}]), HostileFileError, "from outside"),
        (expression(), HostileFileError, "expressions"),
        (wheel(fr=0), ArtworkError, "fr"), (wheel(fr=1e400), ArtworkError, "fr"), (wheel(w=0), ArtworkError, "w:"),
        (wheel(op=0), ArtworkError, "ends before"), (wheel(layers=[]), ArtworkError, "layers"),
        (wheel(layers=[{"ty": 99}]), ArtworkError, "unknown kind"), (wheel(layers="x"), ArtworkError, "layers"),
        ({"layers": []}, ArtworkError, "not valid"), (wheel(op=20_000), LimitError, "20000 frames"),
        (wheel(w=65_535, h=65_535), LimitError, "too large"),
        (wheel(layers=[{"ty": 3}] * 5001), LimitError, "5001 layers"), (deep(300), LimitError, "nesting"),
        (deep(100_000), ArtworkError, "cannot be read"), (json.dumps(wheel()).encode()[:-40], ArtworkError, "cut off"),
        (b'{"fr": 30', ArtworkError, "cut off"),
    ],
)  # fmt: skip
def test_bad_animations_are_told_what_is_wrong(document: Any, kind: type[FitzleError], words: str) -> None:
    with pytest.raises(kind, match=words) as caught:
        facts_of(document)
    assert caught.value.message.startswith("wheel.json: ")


def test_a_heavy_animation_is_not_read() -> None:
    with pytest.raises(LimitError, match="too heavy"):
        facts_of(wheel(), max_lottie_bytes=100)


def test_other_json_is_no_animation() -> None:
    with pytest.raises(ArtworkError, match="not a picture"):
        facts_of({"name": "package", "version": "1"})


def test_damaged_animations_have_a_clear_outcome() -> None:
    dice = random.Random("20261126 lottie")
    seed, refused = json.dumps(wheel()).encode(), 0
    for _ in range(200):
        try:
            assert facts_of(mutated(seed, dice)).width > 0
        except FitzleError as error:
            refused += 1
            assert len(error.message) > 10
    assert refused > 50
