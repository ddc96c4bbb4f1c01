"""What artwork is found by is taken from what is known of it."""

from django.db import migrations


def take(apps, _schema):
    model = apps.get_model("artwork", "Artwork")
    for artwork in model.objects.only("name", "tags", "facts").iterator():
        facts = artwork.facts if isinstance(artwork.facts, dict) else {}
        kind = str(facts.get("kind", ""))[:10]
        said = " ".join([artwork.name, *artwork.tags, kind, str(facts.get("format", ""))]).lower()
        model.objects.filter(pk=artwork.pk).update(kind=kind, said=said)


class Migration(migrations.Migration):
    dependencies = [("artwork", "0007_found_by")]
    operations = [migrations.RunPython(take, migrations.RunPython.noop)]
