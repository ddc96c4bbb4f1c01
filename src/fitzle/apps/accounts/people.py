"""What a person says of themselves."""

from __future__ import annotations

from allauth.account.models import EmailAddress

from fitzle.apps.accounts.models import User


def is_confirmed(user: User) -> bool:
    """Whether the link that was sent to this person's mail address was followed."""
    return bool(EmailAddress.objects.filter(user_id=user.pk, email=user.email, verified=True).exists())


def rename_person(user: User, name: str) -> None:
    """Another name."""
    user.name = name.strip()
    user.save(update_fields=["name"])
