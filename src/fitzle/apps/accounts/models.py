"""People sign in with their mail address; workspaces join them by memberships with roles."""

from __future__ import annotations

from typing import ClassVar

from django.contrib.auth.base_user import AbstractBaseUser, BaseUserManager
from django.db import models


class UserManager(BaseUserManager["User"]):
    """Makes people with a hashed password."""

    def create_user(self, email: str, password: str, name: str = "") -> User:
        """A new person, made by who runs Fitzle: their mail address counts as confirmed."""
        from allauth.account.models import EmailAddress  # it needs this model first

        user = self.model(email=self.normalize_email(email).lower(), name=name)
        user.set_password(password)
        user.save(using=self._db)
        EmailAddress.objects.create(user=user, email=user.email, primary=True, verified=True)
        return user

    def get_by_natural_key(self, username: str | None) -> User:
        """By mail address, whatever its case."""
        return self.get(email=(username or "").lower())


class User(AbstractBaseUser):
    """A person."""

    email = models.EmailField(unique=True)
    name = models.CharField(max_length=120, blank=True)
    runs = models.BooleanField(default=False)  # this Fitzle: the first person of an empty installation
    is_active = models.BooleanField(default=True)
    created_at = models.DateTimeField(auto_now_add=True)

    USERNAME_FIELD = "email"
    objects: ClassVar[UserManager] = UserManager()


class Workspace(models.Model):
    """One business. `house_style` holds what its pieces are made with.

    {"colours": [{"name", "hex"}], "typefaces": {"heading", "text"}, "naming": rule for file names}
    `leaving_at` is when it was deleted: nobody sees it from then on, and 14 days later it is gone.
    """

    name = models.CharField(max_length=120)
    slug = models.SlugField(max_length=60, unique=True)
    house_style = models.JSONField(default=dict)
    leaving_at = models.DateTimeField(null=True, default=None)
    created_at = models.DateTimeField(auto_now_add=True)


class Role(models.TextChoices):
    """What a member may do: see, fill in the rows of runs, change, or run the workspace."""

    VIEWER = "viewer"
    FILLER = "filler"
    MAKER = "maker"
    OWNER = "owner"


class Membership(models.Model):
    """A person in a workspace."""

    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="memberships")
    workspace = models.ForeignKey(Workspace, on_delete=models.CASCADE, related_name="memberships")
    role = models.CharField(max_length=10, choices=Role, default=Role.MAKER)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["user", "workspace"], name="one_membership_each")]


class FirstPerson(models.Model):
    """The person to whom an installation belongs: one row, whose key decides between two who come at once."""

    ONLY = 1
    user = models.OneToOneField(User, on_delete=models.PROTECT, related_name="+")


class Invitation(models.Model):
    """Lets one person sign up where that is closed. Only the hash of its secret is kept."""

    hashed = models.CharField(max_length=64, unique=True)
    by = models.ForeignKey(User, on_delete=models.CASCADE, related_name="invitations")
    made_at = models.DateTimeField(auto_now_add=True)
    used_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    used_at = models.DateTimeField(null=True)


class Joining(models.Model):
    """Lets one person join a workspace in a role, to work on a piece's run. Only the hash of its secret is kept."""

    hashed = models.CharField(max_length=64, unique=True)
    by = models.ForeignKey(User, on_delete=models.CASCADE, related_name="+")
    workspace = models.ForeignKey(Workspace, on_delete=models.CASCADE, related_name="+")
    role = models.CharField(max_length=10, choices=Role)
    piece = models.CharField(max_length=40, blank=True, default="")
    made_at = models.DateTimeField(auto_now_add=True)
    used_by = models.ForeignKey(User, null=True, on_delete=models.SET_NULL, related_name="+")
    used_at = models.DateTimeField(null=True)


class ApiToken(models.Model):
    """Lets a script act for one person in one workspace, as far as its scopes go. Only the hash of it is kept.

    `begins` are its first letters, by which people tell it from others.
    """

    workspace = models.ForeignKey(Workspace, on_delete=models.CASCADE, related_name="tokens")
    user = models.ForeignKey(User, on_delete=models.CASCADE, related_name="+")
    name = models.CharField(max_length=80)
    hashed = models.CharField(max_length=64, unique=True)
    begins = models.CharField(max_length=12)
    scopes = models.JSONField(default=list)
    made_at = models.DateTimeField(auto_now_add=True)
    used_at = models.DateTimeField(null=True, default=None)
    revoked_at = models.DateTimeField(null=True, default=None)

    class Meta:
        ordering = ["-made_at"]
