"""What people do about places that one file serves: let it serve them, and give one its own again."""

from __future__ import annotations

from collections.abc import Collection, Iterable
from typing import TYPE_CHECKING, NamedTuple
from uuid import UUID

from django.http import Http404

from fitzle.apps.accounts.access import Access, Capability, action
from fitzle.apps.destinations.shelves import placement_of, placements_of
from fitzle.apps.jobs.queue import make_later
from fitzle.apps.pieces import saving
from fitzle.apps.pieces.fits import fits_in, stand, standing_in
from fitzle.apps.pieces.models import Fit, SharedFile, Sharing
from fitzle.apps.pieces.sharing import shared_files, slug_of
from fitzle.apps.pieces.uses import note_uses
from fitzle.core.errors import FitzleError, ValueOutOfRange
from fitzle.core.piece.document import layer_of
from fitzle.core.piece.scoping import carried_over
from fitzle.core.spec.serving import Obstacle, common_sheet, groups

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.destinations.models import Placement
    from fitzle.core.spec.sheet import SpecSheet


class Group(NamedTuple):
    """Places that one file serves, or could; `obstacle` says why it does not any more."""

    placements: list[Placement]
    common: SpecSheet | None
    joined: bool
    obstacle: Obstacle | None = None


def groups_in(workspace: Workspace) -> list[Group]:
    """All places that one file serves, then those that one could serve."""
    shared = shared_files(workspace)
    known = {one.id: one for one in shared.values()}.values()
    found = [
        Group(list(one.placements), None if isinstance(one.common, Obstacle) else one.common, True, one.obstacle)
        for one in known
    ]
    readable = [(one, sheet) for one in placements_of(workspace) if one.pk not in shared and (sheet := _sheet(one))]
    for members in groups([sheet for _, sheet in readable]):
        common = common_sheet([readable[number][1] for number in members])
        if not isinstance(common, Obstacle):
            found.append(Group([readable[number][0] for number in members], common, joined=False))
    return found


@action(Capability.CHANGE)
def share_file(access: Access, placements: Collection[UUID], leader: UUID) -> None:
    """Lets the file of one place serve several; what stood in the others is kept beside it.

    Raises ValueOutOfRange where no file serves them all, saying which do not go together.
    """
    found = {one.pk: one for one in placements_of(access.workspace, {*placements, leader})}
    if len(found) < 2:
        raise ValueOutOfRange("one file for several takes at least two places")
    common = common_sheet([one.spec for one in found.values()])
    if isinstance(common, Obstacle):
        raise ValueOutOfRange(common.message, advice="Take one of them out, or change its sheet.")
    for one in found.values():
        _leave(access, one)
    row = SharedFile.objects.create(workspace=access.workspace, slug=found[leader].slug)
    # Somebody else may join one of them elsewhere at the same moment: each is in one group.
    Sharing.objects.bulk_create((Sharing(shared=row, placement=one) for one in found.values()), ignore_conflicts=True)
    fit = standing_in(found[leader])
    if fit:
        stand(fit.piece, found.values())
    _make(found.values())


@action(Capability.CHANGE)
def give_its_own_file(access: Access, placement: UUID) -> None:
    """Takes a place out of those that one file serves; what stands there looks as it did.

    Raises Http404 where it is in none.
    """
    if not _leave(access, placement_of(access.workspace, placement)):
        raise Http404("This place has a file of its own.")


def give_own_files(access: Access, placements: Iterable[Placement]) -> None:
    """Takes places that are about to go out of those that one file serves: the others stay as they look."""
    for one in placements:
        _leave(access, one)


def _leave(access: Access, placement: Placement) -> bool:
    """Whether it was one of several; the last of them is left alone, too."""
    sharing = Sharing.objects.filter(placement=placement).select_related("shared").first()
    if sharing is None:
        return False
    shared = sharing.shared
    others = [one.placement for one in shared.sharings.exclude(pk=sharing.pk).select_related("placement__destination")]
    alone = [placement, *others] if len(others) < 2 else [placement]
    before = slug_of(placement)
    for one in alone:
        _carry_over(access, one, before, one.slug)
    if len(alone) > 1:
        shared.delete()
    else:
        sharing.delete()
        if before == placement.slug:
            shared.slug = others[0].slug
            shared.save(update_fields=["slug"])
            _carry_over(access, others[0], before, shared.slug)
    _make([placement, *others])
    return True


def _carry_over(access: Access, placement: Placement, before: str, after: str) -> None:
    """Lets what stands in a placement differ under its new slug as it did under the one before."""
    if before == after:
        return
    for fit in fits_in([placement]):
        document = saving.document_of(fit.piece)
        changes = carried_over(document, before, after)
        if fit.take:
            changes += carried_over(document, layer_of(before, fit.take), layer_of(after, fit.take))
        if changes:
            piece = saving.save_changes(fit.piece, access.actor, fit.piece.revision, changes, "a file of its own")
            fit.piece = piece


def _make(placements: Iterable[Placement]) -> None:
    fits = fits_in(placements)
    for fit in fits:
        note_uses([fit], saving.document_of(fit.piece))
    make_later(fit.pk for fit in fits)


def _sheet(placement: Placement) -> SpecSheet | None:
    try:
        return placement.spec
    except (FitzleError, ValueError, TypeError, KeyError, AttributeError):
        return None


def served_fits(placement: Placement) -> list[Fit]:
    """All fits that another sheet of a placement may change: its own, and those of the places its file serves."""
    found = shared_files(placement.destination.workspace).get(placement.pk)
    return fits_in(found.placements if found else [placement])
