"""Which files a delivery consists of, and what each is called."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from typing import TYPE_CHECKING, NamedTuple, cast

from django.utils import timezone

from fitzle.apps.accounts.access import naming_rule
from fitzle.apps.deliveries.record import Kept, last_versions, record_of
from fitzle.apps.destinations.shelves import handing_of
from fitzle.apps.pieces.opening import OpenFit, open_fits
from fitzle.apps.pieces.rows import naming_of
from fitzle.core.fit.icon_files import icon_files
from fitzle.core.fit.record import FileRecord, RenditionRecord
from fitzle.core.formats import Format, format_named
from fitzle.core.handover.fields import Prepared, prepared_fields
from fitzle.core.handover.handing import Handing, Variant, variant_sheet, variants_of
from fitzle.core.handover.names import replacement_name
from fitzle.core.spec.naming import file_name, rule_for, unused_name
from fitzle.core.spec.stems import safe_stem

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace


class Content(NamedTuple):
    """What a file consists of; `format` is the ending of those that are no pictures."""

    sha256: str
    bytes: int
    format: str
    width: int
    height: int
    score: float | None = None


class ReadyFile(NamedTuple):
    """A file as it would be handed over. `content` is None where it is still to be made.

    `inside`: it is one more file of a set.
    """

    folder: str
    name: str
    content: Content | None
    variant: str = ""
    inside: bool = False


class ReadyFit(NamedTuple):
    """All files of one fit, what the upload form is told, and why it would not be taken now (empty: it would)."""

    opened: OpenFit
    version: int
    files: list[ReadyFile]
    fields: list[Prepared]
    trouble: str

    @property
    def own(self) -> ReadyFile:
        """The file itself, among its variants and those of its set."""
        return next(file for file in self.files if not file.variant and not file.inside)


def ready_fits(workspace: Workspace, fits: Iterable[OpenFit], *, flat: bool = False) -> list[ReadyFit]:
    """The files of these fits under the names that they would get; fits without an accepted file are left out."""
    fits = [opened for opened in fits if opened.standing(None).deliverable]
    record, names = record_of(workspace), _Names()
    versions = last_versions(opened.fit.placement_id for opened in fits)
    found = []
    for opened in fits:
        kept = record.get(opened.fit.placement_id)
        folder = "" if flat else safe_stem(opened.fit.placement.destination.name)
        version = versions.get(opened.fit.placement_id, 0) + 1
        before = kept.last.name if kept and not opened.of_row else ""
        files = [names.unused(file) for file in _files(workspace, opened, folder, version, before)]
        fields = prepared_fields(opened.sheet, opened.fit.fields, opened.fit.piece.alternative_text)
        trouble = next((one.trouble for one in fields if one.trouble), "") or _no_slot(opened, kept)
        found.append(ReadyFit(opened, version, files, fields, trouble))
    return found


def variant_fit(opened: OpenFit, variant: str) -> OpenFit | None:
    """The same fit opened for one of its variants; None where its artwork is gone meanwhile."""
    sheet = variant_sheet(opened.sheet, cast("Variant", variant))
    return next(
        iter(open_fits(opened.fit.piece.workspace, [opened.fit], sheets={opened.fit.placement_id: sheet})), None
    )


def content_of(record: RenditionRecord | None) -> Content | None:
    """What the first file of a rendition consists of; None where there is none."""
    file = record.files[0] if record and record.files else None
    if file is None:
        return None
    return Content(file.sha256, file.bytes, file.format, file.width, file.height, file.score)


class _Names:
    """The names that are taken in each folder."""

    def __init__(self) -> None:
        self._taken: dict[str, list[str]] = {}

    def unused(self, file: ReadyFile) -> ReadyFile:
        """The file under a name of its own in its folder."""
        taken = self._taken.setdefault(file.folder.casefold(), [])
        name = unused_name(file.name, taken)
        taken.append(name)
        return file._replace(name=name)


def _files(workspace: Workspace, opened: OpenFit, folder: str, version: int, before: str) -> Iterator[ReadyFile]:
    assert opened.record  # a fit that can be delivered has one
    icons, own = icon_files(opened.record), opened.record.files[0]
    if not icons:
        handing = handing_of(opened.fit.placement)
        name = _name(workspace, opened, own, version, handing, before)
        yield ReadyFile(folder, name, content_of(opened.record))
        yield from _variants(opened, folder, name, own.format, handing)
        return
    inside = "/".join(part for part in (folder, safe_stem(opened.sheet.name)) if part)
    for icon in icons:
        ending = icon.name.rpartition(".")[2]
        content = Content(icon.sha256, icon.bytes, ending, icon.width, icon.height)
        yield ReadyFile(inside, icon.name, content, inside=icon.sha256 != own.sha256)


def _variants(opened: OpenFit, folder: str, name: str, own: Format, handing: Handing) -> Iterator[ReadyFile]:
    stem, _, ending = name.rpartition(".")
    for variant in variants_of(handing, own):
        other = variant_fit(opened, variant)
        content = content_of(other.record) if other else None
        if content and content == content_of(opened.record):
            continue
        if variant in ("dark", "light"):
            tail = f"{stem}-{variant}.{format_named(content.format).extension if content else ending}"
        else:
            own_ending = format_named(variant).extension
            tail = f"{stem}.{own_ending}" if own_ending != ending else f"{stem}-still.{own_ending}"
        yield ReadyFile(folder, tail, content, variant)


def _name(workspace: Workspace, opened: OpenFit, file: FileRecord, version: int, handing: Handing, before: str) -> str:
    row = opened.of_row
    house = naming_rule(workspace)
    name = file_name(
        naming_of(row.run, opened.document, house) if row else rule_for(opened.sheet.naming, house),
        file.format,
        subject=opened.document.subject,
        placement=opened.sheet.name,
        size=file.size,
        date=timezone.now().date().isoformat(),
        version=str(version),
        more=row.tokens if row else {},
    )
    return replacement_name(name, handing.replacing, version, before)


def _no_slot(opened: OpenFit, kept: Kept | None) -> str:
    """That all slots of a place are taken by other pieces; empty where there is one for this."""
    most = opened.sheet.capacity
    if kept is None or most is None or str(opened.fit.piece_id) in kept.slots or len(kept.slots) < most:
        return ""
    return f"all {most} slots of “{opened.sheet.name}” are taken; take one down first"
