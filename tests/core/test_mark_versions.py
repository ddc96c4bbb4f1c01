"""The version of a mark that shows best where it stands, and what preparation is offered for what would look bad."""

from functools import cache
from typing import Any

import pytest
from PIL import Image, ImageDraw

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.reading import read_and_judge
from fitzle.core.artwork.showing import showing
from fitzle.core.findings import Finding
from fitzle.core.fit.keys import file_key
from fitzle.core.fit.request import FitArtwork
from fitzle.core.fit.resolving import resolve
from fitzle.core.piece.document import Piece
from fitzle.core.plan.versions import chosen_versions
from fitzle.core.preflight.registry import judged
from tests.core.composed import gradient, mark, picture, piece, shape
from tests.fits import plan_of, planned_fit, request_for
from tests.make import disc, photo, saved, sheet, solid, svg

INK, PAPER, RUST = "#10302c", "#f6f1e4", "#b4541a"
NIGHT, PAGE = "#101418", "#ffffff"


def facts_of(data: bytes) -> ArtworkFacts:
    return read_and_judge(data, "mark").facts


def dot(colour: str) -> bytes:
    return svg(f'<circle cx="50" cy="25" r="20" fill="{colour}"/>')


@cache
def facts_of_all() -> dict[str, ArtworkFacts]:
    return {
    "ink": facts_of(dot(INK)), "paper": facts_of(dot(PAPER)), "rust": facts_of(dot(RUST)),
    "boxed": facts_of(saved(disc(80, ground="#ffffff"), "PNG")),
    "night": facts_of(saved(Image.new("RGB", (64, 48), NIGHT), "PNG")),
    "photo": facts_of(saved(photo(), "JPEG")),
    }  # fmt: skip


VERSIONS = {"ink": ["paper"], "paper": ["ink"]}


def chosen(document: dict[str, Any], versions: dict[str, list[str]] | None = None, **place: Any) -> dict[str, str]:
    spec = sheet(**place)
    plan = plan_of(Piece.model_validate(document), spec, facts_of_all())
    return {one.artwork: one.version for one in chosen_versions(plan, spec, facts_of_all(), versions or VERSIONS)}


@pytest.mark.parametrize(
    ("document", "place", "found"),
    [
        (piece(mark("ink")), {"grounds": [PAGE]}, {}),
        (piece(mark("ink")), {"grounds": [NIGHT]}, {"ink": "paper"}),
        (piece(mark("paper")), {"grounds": [PAGE]}, {"paper": "ink"}),
        (piece(mark("ink"), ground=solid(NIGHT)), {"grounds": [PAGE]}, {"ink": "paper"}),
        (piece(mark("ink"), ground=gradient("linear")), {}, {"ink": "paper"}),
        (piece(shape("circle", solid(NIGHT)), mark("ink")), {"grounds": [PAGE]}, {"ink": "paper"}),
        (piece(picture(artwork="night"), mark("ink")), {"grounds": [PAGE]}, {"ink": "paper"}),
        (piece(mark("ink")), {"grounds": [PAGE], "veil": {"colour": "#000000", "opacity": 0.85}}, {}),
        (piece(mark("ink", tint="#ffffff")), {"grounds": [NIGHT]}, {}),
        (piece(mark("ink", recolour={INK: "#ffffff"})), {"grounds": [NIGHT]}, {}),
        (piece(mark("rust")), {"grounds": [NIGHT]}, {}),
    ],
)
def test_the_version_that_shows_best_is_chosen(document: Any, place: Any, found: dict[str, str]) -> None:
    assert chosen(document, **place) == found


def test_what_was_put_there_stays_where_it_shows_well_enough() -> None:
    """Rust reaches 3:1 on both grounds; that another version would reach more does not change what somebody chose."""
    for ground in (PAGE, NIGHT):
        assert chosen(piece(mark("rust")), {"rust": ["ink", "paper"]}, grounds=[ground]) == {}


def test_on_light_and_dark_pages_at_once_the_worst_case_decides() -> None:
    assert chosen(piece(mark("ink")), {"ink": ["paper", "rust"]}, grounds=[PAGE, NIGHT]) == {"ink": "rust"}


