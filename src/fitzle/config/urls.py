"""Addresses: the API below /api/, everything else is the single page."""

from django.urls import include, path, re_path

from fitzle.apps.api.metrics import metrics
from fitzle.apps.api.page import page
from fitzle.apps.api.root import api
from fitzle.apps.jobs.health import live, ready

handler500 = "fitzle.apps.api.broken.broken"
urlpatterns = [
    path("api/account/", include("allauth.headless.urls")),
    path("api/", api.urls),
    path("health/live", live),
    path("health/ready", ready),
    path("metrics", metrics),
    re_path(r"^(?!api/|static/|health/|metrics$).*$", page),
]
