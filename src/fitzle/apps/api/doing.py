"""How Fitzle is doing, for who runs it."""

from __future__ import annotations

from django.http import Http404, HttpRequest
from django.utils import timezone
from ninja import Router, Schema

from fitzle.apps.accounts.access import all_workspaces
from fitzle.apps.accounts.addresses import comes_from_here
from fitzle.apps.accounts.invitations import runs_fitzle
from fitzle.apps.files.room import used_bytes
from fitzle.apps.jobs import health
from fitzle.apps.jobs.figures import jobs_by_kind
from fitzle.core.units import words_for_bytes

router = Router(tags=["doing"])


class Part(Schema):
    """Something that Fitzle stands on."""

    name: str
    answers: bool
    without: str


class Waiting(Schema):
    """Jobs of one kind."""

    kind: str
    what: str
    waiting: int
    running: int
    seconds: int
    trouble: str


class SpaceUsed(Schema):
    """A workspace and what it keeps."""

    name: str
    weight: str


class DoingOut(Schema):
    """Everything, looked up now."""

    trouble: list[str]
    parts: list[Part]
    disk_free: str | None
    jobs: list[Waiting]
    workspaces: list[SpaceUsed]
    at: str


def may_see(request: HttpRequest) -> bool:
    """Whether somebody runs this Fitzle: by their mail address, or because only this machine's people reach it."""
    if not request.user.is_authenticated:
        return False
    return runs_fitzle(request.user) or comes_from_here(request)


@router.get("", response=DoingOut)
def how_it_is_doing(request: HttpRequest) -> DoingOut:
    """Looked up at this moment."""
    if not may_see(request):
        raise Http404("There is nothing here.")
    told = health.looked_at()
    free = told["disk_free_bytes"]
    return DoingOut(
        trouble=health.trouble(told),
        parts=[Part(name=name, answers=told[key], without=without) for key, name, without in health.PARTS],
        disk_free=None if free is None else words_for_bytes(free),
        jobs=[Waiting(**one._asdict()) for one in jobs_by_kind()],
        workspaces=[SpaceUsed(name=one.name, weight=words_for_bytes(used_bytes(one.pk))) for one in all_workspaces()],
        at=timezone.now().isoformat(),
    )
