"""The pages on which uploaded pictures are seen."""

from __future__ import annotations

from typing import Any

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import render
from django.views.decorators.http import require_GET

from fitzle.rehearsal.models import Upload
from fitzle.rehearsal.places import PLACES, places_on

PAGES = {
    "films": "Lantern Film", "course": "Plumb Courses", "site": "A site of one's own", "shop": "Stall Street",
    "sign-in": "Northdoor Office", "records": "Rowbook", "chat": "Hearth Chat", "tour": "Roundview",
}  # fmt: skip


@require_GET
def index(request: HttpRequest) -> HttpResponse:
    """All eight destinations."""
    found = [
        {"page": page, "name": name, "places": [place.name for place in places_on(page)]}
        for page, name in PAGES.items()
    ]
    return render(request, "rehearsal/index.html", {"destinations": found})


@require_GET
def page(request: HttpRequest, name: str) -> HttpResponse:
    """One destination as its visitors see it."""
    if name not in PAGES:
        raise Http404
    context = {place.slug.replace("-", "_"): _seen(place.slug) for place in places_on(name)}
    answer = render(request, f"rehearsal/{name}.html", {"title": PAGES[name], **context})
    answer["Cache-Control"] = "no-store"
    return answer


def _seen(slug: str) -> Any:
    """What stands in a place: the address of its picture (None: nothing), or of each slot where there are several."""
    newest: dict[int, Upload] = {}
    for upload in Upload.objects.filter(place=slug).order_by("pk").defer("came", "shown"):
        newest[upload.slot] = upload
    found = [
        {"picture": f"/pictures/{slug}/{slot}?{upload.pk}", "fields": upload.fields, "name": upload.name}
        for slot, upload in sorted(newest.items())
    ]
    if PLACES[slug].slots > 1:
        return found
    return found[0] if found else None
