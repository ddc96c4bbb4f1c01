"""What a business makes its pieces of, and parts made of that."""

from __future__ import annotations

from typing import Any, NamedTuple

from fitzle.core.colour.contrast import BLACK, WHITE, relative_luminance
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.type.library import USUAL_FAMILY

Part = dict[str, Any]


class House(NamedTuple):
    """What a business makes its pieces of: hex colours, typefaces, ids of its marks and pictures, the newest first."""

    name: str
    colours: tuple[str, ...] = ()
    heading: str = USUAL_FAMILY
    text: str = USUAL_FAMILY
    marks: tuple[str, ...] = ()
    pictures: tuple[str, ...] = ()

    @property
    def dark(self) -> str:
        """Its darkest colour."""
        return min(self.colours or (BLACK,), key=_light)

    @property
    def light(self) -> str:
        """Its lightest colour."""
        return max(self.colours or (WHITE,), key=_light)

    @property
    def strong(self) -> str:
        """The colour between them that stands out: the most saturated one."""
        return max(self.colours or (BLACK,), key=lambda colour: max(parse_hex(colour)) - min(parse_hex(colour)))


def _light(colour: str) -> float:
    return relative_luminance(parse_hex(colour))


def box(anchor: str, width: float, height: float, dx: float = 0, dy: float = 0) -> Part:
    """Where a part stands, in units of the short side of the structure's own shape."""
    return {"anchor": anchor, "width": width, "height": height, "dx": dx, "dy": dy}


def ground(fill: Any = None, **more: Any) -> Part:
    """The ground; clear without a fill."""
    return {"id": "ground", "role": "ground", "fill": fill, **more}


def solid(colour: str) -> Part:
    """A fill of one colour."""
    return {"kind": "solid", "colour": colour}


def gradient(*colours: str, angle: float = 20) -> Part:
    """A fill that goes evenly from colour to colour."""
    stops = [{"at": index / (len(colours) - 1), "colour": colour} for index, colour in enumerate(colours)]
    return {"kind": "gradient", "stops": stops, "angle": angle}


def words(house: House, role: str, text: str, stands: Part | str, **more: Any) -> Part:
    """Words of a role: headlines and badges in the house's typeface for headings."""
    heading = role in ("headline", "badge")
    return {
        "id": role.replace(" ", "-"), "role": role, "text": text, "stands": stands,
        "family": house.heading if heading else house.text, "weight": 800 if heading else 600, **more,
    }  # fmt: skip


def mark(house: House, stands: Part | str, **more: Any) -> list[Part]:
    """The newest mark; nothing where the house has none."""
    if not house.marks:
        return []
    return [{"id": "mark", "role": "mark", "artwork": house.marks[0], "stands": stands, **more}]


def mark_or_letter(house: House, stands: Part | str, **more: Any) -> list[Part]:
    """The newest mark, else the first letter of the name; `tint` colours both."""
    own = mark(house, stands, **more)
    return own or [letter(house, stands, **({"colour": more["tint"]} if more.get("tint") else {}))]


def letter(house: House, stands: Part | str, **more: Any) -> Part:
    """The first letter of the name."""
    return {**words(house, "badge", house.name[:1] or "F", stands, align="centre", **more), "id": "letter"}


def picture(house: House, stands: Part | str, number: int = 0, **more: Any) -> list[Part]:
    """One of the newest pictures, or a shape in its place."""
    name = "picture" if number == 0 else f"picture-{number + 1}"
    if len(house.pictures) > number:
        return [{"id": name, "role": "picture", "artwork": house.pictures[number], "stands": stands, **more}]
    shape = (more.get("die") or {}).get("shape", "rectangle")
    return [surface(shape, stands, gradient(house.strong, house.light), name)]


def surface(shape: str, stands: Part | str, fill: Part, name: str = "shape") -> Part:
    """A shape that is filled."""
    return {"id": name, "role": "shape", "shape": shape, "fill": fill, "stands": stands}


def picture_ground(house: House, **more: Any) -> Part:
    """The newest picture behind everything, or a gradient."""
    if not house.pictures:
        return ground(gradient(house.dark, house.strong))
    return ground({"kind": "picture", "artwork": house.pictures[0], **more})


def veiled(house: House) -> Part:
    """The newest picture behind everything, darkened so that words can be read on it."""
    return picture_ground(house, overlay={"colour": house.dark, "opacity": 0.66})
