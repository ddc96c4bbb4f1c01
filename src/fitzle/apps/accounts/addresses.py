"""Where a request comes from, and whether too many tries to sign in come from there."""

from __future__ import annotations

import ipaddress
import math
from datetime import timedelta
from typing import TYPE_CHECKING

from axes.models import AccessAttempt
from django.conf import settings
from django.db.models import Sum
from django.utils import timezone

from fitzle.apps.accounts.sample import is_public

if TYPE_CHECKING:
    from django.http import HttpRequest

MOST_FAILURES = 30  # from one address for all accounts together; people in one office share an address
WITHIN = timedelta(minutes=15)
FREE_FAILURES, FIRST_PAUSE_S, LONGEST_PAUSE_S = 5, 5, 900
HERE = "127.0.0.1"  # who comes by the private socket without a word of anybody else


def client_address(request: HttpRequest) -> str:
    """The address that a request comes from.

    What X-Forwarded-For says counts only behind a proxy that is trusted (FITZLE_PROXIES, or our own front, which comes
    by a private socket and so without an address): the last address in it that is none of the proxies. Whatever stands
    before that the caller may have written.
    """
    nearest = str(request.META.get("REMOTE_ADDR", ""))
    if nearest and not _is_proxy(nearest):
        return nearest
    nearest = nearest or HERE
    told = [entry.strip() for entry in str(request.META.get("HTTP_X_FORWARDED_FOR", "")).split(",") if entry.strip()]
    return next((address for address in reversed(told) if _is_address(address) and not _is_proxy(address)), nearest)


def comes_from_here(request: HttpRequest) -> bool:
    """Whether a request comes from this machine, and nobody else can reach Fitzle at all."""
    return not is_public() and ipaddress.ip_address(client_address(request)).is_loopback


def pause_seconds(request: HttpRequest, email: str) -> int:
    """For how long somebody at this address has to wait before the next try for an account; 0 where they need not.

    From the fifth failure on the pause doubles, up to a quarter of an hour. It is kept for an account at an address:
    nobody is locked out by somebody elsewhere.
    """
    attempt = AccessAttempt.objects.filter(username=email, ip_address=client_address(request)).first()
    if attempt is None or attempt.failures_since_start < FREE_FAILURES:
        return 0
    doubled = min(10, int(attempt.failures_since_start) - FREE_FAILURES)
    pause = min(LONGEST_PAUSE_S, FIRST_PAUSE_S << doubled)
    left = attempt.attempt_time + timedelta(seconds=pause) - timezone.now()
    return max(0, math.ceil(float(left.total_seconds())))


def tries_too_often(request: HttpRequest) -> bool:
    """Whether one address has failed so often, with whatever accounts, that it has to wait."""
    recent = AccessAttempt.objects.filter(
        ip_address=client_address(request), attempt_time__gte=timezone.now() - WITHIN
    ).aggregate(failures=Sum("failures_since_start"))
    return (recent["failures"] or 0) >= MOST_FAILURES


def _is_address(text: str) -> bool:
    try:
        ipaddress.ip_address(text)
    except ValueError:
        return False
    return True


def _is_proxy(text: str) -> bool:
    if not _is_address(text):
        return False
    return any(ipaddress.ip_address(text) in ipaddress.ip_network(network) for network in settings.PROXIES)
