"""Figures for machines, in the Prometheus text format (version 0.0.4), behind a token."""

from __future__ import annotations

from collections.abc import Iterator

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.utils.crypto import constant_time_compare
from prometheus_client import CONTENT_TYPE_LATEST, generate_latest
from prometheus_client.metrics_core import GaugeMetricFamily, Metric
from prometheus_client.registry import Collector

from fitzle.apps.files.room import kept_by_shelf
from fitzle.apps.jobs.figures import jobs_by_kind
from fitzle.apps.jobs.health import free_bytes
from fitzle.apps.watching.metrics import REGISTRY


class _Now(Collector):
    """What is looked up whenever somebody asks."""

    def describe(self) -> list[Metric]:
        """Nothing is looked up before somebody asks."""
        return []

    def collect(self) -> Iterator[Metric]:
        """The table of jobs, the room on the disk, what is kept."""
        jobs = GaugeMetricFamily("fitzle_jobs", "Jobs that are wanted", labels=["kind", "state"])
        oldest = GaugeMetricFamily("fitzle_jobs_oldest_seconds", "Since the oldest of a kind is due", labels=["kind"])
        for one in jobs_by_kind():
            jobs.add_metric([one.kind, "waiting"], one.waiting)
            jobs.add_metric([one.kind, "running"], one.running)
            oldest.add_metric([one.kind], one.seconds)
        yield jobs
        yield oldest
        kept = GaugeMetricFamily("fitzle_kept_bytes", "Bytes of kept files", labels=["shelf"])
        for shelf, weight in kept_by_shelf().items():
            kept.add_metric([shelf], weight)
        yield kept
        free = free_bytes()
        if free is not None:
            yield GaugeMetricFamily("fitzle_disk_free_bytes", "Room on the disk", value=free)


REGISTRY.register(_Now())


def metrics(request: HttpRequest) -> HttpResponse:
    """All figures, for who shows the token (FITZLE_METRICS_TOKEN); 404 where there is none."""
    token, shown = settings.METRICS_TOKEN, request.headers.get("Authorization", "").removeprefix("Bearer ")
    if not token or not constant_time_compare(shown, token):
        return HttpResponse(status=401 if token else 404)
    return HttpResponse(generate_latest(REGISTRY), content_type=CONTENT_TYPE_LATEST)
