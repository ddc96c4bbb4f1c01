"""A site's icon set made of one mark: which version stands in which file, and what was measured of it."""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import NamedTuple

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.reading import Artwork
from fitzle.core.encode.ico import icon_file
from fitzle.core.encode.png import lossless_png
from fitzle.core.encode.raster import Pixels, Raster
from fitzle.core.errors import ArtworkError, ValueOutOfRange
from fitzle.core.eye.smudge import RUNS_TOGETHER
from fitzle.core.findings import Finding
from fitzle.core.geometry.rect import Rect
from fitzle.core.icons.manifest import manifest_file, snippet
from fitzle.core.icons.mark import DARK_TAB, LIGHT_TAB, IconMark, reach_of
from fitzle.core.icons.svg_icon import Versions, svg_icon
from fitzle.core.plan.grounds import readable_ground
from fitzle.core.plan.placed import PlacedArtwork, Plan
from fitzle.core.render.painting import paint
from fitzle.core.units import Size

TINY_SIDES = (16, 32, 48)  # of the ICO
TAB_SIDES = (16, 32)  # px of the screen itself, at densities 1 and 2
NEXT_SIZE = 4  # px beyond a size up to which what is made for it stands
SAFE_RADIUS = 0.4  # W3C, Web Application Manifest: the safe zone of a maskable icon
SAFE_ENOUGH = 0.395  # aimed at: half a px of 512 may be lost to rounding
TOUCH_ROOM, HOME_ROOM = 0.72, 0.86  # of the side that the mark's longer side takes
PREVIEW = Size(1200, 630)
PREVIEW_ROOM = 0.52  # of its height


class IconSet(NamedTuple):
    """The files by name, in the order in which a page asks for them; what was chosen, and what there is to say.

    `tabs` are what stands in a tab (PNG), by the names of `tab_name`.
    """

    files: dict[str, bytes]
    tabs: dict[str, bytes]
    ground: str
    simpler_at: tuple[int, ...]
    dark: bool
    safe_reach: float
    findings: tuple[Finding, ...]


def make_icon_set(
    mark: Artwork, name: str, dark: Artwork | None = None, ground: str | None = None, path: str = "/"
) -> IconSet:
    """All files of a set; `dark` stands on dark tabs, `ground` (hex) lies behind where an icon may not be clear.

    Raises ArtworkError for a clip, ValueOutOfRange for a path that is none.
    """
    if mark.facts.kind == "clip" or (dark and dark.facts.kind == "clip"):
        raise ArtworkError("a clip cannot be an icon", advice="Take a still from it first.", subject=mark.name)
    return icon_set_of(IconMark(mark), IconMark(dark) if dark else None, name, ground, path, {})


def icon_set_of(
    light: IconMark, dark: IconMark | None, name: str, ground: str | None, path: str, large: Mapping[int, Pixels]
) -> IconSet:
    """As `make_icon_set`; the icons of 192 and 512 px are those of `large` (side → straight pixels) where it has them.

    Raises ValueOutOfRange for a path that is none.
    """
    folder = site_folder(path)
    behind = ground or light.badge_colour or readable_ground([], [light.facts])
    on_dark = dark or (None if light.shows_on(DARK_TAB) else light.for_dark())
    tiny = {side: light.simpler(side) or light for side in TINY_SIDES}
    simpler = tuple(side for side in TINY_SIDES if tiny[side] is not light)
    tiny_dark = {side: on_dark and ((side in simpler and on_dark.simpler(side)) or on_dark) for side in TINY_SIDES}
    small = Versions(tiny[simpler[-1]], tiny_dark[simpler[-1]]) if simpler else None
    safe = light.safe_room(behind, SAFE_ENOUGH)
    maskable = light.square(512, room=safe, ground=behind)
    touch = 1.0 if behind == light.badge_colour else TOUCH_ROOM  # a badge goes on to the edge, which is cut anyway
    files = {
        "favicon.ico": icon_file([Raster(tiny[side].square(side, room=1.0)) for side in TINY_SIDES]),
        "icon.svg": svg_icon(Versions(light, on_dark), small, simpler[-1] + NEXT_SIZE if simpler else 0),
        "touch-icon-180.png": _png(light.square(180, room=touch, ground=behind)),
        **{f"icon-{side}.png": _png(_large(light, side, large)) for side in (192, 512)},
        "icon-maskable-512.png": _png(maskable),
        "link-preview.png": _png(_preview(light, behind)),
        "site.webmanifest": manifest_file(name, behind, folder),
        "icons.html": snippet(name, behind, folder),
    }
    tabs = {}
    for side in TAB_SIDES:
        tabs[tab_name(side, dark=False)] = _png(tiny[side].square(side, room=1.0))
        tabs[tab_name(side, dark=True)] = _png((tiny_dark[side] or tiny[side]).square(side, room=1.0))
    reach = reach_of(maskable, behind)
    findings = (*_smudges(tiny), *_swallowed(light, on_dark), *_unsafe(reach), *_box(light.facts))
    return IconSet(files, tabs, behind, simpler, on_dark is not None, reach, findings)


