"""What stood undone beyond a preparation's place in its history becomes steps that were taken back one by one."""

from django.db import migrations


def carry_over(apps, _schema):
    model, states = apps.get_model("artwork", "Preparation"), apps.get_model("artwork", "PreparationState")
    for one in model.objects.only("pk", "position").iterator():
        known = {row.position: row for row in states.objects.filter(preparation=one, position__gte=one.position)}
        last = position = max(known, default=one.position)
        if last == one.position or one.position not in known:
            continue
        for undone in range(last, one.position, -1):
            position += 1
            states.objects.create(
                preparation=one, position=position, document=known[undone - 1].document, step=known[undone].step,
                kind="undo", of=undone, made_by_id=known[undone].made_by_id,
            )  # fmt: skip
        model.objects.filter(pk=one.pk).update(position=position)


def name_makers(apps, _schema):
    """Nobody was noted: the steps are those of whoever brought the artwork in."""
    states = apps.get_model("artwork", "PreparationState")
    for state in states.objects.select_related("preparation__artwork").iterator():
        states.objects.filter(pk=state.pk).update(made_by=state.preparation.artwork.created_by_id)


class Migration(migrations.Migration):
    dependencies = [("artwork", "0005_history_of_each")]
    operations = [
        migrations.RunPython(name_makers, migrations.RunPython.noop),
        migrations.RunPython(carry_over, migrations.RunPython.noop),
    ]
