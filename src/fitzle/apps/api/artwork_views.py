"""What the pages show of an artwork."""

from __future__ import annotations

import logging
from typing import TYPE_CHECKING, cast

from fitzle.apps.api.schemas import AlikeOut, ArtworkOut, ArtworkState, EarlierOut, OnGrounds, VersionOut
from fitzle.apps.artwork.finding import alike_among_all, versions_of_page
from fitzle.apps.artwork.library import is_readable
from fitzle.apps.artwork.preparing import being_prepared
from fitzle.apps.artwork.versions import versions_by_id
from fitzle.apps.pieces.uses import uses_of_artwork
from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.showing import showing
from fitzle.core.plan.grounds import readable_ground
from fitzle.core.units import words_for_bytes

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.artwork.models import Artwork


log = logging.getLogger(__name__)
DAMAGED = "What is known of this file is damaged. Bring the file in again; this one can be put away."


def artwork_view(artwork: Artwork) -> ArtworkOut:
    """An artwork by itself; the list says more of each."""
    content = artwork.content
    facts = ArtworkFacts.model_validate(content.facts) if content.facts else None
    # A newer file is on its way until it stands for the artwork that it replaces.
    state = "reading" if artwork.state == "ready" and artwork.origin.get("replaces") else artwork.state
    return ArtworkOut(
        id=artwork.pk,
        name=artwork.name,
        bytes=artwork.bytes,
        weight=words_for_bytes(artwork.bytes),
        state=cast("ArtworkState", state),
        progress=artwork.progress,
        message=artwork.message,
        facts=artwork.facts,
        prepared_facts=artwork.prepared["facts"] if artwork.prepared else None,
        key=content.sha256[:20],
        put_away=artwork.put_away,
        visible=artwork.visible,
        plays=facts is not None and facts.plays,
        tags=artwork.tags,
        parent_id=artwork.parent_id,
        earlier=[EarlierOut(**file) for file in artwork.earlier],
        created_at=artwork.created_at,
        targets=artwork.targets,
        shown_on=_ground(facts),
    )


def ground_of(artwork: Artwork) -> str | None:
    """A colour on which an artwork with clear parts shows; None where it needs none, or is not known yet."""
    facts = artwork.content.facts
    return _ground(ArtworkFacts.model_validate(facts)) if facts and is_readable(artwork) else None


def _ground(facts: ArtworkFacts | None) -> str | None:
    return readable_ground([], [facts]) if facts and facts.transparency != "none" else None


def list_view(space: Workspace, artworks: list[Artwork]) -> list[ArtworkOut]:
    """Artwork with the places it is seen in, the artwork that shows the same, and marks with their versions."""
    shown = {artwork.pk: view for artwork in artworks if (view := _readable_view(artwork))}
    readable = [artwork for artwork in artworks if artwork.pk in shown]
    uses = uses_of_artwork(space, [str(artwork.pk) for artwork in artworks])
    alike = alike_among_all(space, readable)
    versions = versions_by_id([mark for mark in versions_of_page(space, readable) if is_readable(mark)])
    waiting = being_prepared(space)
    views = []
    for artwork in artworks:
        name, view = str(artwork.pk), shown.get(artwork.pk) or _damaged_view(artwork)
        view.being_prepared = name in waiting
        view.used_in = uses.get(name, [])
        view.versions = [version_view(entry) for entry in versions.get(name, [])]
        view.on_grounds = on_grounds(view.versions) if view.versions else None
        view.alike = [AlikeOut.from_orm(entry) for entry in alike.get(name, [])]
        views.append(view)
    return views


def _readable_view(artwork: Artwork) -> ArtworkOut | None:
    try:
        return artwork_view(artwork) if is_readable(artwork) else None
    except (ValueError, TypeError, KeyError, AttributeError) as error:
        log.warning("artwork %s cannot be shown: %s", artwork.pk, error)
        return None


def _damaged_view(artwork: Artwork) -> ArtworkOut:
    return ArtworkOut(
        id=artwork.pk, name=artwork.name, bytes=artwork.bytes, weight=words_for_bytes(artwork.bytes), state="failed",
        progress=0, message=DAMAGED, facts=None, tags=[], parent_id=None, earlier=[], created_at=artwork.created_at,
        targets=[], put_away=artwork.put_away,
    )  # fmt: skip


def version_view(artwork: Artwork) -> VersionOut:
    """A mark that is ready as a version."""
    facts = ArtworkFacts.model_validate(artwork.content.facts)
    return VersionOut(id=artwork.pk, name=artwork.name, key=artwork.content.sha256[:20], showing=showing(facts))


def on_grounds(versions: list[VersionOut]) -> OnGrounds:
    """The best of a mark's versions for each ground."""
    return OnGrounds(
        light=max(versions, key=lambda version: version.showing.on_light),
        dark=max(versions, key=lambda version: version.showing.on_dark),
    )
