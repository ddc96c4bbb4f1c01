"""Places learnt from screenshots: what was shown is kept, a worker looks for the picture, and a sheet comes of it."""

from __future__ import annotations

import logging
from collections.abc import Callable
from datetime import datetime, timedelta
from hashlib import sha256
from typing import TYPE_CHECKING, NamedTuple
from uuid import UUID

from billiard.exceptions import SoftTimeLimitExceeded
from django.conf import settings
from django.http import Http404
from django.utils import timezone

from fitzle.apps.accounts.access import Access, Capability, action
from fitzle.apps.destinations.models import Learning, Placement, ShownScene
from fitzle.apps.files.keeping import keep, read
from fitzle.apps.files.shelves import Shelf
from fitzle.apps.jobs.queue import learn_later
from fitzle.core.artwork.limits import Limits
from fitzle.core.artwork.sniff import SNIFFED_BYTES, sniff_format
from fitzle.core.errors import FitzleError, ValueOutOfRange
from fitzle.core.learning.around import around
from fitzle.core.learning.boxed import learnt_from_box
from fitzle.core.learning.finding import DENSITIES, learn
from fitzle.core.learning.reading import read_pair, read_screenshot
from fitzle.core.learning.result import Learning as Found
from fitzle.core.learning.result import Learnt, PixelBox
from fitzle.core.learning.sheet import Answers, Uploaded, learnt_sheet

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace
    from fitzle.core.spec.sheet import SpecSheet

log = logging.getLogger(__name__)
MOST_BYTES = 40_000_000  # of a picture or screenshot
MOST_AT_ONCE = 5  # of one workspace
TOO_MUCH = "This takes too long to look through. Show a screenshot of the part where the picture is."
OUR_FAULT = "Looking for it failed on our side. Try it once more."


class Shot(NamedTuple):
    """Where the picture stands in a screenshot that is kept as a scene, in px of the page, and its density."""

    box: PixelBox
    density: float


class Shown(NamedTuple):
    """What somebody shows: the picture's name and bytes (none where a box was drawn), and the screenshot's bytes."""

    name: str
    picture: bytes | None
    screenshot: bytes
    density: float = 1.0
    box: PixelBox | None = None


@action(Capability.CHANGE)
def begin_learning(access: Access, shown: Shown) -> Learning:
    """Has a place learnt; raises ValueOutOfRange for what cannot be looked at."""
    if shown.density not in DENSITIES:
        raise ValueOutOfRange(f"a density of {shown.density:g} is unknown", advice="1, 1.5, 2 and 3 are known.")
    if max(len(shown.screenshot), len(shown.picture or b"")) > MOST_BYTES:
        raise ValueOutOfRange("this file is too heavy to be looked through", advice="At most 40 MB are taken.")
    if shown.picture is None and shown.box is None:
        raise ValueOutOfRange("there is neither a picture nor a box", advice="Show the picture, or draw a box.")
    under_way = Learning.objects.filter(workspace=access.workspace, result__isnull=True, message="")
    if under_way.filter(created_at__gt=timezone.now() - timedelta(minutes=5)).count() >= MOST_AT_ONCE:
        raise ValueOutOfRange(f"{MOST_AT_ONCE} screenshots are being looked through", advice="Wait for one of them.")
    learning = Learning.objects.create(
        workspace=access.workspace,
        picture=_kept(access.workspace, shown.picture) if shown.picture is not None else "",
        screenshot=_kept(access.workspace, shown.screenshot),
        name=shown.name[:120],
        density=shown.density,
        box=shown.box.model_dump() if shown.box else None,
    )
    learn_later(learning.pk)
    return learning


def _kept(workspace: Workspace, data: bytes) -> str:
    key = sha256(data).hexdigest()
    keep(Shelf.WORKING, workspace.pk, key, data)
    return key


def learning_of(workspace: Workspace, learning_id: UUID) -> Learning:
    """One of the workspace's; Http404 for any other."""
    found = Learning.objects.filter(workspace=workspace, pk=learning_id).first()
    if found is None:
        raise Http404("There is no such screenshot.")
    return found


def learn_now(learning_id: str) -> None:
    """Looks for the picture; ends with a result or a message, never in between."""
    learning = (
        Learning.objects.select_related("workspace").filter(pk=learning_id, result__isnull=True, message="").first()
    )
    if learning is None:
        return
    try:
        _learn(learning)
    except FitzleError as error:
        _end(learning, error.message)
    except (SoftTimeLimitExceeded, MemoryError):
        _end(learning, TOO_MUCH)
    except Exception:
        log.exception("learning from screenshot %s failed", learning.pk)
        _end(learning, OUR_FAULT)


