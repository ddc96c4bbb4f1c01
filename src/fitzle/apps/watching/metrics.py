"""Figures that are counted as things happen, in the process that counts them."""

from __future__ import annotations

from prometheus_client import CollectorRegistry, Counter, Histogram

REGISTRY = CollectorRegistry()
SECONDS = (0.01, 0.03, 0.1, 0.3, 1.0, 3.0, 10.0)
_requests = Counter("fitzle_requests", "Answers", ["method", "route", "status"], registry=REGISTRY)
_seconds = Histogram(
    "fitzle_request_seconds", "Until answered", ["method", "route"], buckets=SECONDS, registry=REGISTRY
)
_drawings = Counter("fitzle_drawings", "Asked of the drawing service", ["outcome"], registry=REGISTRY)


def count_request(method: str, route: str, status: int, seconds: float) -> None:
    """Notes one answer; routes are patterns, so that their number stays small."""
    _requests.labels(method, route, str(status)).inc()
    _seconds.labels(method, route).observe(seconds)


def count_drawing(outcome: str) -> None:
    """Notes what became of a question to the drawing service."""
    _drawings.labels(outcome).inc()
