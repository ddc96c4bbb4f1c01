"""For gunicorn; makes the tables where there are none."""

from __future__ import annotations

import os

from django.core.management import call_command
from django.core.wsgi import get_wsgi_application

os.environ["DJANGO_SETTINGS_MODULE"] = "fitzle.rehearsal.settings"
application = get_wsgi_application()
call_command("migrate", run_syncdb=True, verbosity=0)
