"""People who were there before one could sign up: who runs Fitzle made them, so their addresses are confirmed."""

from typing import Any

from django.db import migrations


def confirm(apps: Any, _schema_editor: Any) -> None:
    people, addresses = apps.get_model("accounts", "User"), apps.get_model("account", "EmailAddress")
    known = set(addresses.objects.values_list("user_id", flat=True))
    addresses.objects.bulk_create(
        addresses(user_id=person.pk, email=person.email, primary=True, verified=True)
        for person in people.objects.exclude(pk__in=known)
    )


class Migration(migrations.Migration):
    dependencies = [("accounts", "0002_signing_up"), ("account", "0009_emailaddress_unique_primary_email")]
    operations = [migrations.RunPython(confirm, migrations.RunPython.noop)]
