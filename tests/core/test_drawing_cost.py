"""What drawing an SVG costs, counted before it is drawn; and what the command line does with what is not countable."""

import json
import subprocess
import sys
from pathlib import Path
from typing import Any

import pytest

from fitzle.core.artwork.limits import DEFAULT_LIMITS
from fitzle.core.artwork.reading import read_artwork
from fitzle.core.artwork.svg_cost import BLUR, LAYER, MASK, PATTERN, SPREAD, STEP, drawing_cost
from fitzle.core.artwork.svg_sanitise import sanitised_svg
from fitzle.core.errors import HostileFileError, LimitError
from tests.hostile_drawings import bitmaps, drawings
from tests.make import svg

ROOT = Path(__file__).parents[2]
DRAWINGS, BITMAPS = dict(drawings()), dict(bitmaps())
MOST_MEGABYTES = 700
MEASURED = """
import json, resource, subprocess, sys
done = subprocess.run(sys.argv[1:], capture_output=True, text=True)
most = resource.getrusage(resource.RUSAGE_CHILDREN).ru_maxrss
print(json.dumps([done.returncode, done.stdout, done.stderr, most]))
"""  # in a process of its own: a child counts as large as whoever it was forked from
SQUARE = '<rect width="9" height="9"/>'
MASKED = '<mask id="m"><rect width="9" height="9" fill="#fff"/></mask><g mask="url(#m)">' + SQUARE + "</g>"
BLURRED = '<filter id="f"><feGaussianBlur stdDeviation="1"/><feOffset dx="1"/></filter>'
TILES = f'<pattern id="p" width="50" height="9" patternUnits="userSpaceOnUse"><g opacity=".5">{SQUARE}</g></pattern>'
SHEET = "<style>@media print {{ .a {{ opacity: .5 }} }} g > rect.b:first-child {{ {} }} .c {{ opacity: 1 }}</style>"


def cost(body: str) -> Any:
    """Of an SVG with this content, 100 units wide."""
    return drawing_cost(sanitised_svg(svg(body), DEFAULT_LIMITS, []), 100)


@pytest.mark.parametrize(
    ("body", "steps", "held"),
    [
        (SQUARE * 500, 0, 0),
        (f'<g opacity="0.5">{SQUARE}</g>', LAYER, 1),
        (f'<g opacity="1">{SQUARE}</g>', 0, 0),
        (f'<g opacity="50%">{SQUARE}</g>', LAYER, 1),
        (f'<g style="mix-blend-mode: multiply">{SQUARE}</g>', LAYER, 1),
        (MASKED, MASK, 2),
        (f'<g opacity=".5">{MASKED}</g>', MASK + LAYER, 3),
        (MASKED + MASKED.replace('"m"', '"n"').replace("#m", "#n"), 2 * MASK, 2),
        (f'{BLURRED}<g filter="url(#f)">{SQUARE}</g>', LAYER + BLUR + STEP, 3),
        (f'{BLURRED}<g filter="url(#f)" opacity=".5">{SQUARE}</g>', LAYER * 2 + BLUR + STEP, 4),
        (f'<filter id="f"><feMorphology radius="2"/></filter><g filter="url(#f)">{SQUARE}</g>', LAYER + SPREAD, 3),
        (f'{TILES}<g fill="url(#p)">{SQUARE}{SQUARE}</g>', 2 * (PATTERN + LAYER / 2), 2),
        (f'{TILES}<g fill="url(#p)"><rect fill="red"/></g>', 0, 0),
        (f'<g id="a" opacity=".5">{SQUARE}</g><use href="#a"/><use href="#a"/>', 3 * LAYER, 1),
        (f'<defs><g id="a" opacity=".5">{SQUARE}</g></defs>', 0, 0),
        (SHEET.format("opacity: .5") + '<g><rect class="b"/><rect class="c"/></g>', LAYER, 1),
        (SHEET.format("fill: none") + '<g class="a"/>', LAYER, 1),
        ('<marker id="k"><g opacity=".5"/></marker><path d="M0 0L1 1 2 2" marker-mid="url(#k)"/>', 4 * LAYER, 1),
    ],
)
def test_what_is_drawn_for_itself_is_counted(body: str, steps: float, held: int) -> None:
    found = cost(body)
    assert (found.steps, found.held) == (pytest.approx(steps), held)


