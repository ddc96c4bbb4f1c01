"""What is wanted stands in the database until it is done: leases, a queue that was lost, disks and databases away."""

from datetime import timedelta
from typing import Any

import pytest
from celery import current_app
from django.db import OperationalError
from kombu.exceptions import OperationalError as QueueAway

from fitzle.apps.artwork.models import Artwork
from fitzle.apps.files.errors import StorageFullError
from fitzle.apps.jobs import leases, queue, sweeping, tasks
from fitzle.apps.jobs.bounds import WorkersLost
from fitzle.apps.jobs.models import Job
from fitzle.apps.pieces.models import Fit, Judgement, Rendition
from fitzle.core.fit import keys
from tests.apps.helpers import Bring, send, wall_proofs
from tests.make import disc, saved, svg

pytestmark = pytest.mark.django_db
SECOND, HOUR = timedelta(seconds=1), timedelta(hours=1)


@pytest.fixture
def sent(monkeypatch: pytest.MonkeyPatch) -> list[tuple[str, tuple[Any, ...]]]:
    """What workers were told, instead of telling them."""
    told: list[tuple[str, tuple[Any, ...]]] = []

    def note(kind: str, arguments: Any, after_seconds: float = 0.0) -> bool:
        told.append((kind, tuple(arguments)))
        return True

    for module in (queue, leases, sweeping):
        monkeypatch.setattr(module, "send", note)
    monkeypatch.setattr(sweeping, "queued", lambda: 0)
    return told


@pytest.fixture
def fit(place: Any, bring: Bring) -> Fit:
    bring("disc.png", saved(disc(), "PNG"), str(place().pk))
    return Fit.objects.get()


def later(seconds: float) -> None:
    """Lets time pass for all jobs."""
    gone = timedelta(seconds=seconds)
    for job in Job.objects.all():
        for field in ("due_at", "sent_at", "leased_until"):
            if getattr(job, field):
                setattr(job, field, getattr(job, field) - gone)
        job.save()


def test_what_is_done_is_not_wanted_any_more(fit: Fit) -> None:
    assert Judgement.objects.count() == 1
    assert not Job.objects.exists()


def test_a_change_that_is_taken_back_wants_nothing(fit: Fit) -> None:
    from django.db import transaction

    class Undone(Exception):
        pass

    with pytest.raises(Undone), transaction.atomic():
        queue.make_later([fit.pk])
        assert Job.objects.count() == 1
        raise Undone
    assert not Job.objects.exists()


def test_wanting_twice_is_one_job_that_runs_once_more_if_it_was_running(fit: Fit, sent: list, run: Any) -> None:
    with run(execute=True):
        queue.make_later([fit.pk, fit.pk])
    arguments = (str(fit.pk),)
    assert sent == [("make_fit_file", arguments)]
    lease = leases.take("make_fit_file", arguments, 60)
    assert lease and leases.take("make_fit_file", arguments, 60) is None, "one worker at a time"
    with run(execute=True):
        queue.make_later([fit.pk])
        leases.finish(lease)
    assert sent[1:] == [("make_fit_file", arguments)] * 2
    again = leases.take("make_fit_file", arguments, 60)
    assert again
    leases.finish(again)
    assert not Job.objects.exists()


def test_a_message_that_comes_twice_does_nothing_the_second_time(fit: Fit, monkeypatch: pytest.MonkeyPatch) -> None:
    made = list[str]()
    monkeypatch.setattr(tasks, "make_file", made.append)
    queue.make_later([fit.pk])
    for _ in range(3):
        tasks.make_fit_file(str(fit.pk))
    assert made == [str(fit.pk)]


def test_what_was_lost_with_the_queue_is_sent_again_but_not_what_may_be_queued(
    fit: Fit, sent: list, monkeypatch: pytest.MonkeyPatch
) -> None:
    queue.make_later([fit.pk])
    assert sweeping.sweep() == 0, "it was told a moment ago"
    later(60)
    monkeypatch.setattr(sweeping, "queued", lambda: 3)
    assert sweeping.sweep() == 0, "it may be among them"
    monkeypatch.setattr(sweeping, "queued", lambda: 0)
    assert sweeping.sweep() == 1
    assert sweeping.sweep() == 0
    assert sent == [("make_fit_file", (str(fit.pk),))]


def test_what_is_due_later_is_not_sent_before(fit: Fit, sent: list) -> None:
    queue.make_later([fit.pk], after_seconds=30)
    later(11)
    assert sweeping.sweep() == 0
    later(20)
    assert sweeping.sweep() == 1


def test_a_lease_ends_with_its_time_and_with_its_worker(fit: Fit, sent: list) -> None:
    arguments = (str(fit.pk),)
    queue.make_later([fit.pk])
    first = leases.take("make_fit_file", arguments, 60)
    later(30)
    assert sweeping.sweep() == 0 and leases.take("make_fit_file", arguments, 60) is None
    later(60)
    assert sweeping.sweep() == 1
    second = leases.take("make_fit_file", arguments, 60)
    assert first and second and (first.attempts, second.attempts) == (1, 2)
    leases.finish(first)
    assert Job.objects.get().owner == second.owner, "who lost the lease ends nothing"
    leases.begin_as("elsewhere")
    assert sweeping.sweep() == 0, "another worker's job is not taken"
    leases.begin_as("here")
    assert sweeping.sweep() == 1


def test_a_job_that_costs_worker_after_worker_is_ended_in_words(fit: Fit, signed_in: Any, sent: list) -> None:
    from celery.signals import task_failure

    Rendition.objects.all().delete()
    queue.make_later([fit.pk])
    Job.objects.update(attempts=leases.MOST_ATTEMPTS)
    with pytest.raises(WorkersLost):
        tasks.make_fit_file(str(fit.pk))
    task_failure.send(sender=tasks.make_fit_file, args=[str(fit.pk)], kwargs={})
    assert not Job.objects.exists()
    assert wall_proofs(signed_in, "juno")["Test place"]["state"] == "failed"


