"""Each placement gets a slug, by which documents and command lines name it."""

from django.db import migrations, models

from fitzle.core.spec.sheet import placement_slug
from fitzle.core.spec.stems import free_name


def give_slugs(apps, _editor):
    taken: dict[int, set[str]] = {}
    for placement in apps.get_model("destinations", "Placement").objects.select_related("destination"):
        own = taken.setdefault(placement.destination.workspace_id, set())
        sheet = placement.sheet
        placement.slug = free_name(placement_slug(sheet.get("destination") or placement.destination.name, sheet["name"]), own)
        own.add(placement.slug)
        placement.save(update_fields=["slug"])


class Migration(migrations.Migration):

    dependencies = [("destinations", "0001_initial")]

    operations = [
        migrations.AddField("placement", "slug", models.CharField(default="", max_length=80), preserve_default=False),
        migrations.RunPython(give_slugs, migrations.RunPython.noop),
        migrations.AddConstraint(
            "placement",
            models.UniqueConstraint(fields=("destination", "slug"), name="one_placement_each_slug"),
        ),
    ]
