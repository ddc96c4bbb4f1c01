"""What Fitzle asks of somebody who signs up, besides mail address and password."""

from __future__ import annotations

from typing import Any

from django import forms
from django.http import HttpRequest

from fitzle.apps.accounts.invitations import SignUp, is_invited, sign_up_now
from fitzle.apps.accounts.models import User

UNNAMED = "My workspace"
BY_INVITATION = "New people come in by invitation here. Ask who runs this Fitzle for one."
USED_UP = "This invitation was used already, or is older than 14 days. Ask for another one."


class SignUpForm(forms.Form):
    """`business` names the first workspace, `invitation` is the secret of one."""

    business = forms.CharField(max_length=120, required=False)
    invitation = forms.CharField(max_length=100, required=False)

    def clean_business(self) -> str:
        """The name, or the usual one."""
        return str(self.cleaned_data.get("business", "")).strip() or UNNAMED

    def clean_invitation(self) -> str:
        """Refuses, in words, who may not sign up."""
        secret = str(self.cleaned_data.get("invitation", ""))
        if sign_up_now() == SignUp.CLOSED and not is_invited(secret):
            raise forms.ValidationError(USED_UP if secret else BY_INVITATION)
        return secret

    def signup(self, request: HttpRequest, user: User) -> None:
        """Asked for by allauth; SigningAdapter.save_user has done everything in one transaction."""

    def clean(self) -> dict[str, Any]:
        """The fields together."""
        return super().clean() or self.cleaned_data