def test_an_opaque_version_is_never_better() -> None:
    assert chosen(piece(mark("ink")), {"ink": ["boxed"]}, grounds=[NIGHT]) == {}


def test_the_choice_is_said_with_both_figures() -> None:
    versions = {name: tuple(others) for name, others in VERSIONS.items()}
    fit = planned_fit(piece(mark("ink")), sheet(grounds=[NIGHT]), facts_of_all(), versions=versions)
    [one], [note] = fit.versions, [one for one in judged(fit.evidence, "pixels") if one.rule == "version"]
    assert (note.severity, note.part) == ("note", "m")
    assert note.measured == pytest.approx(one.contrast, abs=0.01)
    assert one.contrast > 15
    assert one.instead_of < 3


def test_a_version_that_is_joined_makes_another_key() -> None:
    def key(versions: dict[str, tuple[str, ...]], paper: str) -> str:
        known = {"ink": FitArtwork(facts_of_all()["ink"], "1"), "paper": FitArtwork(facts_of_all()["paper"], paper)}
        return file_key(resolve(request_for(piece(mark("ink")), sheet(), known, versions=versions)))

    joined = {"ink": ("paper",)}
    assert len({key({}, "2"), key(joined, "2"), key(joined, "3")}) == 3
    assert key({}, "2") == key({}, "3"), "a mark that cannot stand there does not count"


def test_where_a_mark_shows_is_measured_on_both_grounds() -> None:
    assert (showing(facts_of_all()["ink"]).shows_on_light, showing(facts_of_all()["ink"]).shows_on_dark) == (
        True,
        False,
    )
    assert (showing(facts_of_all()["paper"]).shows_on_light, showing(facts_of_all()["paper"]).shows_on_dark) == (
        False,
        True,
    )
    boxed = showing(facts_of_all()["boxed"])
    assert boxed.on_light == boxed.on_dark > 9, "an opaque one stands on its own ground everywhere"


def finding(facts: ArtworkFacts, rule: str, **place: Any) -> Finding | None:
    evidence = planned_fit(piece(mark("m")), sheet(**place), {"m": facts}).evidence
    return next((one for one in judged(evidence, "plan", "pixels") if one.rule == rule), None)


def small_logo(colours: int) -> ArtworkFacts:
    picture = Image.new("RGBA", (120, 120), (0, 0, 0, 0))
    pen = ImageDraw.Draw(picture)
    pen.rounded_rectangle((4, 4, 115, 115), 20, fill="#26418f")
    for number in range(colours):
        pen.rectangle((20, 12 + 9 * number, 100, 19 + 9 * number), fill=(230 - 20 * number, 40 + 18 * number, 60))
    return facts_of(saved(picture, "PNG"))


def test_outlines_are_offered_for_a_flat_mark_that_is_enlarged() -> None:
    large = {"size": {"width": 900, "height": 900}, "max_bytes": 900_000}
    enlarged = finding(small_logo(1), "enlarging", **large)
    assert enlarged is not None and enlarged.offer is not None
    assert (enlarged.offer.step, enlarged.offer.artwork) == ("trace", "m")
    many = finding(small_logo(10), "enlarging", **large)
    assert many is not None and many.offer is None, "too many colours to be traced"
    photographed = finding(facts_of_all()["photo"], "enlarging", size={"width": 1600, "height": 900}, max_bytes=900_000)
    assert photographed is not None and photographed.offer is None


def test_a_clear_backdrop_is_offered_where_the_box_shows() -> None:
    box = finding(facts_of_all()["boxed"], "box", grounds=[NIGHT])
    assert box is not None and box.offer is not None
    assert box.offer.step == "cut out"


def test_a_version_for_dark_grounds_is_offered_only_on_dark_grounds() -> None:
    on_dark = finding(facts_of_all()["ink"], "contrast", grounds=[NIGHT])
    assert on_dark is not None and on_dark.offer is not None
    assert on_dark.offer.step == "dark-version"
    on_light = finding(facts_of_all()["paper"], "contrast", grounds=[PAGE])
    assert on_light is not None and on_light.offer is None
