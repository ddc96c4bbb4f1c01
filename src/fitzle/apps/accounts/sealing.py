"""Secrets sealed with the installation's own: kept in the database, and of no use without it."""

from __future__ import annotations

import base64
import hashlib

from cryptography.fernet import Fernet
from django.conf import settings


def box_for(purpose: str) -> Fernet:
    """What seals and opens secrets of one purpose; each has a key of its own."""
    key = hashlib.sha256(purpose.encode() + b":" + settings.SECRET_KEY.encode()).digest()
    return Fernet(base64.urlsafe_b64encode(key))
