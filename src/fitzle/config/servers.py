"""Where the database, the queue and the cache are: by private sockets on one machine, by addresses on several."""

from __future__ import annotations

import os
from typing import Any


def database_place() -> dict[str, Any]:
    """HOST and PORT for Django: FITZLE_DB_HOST and FITZLE_DB_PORT, else the socket that the start script made."""
    host = os.environ.get("FITZLE_DB_HOST")
    if host:
        return {"HOST": host, "PORT": os.environ.get("FITZLE_DB_PORT", "3306")}
    return {"HOST": f"{_sockets()}/db.sock"}


def queue_address(database: int) -> str:
    """One of Redis' databases as Celery names it."""
    url = os.environ.get("FITZLE_REDIS_URL")
    return f"{url}/{database}" if url else f"redis+socket://{_sockets()}/redis.sock?virtual_host={database}"


def cache_address(database: int) -> str:
    """One of Redis' databases as Django's cache names it."""
    url = os.environ.get("FITZLE_REDIS_URL")
    return f"{url}/{database}" if url else f"unix://{_sockets()}/redis.sock?db={database}"


def _sockets() -> str:
    return os.environ.get("FITZLE_SOCKETS", "/nowhere")
