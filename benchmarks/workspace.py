"""A workspace that the measurements have for themselves in a running Fitzle; it goes when they are done."""

from __future__ import annotations

import os
import secrets
import shutil
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import NamedTuple


class OwnWorkspace(NamedTuple):
    """Where it runs, its name in addresses, and who signs in there."""

    address: str
    slug: str
    email: str
    password: str


@contextmanager
def own_workspace(address: str) -> Iterator[OwnWorkspace]:
    """Made with the sample's artwork and pieces, in the database of the Fitzle that runs; taken away at the end."""
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "fitzle.config.settings")
    os.environ["FITZLE_EAGER"] = "1"
    import django

    django.setup()
    from demo.load import HOUSE_STYLE, fill
    from django.core.files.storage import default_storage

    from fitzle.apps.accounts.access import found_workspace
    from fitzle.apps.accounts.models import User

    slug, password = f"bench-{secrets.token_hex(4)}", secrets.token_urlsafe(16)
    owner = User.objects.create_user(f"{slug}@ottermoor.example", password, "Bench")
    workspace = found_workspace(name="Measurements", slug=slug, owner=owner, house_style=HOUSE_STYLE)
    number = workspace.pk
    try:
        fill(workspace, owner)
        yield OwnWorkspace(address, slug, owner.email, password)
    finally:
        workspace.delete()
        owner.delete()
        for folder in Path(default_storage.path("")).glob(f"*/{number}"):
            shutil.rmtree(folder, ignore_errors=True)
