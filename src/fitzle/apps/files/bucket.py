"""Files in a bucket of an S3-compatible storage, for several machines that share nothing else."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

from botocore.exceptions import BotoCoreError, ClientError
from django.core.files.base import File
from storages.backends.s3 import S3Storage

from fitzle.apps.files.errors import StorageAwayError


class BucketStorage(S3Storage):  # type: ignore[misc]
    """A file is there once the bucket has all of it; where the bucket does not answer, that is said in words."""

    def get_default_settings(self) -> dict[str, Any]:
        """A file of the same name has the same content, or is damaged and replaced; none is public."""
        own = {"file_overwrite": True, "default_acl": None, "querystring_auth": True, "max_memory_size": 5_000_000}
        return {**super().get_default_settings(), **own}

    def _open(self, name: str, mode: str = "rb") -> File[Any]:
        with _answers():
            return super()._open(name, mode)  # type: ignore[no-any-return]

    def _save(self, name: str, content: File[Any]) -> str:
        with _answers():
            return str(super()._save(name, content))

    def exists(self, name: str) -> bool:
        """Whether there is such a file."""
        with _answers():
            return bool(super().exists(name))

    def size(self, name: str) -> int:
        """Its bytes."""
        with _answers():
            return int(super().size(name))

    def delete(self, name: str) -> None:
        """Takes it away."""
        with _answers():
            super().delete(name)


@contextmanager
def _answers() -> Iterator[None]:
    try:
        yield
    except (ClientError, BotoCoreError) as error:
        raise StorageAwayError() from error
