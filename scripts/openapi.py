"""Prints the API's OpenAPI document; needs no database."""

import json
import os
import sys
from pathlib import Path

import django

sys.path.insert(0, str(Path(__file__).resolve().parents[1] / "src"))
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "fitzle.config.settings")
django.setup()

from fitzle.apps.api.root import api  # noqa: E402

print(json.dumps(api.get_openapi_schema(path_prefix="/api/"), default=str))