@pytest.mark.parametrize(
    "name",
    [
        "90 nested masks", "30 nested masks", "masks in masks", "nested see-through groups", "nested blends",
        "nested blurs", "a long filter", "thick morphology", "blurs drawn again and again",
        "masks drawn again and again", "markers everywhere", "a see-through class", "40,000 see-through circles",
    ],
)  # fmt: skip
def test_what_costs_too_much_is_refused_in_words_before_it_is_drawn(name: str) -> None:
    with pytest.raises(HostileFileError, match=r"deep inside each other|again and again"):
        read_artwork(DRAWINGS[name], f"{name}.svg")


@pytest.mark.parametrize("name", [name for name in DRAWINGS if name.startswith("a chain")])
def test_long_chains_of_references_are_refused_in_words(name: str) -> None:
    with pytest.raises(HostileFileError, match=r"chain that is too long|more than \d+ times|inside each other"):
        read_artwork(DRAWINGS[name], f"{name}.svg")


@pytest.mark.parametrize("name", ["250,000 path points", "250,000 points with a thick stroke", "600 KB of words"])
def test_too_many_points_and_letters_are_refused_in_words(name: str) -> None:
    with pytest.raises(LimitError, match=r"too many (points|letters)"):
        read_artwork(DRAWINGS[name], f"{name}.svg")


def test_a_sheet_that_masks_a_mask_with_itself_is_refused() -> None:
    """Only the style says so: references in attributes are followed before."""
    with pytest.raises(HostileFileError, match="refer to themselves"):
        cost(f"<style>rect {{ mask: url(#m) }}</style>{MASKED}")


def test_plain_drawings_are_not_refused() -> None:
    shaded = "".join(f'<g opacity=".9"><circle cx="{n}" cy="20" r="9"/></g>' for n in range(300))
    shadow = '<filter id="s"><feDropShadow dx="1" dy="1"/></filter>' + f'<g filter="url(#s)">{SQUARE}</g>' * 8
    clipped = '<clipPath id="c"><circle r="9"/></clipPath>' + f'<g clip-path="url(#c)">{SQUARE}</g>' * 400
    for body in (shaded, shadow, clipped, MASKED):
        assert read_artwork(svg(body), "plain.svg").facts.width == 100


@pytest.mark.parametrize("name", [*DRAWINGS, *BITMAPS])
def test_the_command_line_draws_or_says_why_not(name: str, tmp_path: Path) -> None:
    """Nothing takes more than 8 s of drawing and 700 MB, leaves half a file or ends in a traceback."""
    data = {**DRAWINGS, **BITMAPS}[name]
    artwork = tmp_path / f"artwork{'.svg' if data.startswith(b'<svg') else '.png'}"
    artwork.write_bytes(data)
    sheet = tmp_path / "sheet.json"
    sheet.write_text(json.dumps({"fitzle_spec": 1, "name": "S", "size": {"width": 2400, "height": 1200}}))
    command = [
        str(ROOT / "fitzle"),
        "fit",
        str(artwork),
        "--spec",
        str(sheet),
        "--out",
        str(tmp_path / "out"),
        "--json",
    ]
    done = subprocess.run([sys.executable, "-c", MEASURED, *command], check=True, capture_output=True, text=True)
    code, said, complaints, most_kb = json.loads(done.stdout)
    assert "Traceback" not in complaints
    answer = json.loads(said)
    assert (code == 2) == ("error" in answer), answer
    assert most_kb / 1024 < MOST_MEGABYTES
    left = [path.name for path in (tmp_path / "out").iterdir()] if (tmp_path / "out").exists() else []
    assert not [entry for entry in left if entry.startswith(".")], left