@pytest.mark.parametrize("trouble", [StorageFullError(), OperationalError(2006, "Server has gone away")])
def test_a_job_waits_for_room_and_for_the_database_without_a_wrong_verdict(
    fit: Fit, sent: list, monkeypatch: pytest.MonkeyPatch, trouble: Exception
) -> None:
    def in_trouble(_fit: str) -> None:
        raise trouble

    monkeypatch.setattr(tasks, "make_file", in_trouble)
    queue.make_later([fit.pk])
    for _ in range(20):
        tasks.make_fit_file(str(fit.pk))
    job = Job.objects.get()
    assert (job.owner, job.attempts) == ("", 0)
    assert ("full" in job.message) == isinstance(trouble, StorageFullError)
    later(60)
    assert sweeping.sweep() == 1


def test_a_file_brought_in_while_the_disk_is_full_waits_and_says_so(
    bring: Bring, place: Any, sent: list, monkeypatch: pytest.MonkeyPatch, run: Any
) -> None:
    from fitzle.apps.artwork import intake

    def full(*_: Any) -> None:
        raise StorageFullError

    entry = place()
    bring("disc.svg", svg(), str(entry.pk))
    with monkeypatch.context() as patched, run(execute=True):
        patched.setattr(intake, "read_and_judge", full)
        tasks.take_in_artwork(str(Artwork.objects.get().pk))
    artwork = Artwork.objects.get()
    assert (artwork.state, "full" in artwork.message) == ("queued", True)
    later(60)
    tasks.take_in_artwork(str(artwork.pk))
    artwork.refresh_from_db()
    assert (artwork.state, artwork.message, artwork.targets) == ("ready", "", [])
    assert Fit.objects.get().placement == entry


def test_artwork_that_was_read_when_its_worker_died_still_goes_where_it_was_dropped(
    bring: Bring, place: Any, signed_in: Any
) -> None:
    entry = place()
    bring("disc.svg", svg())
    artwork = Artwork.objects.get()
    Artwork.objects.update(targets=[str(entry.pk)])
    queue.read_later(artwork.pk)
    tasks.take_in_artwork(str(artwork.pk))
    assert Fit.objects.get().placement == entry


def test_an_edit_is_saved_while_the_queue_is_away(
    fit: Fit, signed_in: Any, run: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    def away(*_: Any, **__: Any) -> None:
        raise QueueAway("connection refused")

    monkeypatch.setattr(type(current_app.tasks["fitzle.apps.jobs.tasks.make_fit_file"]), "apply_async", away)
    changes = [{"act": "set", "part": "mark", "field": "padding", "value": {"value": 3, "unit": "%"}}]
    body = {"revision": fit.piece.revision, "step": "padding", "changes": changes}
    with run(execute=True):
        assert send(signed_in, "patch", f"workspaces/juno/fits/{fit.pk}", body).status_code == 200
    assert Job.objects.get().kind == "make_fit_file"


def test_how_long_work_waits_is_known(fit: Fit, sent: list) -> None:
    assert sweeping.oldest_wait_seconds() == 0
    queue.make_later([fit.pk])
    later(40)
    assert 39 < sweeping.oldest_wait_seconds() < 60
    leases.take("make_fit_file", (str(fit.pk),), 60)
    assert sweeping.oldest_wait_seconds() == 0


def test_a_process_that_died_is_not_held_against_the_file_at_once(fit: Fit, signed_in: Any, sent: list) -> None:
    from billiard.exceptions import WorkerLostError
    from celery.signals import task_failure

    Rendition.objects.all().delete()
    queue.make_later([fit.pk])
    told = {"sender": tasks.make_fit_file, "args": [str(fit.pk)], "kwargs": {}, "exception": WorkerLostError("9")}
    for crash in (1, 2):
        assert leases.take("make_fit_file", told["args"], 60)
        task_failure.send(**told)
        assert sent == [("make_fit_file", (str(fit.pk),))] * crash, "another process tries it"
        assert wall_proofs(signed_in, "juno")["Test place"]["state"] == "working"
    assert leases.take("make_fit_file", told["args"], 60)
    task_failure.send(**told)
    assert not Job.objects.exists()
    assert wall_proofs(signed_in, "juno")["Test place"]["state"] == "failed"


def test_work_that_this_version_does_not_know_stands_in_nobody_s_way(fit: Fit, monkeypatch: pytest.MonkeyPatch) -> None:
    queue.make_later([fit.pk])
    later(60)
    unknown = Job.objects.get()
    unknown.pk, unknown.kind = unknown.pk - 1, "make_something_new"
    unknown.save(force_insert=True)
    monkeypatch.setattr(sweeping, "queued", lambda: 0)
    assert sweeping.sweep() == 1
    assert Job.objects.get().kind == "make_something_new"


def test_an_upgrade_that_makes_files_otherwise_has_them_made(
    signed_in: Any, place: Any, bring: Any, run: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    entry = place()
    bring("mark.svg", svg(), str(entry.pk))
    assert wall_proofs(signed_in, "juno")["Test place"]["state"] == "fits"
    monkeypatch.setattr(keys, "ENGINE", "another one")
    assert wall_proofs(signed_in, "juno")["Test place"]["state"] == "working"
    monkeypatch.setattr(sweeping, "ENGINE", "another one")
    with run(execute=True):
        sweeping.catch_up_weekly()
    assert wall_proofs(signed_in, "juno")["Test place"]["state"] == "fits"
    with run() as queued:
        sweeping.catch_up_weekly()
    assert queued == [], "once is enough"
