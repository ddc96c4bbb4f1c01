"""Django's mail backend of the pages: it keeps mails for the workers, who send them by settings.MAIL_THROUGH."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING

from django.core.mail.backends.base import BaseEmailBackend
from django.db import transaction

from fitzle.apps.jobs.queue import mail_later
from fitzle.apps.mails.models import WaitingMail

if TYPE_CHECKING:
    from django.core.mail import EmailMessage


class KeepingBackend(BaseEmailBackend):
    """Keeps mails in words only: Fitzle sends nothing else."""

    def send_messages(self, email_messages: Sequence[EmailMessage]) -> int:
        """Keeps the mails and has them sent; how many."""
        with transaction.atomic():
            for mail in email_messages:
                kept = WaitingMail.objects.create(
                    sender=mail.from_email, to=mail.to, subject=str(mail.subject)[:998], body=str(mail.body)
                )
                mail_later(kept.pk)
        return len(email_messages)
