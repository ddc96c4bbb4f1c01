"""What is done about files that were lost: what Fitzle made it makes again; what people brought only a backup has."""

from __future__ import annotations

from fitzle.apps.accounts.access import workspace_numbered
from fitzle.apps.files.checking import Damage
from fitzle.apps.files.keeping import forget
from fitzle.apps.files.shelves import Shelf
from fitzle.apps.pieces.making import make_anew

# Whoever reads one of these and finds nothing makes it again.
MENDABLE = (Shelf.WORKING, Shelf.COSTLY, Shelf.MADE)


def mend(damage: Damage) -> None:
    """Takes away what is damaged and has made files made anew at once; the others are when somebody asks for them."""
    forget(damage.shelf, damage.workspace_id, damage.key)
    if damage.shelf == Shelf.MADE:
        make_anew(workspace_numbered(damage.workspace_id), damage.key)
