"""The sample's password is published: where others can reach Fitzle nobody has it."""

from typing import Any

import pytest

from fitzle.apps.accounts.models import User
from fitzle.apps.accounts.sample import EMAIL, PASSWORD, PublishedPassword, refuse_published_password

pytestmark = pytest.mark.django_db
PUBLIC = [
    {"ALLOWED_HOSTS": ["127.0.0.1", "fitzle.example"]}, {"HTTPS": True}, {"ALLOWED_HOSTS": ["*"]},
    {"ALLOWED_HOSTS": [".example"], "HTTPS": True},
]  # fmt: skip


@pytest.mark.parametrize("reached", PUBLIC)
def test_fitzle_does_not_start_for_others_with_the_published_password(settings: Any, reached: dict[str, Any]) -> None:
    settings.ALLOWED_HOSTS = ["127.0.0.1", "localhost"]
    user = User.objects.create_user(EMAIL, PASSWORD, "Juno Marsh")
    refuse_published_password()
    for name, value in reached.items():
        setattr(settings, name, value)
    with pytest.raises(PublishedPassword, match="changepassword"):
        refuse_published_password()
    user.set_password("a-wheel-of-my-own")
    user.save()
    refuse_published_password()


@pytest.mark.parametrize("reached", PUBLIC)
def test_the_sample_is_never_loaded_for_others(settings: Any, reached: dict[str, Any]) -> None:
    from demo.load import load

    for name, value in reached.items():
        setattr(settings, name, value)
    with pytest.raises(SystemExit, match="password is known"):
        load()
    assert not User.objects.exists()


def test_somebody_else_s_password_is_their_own_affair(settings: Any) -> None:
    settings.HTTPS = True
    User.objects.create_user("other@ottermoor.example", PASSWORD, "Other")
    refuse_published_password()
