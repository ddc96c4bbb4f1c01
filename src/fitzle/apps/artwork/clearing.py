"""Which artwork nobody needs any more, and which files the rest needs."""

from __future__ import annotations

from collections.abc import Collection
from datetime import datetime
from typing import NamedTuple

from django.db.models import Q

from fitzle.apps.artwork.models import Artwork, Preparation, State
from fitzle.apps.artwork.preparing import document_of
from fitzle.core.artwork.steps.costly import costly_keys


class ContentInUse(NamedTuple):
    """The keys of files that artwork needs."""

    originals: set[str]
    prepared: set[str]
    costly: set[str]


def forgotten_artwork(workspace_id: int, in_histories: Collection[str], before: datetime) -> list[Artwork]:
    """Artwork that was put away, or could not be read, before then, and that no piece shows or showed."""
    aside = Q(put_away=True) | Q(state=State.FAILED)
    found = Artwork.objects.filter(aside, workspace_id=workspace_id, changed_at__lt=before, versions=None)
    return [artwork for artwork in found if str(artwork.pk) not in in_histories]


def content_in_use(workspace_id: int) -> ContentInUse:
    """The files that the artwork of a workspace needs, earlier ones that can be brought back among them."""
    found = ContentInUse(set(), set(), set())
    for artwork in Artwork.objects.filter(workspace_id=workspace_id).iterator():
        found.originals.update({artwork.sha256, *(entry["sha256"] for entry in artwork.earlier)})
        if artwork.prepared:
            found.prepared.add(artwork.prepared["sha256"])
    for preparation in Preparation.objects.filter(artwork__workspace_id=workspace_id).select_related("artwork"):
        found.costly.update(costly_keys(preparation.artwork.sha256, document_of(preparation).made))
    return found
