"""The entrance for gunicorn."""

import os
import sys

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "fitzle.config.settings")
application = get_wsgi_application()

from fitzle.apps.accounts.sample import PublishedPassword, refuse_published_password  # noqa: E402

try:
    refuse_published_password()
except PublishedPassword as refusal:
    sys.exit(f"fitzle: {refusal}")
