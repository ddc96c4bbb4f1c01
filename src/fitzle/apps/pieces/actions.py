"""What people do to pieces and fits: each checks who does it, writes in one transaction and queues its own work."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import NamedTuple
from uuid import UUID

from fitzle.apps.accounts.access import Access, Capability, action, workspace_numbered
from fitzle.apps.accounts.access import save_house_style as keep_house_style
from fitzle.apps.artwork import versions
from fitzle.apps.artwork.actions import bring_in, make_prepared_version
from fitzle.apps.artwork.library import artwork_of
from fitzle.apps.destinations.shelves import placements_of, slugs_of
from fitzle.apps.drawing.calls import drawable
from fitzle.apps.jobs.queue import make_later
from fitzle.apps.pieces import fits as fitting
from fitzle.apps.pieces import history, saving
from fitzle.apps.pieces.composing import (
    Placing,
    artwork_change,
    composing_changes,
    drop_of,
    placed_values,
    replace_changes,
    role_part,
)
from fitzle.apps.pieces.fits import fit_of
from fitzle.apps.pieces.models import Fit, Piece
from fitzle.apps.pieces.motion import work_out_motion
from fitzle.apps.pieces.opening import OpenFit, decided, open_fit
from fitzle.apps.pieces.progress import say_enough
from fitzle.apps.pieces.row_edits import edits_of_row
from fitzle.apps.pieces.row_history import keep_changes
from fitzle.apps.pieces.rows import check_row, look_at_rows_again, run_of
from fitzle.apps.pieces.sharing import shared_slugs, slug_of
from fitzle.apps.pieces.starting import point_for
from fitzle.apps.pieces.uses import fits_in_house_colours, fits_showing
from fitzle.core.artwork.sources import VectorSource
from fitzle.core.artwork.steps.document import AnyStep, CleanEdge, CutOut
from fitzle.core.encode.wish import NO_WISH, Wish
from fitzle.core.errors import DocumentError
from fitzle.core.fit.making import look_at
from fitzle.core.formats import label_of
from fitzle.core.icons.making import site_folder
from fitzle.core.piece.changes import AnyChange, Compose, ResetField, SetField
from fitzle.core.piece.document import TAKE_MARK, layer_of
from fitzle.core.piece.parts import ArtworkPart
from fitzle.core.piece.scoping import FieldValue, scoped, taking_back
from fitzle.core.plan.grounds import grounds_behind
from fitzle.core.preflight.registry import RULES, SEEN_REPAIRS, repair_changes
from fitzle.core.preflight.seeing import seen_scale
from fitzle.core.preflight.simplifying import simpler_mark
from fitzle.core.type.library import offered_families

AFTER_THE_ANSWER_S = 0.15  # workers would take the cores that the answer to a change needs


class Simplified(NamedTuple):
    """A mark with fewer parts as SVG: how many stay of how many, and the artwork it was made of."""

    svg: str
    kept: int
    of: int
    artwork: str


class Edit(NamedTuple):
    """What somebody wants changed from one fit, on the revision that they saw.

    `values` and `placings` count everywhere or only in the fit's placement; `changes` say themselves where they count;
    `take_back` are `part.field` that are to follow the piece again in the fit's placement.
    """

    revision: int
    step: str
    changes: Sequence[AnyChange] = ()
    values: Sequence[FieldValue] = ()
    placings: Sequence[Placing] = ()
    take_back: Sequence[str] = ()
    everywhere: bool = True
    key: UUID | None = None


@action(Capability.CHANGE)
def change_fit(access: Access, fit_id: UUID, edit: Edit) -> Fit:
    """Changes the piece of a fit; at a fit of a row, what differs in that row alone."""
    fit = fit_of(access.workspace, fit_id)
    _check_placements(access, edit.changes)
    if fit.row:
        return _change_row(access, fit, edit)
    document, place = saving.document_of(fit.piece), slug_of(fit.placement)
    follows = document.composed is not None and not document.composed.is_here(place)
    arranged = follows and open_fit(access.workspace, fit).is_arranged
    values = [*edit.values, *placed_values(access.workspace, fit, edit.placings)]
    changes = [
        *edit.changes,
        *taking_back(edit.take_back, layer_of(place, fit.take)),
        *scoped(document, place, values, everywhere=edit.everywhere, take=fit.take, arranged=arranged),
    ]
    return _saved(access, fit, edit.revision, changes, edit.step, edit.key)


def _change_row(access: Access, fit: Fit, edit: Edit) -> Fit:
    if edit.changes:
        fit = _saved(access, fit, edit.revision, edit.changes, edit.step)
    opened = open_fit(access.workspace, fit)
    values = [*edit.values, *placed_values(access.workspace, fit, edit.placings)]
    changes = edits_of_row(opened, values, edit.take_back, everywhere=edit.everywhere)
    if changes:
        run = run_of(fit.piece)
        keep_changes(run, access.actor, changes, edit.step, edit.key)
        check_row(access.workspace, run, fit.row)
    look_at_rows_again(fit.piece)
    make_later([fit.pk], after_seconds=AFTER_THE_ANSWER_S)
    return fit


@drawable
def work_out_repair(workspace: int, fit: UUID, name: str, part: str | None) -> list[AnyChange]:
    """What a repair changes in the piece of a fit; some look at what is drawn."""
    space = workspace_numbered(workspace)
    opened = open_fit(space, fit_of(space, fit))
    looked = decided(space, opened)
    evidence = looked.evidence
    if name in SEEN_REPAIRS:
        evidence = replace(evidence, eye=look_at(looked, opened.sources(preview=True)))
    return list(repair_changes(name, opened.document, opened.slug, evidence, part))


@action(Capability.CHANGE)
def repair_fit(access: Access, fit_id: UUID, name: str, part: str | None) -> Fit:
    """Makes a repair that a finding names, for this placement only."""
    fit = fit_of(access.workspace, fit_id)
    changes = work_out_repair.ask(str(fit.piece.revision), access.workspace.pk, fit_id, name, part)
    return _saved(access, fit, fit.piece.revision, changes, name.replace("-", " "))


@action(Capability.CHANGE)
def let_move(access: Access, fit_id: UUID, liveliness: float | None) -> Fit:
    """Lets the parts of a piece move as a calculation proposes, calm (0) to lively (1), or stand still (None)."""
    fit = fit_of(access.workspace, fit_id)
    changes = work_out_motion.ask(str(fit.piece.revision), access.workspace.pk, fit_id, liveliness)
    return _saved(access, fit, fit.piece.revision, changes, "motion")


@action(Capability.CHANGE)
def compose_for(access: Access, fit_id: UUID, on: bool) -> Fit:
    """Lets places of other shapes follow this one by calculation, or all of them keep to the boxes of the piece."""
    fit = fit_of(access.workspace, fit_id)
    changes = composing_changes(open_fit(access.workspace, fit)) if on else [Compose(composed=None)]
    step = "arrange other places from here" if on else "arrange no other places"
    return _saved(access, fit, fit.piece.revision, changes, step)


@action(Capability.CHANGE)
def mute_rule(access: Access, fit_id: UUID, rule: str, reason: str) -> Fit:
    """Says that the findings of a rule are right as they are in a fit; its file stays, its state follows.

    Raises DocumentError where there is no such rule, or it says what the destination would refuse.
    """
    if rule not in RULES or RULES[rule].demand:
        raise DocumentError(f"{rule!r} cannot be muted", advice="What would be refused has to be mended.")
    fit = fit_of(access.workspace, fit_id)
    by = access.actor.name or access.actor.email if access.actor else ""
    fit.muted = {**fit.muted, rule: {"reason": reason.strip(), "by": by}}
    fit.save(update_fields=["muted"])
    return fit


@action(Capability.CHANGE)
def judge_again(access: Access, fit_id: UUID, rule: str) -> Fit:
    """Lets the findings of a rule count again in a fit."""
    fit = fit_of(access.workspace, fit_id)
    fit.muted = {name: entry for name, entry in fit.muted.items() if name != rule}
    fit.save(update_fields=["muted"])
    return fit


@action(Capability.CHANGE)
def fix_file(access: Access, fit_id: UUID, wish: Wish) -> Fit:
    """Fixes something of a fit's file, in every place that takes the same file; it is made anew.

    Raises DocumentError for a format that the place does not take.
    """
    fit = fit_of(access.workspace, fit_id)
    opened = open_fit(access.workspace, fit)
    if wish.format is not None and wish.format not in opened.resolved.sheet.formats:
        raise DocumentError(f"this place takes no {label_of(wish.format)}")
    if wish.path != NO_WISH.path:
        site_folder(wish.path)
    same = [
        one
        for one in fit.piece.fits.filter(take=fit.take, row=fit.row).select_related("placement")
        if slug_of(one.placement) == slug_of(fit.placement)
    ]
    fixed = wish.model_dump(mode="json", exclude_defaults=True)
    Fit.objects.filter(pk__in=[one.pk for one in same]).update(wish=fixed)
    make_later(one.pk for one in same)
    return fit_of(access.workspace, fit_id)


@action(Capability.CHANGE)
def end_search(access: Access, fit_id: UUID) -> Fit:
    """Has the search for the file of a fit end with the best that it has found so far."""
    opened = open_fit(access.workspace, fit_of(access.workspace, fit_id))
    say_enough(access.workspace.pk, opened.file_key)
    return opened.fit


@action(Capability.DELIVER)
def fill_fields(access: Access, fit_id: UUID, values: Mapping[str, str], alternative_text: str | None) -> Fit:
    """Keeps what the upload form of a fit's place is told, and what is seen in the piece; None leaves that as it is.

    An alternative text that is typed for the first time in one place is that of the piece.
    """
    fit = fit_of(access.workspace, fit_id)
    known = {field.name: field for field in open_fit(access.workspace, fit).sheet.fields}
    unknown = next((name for name in values if name not in known), None)
    if unknown is not None:
        raise DocumentError(f"the form of this place has no field {unknown!r}")
    fit.fields = {name: value.strip() for name, value in values.items() if value.strip()}
    fit.save(update_fields=["fields"])
    if alternative_text is not None:
        Piece.objects.filter(pk=fit.piece_id).update(alternative_text=alternative_text.strip())
    return fit_of(access.workspace, fit_id)


@action(Capability.CHANGE)
def add_role(access: Access, fit_id: UUID, revision: int, role: str, key: UUID | None = None) -> Fit:
    """Adds a part that needs no artwork."""
    fit = fit_of(access.workspace, fit_id)
    return _saved(access, fit, revision, [role_part(access.workspace, role)], f"add a {role}", key)


@action(Capability.CHANGE)
def add_artwork(
    access: Access,
    fit_id: UUID,
    revision: int,
    artwork: str,
    at: tuple[float, float] | None,
    key: UUID | None = None,
) -> Fit:
    """Adds a picture or mark, with its middle at (x, y) in fractions of the picture."""
    fit = fit_of(access.workspace, fit_id)
    return _saved(access, fit, revision, [artwork_change(access.workspace, fit, artwork, at)], "add artwork", key)


@action(Capability.CHANGE)
def replace_artwork(
    access: Access, fit_id: UUID, revision: int, part: str, artwork: str, key: UUID | None = None
) -> Fit:
    """Puts another artwork in the place of a part's own."""
    fit = fit_of(access.workspace, fit_id)
    changes = replace_changes(access.workspace, fit, part, artwork)
    return _saved(access, fit, revision, changes, "replace the picture", key)


