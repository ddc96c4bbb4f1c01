"""The mask: one outline for planning, judging, drawing and the browser."""

import math

import numpy as np
import pytest
import skia
from hypothesis import given
from hypothesis import strategies as st

from fitzle.core.geometry.mask import Mask
from fitzle.core.geometry.rect import Point, Rect
from fitzle.core.preflight.rule import ArtworkInPlan
from fitzle.core.preflight.rules.clearance import clearance_px
from fitzle.core.render.skia_paths import skia_path
from tests.core.composed import mark, piece, read_artworks
from tests.fits import planned_fit
from tests.make import sheet

SIDES = st.floats(8, 2000)


@pytest.mark.parametrize(("width", "height"), [(100, 100), (200, 100), (100, 240)])
def test_a_circle_stands_on_the_short_side_in_the_middle(width: float, height: float) -> None:
    box = Mask("circle").path(width, height).bounds()
    assert box.width == pytest.approx(100) and box.height == pytest.approx(100)
    assert (box.centre.x, box.centre.y) == pytest.approx((width / 2, height / 2))


@pytest.mark.parametrize(("width", "height"), [(100, 100), (200, 100), (100, 240)])
def test_the_radius_of_rounded_corners_is_of_the_short_side(width: float, height: float) -> None:
    mask = Mask("rounded", 0.2)
    assert mask.radius_px(width, height) == pytest.approx(20)
    assert mask.path(width, height).bounds() == pytest.approx(Rect(0, 0, width, height))


@given(SIDES, SIDES, st.floats(0, 1), st.floats(0, 1), st.sampled_from([Mask("circle"), Mask("rounded", 0.3)]))
def test_depth_tells_inside_from_outside_as_the_path_does(
    width: float, height: float, x: float, y: float, mask: Mask
) -> None:
    point = Point(x * width, y * height)
    depth = mask.depth(point, width, height)
    if abs(depth) < 0.01 * min(width, height):
        return  # on the edge itself the path's cubics differ by a hair
    assert skia_path(mask.path(width, height)).contains(point.x, point.y) is (depth > 0)


def test_depth_is_the_distance_to_the_outline() -> None:
    circle = Mask("circle")
    assert circle.depth(Point(100, 50), 200, 100) == 50
    assert circle.depth(Point(150, 50), 200, 100) == pytest.approx(0)
    corner = Mask("rounded", 0.5)
    assert corner.depth(Point(0, 0), 100, 100) == pytest.approx(50 - 50 * math.sqrt(2))


@pytest.mark.parametrize(
    "cut", [{"shape": "circle"}, {"shape": "rounded", "radius": 0.5}, {"shape": "rounded", "radius": 0.25}]
)
@pytest.mark.parametrize("size", [(180, 180), (360, 120), (90, 200)])
def test_a_mark_padded_by_itself_stays_inside_by_every_reading(cut: dict[str, object], size: tuple[int, int]) -> None:
    """Planned by the padding, judged by the clearance and cut by the path: no drawn px is lost."""
    place = sheet(size={"width": size[0], "height": size[1]}, cut=cut)
    fit = planned_fit(piece(mark("wheel-badge.svg")), place, read_artworks())
    [own] = fit.plan.artworks
    assert clearance_px(ArtworkInPlan(own, fit.facts[own.artwork], fit.plan, place)) >= 1
    from fitzle.core.render.painting import paint

    alpha = paint(fit.plan, {"wheel-badge.svg": read_artworks()["wheel-badge.svg"].source})[..., 3]
    assert place.mask is not None
    assert not (alpha[_outside(place.mask.outline, size)] > 0).any()


def _outside(mask: Mask, size: tuple[int, int]) -> np.ndarray:
    surface = skia.Surface(*size)
    surface.getCanvas().drawPath(skia_path(mask.path(*size)), skia.Paint(AntiAlias=True, Color=skia.ColorBLACK))
    return surface.makeImageSnapshot().toarray()[..., 3] == 0
