"""What gunicorn serves as the drawing service: everything is loaded here once, and nothing is drawn."""

import gc

import django

django.setup()

import fitzle.config.urls  # noqa: E402, F401  (names all calls)
from fitzle.apps.drawing.service import application  # noqa: E402, F401

gc.freeze()
