"""What a task may take, and what becomes of artwork whose task was ended."""

import os
import subprocess
import sys
from typing import Any

import pytest
from celery.signals import task_failure
from django.utils import timezone

from fitzle.apps.artwork.intake import bring_in
from fitzle.apps.artwork.models import Artwork, State
from fitzle.apps.artwork.preparing import preparation_of
from fitzle.apps.jobs.bounds import BoundedTask, OutOfMemory
from fitzle.apps.jobs.models import Job
from fitzle.apps.jobs.tasks import make_costly, make_fit_file, propose_clip_stills, take_in_artwork
from fitzle.apps.pieces.fits import place as fill
from fitzle.config.celery import app
from tests.apps.helpers import upload
from tests.make import svg

IN_A_WORKER = """
import io, os, sys
os.environ["DJANGO_SETTINGS_MODULE"] = "fitzle.config.settings"
from fitzle.core.bounds import bound_memory
from fitzle.core.artwork.inspecting import inspected
from fitzle.core.errors import FitzleError
from tests.make import photo, saved
from PIL import Image
large = saved(Image.new("RGB", (7000, 7000), "#17443c"), "WEBP", lossless=True, method=0)
small = saved(photo(80, 60), "WEBP")
bound_memory(300_000_000)
try:
    inspected(io.BytesIO(large), "large.webp")
except FitzleError as error:
    print(error.message)
except MemoryError:
    print("MemoryError")
print(inspected(io.BytesIO(small), "small.webp").width)
bound_memory(2_000_000_000)
print(inspected(io.BytesIO(large), "large.webp").width)
"""


def test_a_file_that_takes_too_much_memory_ends_in_words_and_the_process_lives_on() -> None:
    done = subprocess.run([sys.executable, "-c", IN_A_WORKER], check=False, capture_output=True, text=True, timeout=120)
    assert done.returncode == 0, done.stderr
    said, width, more = done.stdout.splitlines()
    assert "too much memory" in said or said == "MemoryError"
    assert width == "80.0"
    assert more == "7000.0", "another task in the same process may take more"


@pytest.mark.django_db
def test_a_task_without_memory_fails_as_itself() -> None:
    """Celery's parent process takes a plain MemoryError for its own and ends."""

    class Greedy(BoundedTask):
        name = "greedy"

        def run(self) -> None:
            raise MemoryError

    now = timezone.now()
    Job.objects.create(kind="greedy", subject="", arguments=[], wanted="x", wanted_at=now, due_at=now)
    with pytest.raises(OutOfMemory, match="greedy"):
        app.register_task(Greedy())()


@pytest.mark.django_db
def test_artwork_whose_task_was_ended_says_so(juno: Any) -> None:
    artwork = bring_in(juno[1], juno[0], "a.png", [b"x"], [])
    Artwork.objects.filter(pk=artwork.pk).update(state=State.READING)
    task_failure.send(sender=take_in_artwork, args=[str(artwork.pk)], kwargs={})
    artwork.refresh_from_db()
    assert artwork.state == State.FAILED
    assert "used up its time or memory" in artwork.message


@pytest.mark.django_db
def test_what_was_read_already_stays_as_it_is(juno: Any) -> None:
    artwork = bring_in(juno[1], juno[0], "a.png", [b"x"], [])
    Artwork.objects.filter(pk=artwork.pk).update(state=State.READY)
    for task in (take_in_artwork, make_fit_file):
        task_failure.send(sender=task, args=[str(artwork.pk)], kwargs={})
    artwork.refresh_from_db()
    assert (artwork.state, artwork.message) == (State.READY, "")


@pytest.mark.django_db
def test_steps_whose_task_was_ended_say_so(juno: Any) -> None:
    artwork = bring_in(juno[1], juno[0], "a.png", [b"x"], [])
    preparation = preparation_of(artwork)
    type(preparation).objects.filter(pk=preparation.pk).update(progress=30)
    task_failure.send(sender=make_costly, args=[str(artwork.pk), preparation.revision], kwargs={})
    preparation.refresh_from_db()
    assert preparation.progress == 100
    assert "too much memory" in preparation.message


@pytest.mark.django_db
def test_a_file_that_could_not_be_made_says_so(signed_in: Any, juno: Any, place: Any, run: Any) -> None:
    art = upload(signed_in, "juno", "m.svg", svg(), run=run)
    [fit] = fill(juno[1], juno[0], art["id"], [str(place(name="Huge").pk)])
    task_failure.send(sender=make_fit_file, args=[str(fit.pk)], kwargs={})
    view = signed_in.get(f"/api/workspaces/juno/fits/{fit.pk}").json()
    assert (view["state"], view["measuring"], view["deliverable"]) == ("failed", False, False)
    assert "too much memory" in view["failure"]
    make_fit_file.run(str(fit.pk))
    assert signed_in.get(f"/api/workspaces/juno/fits/{fit.pk}").json()["state"] == "failed", "not tried on and on"
    task_failure.send(sender=make_fit_file, args=["00000000-0000-0000-0000-000000000000"], kwargs={})


@pytest.mark.django_db
def test_a_clip_whose_search_was_ended_keeps_no_place_waiting(juno: Any) -> None:
    clip = bring_in(juno[1], juno[0], "a.mp4", [b"x"], ["somewhere"])
    task_failure.send(sender=propose_clip_stills, args=[str(clip.pk)], kwargs={})
    clip.refresh_from_db()
    assert clip.targets == []


AS_A_WORKER_LOADS = """
import os, sys
from fitzle.config.celery import app
from celery.fixups.django import DjangoWorkerFixup
app.loader.import_default_modules()
DjangoWorkerFixup(app).install()
print(int("fitzle.apps.jobs.tasks" in sys.modules), int("fitzle.apps.api" in sys.modules))
"""


def test_a_worker_does_not_load_the_pages_and_their_api() -> None:
    """They are 45 MB of what all workers may have together."""
    environment = {key: value for key, value in os.environ.items() if key != "CELERY_SKIP_CHECKS"}
    done = subprocess.run(
        [sys.executable, "-c", AS_A_WORKER_LOADS], check=True, capture_output=True, text=True, env=environment
    )
    assert done.stdout.split() == ["1", "0"], done.stderr
