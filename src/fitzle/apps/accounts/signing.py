"""How django-allauth signs people up and in here: our accounts, pauses, client addresses and words."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any, cast

from allauth.account.adapter import DefaultAccountAdapter
from allauth.core.exceptions import ImmediateHttpResponse
from allauth.headless.adapter import DefaultHeadlessAdapter
from allauth.mfa.adapter import get_adapter as two_steps
from django.contrib.auth.base_user import AbstractBaseUser
from django.db import IntegrityError, transaction
from django.http import HttpRequest, JsonResponse

from fitzle.apps.accounts.addresses import client_address, pause_seconds, tries_too_often
from fitzle.apps.accounts.invitations import SignUp, make_first, sign_up_now, use_invitation
from fitzle.apps.accounts.models import User
from fitzle.apps.accounts.sign_up import UNNAMED, USED_UP
from fitzle.apps.accounts.workspaces import found_own

if TYPE_CHECKING:
    from django.forms import BaseForm

LONGEST_ADDRESS = 254  # RFC 5321, 4.5.3.1
TOO_OFTEN = "Too many tries. Wait a quarter of an hour and try again."
TAKEN = "There is an account with this mail address already. Sign in, or ask for a new password."
LINK_OVER = "This link was used already, or is too old. Ask for another one."


class SigningAdapter(DefaultAccountAdapter):
    """Signs up and in; what a form refuses is said in Fitzle's words."""

    error_messages = DefaultAccountAdapter.error_messages | {
        "account_inactive": "This account was put out of use. Ask who runs this Fitzle.",
        "email_password_mismatch": "Mail address and password do not belong together. Try again.",
        "email_taken": TAKEN,
        "enter_current_password": "This is not your present password.",
        "incorrect_password": "This is not your password. Try again.",
        "invalid_or_expired_key": LINK_OVER,
        "invalid_password_reset": LINK_OVER,
        "duplicate_email": "That is your mail address already.",
        "unverified_primary_email": "Confirm your mail address first: a link to it was sent to you.",
        "rate_limited": TOO_OFTEN,
        "too_many_login_attempts": TOO_OFTEN,
    }

    def get_client_ip(self, request: HttpRequest) -> str:
        """The address that a request comes from."""
        return client_address(request)

    def pre_authenticate(self, request: HttpRequest, **credentials: Any) -> None:
        """Before a password is looked at; answers 429 where there were too many wrong ones."""
        email = str(credentials.get("email", "")).lower()
        if len(email) > LONGEST_ADDRESS:
            raise self.validation_error("email_password_mismatch")  # what counts the failures keeps no longer one
        wait = pause_seconds(request, email)
        if wait:
            raise _refused(f"Too many tries. Wait {_words_for_seconds(wait)} and try again.")
        if tries_too_often(request):
            raise _refused(TOO_OFTEN)

    def reauthenticate(self, user: AbstractBaseUser, password: str) -> bool:
        """Whether this is the password of who is signed in; wrong ones count like those of signing in."""
        found = self.authenticate(self.request, email=cast("User", user).email, password=password)
        return found is not None and found.pk == user.pk

    def save_user(
        self, request: HttpRequest, user: AbstractBaseUser, form: BaseForm, commit: bool = True
    ) -> AbstractBaseUser:
        """A new person with a workspace of their own: all of it, or nothing."""
        try:
            with transaction.atomic():
                saved = cast("User", super().save_user(request, user, form, commit=True))
                self._let_in(saved, form)
                make_first(saved)
                found_own(saved, form.cleaned_data.get("business") or UNNAMED)
        except IntegrityError as error:  # two with one address at once
            raise _refused(TAKEN, 400) from error
        return saved

    def _let_in(self, user: User, form: BaseForm) -> None:
        secret = form.cleaned_data.get("invitation", "")
        others = User.objects.exclude(pk=user.pk).exists()
        if others and sign_up_now() == SignUp.CLOSED and not use_invitation(secret, user):
            raise _refused(USED_UP, 400)


class PagesAdapter(DefaultHeadlessAdapter):
    """What the pages get besides what allauth answers."""

    def populate_response_meta(self, request: HttpRequest, meta: dict[str, Any]) -> None:
        """The picture of a secret for two steps, which a telephone's camera reads."""
        super().populate_response_meta(request, meta)
        if "totp_url" in meta:
            meta["totp_svg"] = two_steps().build_totp_svg(meta["totp_url"])


def _refused(message: str, status: int = 429) -> ImmediateHttpResponse:
    return ImmediateHttpResponse(JsonResponse({"message": message}, status=status))


def _words_for_seconds(seconds: int) -> str:
    return f"{seconds} seconds" if seconds < 100 else f"{round(seconds / 60)} minutes"
