"""A destination's own storage as a second adapter: the S3 protocol, against a stand-in from the registries."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Any

import boto3
import pytest
from moto.server import ThreadedMotoServer

from fitzle.apps.uploading.models import Connection
from tests.apps.helpers import content, deliver, send, upload, wall_proofs
from tests.make import svg
from tests.ports import free_port

pytestmark = pytest.mark.django_db
BASE = "/api/workspaces/juno/deliveries"
KEYS = {"aws_access_key_id": "k", "aws_secret_access_key": "s", "region_name": "us-east-1"}


@pytest.fixture(scope="module")
def storage() -> Iterator[str]:
    server = ThreadedMotoServer("127.0.0.1", port=free_port())
    server.start()
    host, port = server.get_host_and_port()
    address = f"http://{host}:{port}"
    boto3.client("s3", endpoint_url=address, **KEYS).create_bucket(Bucket="pictures")
    yield address
    server.stop()


@pytest.fixture
def connected(signed_in: Any, place: Any, run: Any, storage: str, settings: Any) -> tuple[Any, str]:
    """A destination that uploads into a bucket, with a mark in its place."""
    settings.UPLOAD_INSIDE = True
    entry = place(name="Head", naming="logo")
    given = {"address": storage, "folder": "pictures/shop", "account": "k", "secret": "s"}
    path = f"workspaces/juno/destinations/{entry.destination_id}/connection"
    assert send(signed_in, "put", path, given).status_code == 204
    upload(signed_in, "juno", "mark.svg", svg(), str(entry.pk), run)
    return entry, path


def objects(storage: str) -> dict[str, bytes]:
    client = boto3.client("s3", endpoint_url=storage, **KEYS)
    found = client.list_objects_v2(Bucket="pictures").get("Contents", [])
    return {one["Key"]: client.get_object(Bucket="pictures", Key=one["Key"])["Body"].read() for one in found}


def test_a_file_lies_in_the_bucket_and_is_read_back(connected: Any, signed_in: Any, storage: str) -> None:
    assert signed_in.get(f"{BASE}/ready").json()["uploads"] == ["pictures/shop"]
    for _ in range(2):
        assert deliver(signed_in, {"way": "upload"}).status_code == 201
    [file] = signed_in.get(BASE).json()[0]["files"]
    assert file["state"] == "done" and file["live_at"] and file["answer"]["shown"]["words"] == "shown as it was sent"
    own = content(signed_in.get(f"{BASE}/files/{file['id']}"))
    assert objects(storage) == {"shop/test-site/logo.png": own}, "the same name is the same object"
    assert content(signed_in.get(f"{BASE}/files/{file['id']}/shown")) == own


def test_the_secret_is_sealed_and_never_given_out(connected: Any, signed_in: Any) -> None:
    _, path = connected
    known = signed_in.get(f"/api/{path}").json()
    assert known == {"adapter": "s3", "address": known["address"], "folder": "pictures/shop", "account": "k"}
    assert not re.fullmatch("s", Connection.objects.get().secret) and len(Connection.objects.get().secret) > 50
    assert send(signed_in, "delete", path).status_code == 204
    assert signed_in.get(f"/api/{path}").status_code == 204 and not Connection.objects.exists()


def test_what_the_storage_refuses_is_said_in_its_words(connected: Any, signed_in: Any) -> None:
    Connection.objects.update(folder="no-such-bucket")
    deliver(signed_in, {"way": "upload"})
    [file] = signed_in.get(BASE).json()[0]["files"]
    assert file["state"] == "failed" and "does not exist" in file["message"]
    assert wall_proofs(signed_in, "juno")["Head"]["live_since"] is None


def test_one_that_is_away_is_said(connected: Any, signed_in: Any, monkeypatch: Any) -> None:
    monkeypatch.setattr("fitzle.apps.uploading.s3.TRIES", 1)
    Connection.objects.update(address="http://127.0.0.1:9")
    deliver(signed_in, {"way": "upload"})
    [file] = signed_in.get(BASE).json()[0]["files"]
    assert file["state"] == "failed" and "could not be reached" in file["message"]


def test_a_key_that_cannot_be_read_any_more_is_said(connected: Any, signed_in: Any) -> None:
    Connection.objects.update(secret="gAAAA")
    deliver(signed_in, {"way": "upload"})
    [file] = signed_in.get(BASE).json()[0]["files"]
    assert file["state"] == "failed" and "Type it in again" in file["message"]


@pytest.mark.parametrize(
    "address", ["http://127.0.0.1:9000", "http://localhost.localdomain", "https://10.0.0.7", "ftp://a.b"]
)
def test_no_connection_leads_into_the_servers_own_network(signed_in: Any, place: Any, address: str) -> None:
    path = f"workspaces/juno/destinations/{place().destination_id}/connection"
    answer = send(signed_in, "put", path, {"address": address, "folder": "x"})
    assert answer.status_code == 422 and not Connection.objects.exists()