@action(Capability.CHANGE)
def bring_into(access: Access, artwork: str, target: str) -> Fit:
    """What a drop on a proof does once the file is read."""
    drop = drop_of(access.workspace, target)
    revision = drop.fit.piece.revision
    if drop.instead is not None and drop.only_here:
        return _version_here(access, drop.fit, drop.instead, artwork)
    if drop.instead is not None:
        return replace_artwork(access, drop.fit.pk, revision, drop.instead, artwork)
    return add_artwork(access, drop.fit.pk, revision, artwork, drop.at)


def _version_here(access: Access, fit: Fit, part: str, artwork: str) -> Fit:
    """Joins artwork with the mark that a part shows, as its version, and lets it stand there in this placement."""
    opened = open_fit(access.workspace, fit)
    own = _shown_by(opened, part)
    versions.join(artwork_of(access.workspace, artwork), artwork_of(access.workspace, own.artwork))
    change = SetField(part=part, field="artwork", value=artwork, placement=opened.slug)
    return _saved(access, fit, fit.piece.revision, [change], "leave out small parts")


def _shown_by(opened: OpenFit, part: str) -> ArtworkPart:
    own = next((one for one in opened.resolved.parts if one.id == part and isinstance(one, ArtworkPart)), None)
    if own is None:
        raise DocumentError(f"the part {part!r} shows no mark any more")
    return own


