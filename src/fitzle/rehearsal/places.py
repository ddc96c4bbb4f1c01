"""The places of the eight destinations, with what each asks for and does to a picture. Figures of our own."""

from __future__ import annotations

from typing import Literal, NamedTuple

Alpha = Literal["no", "may", "must"]


class Asked(NamedTuple):
    """A field of the upload form; `tag` wants one emoji or the standard name of one."""

    name: str
    label: str
    required: bool = False
    longest: int | None = None
    tag: bool = False


class Place(NamedTuple):
    """One place. Sizes in px: `size` exactly, or from `least` to `most`, square where `square`.

    `shown` is the width that it is scaled to, `quality` of the JPEG that it is packed as again (None: as it came),
    `circle` cuts it to one, `window` lets the uploader choose a part; `icons` takes all files of a site's set by name.
    """

    slug: str
    destination: str
    kind: str
    name: str
    page: str
    formats: tuple[str, ...]
    size: tuple[int, int] | None = None
    least: int = 1
    most: int = 8192
    square: bool = False
    heaviest: int | None = None
    alpha: Alpha = "may"
    fields: tuple[Asked, ...] = ()
    slots: int = 1
    shown: int | None = None
    quality: int | None = None
    circle: bool = False
    window: bool = False
    icons: bool = False


LABEL = Asked("label", "Label", required=True, longest=30)
TAG = Asked("tag", "Related emoji", required=True, tag=True)
FOR_THE_BLIND = Asked("description", "Description for the blind", longest=200)
_TABLE = (
    Place("thumbnail", "Lantern Film", "video-thumbnail", "Thumbnail of a film", "films", ("JPEG", "PNG"), (1280, 720),
          heaviest=300_000, alpha="no", shown=640, quality=72),
    Place("watermark", "Lantern Film", "corner-watermark", "Mark in the corner", "films", ("PNG",), (512, 512),
          heaviest=800_000, alpha="must", shown=110),
    Place("header", "Plumb Courses", "course-header", "Head of a course", "course", ("JPEG",), (1704, 433),
          heaviest=250_000, alpha="no", quality=68),
    Place("card", "Plumb Courses", "course-card", "Card of a course", "course", ("JPEG", "WEBP"), (640, 640),
          heaviest=150_000, alpha="no", shown=440, quality=75, window=True),
    Place("moving-header", "Plumb Courses", "moving-course-header", "Moving head of a course", "course",
          ("WEBP", "GIF"), (1280, 320), heaviest=1_000_000, alpha="no"),
    Place("logo", "A site of one's own", "header-logo", "Logo in the head", "site", ("PNG", "WEBP"), (880, 220),
          heaviest=40_000, alpha="must"),
    Place("tab", "A site of one's own", "site-icon", "Icon in the tab", "site", ("ICO", "PNG"), (32, 32),
          heaviest=30_000),
    Place("touch", "A site of one's own", "touch-icon", "Icon on a home screen", "site", ("PNG",), (180, 180),
          heaviest=60_000, alpha="no"),
    Place("icons", "A site of one's own", "icon-set", "All icons of the site", "site", (), icons=True, slots=40,
          heaviest=300_000),
    Place("banner", "Stall Street", "wide-banner", "Banner of a shop", "shop", ("JPEG",), (2000, 500), heaviest=9_000,
          alpha="no", shown=1280, quality=70),
    Place("sign-in", "Northdoor Office", "sign-in-logo", "Logo above the password", "sign-in", ("PNG",), (347, 121),
          heaviest=22_000),
    Place("record", "Rowbook", "record-glyph-32", "Glyph of a kind of record", "records", ("PNG",), (32, 32),
          heaviest=10_000, alpha="must", shown=16),
    Place("sticker", "Hearth Chat", "sticker", "Sticker", "chat", ("WEBP", "PNG"), least=160, most=512, square=True,
          heaviest=380_000, alpha="must", fields=(LABEL, TAG, FOR_THE_BLIND), slots=60, shown=296),
    Place("patch", "Roundview", "floor-patch", "Patch on the floor", "tour", ("PNG",), (512, 512), heaviest=700_000,
          shown=256, circle=True),
)  # fmt: skip
PLACES: dict[str, Place] = {place.slug: place for place in _TABLE}


def places_on(page: str) -> list[Place]:
    """The places that are seen on a page."""
    return [place for place in _TABLE if place.page == page]
