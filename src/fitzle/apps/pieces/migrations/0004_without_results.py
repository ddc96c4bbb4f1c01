"""What was made stands in renditions alone; the database refuses a second fit of the same, and a second choice."""

from django.db import migrations, models


class Migration(migrations.Migration):

    dependencies = [("pieces", "0003_carry_over"), ("deliveries", "0002_renditions")]

    operations = [
        migrations.RemoveField("fit", "result"),
        migrations.RemoveField("fit", "result_key"),
        migrations.AddConstraint("fit", models.UniqueConstraint(fields=("placement", "row", "chosen"), name="one_chosen_fit_each")),
        migrations.AddConstraint("fit", models.UniqueConstraint(fields=("piece", "placement", "take", "row"), name="one_fit_each_take")),
        migrations.RemoveConstraint("fit", "one_fit_each"),
    ]
