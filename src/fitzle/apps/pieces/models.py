"""Pieces with their history, fits, and what was made of them, kept by what it depends on."""

from __future__ import annotations

import uuid

from django.db import models

from fitzle.apps.history import HistoryStep, Step


class Piece(models.Model):
    """A piece. `revision` guards each save; `position` is the last of its history.

    `only_artwork` is the id of the artwork that it shows and that is all that is in it beside the ground; else empty.
    `alternative_text` says what is seen, for those who cannot see it; upload forms ask for it.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workspace = models.ForeignKey("accounts.Workspace", on_delete=models.CASCADE, related_name="+")
    document = models.JSONField()
    revision = models.PositiveIntegerField(default=1)
    position = models.PositiveIntegerField(default=0)
    only_artwork = models.CharField(max_length=80, blank=True)
    alternative_text = models.TextField(blank=True, default="")
    created_at = models.DateTimeField(auto_now_add=True)
    changed_at = models.DateTimeField(auto_now=True)

    class Meta:
        indexes = [models.Index(fields=["workspace", "only_artwork"])]


class PieceState(HistoryStep):
    """One step of a piece's history."""

    piece = models.ForeignKey(Piece, on_delete=models.CASCADE, related_name="states")

    class Meta(HistoryStep.Meta):
        constraints = [
            models.UniqueConstraint(fields=["piece", "position"], name="one_state_each_step"),
            models.UniqueConstraint(fields=["piece", "key"], name="each_save_once"),
        ]


class PieceRevision(models.Model):
    """The document of each saved revision, so that a save made on an older one can be merged."""

    piece = models.ForeignKey(Piece, on_delete=models.CASCADE, related_name="revisions")
    revision = models.PositiveIntegerField()
    document = models.JSONField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["piece", "revision"], name="one_document_each_revision")]


class Fit(models.Model):
    """One piece in one placement, in one of its takes and for one row of a run (empty: the piece itself, no row).

    Of several in one placement the chosen one stands on the wall; `chosen` is true or null, so that the database
    itself refuses two for a placement and row. `muted` is rule → why its findings are right as they are here, and who
    says so. `wish` is what somebody fixed of its file, `fields` what the upload form is told, by its names.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    piece = models.ForeignKey(Piece, on_delete=models.CASCADE, related_name="fits")
    placement = models.ForeignKey("destinations.Placement", on_delete=models.CASCADE, related_name="+")
    take = models.CharField(max_length=40, blank=True, default="")
    row = models.CharField(max_length=40, blank=True, default="")
    chosen = models.BooleanField(null=True, default=None)
    placed_at = models.DateTimeField()
    muted = models.JSONField(default=dict)
    wish = models.JSONField(default=dict)
    fields = models.JSONField(default=dict)

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["piece", "placement", "take", "row"], name="one_fit_each_take"),
            models.UniqueConstraint(fields=["placement", "row", "chosen"], name="one_chosen_fit_each"),
        ]
        ordering = ["placement__destination__position", "placement__position"]


class Run(models.Model):
    """The run of a piece: a row for every file of a series. `order` is the ids of its rows, `revision` counts changes,
    `position` is the last step of its history.

    `naming` is the rule for the names of their files, empty for the usual one. `twins` are pairs of rows that nobody
    tells apart, by the id of the place.
    """

    piece = models.OneToOneField(Piece, on_delete=models.CASCADE, related_name="run")
    order = models.JSONField(default=list)
    revision = models.PositiveIntegerField(default=0)
    position = models.PositiveIntegerField(default=0)
    naming = models.CharField(max_length=200, blank=True, default="")
    twins = models.JSONField(default=dict)


class RunRow(models.Model):
    """One row as it is kept (core.runs.document.Entry)."""

    run = models.ForeignKey(Run, on_delete=models.CASCADE, related_name="rows")
    row = models.CharField(max_length=40)
    document = models.JSONField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["run", "row"], name="one_document_each_row")]


class RunStep(Step):
    """One step of a run's history, with the changes that take it back."""

    run = models.ForeignKey(Run, on_delete=models.CASCADE, related_name="steps")
    inverse = models.JSONField()

    class Meta(Step.Meta):
        constraints = [
            models.UniqueConstraint(fields=["run", "position"], name="one_run_step_each"),
            models.UniqueConstraint(fields=["run", "key"], name="each_run_step_once"),
        ]


