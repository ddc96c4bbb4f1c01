"""What goes wrong on purpose: slow answers, errors, cut connections, lies about success, old pictures in a cache."""

from __future__ import annotations

import socket
import time

from django.db import transaction
from django.db.models import Q
from django.http import HttpRequest, HttpResponse

from fitzle.rehearsal.models import Fault

KINDS = ("slow", "error", "cut", "lie", "cache")  # value: seconds of slow and cache; times of the others are `left`
LONGEST_SECONDS = 120.0


@transaction.atomic
def strikes(place: str, kind: str) -> float | None:
    """How much of a fault a place has now, using one of its times up; None where it has none."""
    found = Fault.objects.filter(Q(place=place) | Q(place="*"), kind=kind).first()
    if found is None:
        return None
    if found.left is not None:
        found.left -= 1
        if found.left <= 0:
            found.delete()
        else:
            found.save(update_fields=["left"])
    return found.value


def before(request: HttpRequest, place: str) -> HttpResponse | None:
    """What happens before a place looks at an upload; an answer where it never does."""
    seconds = strikes(place, "slow")
    if seconds:
        time.sleep(min(seconds, LONGEST_SECONDS))
    if strikes(place, "error") is not None:
        return HttpResponse("Something broke on our side.", status=500, content_type="text/plain")
    if strikes(place, "cut") is not None:
        cut(request)
        return HttpResponse(status=500)
    return None


def cut(request: HttpRequest) -> None:
    """Ends the connection without an answer."""
    connection = request.environ.get("gunicorn.socket")
    if connection is not None:
        connection.shutdown(socket.SHUT_RDWR)
