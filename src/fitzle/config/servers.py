"""Where the database, the queue and the cache are: by private sockets on one machine, by addresses on several."""

from __future__ import annotations

import os
from pathlib import Path
from typing import Any

from fitzle.core.spec.stems import free_name


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


def file_storage(var: Path) -> dict[str, Any]:
    """Where files are kept: FITZLE_BUCKET in an S3-compatible storage, another of Django's, else a folder."""
    bucket, other = os.environ.get("FITZLE_BUCKET"), os.environ.get("FITZLE_STORAGE")
    if bucket:
        options = {
            "bucket_name": bucket,
            "endpoint_url": os.environ.get("FITZLE_BUCKET_URL") or None,
            "region_name": os.environ.get("FITZLE_BUCKET_REGION", "us-east-1"),
            "access_key": os.environ.get("FITZLE_BUCKET_KEY") or None,
            "secret_key": os.environ.get("FITZLE_BUCKET_SECRET") or None,
        }
        return {"BACKEND": "fitzle.apps.files.bucket.BucketStorage", "OPTIONS": options}
    if other:
        return {"BACKEND": other}
    backend = "fitzle.apps.files.storage.DurableFileSystemStorage"
    return {"BACKEND": backend, "OPTIONS": {"location": str(var / "files")}}


def server_folders(text: str) -> dict[str, dict[str, str]]:
    """Folders of this server that files may be delivered into: by the workspace that may, by the folder's name.

    `text` is FITZLE_DELIVER_INTO: `workspace=/path`, several separated by commas.
    """
    found: dict[str, dict[str, str]] = {}
    for entry in filter(None, (one.strip() for one in text.split(","))):
        workspace, _, path = entry.partition("=")
        if not workspace or not Path(path).is_absolute():
            raise SystemExit(f"fitzle: FITZLE_DELIVER_INTO has {entry!r}; write workspace=/path")
        known = found.setdefault(workspace, {})
        known[free_name(Path(path).name or "root", known)] = path
    return found


def _sockets() -> str:
    return os.environ.get("FITZLE_SOCKETS", "/nowhere")
