"""Which adapter a place is uploaded through: its destination's own connection, else the rehearsal of its kind."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import TYPE_CHECKING, Literal, NamedTuple
from uuid import UUID

from cryptography.fernet import InvalidToken

from fitzle.apps.accounts.access import Access, Capability, action
from fitzle.apps.accounts.sealing import box_for
from fitzle.apps.destinations.shelves import shelf_of
from fitzle.apps.uploading.errors import UploadError
from fitzle.apps.uploading.models import Connection
from fitzle.apps.uploading.port import Adapter
from fitzle.apps.uploading.rehearsing import Rehearsal, rehearsal_places
from fitzle.apps.uploading.s3 import Bucket, check_reachable

if TYPE_CHECKING:
    from fitzle.apps.destinations.models import Placement

AdapterName = Literal["s3"]
ADAPTERS: dict[str, Callable[[str, str, str, str], Adapter]] = {"s3": Bucket}


class Opening(NamedTuple):
    """What a connection is opened with."""

    adapter: AdapterName
    address: str
    folder: str
    account: str
    secret: str


def adapter_for(placement: Placement) -> Adapter:
    """The adapter of a place; raises UploadError where nothing can be uploaded to it."""
    found = Connection.objects.filter(destination=placement.destination_id).first()
    if found:
        return ADAPTERS[found.adapter](found.address, found.folder, found.account, _opened(found.secret))
    place = rehearsal_places().get(str(placement.sheet.get("kind")))
    if place is None:
        name = placement.sheet.get("name", "")
        raise UploadError(f"nothing can be uploaded to “{name}” from here", advice="Save the file as a ZIP.")
    return Rehearsal(place)


def targets_of(placements: Iterable[Placement]) -> dict[UUID, str]:
    """Where each place would be uploaded to, in words; without those that nothing can be uploaded to."""
    placements = list(placements)
    rehearsed = rehearsal_places()
    own = {
        one.destination_id: one
        for one in Connection.objects.filter(destination__in={one.destination_id for one in placements})
    }
    found = {}
    for one in placements:
        if one.destination_id in own:
            found[one.pk] = own[one.destination_id].folder or own[one.destination_id].address
        elif (place := rehearsed.get(str(one.sheet.get("kind")))) is not None:
            found[one.pk] = f"{place.destination} (rehearsal)"
    return found


@action(Capability.RUN)
def connect(access: Access, destination: UUID, opening: Opening) -> Connection:
    """Connects a destination with a storage of one's own; raises UploadError where it cannot be reached from here."""
    shelf = shelf_of(access.workspace, destination)
    check_reachable(opening.address)
    values = opening._asdict() | {"secret": box_for("connections").encrypt(opening.secret.encode()).decode()}
    made, _ = Connection.objects.update_or_create(destination=shelf, defaults=values)
    return made


@action(Capability.RUN)
def disconnect(access: Access, destination: UUID) -> None:
    """Takes a connection away; what was uploaded stays where it is."""
    Connection.objects.filter(destination=shelf_of(access.workspace, destination)).delete()


def connection_of(access: Access, destination: UUID) -> Connection | None:
    """The connection of a destination, None where it has none."""
    return Connection.objects.filter(destination=shelf_of(access.workspace, destination)).first()


def _opened(secret: str) -> str:
    try:
        return str(box_for("connections").decrypt(secret.encode()).decode())
    except InvalidToken as error:
        raise UploadError("the key of this connection cannot be read any more", advice="Type it in again.") from error
