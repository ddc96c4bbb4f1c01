"""What an artwork waits to fill is called its targets."""

from django.db import migrations


class Migration(migrations.Migration):

    dependencies = [("artwork", "0003_versions")]

    operations = [migrations.RenameField("artwork", "fills", "targets")]
