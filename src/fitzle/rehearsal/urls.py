"""All addresses of the rehearsal."""

from __future__ import annotations

from django.urls import path

from fitzle.rehearsal import pages, uploads

urlpatterns = [
    path("", pages.index),
    path("places", uploads.list_places),
    path("upload/<slug:slug>", uploads.take),
    path("empty/<slug:slug>", uploads.forget),
    path("pictures/<slug:slug>/<int:slot>", uploads.picture),
    path("faults", uploads.set_faults),
    path("icons/<str:name>", uploads.icon),
    path("<slug:name>/", pages.page),
]