class RowJudgement(models.Model):
    """What the rules say of a row in a place before its file is made; `key` is what that depends on.

    `cells` are those of the picture as it is told from others in a list, `sizes` the em of its words by part, in parts
    of the short side.
    """

    run = models.ForeignKey(Run, on_delete=models.CASCADE, related_name="judgements")
    row = models.CharField(max_length=40)
    placement = models.ForeignKey("destinations.Placement", on_delete=models.CASCADE, related_name="+")
    key = models.CharField(max_length=32)
    findings = models.JSONField(default=list)
    cells = models.TextField(blank=True, default="")
    sizes = models.JSONField(default=dict)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["run", "row", "placement"], name="one_judgement_each_row")]


class RowFile(models.Model):
    """A file of a row that is wanted: `waiting`, `done` or `failed`. `share` is which of the workers makes it.

    `attempts` are those since it waits: what workers are lost over is not tried on and on.
    """

    run = models.ForeignKey(Run, on_delete=models.CASCADE, related_name="files")
    fit = models.OneToOneField(Fit, on_delete=models.CASCADE, related_name="+")
    share = models.PositiveSmallIntegerField(default=0)
    state = models.CharField(max_length=10)
    attempts = models.PositiveSmallIntegerField(default=0)
    message = models.TextField(blank=True, default="")

    class Meta:
        indexes = [models.Index(fields=["run", "share", "state"])]


class SharedFile(models.Model):
    """One file for several placements. `slug` is that of the placement whose adjustments count for all of them."""

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workspace = models.ForeignKey("accounts.Workspace", on_delete=models.CASCADE, related_name="+")
    slug = models.CharField(max_length=80)


class Sharing(models.Model):
    """A placement that takes a file together with others."""

    shared = models.ForeignKey(SharedFile, on_delete=models.CASCADE, related_name="sharings")
    placement = models.OneToOneField("destinations.Placement", on_delete=models.CASCADE, related_name="+")


class FitUse(models.Model):
    """What a fit shows, so that what shows something is found without reading every piece.

    `kind` and `value`: `artwork` and its id; `house` where automatic colours are chosen from the house's.
    """

    fit = models.ForeignKey(Fit, on_delete=models.CASCADE, related_name="uses")
    kind = models.CharField(max_length=10)
    value = models.CharField(max_length=80)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["fit", "kind", "value"], name="one_use_each")]
        indexes = [models.Index(fields=["kind", "value"])]


class Rendition(models.Model):
    """What one file key stands for: its files (kept by content), what was tried, how it came out (core.fit.record).

    `beside` are the other files of a set.
    """

    id = models.UUIDField(primary_key=True, default=uuid.uuid4, editable=False)
    workspace = models.ForeignKey("accounts.Workspace", on_delete=models.CASCADE, related_name="+")
    file_key = models.CharField(max_length=32)
    files = models.JSONField(default=list)
    beside = models.JSONField(default=list)
    candidates = models.JSONField(default=list)
    outcome = models.JSONField(default=dict)
    made_at = models.DateTimeField(auto_now=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["workspace", "file_key"], name="one_rendition_each_key")]


class Judgement(models.Model):
    """What the rules say of a rendition where one judgement key holds."""

    rendition = models.ForeignKey(Rendition, on_delete=models.CASCADE, related_name="judgements")
    judgement_key = models.CharField(max_length=32)
    findings = models.JSONField(default=list)
    demands = models.JSONField(default=list)
    judged_at = models.DateTimeField(auto_now=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["rendition", "judgement_key"], name="one_judgement_each_key")]
