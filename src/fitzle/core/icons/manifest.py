"""The web application manifest of an icon set, and what a page has to say to be given its icons.

Members and their values: W3C, Web Application Manifest (2024); purposes "any" and "maskable" in its section on icons.
"""

from __future__ import annotations

import html
import json
import re
from typing import Annotated, Literal

from pydantic import AfterValidator, Field

from fitzle.core.documents import validated
from fitzle.core.findings import Frozen

LONGEST_SHORT_NAME = 12  # letters that a home screen has room for


def _one_size(value: str) -> str:
    if not re.fullmatch(r"[1-9]\d*x[1-9]\d*|any", value):
        raise ValueError(f"{value!r} is no size")
    return value


class ManifestIcon(Frozen):
    """One icon: its address, size in px and what it is for."""

    src: Annotated[str, Field(min_length=1)]
    sizes: Annotated[str, AfterValidator(_one_size)]
    type: Annotated[str, Field(pattern=r"^image/[a-z+]+$")]
    purpose: Literal["any", "maskable", "monochrome"] = "any"


class Manifest(Frozen):
    """What Fitzle writes of a manifest."""

    name: Annotated[str, Field(min_length=1)]
    short_name: str
    icons: Annotated[tuple[ManifestIcon, ...], Field(min_length=1)]
    theme_color: Annotated[str, Field(pattern="^#[0-9a-f]{6}$")]
    background_color: Annotated[str, Field(pattern="^#[0-9a-f]{6}$")]
    display: Literal["browser", "minimal-ui", "standalone", "fullscreen"] = "browser"


def manifest_file(name: str, ground: str, path: str) -> bytes:
    """`site.webmanifest`; raises DocumentError where it would not be one."""
    icons = [
        {"src": f"{path}icon-192.png", "sizes": "192x192", "type": "image/png"},
        {"src": f"{path}icon-512.png", "sizes": "512x512", "type": "image/png"},
        {"src": f"{path}icon-maskable-512.png", "sizes": "512x512", "type": "image/png", "purpose": "maskable"},
        {"src": f"{path}icon.svg", "sizes": "any", "type": "image/svg+xml"},
    ]
    document = {
        "name": name,
        "short_name": short_name(name),
        "icons": icons,
        "theme_color": ground,
        "background_color": ground,
    }
    found = validated(Manifest, document, subject="site.webmanifest", noun="manifest")
    return (json.dumps(found.model_dump(exclude_none=True), ensure_ascii=False, indent=2) + "\n").encode()


def short_name(name: str) -> str:
    """As many whole words as a home screen has room for; the first one cut where it is too long by itself."""
    kept = ""
    for word in name.split():
        longer = f"{kept} {word}".strip()
        if len(longer) > LONGEST_SHORT_NAME:
            break
        kept = longer
    return kept or name[:LONGEST_SHORT_NAME]


def snippet(name: str, ground: str, path: str) -> bytes:
    """The lines for the head of every page. The ICO states a size, so that none takes it for one of any size."""
    lines = [
        f'<link rel="icon" href="{path}favicon.ico" sizes="32x32">',
        f'<link rel="icon" href="{path}icon.svg" type="image/svg+xml">',
        f'<link rel="apple-touch-icon" href="{path}touch-icon-180.png">',
        f'<link rel="manifest" href="{path}site.webmanifest">',
        f'<meta name="theme-color" content="{ground}">',
        "<!-- Link previews want whole addresses: put that of your site before the path. -->",
        f'<meta property="og:image" content="{path}link-preview.png">',
        f'<meta property="og:image:alt" content="{html.escape(name, quote=True)}">',
    ]
    return ("\n".join(lines) + "\n").encode()
