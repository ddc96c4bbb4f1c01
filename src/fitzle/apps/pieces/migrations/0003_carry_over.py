"""Documents in version 2 and by slugs; what was made for each fit becomes a rendition with its judgement."""

from collections import defaultdict
from typing import Any

from django.db import migrations

from fitzle.apps.pieces.migrations._carrying_over import artworks_of, key_before, parts_there, settings_from_words
from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.encode.result import Problem
from fitzle.core.errors import FitzleError
from fitzle.core.fit.keys import file_key, judgement_key
from fitzle.core.fit.record import FileRecord, Outcome
from fitzle.core.fit.request import FitArtwork, FitRequest
from fitzle.core.fit.resolving import resolve
from fitzle.core.piece.document import artworks_in, parts_in
from fitzle.core.piece.editing import piece_from
from fitzle.core.piece.migrations import brought_up_to_date
from fitzle.core.piece.parts import WordsPart
from fitzle.core.spec.sheet import SpecSheet


class Workspace:
    """One workspace's artwork, read once."""

    def __init__(self, apps, pk, house_style):
        self.pk = pk
        self.house = tuple(entry["hex"] for entry in house_style.get("colours", []))
        ready = apps.get_model("artwork", "Artwork").objects.filter(workspace_id=pk, state="ready")
        self.artworks, self.groups = {}, defaultdict(set)
        for artwork in ready.exclude(facts__kind="clip"):
            content = artwork.prepared or {"sha256": artwork.sha256, "facts": artwork.facts}
            self.artworks[str(artwork.pk)] = content
            if artwork.facts["kind"] == "mark":
                self.groups[str(artwork.version_of_id or artwork.pk)].add(str(artwork.pk))
        self.group_of = {name: group for group in self.groups.values() for name in group}

    def with_versions(self, names):
        """The artworks and all versions of those that are marks."""
        return {other for name in names for other in (self.group_of.get(name, set()) | {name}) if other in self.artworks}

    def request(self, document, sheet):
        """A request for the piece in a placement, as the application makes it."""
        names = self.with_versions(artworks_in(document, sheet.placement))
        known = {
            name: FitArtwork(ArtworkFacts.model_validate(self.artworks[name]["facts"]), self.artworks[name]["sha256"])
            for name in names
        }
        others = {name: tuple(sorted(self.group_of.get(name, set()) - {name})) for name in names}
        versions = {name: found for name, found in others.items() if found}
        return FitRequest(document, sheet, sheet.placement, known, house=self.house, versions=versions)


def carry_over(apps, _editor):
    slugs = {str(pk): slug for pk, slug in apps.get_model("destinations", "Placement").objects.values_list("pk", "slug")}
    for row in apps.get_model("accounts", "Workspace").objects.all():
        workspace = Workspace(apps, row.pk, row.house_style)
        for piece in apps.get_model("pieces", "Piece").objects.filter(workspace=row):
            carry_piece(apps, workspace, piece, slugs)
    choose(apps)


def carry_piece(apps, workspace, piece, slugs):
    before = piece.document
    piece.document = renewed(before, slugs)
    document = piece_from(piece.document)
    standing = [part for part in document.parts if part.role != "ground"]
    if len(standing) == 1 and len(document.parts) <= 2:
        piece.only_artwork = getattr(standing[0], "artwork", "")
    piece.save(update_fields=["document", "only_artwork"])
    for name in ("PieceState", "PieceRevision"):
        for kept in apps.get_model("pieces", name).objects.filter(piece=piece):
            kept.document = renewed(kept.document, slugs)
            kept.save(update_fields=["document"])
    fits = apps.get_model("pieces", "Fit").objects.filter(piece=piece).select_related("placement")
    for fit in fits:
        note_uses(apps, fit, document)
        if fit.result:
            carry_result(apps, workspace, fit, before, document)


def renewed(document, slugs):
    """A document in the present version, its adjustments under the slugs of their placements."""
    data = brought_up_to_date(document, document.get("fitzle_piece", 1), 2)
    adjustments = {slugs[place]: own for place, own in data.get("adjustments", {}).items() if place in slugs}
    return piece_from({**data, "adjustments": adjustments}).model_dump(mode="json")


def note_uses(apps, fit, document):
    use, place = apps.get_model("pieces", "FitUse"), fit.placement.slug
    wanted = {("artwork", artwork) for artwork in artworks_in(document, place)}
    if any(isinstance(part, WordsPart) and part.colour == "auto" for part in parts_in(document, place)):
        wanted.add(("house", ""))
    use.objects.bulk_create(use(fit=fit, kind=kind, value=value) for kind, value in wanted)


def carry_result(apps, workspace, fit, before, document):
    """What was made: under the present keys where it is of the present state, else under the key that it had."""
    sheet = SpecSheet.model_validate({**fit.placement.sheet, "slug": fit.placement.slug})
    place, result = str(fit.placement_id), fit.result
    names = workspace.with_versions(artworks_of(parts_there(before, place)))
    contents = {name: workspace.artworks[name]["sha256"] for name in names}
    present = fit.result_key == key_before(before, fit.placement.sheet, place, list(workspace.house), contents)
    keys = (fit.result_key, fit.result_key)
    if present:
        try:
            resolved = resolve(workspace.request(document, sheet))
            keys = (file_key(resolved), judgement_key(resolved))
        except (FitzleError, KeyError):
            present = False  # an artwork is gone: the fit cannot be opened, and its file stays as it was
    keep(apps, workspace, keys, result)
    if present:
        fit.result_key = keys[0]  # so that deliveries find it; migration 0004 takes the column away
        fit.save(update_fields=["result_key"])


def keep(apps, workspace, keys, result):
    failed = next((one for one in result["findings"] if one["rule"] == "making"), None)
    files = [record_of(result["file"])] if result["file"] else []
    problem = "" if files or failed else problem_of(result["findings"])
    outcome = Outcome(kind="failed" if failed else "made", problem=problem, message=failed["message"] if failed else "")
    rendition, new = apps.get_model("pieces", "Rendition").objects.get_or_create(
        workspace_id=workspace.pk, file_key=keys[0], defaults={"files": files, "outcome": outcome.model_dump(mode="json")}
    )
    if not failed:
        apps.get_model("pieces", "Judgement").objects.get_or_create(
            rendition=rendition,
            judgement_key=keys[1],
            defaults={"findings": result["findings"], "demands": result["demands"]},
        )


def record_of(file):
    settings = settings_from_words(file["format"], file["settings"])
    return FileRecord(**{**file, "settings": settings}).model_dump(mode="json")


def problem_of(findings: list[dict[str, Any]]) -> Problem:
    rules = {one["rule"] for one in findings if one["severity"] == "refused"}
    return "useless" if "quality" in rules else "over limit" if "bytes" in rules else "no format"


def choose(apps):
    """Of several fits in a placement the one placed last stood on the wall."""
    fits = apps.get_model("pieces", "Fit").objects.order_by("placed_at")
    for pk in {fit.placement_id: fit.pk for fit in fits}.values():
        fits.filter(pk=pk).update(chosen=True)


class Migration(migrations.Migration):

    dependencies = [("pieces", "0002_renditions")]

    operations = [migrations.RunPython(carry_over, migrations.RunPython.noop)]
