"""Two-step sign-in: a code of the telephone beside the password (TOTP, RFC 6238), and recovery codes."""

from __future__ import annotations

import base64
import os

from allauth.mfa.adapter import DefaultMFAAdapter
from cryptography.fernet import InvalidToken

from fitzle.apps.accounts.sealing import box_for


class TwoStepsAdapter(DefaultMFAAdapter):
    """Keeps the secrets encrypted: who reads the database or a backup of it cannot make codes."""

    error_messages = DefaultMFAAdapter.error_messages | {
        "unverified_email": "Confirm your mail address first: a link to it was sent to you.",
        "add_email_blocked": "Switch two steps off before you change your mail address.",
        "incorrect_code": "This code is not right, or was used already. Wait for the next one.",
    }

    def encrypt(self, text: str) -> str:
        """A secret as it is kept."""
        return str(box_for("two steps").encrypt(text.encode()).decode())

    def decrypt(self, encrypted_text: str) -> str:
        """A secret as it was.

        Where the installation's own secret was changed it is a random one: an empty one would make codes that anybody
        can calculate.
        """
        try:
            return str(box_for("two steps").decrypt(encrypted_text.encode()).decode())
        except InvalidToken:
            return base64.b32encode(os.urandom(20)).decode()
