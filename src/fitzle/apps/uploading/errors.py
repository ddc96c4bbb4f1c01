"""What goes wrong between here and a destination."""

from __future__ import annotations

from fitzle.core.errors import FitzleError


class UploadError(FitzleError):
    """A destination that cannot be reached, or gives no answer that can be understood."""
