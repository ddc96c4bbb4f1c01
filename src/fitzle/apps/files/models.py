"""What is kept: each file with its weight and hash, noted only once it is whole in the storage."""

from __future__ import annotations

from django.db import models

from fitzle.apps.files.shelves import Shelf, kept_path


class KeptFile(models.Model):
    """One file of a workspace. What it should weigh and hash to is known from here, not from the storage."""

    workspace = models.ForeignKey("accounts.Workspace", on_delete=models.CASCADE, related_name="+")
    shelf = models.CharField(max_length=10, choices=Shelf)
    key = models.CharField(max_length=128)
    bytes = models.BigIntegerField()
    sha256 = models.CharField(max_length=64)
    kept_at = models.DateTimeField(auto_now=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["workspace", "shelf", "key"], name="one_kept_file_each_key")]

    @property
    def path(self) -> str:
        """Its place in the storage."""
        return kept_path(self.shelf, self.workspace_id, self.key)
