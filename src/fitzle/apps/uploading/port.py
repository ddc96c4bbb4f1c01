"""The port that every adapter stands behind: an upload, the answer to it, and what is shown afterwards."""

from __future__ import annotations

from collections.abc import Mapping
from typing import NamedTuple, Protocol


class Upload(NamedTuple):
    """A file on its way. `key` is the same however often it is tried; `piece` names what it may replace.

    `folder` is that of the destination in a delivery, `window` the part that the uploader chooses (x, y, width, height
    in fractions), None for all of it.
    """

    key: str
    name: str
    folder: str
    media_type: str
    data: bytes
    fields: Mapping[str, str]
    piece: str
    window: tuple[float, float, float, float] | None = None


class Answer(NamedTuple):
    """What a destination said: whether it took the file, in its own words why not, and where it is seen.

    `again`: it had taken this very upload before.
    """

    taken: bool
    said: tuple[str, ...] = ()
    page: str = ""
    picture: str = ""
    again: bool = False


class Adapter(Protocol):
    """One way to upload."""

    def upload(self, upload: Upload) -> Answer:
        """Hands a file over. Raises UploadError where the destination gives no answer that can be understood."""

    def shown(self, answer: Answer) -> bytes | None:
        """What the destination shows now; None where it shows no picture."""