@drawable
def work_out_simpler(workspace: int, fit: UUID, part: str) -> Simplified:
    """The mark that a part shows with fewer parts, where it is seen smallest. Raises DocumentError where none helps."""
    space = workspace_numbered(workspace)
    opened = open_fit(space, fit_of(space, fit))
    looked = decided(space, opened)
    own = next((one for one in looked.plan.artworks if one.part == part), None)
    source = looked.planned.sources(opened.sources(preview=False)).get(own.artwork) if own else None
    found = None
    if own and isinstance(source, VectorSource):
        grounds = [colour for _, colour in grounds_behind(opened.sheet, looked.plan.ground)]
        seen = max(own.box.width, own.box.height) * seen_scale(looked.plan, opened.sheet)
        found = simpler_mark(source, grounds, seen)
    if own is None or found is None:
        raise DocumentError(
            "leaving out small parts does not help here", advice="Use a simpler mark, or a glyph, in this place."
        )
    return Simplified(svg=found.svg.decode(), kept=found.kept, of=found.of, artwork=own.artwork)


@action(Capability.CHANGE)
def simplify_mark(access: Access, fit_id: UUID, part: str) -> Fit:
    """Makes a version of a mark with fewer parts for one placement; it stands there once it is read."""
    fit = fit_of(access.workspace, fit_id)
    found = work_out_simpler.ask(str(fit.piece.revision), access.workspace.pk, fit_id, part)
    mark = artwork_of(access.workspace, found.artwork)
    name = f"{mark.name.rpartition('.')[0] or mark.name}, {found.kept} of {found.of} parts.svg"
    bring_in(access, name, [found.svg.encode()], [f"simpler/{fit_id}/{part}"])
    return fit


