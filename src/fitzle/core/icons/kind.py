"""Which sheets ask for an icon set instead of one picture."""

from __future__ import annotations

from fitzle.core.spec.sheet import SpecSheet

ICON_SET = "icon-set"


def is_icon_set(sheet: SpecSheet) -> bool:
    """Whether one file is not enough: the place takes all icons of a site."""
    return sheet.kind == ICON_SET
