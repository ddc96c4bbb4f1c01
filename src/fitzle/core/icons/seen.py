"""Which icon of a set stands in a scene."""

from __future__ import annotations

from fitzle.core.icons.making import TAB_SIDES, tab_name

_IN_TABS = ("tab-strip", "saved-pages")
_AT_HOME = {
    "home-rounded": "touch-icon-180.png", "home-circle": "icon-maskable-512.png",
    "home-squircle": "icon-maskable-512.png",
}  # fmt: skip


def icon_seen(scene: str, density: float) -> str | None:
    """The name of the icon that a browser or home screen takes in a scene (`id` or `id:variant`).

    None stands for the icon of 512 px.
    """
    name, _, variant = scene.partition(":")
    if name in _IN_TABS:
        return tab_name(TAB_SIDES[0] if density < 1.5 else TAB_SIDES[1], dark=variant.startswith("dark"))
    return _AT_HOME.get(name)
