"""The error tree. Each error says what it is about, what was expected and what was found."""

from __future__ import annotations


class FitzleError(Exception):
    """Root of every error raised on purpose; its text can be shown to a person.

    `subject` is the file or document it is about, `advice` what the person can do.
    """

    def __init__(
        self, problem: str, *, subject: str = "", expected: str = "", actual: str = "", advice: str = ""
    ) -> None:
        self.problem = problem
        self.subject = subject
        self.expected = expected
        self.actual = actual
        self.advice = advice
        super().__init__(self.message)

    @property
    def message(self) -> str:
        """One or two sentences: what, where, what to do."""
        head = f"{self.subject}: {self.problem}" if self.subject else self.problem
        if self.expected and self.actual:
            head += f" (expected {self.expected}, found {self.actual})"
        return f"{head.rstrip('.')}. {self.advice}".strip()

    def about(self, subject: str) -> FitzleError:
        """The same error about a named file, for callers that know the name."""
        return type(self)(self.problem, subject=subject, expected=self.expected, actual=self.actual, advice=self.advice)


class DocumentError(FitzleError):
    """A spec sheet or a piece that cannot be read."""


class ArtworkError(FitzleError):
    """A file that was brought in and cannot be used."""


class NoSubjectFound(ArtworkError):
    """Nothing to cut out was found for sure; `box` is where the subject may be.

    The box is x, y, width and height in fractions of the picture.
    """

    box: tuple[float, float, float, float] | None = None


class LimitError(ArtworkError):
    """A file that is larger than the limits allow; found before it is decoded."""


class HostileFileError(ArtworkError):
    """A file with contents that could do harm."""


class ValueOutOfRange(FitzleError):
    """A figure given by the caller that cannot be used."""
