"""Notes what is to be made in a workspace of before there was a table of jobs; what is made already ends at once."""

import uuid

from django.db import migrations
from django.db.models import F
from django.utils import timezone


def want_everything(apps, _editor):
    Job = apps.get_model("jobs", "Job")
    Artwork, Preparation = apps.get_model("artwork", "Artwork"), apps.get_model("artwork", "Preparation")
    unread = Artwork.objects.filter(state__in=("queued", "reading")).values_list("pk", flat=True)
    unmade = Preparation.objects.exclude(made=F("revision")).values_list("artwork_id", "revision")
    fits = apps.get_model("pieces", "Fit").objects.values_list("pk", flat=True)
    wanted = [
        *(("take_in_artwork", [str(pk)]) for pk in unread),
        *(("make_costly", [str(pk), revision]) for pk, revision in unmade),
        *(("make_fit_file", [str(pk)]) for pk in fits),
    ]
    now = timezone.now()
    Job.objects.bulk_create(
        Job(
            kind=kind, subject=":".join(map(str, arguments)), arguments=arguments, wanted=uuid.uuid4().hex,
            wanted_at=now, due_at=now,
        )
        for kind, arguments in wanted
    )  # fmt: skip


class Migration(migrations.Migration):
    dependencies = [
        ("jobs", "0001_initial"),
        ("artwork", "0004_targets"),
        ("pieces", "0004_without_results"),
    ]
    operations = [migrations.RunPython(want_everything, migrations.RunPython.noop)]
