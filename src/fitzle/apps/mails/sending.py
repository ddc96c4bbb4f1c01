"""Sending what waits, again and again while the mail server is away."""

from __future__ import annotations

import logging
from datetime import timedelta
from smtplib import SMTPException, SMTPRecipientsRefused

from django.conf import settings
from django.core.mail import EmailMessage, get_connection
from django.utils import timezone

from fitzle.apps.jobs.later import Later
from fitzle.apps.mails.models import WaitingMail

log = logging.getLogger(__name__)
FIRST_PAUSE_S, LONGEST_PAUSE_S = 15.0, 3600.0
GIVEN_UP_AFTER = timedelta(days=3)
SLOW = timedelta(seconds=20)  # after which people are told that mails take longer


def send_waiting(number: int) -> None:
    """Sends a mail; raises Later where that fails now. A mail that nobody takes for three days is given up."""
    mail = WaitingMail.objects.filter(pk=number).first()
    if mail is None:
        return
    try:
        through: str = settings.MAIL_THROUGH
        connection = get_connection(through, fail_silently=False)
        EmailMessage(mail.subject, mail.body, mail.sender, mail.to, connection=connection).send()
    except SMTPRecipientsRefused as refusal:
        log.warning("nobody is there for mail %s: %s", number, refusal)
    except (SMTPException, OSError) as error:
        _note(mail, error)
        if timezone.now() - mail.wanted_at < GIVEN_UP_AFTER:
            pause = min(LONGEST_PAUSE_S, FIRST_PAUSE_S * 2 ** min(mail.tries - 1, 10))
            raise Later(f"The mail server does not take mails: {mail.trouble}", pause) from error
        log.warning("mail %s is given up: %s", number, error)
    mail.delete()


def _note(mail: WaitingMail, error: Exception) -> None:
    mail.tries = min(mail.tries + 1, 1000)
    mail.trouble = str(error)[:300] or type(error).__name__
    mail.save(update_fields=["tries", "trouble"])


def are_delayed() -> bool:
    """Whether mails cannot be sent just now."""
    waiting = WaitingMail.objects.all()
    return waiting.filter(tries__gt=0).exists() or waiting.filter(wanted_at__lt=timezone.now() - SLOW).exists()
