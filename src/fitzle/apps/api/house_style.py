"""The house style: what the workspace's pieces are made with."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from ninja import Path, Router, Schema

from fitzle.apps.accounts.access import house_style, workspace_to_see

router = Router(tags=["house style"])


class HouseColour(Schema):
    """A colour with the name that people give it."""

    name: str
    hex: str


class HouseStyleOut(Schema):
    """Colours in order and typefaces (empty: the usual one)."""

    colours: list[HouseColour]
    heading: str
    text: str


@router.get("/house-style", response=HouseStyleOut)
def read_house_style(request: HttpRequest, workspace: Path[str]) -> Any:
    """The house style."""
    space = workspace_to_see(request.user, workspace)
    style = house_style(space)
    return HouseStyleOut(colours=style.named, heading=style.heading, text=style.text)