def tab_name(side: int, *, dark: bool) -> str:
    """What the picture of a tab is called in which an icon takes `side` px of the screen itself."""
    return f"tab-{side}{'-dark' if dark else ''}.png"


def _large(mark: IconMark, side: int, drawn: Mapping[int, Pixels]) -> Pixels:
    return drawn[side] if side in drawn else mark.square(side, room=HOME_ROOM)


def site_folder(path: str) -> str:
    """A path that files stand under, with a slash at either end; raises ValueOutOfRange for what is none."""
    whole = f"/{path.strip('/')}/" if path.strip("/") else "/"
    if not re.fullmatch(r"(?:/[A-Za-z0-9._~-]+)*/", whole) or "/../" in whole or "/./" in whole:
        raise ValueOutOfRange("this is no path of a site", expected="/ or /some/folder/", actual=repr(path))
    return whole


def _png(pixels: Pixels) -> bytes:
    return lossless_png(Raster(pixels))


def _preview(mark: IconMark, behind: str) -> Pixels:
    window = mark.facts.trimmed.rect
    room = Size(round(PREVIEW.width * 0.7), round(PREVIEW.height * PREVIEW_ROOM))
    scale = min(room.width / window.width, room.height / window.height)
    width, height = window.width * scale, window.height * scale
    box = Rect((PREVIEW.width - width) / 2, (PREVIEW.height - height) / 2, width, height)
    placed = PlacedArtwork(
        part="mark", role="mark", artwork="mark", box=box, window=window, frame=box, stands=box, mode="whole",
        padding_px=0.0, tint=None, vector=mark.facts.vector,
    )  # fmt: skip
    return paint(Plan(PREVIEW, behind, None, None, (placed,)), {"mark": mark.artwork.source})


def _smudges(tiny: dict[int, IconMark]) -> list[Finding]:
    found = []
    for side, mark in tiny.items():
        lost = mark.smudged(side)
        if lost > RUNS_TOGETHER:
            found.append(
                Finding(
                    rule="smudge",
                    severity="risky",
                    message=f"At {side} px {lost:.0%} of the mark's contour runs together. A simpler mark would be told"
                    " there: one letter, or its glyph.",
                    measured=round(lost, 3),
                    limit=RUNS_TOGETHER,
                )
            )
    return found


def _swallowed(light: IconMark, dark: IconMark | None) -> list[Finding]:
    tabs = [("a light tab", LIGHT_TAB, light), ("a dark tab", DARK_TAB, dark or light)]
    return [
        Finding(
            rule="contrast",
            severity="risky",
            message=f"On {words} of {tab} the mark's outline is under 3 : 1. A version for it would be seen.",
        )
        for words, tab, mark in tabs
        if not mark.shows_on(tab)
    ]


def _unsafe(reach: float) -> list[Finding]:
    if reach <= SAFE_RADIUS:
        return []
    return [
        Finding(
            rule="clearance",
            severity="risky",
            message=f"The mark reaches {reach:.0%} of the maskable icon's side from its middle; 40% is safe.",
            measured=round(reach, 4),
            limit=SAFE_RADIUS,
        )
    ]


def _box(facts: ArtworkFacts) -> list[Finding]:
    if facts.transparency != "none":
        return []
    backdrop = facts.backdrop_colour or "its own ground"
    return [
        Finding(
            rule="box",
            severity="note",
            message=f"The mark is opaque: every icon is a square of {backdrop}. Cut it out first for one that is not.",
        )
    ]
