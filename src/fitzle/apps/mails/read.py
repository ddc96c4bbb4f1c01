"""Mails as files, for who runs Fitzle on their own machine without a mail server."""

from __future__ import annotations

import email
import email.policy
from datetime import UTC, datetime
from pathlib import Path
from typing import NamedTuple

from django.conf import settings

MOST = 50
FILES = "django.core.mail.backends.filebased.EmailBackend"
LINE = b"-" * 79  # Django's file backend writes it after each mail


class FiledMail(NamedTuple):
    """A mail in words, with the moment it was written in UTC."""

    to: str
    subject: str
    body: str
    at: datetime


def are_files() -> bool:
    """Whether mails are written into files here, instead of being sent."""
    return bool(settings.MAIL_THROUGH == FILES)


def newest_mails() -> list[FiledMail]:
    """The newest mails of this installation, the newest first."""
    folder = Path(settings.EMAIL_FILE_PATH)
    if not folder.is_dir():
        return []
    files = sorted(folder.glob("*.log"), key=lambda path: path.stat().st_mtime, reverse=True)[:MOST]
    return [mail for path in files for mail in _mails_in(path)][:MOST]


def _mails_in(path: Path) -> list[FiledMail]:
    at = datetime.fromtimestamp(path.stat().st_mtime, UTC)
    return [_mail(part.strip(), at) for part in path.read_bytes().split(LINE) if part.strip()]


def _mail(data: bytes, at: datetime) -> FiledMail:
    policy = email.policy.default.clone(utf8=True)
    found = email.message_from_bytes(data, policy=policy)
    body = found.get_body(("plain",))
    return FiledMail(str(found["To"]), str(found["Subject"]), str(body.get_content()) if body else "", at)
