"""What a rule measures, for who reads one of its findings."""

from __future__ import annotations

from django.http import Http404, HttpRequest
from ninja import Path, Router, Schema

from fitzle.core.errors import ValueOutOfRange
from fitzle.core.preflight.pages import page_of

router = Router(tags=["rules"])


class SectionOut(Schema):
    """A part of the page; the first has no title."""

    title: str
    text: str


@router.get("/{rule}", response=list[SectionOut])
def read_page(request: HttpRequest, rule: Path[str]) -> list[SectionOut]:
    """The page of a rule, part by part."""
    try:
        body = page_of(rule).partition("\n")[2].strip()
    except ValueOutOfRange as error:
        raise Http404("There is no such rule.") from error
    about, *parts = body.split("\n## ")
    titled = [part.partition("\n") for part in parts]
    return [
        SectionOut(title="", text=about),
        *(SectionOut(title=title, text=text.strip()) for title, _, text in titled),
    ]
