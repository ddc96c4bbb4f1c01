"""Artwork found by words, tag, kind and place, a page at a time; and what is alike among all of it."""

from __future__ import annotations

import re
from collections.abc import Collection, Iterable
from typing import TYPE_CHECKING, Any, NamedTuple

import numpy as np
from django.db.models import Q, QuerySet

from fitzle.apps.artwork.library import Alike, is_id, is_readable, relation
from fitzle.apps.artwork.models import Artwork, State
from fitzle.core.artwork.likeness import near_hashes

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace

MOST_AT_A_TIME = 200
MOST_WORDS = 8
_HASH = re.compile(r"[0-9a-f]{16}")


class Wanted(NamedTuple):
    """What somebody looks for; empty and None leave a thing open.

    `seen` is the ids that are seen where somebody looks, `words_seen` those seen at places with all the words, by word.
    """

    words: tuple[str, ...] = ()
    tag: str = ""
    kind: str = ""
    put_away: bool | None = None
    ids: tuple[str, ...] | None = None
    seen: Collection[str] | None = None
    unseen: Collection[str] | None = None
    words_seen: dict[str, Collection[str]] = {}


def words_in(text: str) -> tuple[str, ...]:
    """The words to look for, in small letters."""
    return tuple(text.lower().split()[:MOST_WORDS])


def found(workspace: Workspace, wanted: Wanted) -> QuerySet[Artwork]:
    """All artwork that is as wanted, the newest first."""
    artworks = Artwork.objects.filter(workspace=workspace)
    for word in wanted.words:
        artworks = artworks.filter(Q(said__contains=word) | Q(pk__in=wanted.words_seen.get(word, ())))
    if wanted.tag:
        artworks = artworks.filter(tags__contains=wanted.tag)
    if wanted.kind:
        artworks = artworks.filter(kind=wanted.kind)
    if wanted.put_away is not None:
        artworks = artworks.filter(put_away=wanted.put_away)
    if wanted.ids is not None:
        artworks = artworks.filter(pk__in=[name for name in wanted.ids if is_id(name)])
    if wanted.seen is not None:
        artworks = artworks.filter(pk__in=[name for name in wanted.seen if is_id(name)])
    if wanted.unseen is not None:
        artworks = artworks.exclude(pk__in=[name for name in wanted.unseen if is_id(name)])
    return artworks


def page_of(artworks: QuerySet[Artwork], start: int, count: int) -> list[Artwork]:
    """Some of it, from the one numbered `start`."""
    first = max(0, start)
    ids = list(artworks.values_list("pk", flat=True)[first : first + min(max(1, count), MOST_AT_A_TIME)])
    known = Artwork.objects.in_bulk(ids)  # sorted first, fetched then: what is known of each is long
    return [known[key] for key in ids if key in known]


def tags_of(workspace: Workspace) -> list[str]:
    """All tags, in order."""
    tagged = Artwork.objects.filter(workspace=workspace).exclude(tags=[]).values_list("tags", flat=True)
    return sorted({tag for tags in tagged for tag in tags})


def alike_among_all(workspace: Workspace, some: Iterable[Artwork]) -> dict[str, list[Alike]]:
    """For each of some artworks all others of the workspace that are the same file, or the same picture otherwise."""
    asked = [one for one in some if one.state == State.READY and one.likeness and not one.put_away]
    if not asked:
        return {}
    known = Artwork.objects.filter(workspace=workspace, state=State.READY, put_away=False).exclude(likeness="")
    rows = [row for row in known.order_by("pk").values_list("pk", "likeness") if _HASH.fullmatch(row[1])]
    hashes = np.array([int(likeness, 16) for _, likeness in rows], dtype=np.uint64)
    near = {one.pk: [rows[index][0] for index in near_hashes(one.likeness, hashes)] for one in asked}
    near_ones = Artwork.objects.in_bulk({key for keys in near.values() for key in keys})
    others = {key: other for key, other in near_ones.items() if is_readable(other)}
    alike: dict[str, list[Alike]] = {}
    for one in asked:
        for key in near[one.pk]:
            said = relation(one, others[key]) if key in others and key != one.pk else None
            if said:
                alike.setdefault(str(one.pk), []).append(Alike(str(key), others[key].name, said[0]))
    return alike


def count_of(artworks: QuerySet[Artwork]) -> int:
    """How many there are."""
    return artworks.count()


def any_put_away(workspace: Workspace) -> bool:
    """Whether something was put away."""
    return Artwork.objects.filter(workspace=workspace, put_away=True).exists()


def versions_of_page(workspace: Workspace, artworks: Iterable[Artwork]) -> list[Artwork]:
    """All versions of the marks among these, themselves too."""
    groups: set[Any] = {one.version_of_id or one.pk for one in artworks if one.kind == "mark"}
    known = Artwork.objects.filter(workspace=workspace, state=State.READY)
    return list(known.filter(Q(pk__in=groups) | Q(version_of__in=groups)))
