"""The kind of a place, told from its name and from how it is cut: only where it can mean nothing else."""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Any

_NAMES: dict[str, str] = {
    "video-thumbnail": "video thumbnail|video cover|video title picture",
    "corner-watermark": "watermark|video watermark|corner watermark",
    "channel-banner": "channel banner|channel header|channel cover",
    "end-card": "end card|end screen",
    "clip-cover": "clip cover|clip thumbnail",
    "header-logo": "header logo|site logo|page logo|shop logo|store logo|website logo",
    "site-icon": "favicon|tab icon|site icon",
    "touch-icon": "touch icon",
    "link-preview": "link preview|link preview picture|link preview image|preview picture|preview image",
    "blog-header": "blog header|blog banner|blog cover",
    "hero": "hero|page hero|shop hero",
    "form-header": "form header|form banner",
    "mail-signature": "email signature|mail signature|signature",
    "mail-header": "email header|mail header|newsletter header|email banner|mail banner|newsletter banner",
    "course-header": "course header|course banner",
    "course-card": "course card|course thumbnail|course cover",
    "lesson-picture": "lesson picture|lesson image|lesson thumbnail|lesson cover",
    "certificate-badge": "certificate badge|certificate seal",
    "wide-banner": "shop banner|store banner|shop header|store header",
    "product-square": "product picture|product photo|product image|product thumbnail",
    "shop-badge": "shop badge|product badge",
    "gift-card": "gift card",
    "sticker": "sticker|chat sticker|aufkleber|autocollant|pegatina",
    "small-sticker": "emote|emoji|chat emoji",
    "group-badge": "group badge|group icon|group picture|group image|group photo|group avatar|team badge|team icon",
    "profile-cover": "profile cover|profile banner|profile header",
    "sign-in-logo": "sign-in logo|login logo",
    "letterhead": "letterhead",
    "document-cover": "document cover|book cover",
    "app-icon": "app icon",
    "story": "story",
    "podcast-cover": "podcast cover",
    "event-header": "event header|event banner|event cover",
    "wallpaper": "wallpaper|desktop wallpaper|screen background",
}
_KINDS = {name: kind for kind, names in _NAMES.items() for name in names.split("|")}
_FACES = re.compile(
    "avatar|profile (?:picture|photo|image)|profilbild|photo de profil|foto de perfil|headshot|team (?:photo|picture)"
)
_FACE_CUTS = {"circle": "avatar-circle", "rounded": "avatar-rounded"}


def kind_of(name: str, sheet: Mapping[str, Any]) -> str | None:
    """The catalogue's kind for a name in small letters and the sheet's other keys; None where it could be several."""
    if _FACES.fullmatch(name):
        return _FACE_CUTS.get(sheet.get("cut", {}).get("shape", ""))
    kind = _KINDS.get(name)
    return "moving-sticker" if kind == "sticker" and sheet.get("motion", {}).get("required") else kind
