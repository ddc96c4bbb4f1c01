"""How an effect, an edge or a fill looks when somebody first turns it on, before they change it."""

from __future__ import annotations

from fitzle.core.findings import Frozen
from fitzle.core.piece.effects import Border, Edge, Glow, Outline, Plate, Shadow
from fitzle.core.piece.fills import Gradient, Overlay, Stop

DARK, LIGHT = "#111111", "#ffffff"


class FirstLooks(Frozen):
    """One of each; lengths as the piece keeps them."""

    outline: Outline = Outline(width=0.06, colour=DARK)
    glow: Glow = Glow(radius=0.4, colour=LIGHT)
    shadow: Shadow = Shadow()
    plate: Plate = Plate(colour=DARK)
    border: Border = Border(width=0.04, colour=LIGHT)
    edge: Edge = Edge(width=0.03, colour=LIGHT)
    overlay: Overlay = Overlay(colour=DARK, opacity=0.4)
    gradient: Gradient
    colour: str


def first_looks(house: tuple[str, ...]) -> FirstLooks:
    """The first looks in a house's colours: the gradient leads from its first to a later one."""
    first = house[0] if house else DARK
    last = next(iter(house[2:] or house[1:]), LIGHT)
    stops = (Stop(at=0, colour=first), Stop(at=1, colour=last))
    return FirstLooks(gradient=Gradient(stops=stops, angle=20), colour=first)