HERE_ALONE: dict[str, tuple[AnyStep, str]] = {
    "cut out": (CutOut(id="cut", method="flat"), "cut out"),
    "clean edge": (CleanEdge(id="edge"), "clean edge"),
}


@action(Capability.CHANGE)
def prepare_here(access: Access, fit_id: UUID, part: str, step: str) -> Fit:
    """Lets a version of a mark with one further step (a name of HERE_ALONE) stand in one placement.

    Raises DocumentError where the part shows no mark, or there is no such step.
    """
    fit = fit_of(access.workspace, fit_id)
    opened = open_fit(access.workspace, fit)
    own = _shown_by(opened, part)
    if step not in HERE_ALONE:
        raise DocumentError(f"no finding offers {step!r}", advice=f"Choose one of {', '.join(HERE_ALONE)}.")
    version = make_prepared_version(access, UUID(own.artwork), *HERE_ALONE[step])
    change = SetField(part=part, field="artwork", value=str(version.pk), placement=opened.slug)
    return _saved(access, fit, fit.piece.revision, [change], HERE_ALONE[step][1])


@action(Capability.CHANGE)
def place_artwork(access: Access, artwork_id: UUID | str, targets: list[str]) -> list[Fit]:
    """Fits an artwork into placements (ids, or ["suited"] for every empty one that it suits)."""
    fits = fitting.place(access.workspace, access.actor, artwork_id, targets)
    make_later(fit.pk for fit in fits)
    return fits


@action(Capability.CHANGE)
def begin_piece(access: Access, placement_id: UUID, number: int) -> Fit:
    """A new piece from a starting point, standing in the placement."""
    [placement] = placements_of(access.workspace, [placement_id])
    point = point_for(access.workspace, placement, number)
    assert point.piece.composed
    here = point.piece.composed.model_copy(update={"placement": placement.slug})
    document = point.piece.model_copy(update={"subject": placement.spec.name, "composed": here})
    fits = fitting.stand(saving.create_piece(access.workspace, access.actor, document), [placement])
    make_later(fit.pk for fit in fits)
    return next(fit for fit in fits if fit.placement_id == placement.pk)


