"""The adapter for storages that speak the S3 protocol: a file is an object below a prefix of a bucket."""

from __future__ import annotations

import socket
from typing import Any

import boto3
from botocore.config import Config
from botocore.exceptions import BotoCoreError, ClientError
from django.conf import settings

from fitzle.apps.artwork.web_address import is_public, web_address
from fitzle.apps.uploading.errors import UploadError
from fitzle.apps.uploading.port import Answer, Upload

TRIES = 4
ADVICE = "Look at the address, the bucket and the key of this connection."


class Bucket:
    """Uploads into one bucket: the same name is the same object, so that an upload tried again replaces itself."""

    def __init__(self, address: str, folder: str, account: str, secret: str) -> None:
        self._address = address.rstrip("/")
        self._bucket, _, prefix = folder.strip("/").partition("/")
        self._prefix = f"{prefix}/" if prefix else ""
        self._account, self._secret = account, secret

    def upload(self, upload: Upload) -> Answer:
        """Puts a file into the bucket."""
        name = f"{self._prefix}{upload.folder}/{upload.name}" if upload.folder else f"{self._prefix}{upload.name}"
        try:
            self._client().put_object(
                Bucket=self._bucket, Key=name, Body=upload.data, ContentType=upload.media_type,
                Metadata={"delivery": upload.key},
            )  # fmt: skip
        except ClientError as error:
            told = error.response.get("Error", {})
            return Answer(False, (str(told.get("Message") or told.get("Code") or error),))
        except (BotoCoreError, ValueError) as error:
            raise UploadError("it could not be reached", subject=self._address, advice=ADVICE) from error
        return Answer(True, (), "", name)

    def shown(self, answer: Answer) -> bytes | None:
        """The object as it is kept now."""
        try:
            found = self._client().get_object(Bucket=self._bucket, Key=answer.picture)
            return bytes(found["Body"].read())
        except (ClientError, BotoCoreError) as error:
            raise UploadError("what was uploaded could not be read back", subject=self._address) from error

    def _client(self) -> Any:
        check_reachable(self._address)
        config = Config(
            connect_timeout=3, read_timeout=20, retries={"max_attempts": TRIES, "mode": "standard"},
            s3={"addressing_style": "path"},
        )  # fmt: skip
        return boto3.client(
            "s3", endpoint_url=self._address, aws_access_key_id=self._account, aws_secret_access_key=self._secret,
            region_name="us-east-1", config=config,
        )  # fmt: skip


def check_reachable(address: str) -> None:
    """Raises UploadError for an address inside the server's own network, unless the settings allow those."""
    if settings.UPLOAD_INSIDE:
        return
    found = web_address(address)
    try:
        numbers = [str(entry[4][0]) for entry in socket.getaddrinfo(found.host, found.port, type=socket.SOCK_STREAM)]
    except OSError as error:
        raise UploadError("there is no such machine", subject=found.host, advice=ADVICE) from error
    if not numbers or not all(is_public(number) for number in numbers):
        raise UploadError("this machine is not on the public web", subject=found.host, advice=ADVICE)