def end_unlearnt(learning_id: str) -> None:
    """Ends, in words, what a worker left that was ended."""
    Learning.objects.filter(pk=learning_id, result__isnull=True).update(message=TOO_MUCH, progress=100)


def _learn(learning: Learning) -> None:
    limits = Limits(max_bytes=MOST_BYTES, max_pixels=settings.UPLOAD_LIMIT_PIXELS)
    screenshot = _bytes(learning, learning.screenshot)
    if not learning.picture:
        one = learnt_from_box(
            read_screenshot(screenshot, limits), PixelBox.model_validate(learning.box), learning.density
        )
        ratio = one.box.width / one.box.height
        width = max(1, round(one.seen_width * 2))  # twice as fine as it is seen: crisp on dense screens
        _settle(learning, Found(found=(one,)), Uploaded(width=width, height=max(1, round(width / ratio)), format="png"))
        return
    picture = _bytes(learning, learning.picture)
    drawn, shot, reduced = read_pair(picture, screenshot, limits)
    found = learn(drawn, shot, learning.density, _progress(learning)).in_picture_of(reduced)
    size = Uploaded(
        width=round(drawn.shape[1] * reduced),
        height=round(drawn.shape[0] * reduced),
        format=sniff_format(picture[:SNIFFED_BYTES]) or "png",
    )
    _settle(learning, found, size)


def _bytes(learning: Learning, key: str) -> bytes:
    return read(Shelf.WORKING, learning.workspace_id, key) or b""


def _progress(learning: Learning) -> Callable[[float], None]:
    def tell(share: float) -> None:
        percent = min(99, round(100 * share))
        if percent > learning.progress:
            learning.progress = percent
            Learning.objects.filter(pk=learning.pk).update(progress=percent)

    return tell


def _settle(learning: Learning, found: Found, uploaded: Uploaded) -> None:
    result = {"found": found.model_dump(mode="json"), "uploaded": uploaded.model_dump(mode="json")}
    message = "" if found.found or found.relatives else found.message
    Learning.objects.filter(pk=learning.pk).update(result=result, progress=100, message=message)


def _end(learning: Learning, message: str) -> None:
    Learning.objects.filter(pk=learning.pk).update(message=message, progress=100)


def sheet_learnt(learning: Learning, number: int, answers: Answers) -> SpecSheet:
    """The sheet of one of the places that were found, relatives after them; Http404 where there is no such place."""
    places = places_of(learning)
    if number >= len(places) or learning.result is None:
        raise Http404("There is no such place in this screenshot.")
    uploaded = Uploaded.model_validate(learning.result["uploaded"])
    return learnt_sheet(places[number], uploaded, learning.density, answers, learning.name or "New place")


def places_of(learning: Learning) -> list[Learnt]:
    """The places that were found, the surest first, then those of relatives of the picture."""
    if learning.result is None:
        return []
    found = Found.model_validate(learning.result["found"])
    return [*found.found, *found.relatives]


def keep_scene(learning: Learning, number: int, placement: Placement) -> None:
    """Keeps what is around one of the places that were found, as the scene of the placement that it became."""
    places = places_of(learning)
    if number >= len(places):
        raise Http404("There is no such place in this screenshot.")
    limits = Limits(max_bytes=MOST_BYTES, max_pixels=settings.UPLOAD_LIMIT_PIXELS)
    shot = read_screenshot(_bytes(learning, learning.screenshot), limits)
    cut = around(shot, places[number].box, learning.density)
    ShownScene.objects.create(placement=placement, picture=cut.png, density=learning.density, box=cut.box.model_dump())


def scene_shown_for(placement: Placement) -> tuple[Shot, bytes] | None:
    """The scene that a placement was shown by, and its picture; None for one that was said in words."""
    found = ShownScene.objects.filter(placement=placement).first()
    if found is None:
        return None
    return Shot(box=PixelBox.model_validate(found.box), density=found.density), bytes(found.picture)


def forget_learnings(workspace_id: int, before: datetime) -> None:
    """Takes away what was learnt before then: a place that counts has its own sheet."""
    Learning.objects.filter(workspace_id=workspace_id, created_at__lt=before).delete()
