"""Handing over, as people do it."""

from __future__ import annotations

from uuid import UUID

from fitzle.apps.accounts.access import Access, Capability, action
from fitzle.apps.deliveries import delivering
from fitzle.apps.deliveries.models import Delivery
from fitzle.apps.files.errors import DamagedFileError
from fitzle.apps.pieces.fits import fit_of, fits_on_wall
from fitzle.apps.pieces.making import made_bytes
from fitzle.apps.pieces.opening import OpenFit, open_fits


@action(Capability.CHANGE)
def deliver_these(access: Access, fit_ids: list[UUID]) -> Delivery:
    """Hands over the files of these fits; raises FitzleError when one of them has none that would be accepted."""
    fits = open_fits(access.workspace, [fit_of(access.workspace, fit) for fit in dict.fromkeys(fit_ids)])
    return _handed_over(access, fits)


@action(Capability.CHANGE)
def deliver_all(access: Access, *, changed: bool) -> Delivery:
    """Hands over all files that would be accepted, or only those that changed since they were delivered."""
    return _handed_over(access, on_offer(access, changed=changed))


def _handed_over(access: Access, fits: list[OpenFit]) -> Delivery:
    """Records a delivery once all of its files were read as they were made."""
    for opened in fits:
        for file in opened.record.files if opened.record else ():
            try:
                made_bytes(access.workspace, file.sha256)
            except DamagedFileError as error:
                raise error.about(f"“{opened.sheet.name}”") from error
    return delivering.deliver(access.workspace, access.actor, fits)


def on_offer(access: Access, *, changed: bool) -> list[OpenFit]:
    """What `deliver_all` would hand over."""
    fits = open_fits(access.workspace, fits_on_wall(access.workspace))
    ready = [opened for opened in fits if opened.standing(None).deliverable]
    return delivering.changed_since(ready, delivering.last_delivered_keys(access.workspace)) if changed else ready
