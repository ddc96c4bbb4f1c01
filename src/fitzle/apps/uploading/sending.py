"""One file uploaded: the answer beside what Fitzle said of it, and what is shown afterwards beside the file."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from fitzle.apps.uploading.connections import adapter_for
from fitzle.apps.uploading.errors import UploadError
from fitzle.apps.uploading.port import Answer, Upload
from fitzle.core.handover.shown import as_shown
from fitzle.core.preflight.seeing import finished_pixels

if TYPE_CHECKING:
    from fitzle.apps.destinations.models import Placement

COMPARED_PX = 1600
GOOD = ("fits", "note", "risky")  # what is taken, if Fitzle is right


def shown_now(placement: Placement, told: dict[str, Any]) -> bytes | None:
    """What a destination shows now of a file that it took (`told` is what `send` gave); None for none.

    Raises UploadError where it cannot be reached.
    """
    if not told.get("picture"):
        return None
    return adapter_for(placement).shown(Answer(True, (), "", str(told["picture"])))


def send(placement: Placement, upload: Upload, verdict: str) -> dict[str, Any]:
    """Uploads a file and looks at what became of it; `verdict` is what Fitzle said of it before.

    Raises UploadError where there is no answer. The result is plain data for the record: `taken`, `said` (in the
    destination's own words), `ours` (the verdict), `agree`, `page`, `shown` (how it is shown, None: not to be seen).
    """
    adapter = adapter_for(placement)
    answer = adapter.upload(upload)
    told: dict[str, Any] = {
        "taken": answer.taken, "said": list(answer.said), "ours": verdict, "page": answer.page,
        "agree": answer.taken == (verdict in GOOD), "again": answer.again, "shown": None,
    }  # fmt: skip
    if not answer.taken:
        return told
    try:
        data = adapter.shown(answer)
    except UploadError as error:
        return told | {"said": [error.message]}
    own, theirs = (finished_pixels(one, COMPARED_PX) if one else None for one in (upload.data, data))
    if own is not None and theirs is not None:
        grounds = placement.sheet.get("grounds") or ["#ffffff"]
        told["shown"] = as_shown(own, theirs, str(grounds[0])).model_dump(mode="json")
        told["picture"] = answer.picture
    return told