@action(Capability.CHANGE)
def stand_elsewhere(access: Access, fit_id: UUID, placements: Sequence[UUID]) -> list[Fit]:
    """Puts the piece of a fit into other places too, in the same take; what stood there is kept beside it."""
    fit = fit_of(access.workspace, fit_id)
    fits = fitting.stand(fit.piece, placements_of(access.workspace, list(placements)), fit.take)
    make_later(one.pk for one in fits)
    return fits


@action(Capability.CHANGE)
def empty_placement(access: Access, fit_id: UUID) -> None:
    """Takes a piece out of a placement; the piece itself stays."""
    fitting.take_away(fit_of(access.workspace, fit_id))


@action(Capability.CHANGE)
def join_versions(access: Access, artwork_id: UUID, other: UUID | None) -> None:
    """Joins a mark with another one as its version, or parts it from those it is joined with."""
    mark = artwork_of(access.workspace, artwork_id)
    before = fits_showing(access.workspace, mark.pk)
    if other is None:
        versions.part(mark)
    else:
        versions.join(mark, artwork_of(access.workspace, other))
    after = fits_showing(access.workspace, mark.pk)
    make_later({fit.pk for fit in (*before, *after)})


@action(Capability.CHANGE)
def save_house_style(access: Access, colours: list[dict[str, str]], heading: str, text: str, naming: str) -> None:
    """Another house style; what is coloured by it is made anew, all else judged anew. Raises DocumentError."""
    known = {family.name for family in offered_families()}
    for face in (heading, text):
        if face and face not in known:
            raise DocumentError(f"there is no typeface {face!r}", advice="Choose one of those that ship with Fitzle.")
    keep_house_style(access.workspace, colours, heading, text, naming)
    first = fits_in_house_colours(access.workspace)
    make_later(dict.fromkeys(fit.pk for fit in (*first, *fitting.all_fits(access.workspace, rows=False))))


@action(Capability.CHANGE)
def change_piece(access: Access, piece_id: UUID, revision: int, changes: Sequence[AnyChange], step: str) -> Piece:
    """Saves changes to a piece."""
    _check_placements(access, changes)
    piece = saving.piece_of(access.workspace, piece_id)
    return _queued(saving.save_changes(piece, access.actor, revision, changes, step))


@action(Capability.CHANGE)
def undo(access: Access, piece_id: UUID) -> Piece:
    """Takes the actor's own last step back."""
    return _queued(history.step_back(saving.piece_of(access.workspace, piece_id), access.actor))


@action(Capability.CHANGE)
def redo(access: Access, piece_id: UUID) -> Piece:
    """Makes the step again that the actor took back last."""
    return _queued(history.step_forward(saving.piece_of(access.workspace, piece_id), access.actor))


def _check_placements(access: Access, changes: Sequence[AnyChange]) -> None:
    """Raises DocumentError where a change is for a placement that the workspace does not have."""
    of_places = (change for change in changes if isinstance(change, SetField | ResetField) and change.placement)
    named = {str(change.placement).partition(TAKE_MARK)[0] for change in of_places}
    missing = named - slugs_of(access.workspace) - shared_slugs(access.workspace) if named else set()
    if missing:
        raise DocumentError(f"there is no placement {min(missing)!r}")


def _saved(
    access: Access, fit: Fit, revision: int, changes: Sequence[AnyChange], step: str, key: UUID | None = None
) -> Fit:
    fit.piece = _queued(saving.save_changes(fit.piece, access.actor, revision, changes, step, key))
    return fit


def _queued(piece: Piece) -> Piece:
    """Has made what a change of a piece makes otherwise; files of rows are made when somebody wants them."""
    make_later(piece.fits.filter(row="").values_list("pk", flat=True), after_seconds=AFTER_THE_ANSWER_S)
    look_at_rows_again(piece)
    return piece
