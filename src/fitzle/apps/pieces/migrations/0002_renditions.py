"""Tables for what is made of fits, kept by what it depends on; fits get a take, a row and a choice."""

import uuid

import django.db.models.deletion
from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [
        ("pieces", "0001_initial"),
        ("accounts", "0001_initial"),
        ("destinations", "0002_slug"),
        ("artwork", "0004_targets"),
    ]

    operations = [
        migrations.AddField("piece", "only_artwork", models.CharField(blank=True, default="", max_length=80), preserve_default=False),
        migrations.AddIndex("piece", models.Index(fields=["workspace", "only_artwork"], name="pieces_piec_workspa_84e92f_idx")),
        migrations.AddField("fit", "take", models.CharField(blank=True, default="", max_length=40)),
        migrations.AddField("fit", "row", models.CharField(blank=True, default="", max_length=40)),
        migrations.AddField("fit", "chosen", models.BooleanField(default=None, null=True)),
        migrations.CreateModel(
            name="FitUse",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("kind", models.CharField(max_length=10)),
                ("value", models.CharField(max_length=80)),
                ("fit", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="uses", to="pieces.fit")),
            ],
            options={
                "indexes": [models.Index(fields=["kind", "value"], name="pieces_fitu_kind_fc699e_idx")],
                "constraints": [models.UniqueConstraint(fields=("fit", "kind", "value"), name="one_use_each")],
            },
        ),
        migrations.CreateModel(
            name="Rendition",
            fields=[
                ("id", models.UUIDField(default=uuid.uuid4, editable=False, primary_key=True, serialize=False)),
                ("file_key", models.CharField(max_length=32)),
                ("files", models.JSONField(default=list)),
                ("candidates", models.JSONField(default=list)),
                ("outcome", models.JSONField(default=dict)),
                ("made_at", models.DateTimeField(auto_now=True)),
                ("workspace", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="+", to="accounts.workspace")),
            ],
            options={
                "constraints": [models.UniqueConstraint(fields=("workspace", "file_key"), name="one_rendition_each_key")],
            },
        ),
        migrations.CreateModel(
            name="Judgement",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("judgement_key", models.CharField(max_length=32)),
                ("findings", models.JSONField(default=list)),
                ("demands", models.JSONField(default=list)),
                ("judged_at", models.DateTimeField(auto_now=True)),
                ("rendition", models.ForeignKey(on_delete=django.db.models.deletion.CASCADE, related_name="judgements", to="pieces.rendition")),
            ],
            options={
                "constraints": [models.UniqueConstraint(fields=("rendition", "judgement_key"), name="one_judgement_each_key")],
            },
        ),
    ]
