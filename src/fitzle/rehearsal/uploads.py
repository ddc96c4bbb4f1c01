"""Taking uploads over HTTP, and giving back what is shown."""

from __future__ import annotations

import hmac
import json
from datetime import timedelta
from typing import Any

from django.conf import settings
from django.db import IntegrityError, transaction
from django.http import Http404, HttpRequest, HttpResponse, JsonResponse
from django.utils import timezone
from django.views.decorators.csrf import csrf_exempt
from django.views.decorators.http import require_GET, require_http_methods, require_POST

from fitzle.rehearsal import faults
from fitzle.rehearsal.judging import refusals
from fitzle.rehearsal.models import Fault, Upload
from fitzle.rehearsal.places import PLACES, Place
from fitzle.rehearsal.showing import shown_picture


@require_GET
def list_places(_request: HttpRequest) -> HttpResponse:
    """All places: what they are for, where they are seen, how many slots are taken."""
    return JsonResponse({"places": [_told(place) for place in PLACES.values()]})


@csrf_exempt
@require_POST
def take(request: HttpRequest, slug: str) -> HttpResponse:
    """Takes a picture, or says why not. The same key a second time gives the first answer and takes nothing."""
    place = _place(slug)
    if not _may(request):
        return JsonResponse({"refused": ["Who are you? Your token is not known here."]}, status=401)
    early = faults.before(request, slug)
    if early is not None:
        return early
    key = request.headers.get("Idempotency-Key", "")[:80]
    before = Upload.objects.filter(place=slug, key=key).first() if key else None
    return _taken(before, again=True) if before else _looked_at(request, place, key)


def _looked_at(request: HttpRequest, place: Place, key: str) -> HttpResponse:
    file = request.FILES.get("file")
    if file is None:
        return JsonResponse({"refused": ["There is no file in this upload."]}, status=422)
    data, name = file.read(), str(file.name)
    fields = {name: str(value)[:5000] for name, value in request.POST.items()}
    said = refusals(place, name, data, fields)
    slot = _slot(place, fields.get("replaces", ""), name)
    if slot is None:
        said.append(f"All {place.slots} places are taken. Delete one first.")
    if said or slot is None:
        return JsonResponse({"refused": said}, status=422)
    taken = _keep(place, slot, key, name, data, fields)
    if faults.strikes(place.slug, "lie") is not None:
        return JsonResponse({"refused": ["Upload failed, please try again later."]}, status=503)
    return _taken(taken, again=False)


@require_GET
def picture(_request: HttpRequest, slug: str, slot: int) -> HttpResponse:
    """What is shown in a slot; an earlier picture while that is still in the cache."""
    _place(slug)
    found = Upload.objects.filter(place=slug, slot=slot).order_by("-pk")
    newest = found.first()
    if newest is None:
        raise Http404
    cached = Fault.objects.filter(place__in=(slug, "*"), kind="cache").first()
    if cached and newest.taken_at > timezone.now() - timedelta(seconds=cached.value):
        newest = found[1] if found.count() > 1 else newest
    answer = HttpResponse(bytes(newest.shown), content_type=newest.media_type)
    answer["Cache-Control"] = "no-store"
    return answer


@require_GET
def icon(request: HttpRequest, name: str) -> HttpResponse:
    """A file of the site's icon set by its own name, as pages ask for it."""
    found = Upload.objects.filter(place="icons", name=name).order_by("-pk").first()
    if found is None:
        raise Http404
    return picture(request, "icons", found.slot)


@csrf_exempt
@require_http_methods(["POST", "DELETE"])
def set_faults(request: HttpRequest) -> HttpResponse:
    """Sets what goes wrong, for tests: {"place", "kind", "value", "left"}; DELETE takes all back."""
    if not _may(request):
        return JsonResponse({"refused": ["Who are you?"]}, status=401)
    if request.method == "DELETE":
        Fault.objects.all().delete()
        return JsonResponse({})
    given = json.loads(request.body)
    if given.get("kind") not in faults.KINDS:
        return JsonResponse({"refused": [f"There are {', '.join(faults.KINDS)}."]}, status=422)
    Fault.objects.create(
        place=given.get("place", "*"), kind=given["kind"], value=given.get("value", 0), left=given.get("left")
    )
    return JsonResponse({}, status=201)


@csrf_exempt
@require_POST
def forget(request: HttpRequest, slug: str) -> HttpResponse:
    """Empties a place."""
    if not _may(request):
        return JsonResponse({"refused": ["Who are you?"]}, status=401)
    Upload.objects.filter(place=_place(slug).slug).delete()
    return JsonResponse({})


def _may(request: HttpRequest) -> bool:
    given = request.headers.get("Authorization", "").removeprefix("Bearer ")
    return hmac.compare_digest(given.encode(), settings.TOKEN.encode())


def _place(slug: str) -> Place:
    if slug not in PLACES:
        raise Http404
    return PLACES[slug]


def _slot(place: Place, replaces: str, name: str) -> int | None:
    """Where a picture goes: the only slot, that of the one it replaces, of the same icon, or the next free one."""
    if place.slots == 1:
        return 1
    there = Upload.objects.filter(place=place.slug)
    same = there.filter(name=name) if place.icons else there.filter(fields__replaces=replaces) if replaces else None
    known = same.first() if same else None
    if known:
        return known.slot
    taken = set(there.values_list("slot", flat=True))
    return next((slot for slot in range(1, place.slots + 1) if slot not in taken), None)


def _keep(place: Place, slot: int, key: str, name: str, data: bytes, fields: dict[str, str]) -> Upload:
    shown, media_type = shown_picture(place, name, data, fields.get("window", ""))
    try:
        with transaction.atomic():
            return Upload.objects.create(
                place=place.slug, slot=slot, key=key, name=name, fields=fields, came=data, shown=shown,
                media_type=media_type,
            )  # fmt: skip
    except IntegrityError:
        return Upload.objects.get(place=place.slug, key=key)  # the same upload came twice at once


def _taken(upload: Upload, *, again: bool) -> HttpResponse:
    place = PLACES[upload.place]
    told = {
        "taken": True, "again": again, "slot": upload.slot, "page": f"/{place.page}/",
        "picture": f"/pictures/{upload.place}/{upload.slot}",
    }  # fmt: skip
    return JsonResponse(told, status=200 if again else 201)


def _told(place: Place) -> dict[str, Any]:
    taken = Upload.objects.filter(place=place.slug).values("slot").distinct().count()
    return {
        "slug": place.slug, "kind": place.kind, "destination": place.destination, "name": place.name,
        "page": f"/{place.page}/", "slots": place.slots, "taken": taken, "icons": place.icons,
    }  # fmt: skip
