"""Deliveries point to the fit and the rendition that their files are of."""

import django.db.models.deletion
from django.db import migrations, models

from fitzle.core.encode.settings import Lossless
from fitzle.core.fit.record import FileRecord, Outcome


def point(apps, _editor):
    fits = apps.get_model("pieces", "Fit").objects
    renditions = apps.get_model("pieces", "Rendition").objects
    for file in apps.get_model("deliveries", "DeliveredFile").objects.select_related("delivery"):
        same = [fit for fit in fits.filter(placement=file.placement_id) if has_file(fit, file)] if file.placement_id else []
        fit = next(iter(sorted(same, key=lambda fit: not fit.chosen)), None)
        workspace = file.delivery.workspace_id
        found = fit and renditions.filter(workspace=workspace, file_key=fit.result_key).first()
        if not found:
            found, _ = renditions.get_or_create(workspace_id=workspace, file_key=file.file_key, defaults=kept(file))
        file.fit, file.rendition, file.file_key = fit, found, found.file_key
        file.save(update_fields=["fit", "rendition", "file_key"])


def has_file(fit, file):
    """Whether a fit's file is the one that was delivered, byte for byte."""
    return bool(fit.result and fit.result["file"] and fit.result["file"]["sha256"] == file.sha256)


def kept(file):
    """A rendition of a state that is no more: the file is all that is known of it."""
    record = FileRecord(
        sha256=file.sha256, bytes=file.bytes, format=file.format, width=file.width, height=file.height,
        settings=Lossless(), score=0,
    )  # fmt: skip
    return {"files": [record.model_dump(mode="json")], "outcome": Outcome().model_dump(mode="json")}


class Migration(migrations.Migration):

    dependencies = [("deliveries", "0001_initial"), ("pieces", "0003_carry_over")]

    operations = [
        migrations.RenameField("deliveredfile", "fit_key", "file_key"),
        migrations.AddField(
            "deliveredfile",
            "fit",
            models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name="+", to="pieces.fit"),
        ),
        migrations.AddField(
            "deliveredfile",
            "rendition",
            models.ForeignKey(null=True, on_delete=django.db.models.deletion.SET_NULL, related_name="+", to="pieces.rendition"),
        ),
        migrations.RunPython(point, migrations.RunPython.noop),
    ]
