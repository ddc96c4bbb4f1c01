"""Addresses: the API below /api/, everything else is the single page."""

from django.urls import path, re_path

from fitzle.apps.api.page import page
from fitzle.apps.api.root import api

urlpatterns = [path("api/", api.urls), re_path(r"^(?!api/|static/).*$", page)]
