"""The files of an icon set as its record has them, in the order in which a page asks for them."""

from __future__ import annotations

from typing import NamedTuple

from fitzle.core.fit.record import RenditionRecord

LARGE = "icon-512.png"  # the file of the fit itself
WORDS = {
    "favicon.ico": "tabs of older browsers: 16, 32 and 48 px",
    "icon.svg": "tabs, light and dark",
    "touch-icon-180.png": "home screens that round the corners",
    "icon-192.png": "home screens, where the shape is kept",
    LARGE: "start screens",
    "icon-maskable-512.png": "home screens that cut a shape of their own",
    "link-preview.png": "links to the site in a chat",
    "site.webmanifest": "tells home screens what there is",
    "icons.html": "the lines for the head of a page",
}


class IconFile(NamedTuple):
    """One file of a set."""

    name: str
    media_type: str
    sha256: str
    bytes: int
    width: int
    height: int

    @property
    def words(self) -> str:
        """Where it is shown."""
        return WORDS.get(self.name, "")


def icon_files(record: RenditionRecord | None) -> list[IconFile]:
    """All files of a set; none while it is not made, or where there is one picture only."""
    if record is None or not record.files or not record.in_the_set:
        return []
    own = record.files[0]
    found = [IconFile(LARGE, "image/png", own.sha256, own.bytes, own.width, own.height)]
    found += [IconFile(**one.model_dump(exclude={"use"})) for one in record.in_the_set]
    order = list(WORDS)
    return sorted(found, key=lambda one: order.index(one.name) if one.name in order else len(order))
