"""Places and sheets as they are shown."""

from __future__ import annotations

from collections.abc import Iterable
from typing import TYPE_CHECKING

from fitzle.apps.api.place_schemas import (
    ContradictionOut,
    EarlierSheetOut,
    PlaceOut,
    SentenceOut,
    SheetOut,
    SizeOut,
    WayOutOut,
)
from fitzle.apps.api.views import mask_path
from fitzle.apps.destinations.shelves import earlier_sheets
from fitzle.core.preflight.demand_words import format_words, size_words
from fitzle.core.spec.checking.checks import contradictions
from fitzle.core.spec.checking.contradiction import Contradiction
from fitzle.core.spec.sentences import drawn, sentences
from fitzle.core.spec.sheet import SpecSheet

if TYPE_CHECKING:
    from fitzle.apps.destinations.models import Placement
    from fitzle.core.units import Size


def view_of_place(placement: Placement) -> PlaceOut:
    """A place as it is now."""
    return PlaceOut(
        id=placement.pk,
        slug=placement.slug,
        destination=placement.destination.name,
        put_away=placement.put_away,
        revision=placement.revision,
        shown=shown_sheet(placement.spec),
        earlier=[
            EarlierSheetOut(
                revision=one.revision,
                short=short_of(SpecSheet.model_validate(one.sheet)),
                name=str(one.sheet.get("name", "")),
                replaced_by=one.replaced_by.name if one.replaced_by else "",
                replaced_at=one.replaced_at,
            )
            for one in earlier_sheets(placement)
        ],
    )


def shown_sheet(sheet: SpecSheet) -> SheetOut:
    """A sheet as it is shown."""
    sizes = drawn(sheet)
    return SheetOut(
        sheet=sheet,
        name=sheet.name,
        short=short_of(sheet),
        short_size=size_words(sheet),
        sentences=[SentenceOut(key=one.key, text=one.text, asked=one.asked) for one in sentences(sheet)],
        size=_size(sizes.size),
        least=_size(sizes.least) if sizes.least else None,
        most=_size(sizes.most) if sizes.most else None,
        cut=mask_path(sheet, sizes.size),
        covered=list(sheet.covered),
        windows=list(sheet.windows),
        veil=sheet.veil,
        seen=list(sheet.seen),
        grounds=list(sheet.grounds),
        contradictions=said(contradictions(sheet)),
    )


def said(found: Iterable[Contradiction]) -> list[ContradictionOut]:
    """Contradictions with their ways out."""
    return [
        ContradictionOut(
            keys=list(one.keys), message=one.message, ways_out=[WayOutOut(**way._asdict()) for way in one.ways_out]
        )
        for one in found
    ]


def short_of(sheet: SpecSheet) -> str:
    """Size and formats in one line."""
    return f"{size_words(sheet)}, {format_words(sheet)}"


def _size(size: Size) -> SizeOut:
    return SizeOut(width=size.width, height=size.height)
