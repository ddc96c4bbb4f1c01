"""Settings of the rehearsal: one SQLite file, one token, no accounts."""

from __future__ import annotations

import os
from pathlib import Path

VAR = Path(os.environ.get("FITZLE_VAR", "var")) / "rehearsal"
VAR.mkdir(parents=True, exist_ok=True)
SECRET_KEY = os.environ.get("FITZLE_SECRET", "only-for-commands-that-serve-nobody")
TOKEN = os.environ.get("FITZLE_REHEARSAL_TOKEN", "rehearsal")
DEBUG = False
ALLOWED_HOSTS = ["127.0.0.1", "localhost"]
INSTALLED_APPS = ["fitzle.rehearsal"]
ROOT_URLCONF = "fitzle.rehearsal.urls"
WSGI_APPLICATION = "fitzle.rehearsal.wsgi.application"
DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": VAR / "rehearsal.sqlite3",
        "OPTIONS": {"timeout": 20, "transaction_mode": "IMMEDIATE"},
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
TEMPLATES = [{"BACKEND": "django.template.backends.django.DjangoTemplates", "APP_DIRS": True}]
DATA_UPLOAD_MAX_MEMORY_SIZE = FILE_UPLOAD_MAX_MEMORY_SIZE = 20_000_000
USE_TZ = True
