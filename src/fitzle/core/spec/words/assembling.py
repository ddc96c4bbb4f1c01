"""From facts to a sheet: what holds together, what contradicts itself, what has to be assumed."""

from __future__ import annotations

import re
from typing import Any

from fitzle.core.formats import ALWAYS_MOVING, format_named, label_of
from fitzle.core.spec.sheet import LONGEST_SLUG
from fitzle.core.spec.stems import safe_stem
from fitzle.core.spec.words.colour_words import NOT_ONE_COLOUR
from fitzle.core.spec.words.kinds import kind_of
from fitzle.core.spec.words.measures import SQUARE
from fitzle.core.spec.words.result import Cannot
from fitzle.core.spec.words.sizes import size_of
from fitzle.core.spec.words.text import Fact, Text

USUAL_FORMATS = ("png", "jpeg", "webp")
MOVING, TRANSPARENT = ("webp", "gif", "apng"), ("png", "webp")
USUAL_RADIUS = 0.1
UNNAMED = "New place"


class Assembly:
    """Makes the sheet's keys of the facts, one after the other; `sheet` and `assumed` grow."""

    def __init__(self, text: Text) -> None:
        self._text = text
        self.sheet: dict[str, Any] = {}
        self.assumed: list[str] = []

    def assemble(self) -> dict[str, Any] | None:
        """The sheet as data; None where the words have no size. Raises Cannot."""
        facts = sorted(self._text.facts, key=lambda fact: fact.start)
        sizes = [fact for fact in facts if fact.key.startswith("size")]
        size = size_of([*sizes, *(self._square(fact) for fact in sizes if self._says_square(fact))])
        self._name()
        self._formats()
        self._weight()
        self._transparency()
        self._motion()
        if size is None:
            return None
        self.sheet["size"] = size
        self._cut()
        self._veil()
        self._seen()
        self._grounds()
        self._count()
        self._fields()
        self._kind()
        return self.sheet

    def _says_square(self, fact: Fact) -> bool:
        return fact.key != "size.aspect" and bool(SQUARE.search(self._text.folded, fact.start, fact.end))

    def _square(self, fact: Fact) -> Fact:
        return Fact(fact.start, fact.end, "size.aspect", "1:1")

    def _only(self, key: str, what: str) -> Fact | None:
        """The one fact with a key; what is said twice has to be the same."""
        found = self._text.of(key)
        for fact in found[1:]:
            if fact.value != found[0].value:
                raise Cannot(f"{what} is said twice, and not the same", found[0], fact)
        return found[0] if found else None

    def _name(self) -> None:
        found = self._text.of("name")
        self.sheet["name"] = str(found[0].value).capitalize() if found else UNNAMED
        if not found:
            self.assumed.append("name")

    def _kind(self) -> None:
        found = self._text.of("name")
        kind = kind_of(str(found[0].value), self.sheet) if found else None
        if kind:
            self.sheet["kind"] = kind

    def _formats(self) -> None:
        named, not_wanted = self._text.of("formats"), self._text.of("formats.not")
        first = self._text.of("formats.first")
        left_out = {name: fact for fact in not_wanted for name in fact.value}
        for fact in [*first, *named]:
            name = fact.value if fact.key == "formats.first" else fact.value[0]
            if name in left_out:
                raise Cannot(f"{label_of(name)} is taken here and not there", fact, left_out[name])
        wanted = [*(fact.value for fact in first), *(fact.value[0] for fact in named)]
        if not wanted:
            wanted = [name for name in self._assumed_formats() if name not in left_out]
            self.assumed.append("formats")
        self.sheet["formats"] = list(dict.fromkeys(wanted))

    def _assumed_formats(self) -> tuple[str, ...]:
        moves = any(fact.value in ("moves", "may move") for fact in self._text.of("motion"))
        if moves or self._text.of("motion.max_seconds") or self._text.of("motion.max_fps"):
            return MOVING
        clear = any(fact.value in ("required", "transparent") for fact in self._text.of("transparency"))
        return TRANSPARENT if clear else USUAL_FORMATS

    def _weight(self) -> None:
        limit = self._only("max_bytes", "the weight")
        if limit:
            if limit.value < 1:
                raise Cannot("a file weighs at least one byte", limit)
            self.sheet["max_bytes"] = limit.value

    def _transparency(self) -> None:
        said = {fact.value: fact for fact in self._text.of("transparency")}
        needed = said.get("required") or said.get("transparent")
        if needed and "forbidden" in said:
            raise Cannot("transparency is needed here and forbidden there", needed, said["forbidden"])
        clear = [name for name in self.sheet["formats"] if format_named(name).alpha]
        if needed and not clear:
            raise Cannot(f"{self._labels()} cannot be transparent", needed, *self._text.of("formats")[:1])
        if "forbidden" in said:
            self.sheet["transparency"] = "forbidden"
        elif "required" in said or (needed and len(clear) == len(self.sheet["formats"])):
            self.sheet["transparency"] = "required"
        elif said:
            self.sheet["transparency"] = "allowed"

    def _labels(self) -> str:
        return " or ".join(label_of(name) for name in self.sheet["formats"])

    def _motion(self) -> None:
        said = {fact.value: fact for fact in self._text.of("motion")}
        figures = [fact for key in ("max_seconds", "max_fps", "loop") for fact in self._text.of(f"motion.{key}")]
        moving = [fact for fact in self._text.of("formats") if fact.value[1]]
        for one in moving:
            if not format_named(one.value[0]).frames:
                raise Cannot(f"{label_of(one.value[0])} cannot move", one)
        must = said.get("moves") or self._moving_alone(moving)
        may = [*moving, *(fact for fact in (must, said.get("may move")) if fact), *figures]
        if "still" in said:
            if may:
                raise Cannot("it may not move here, and moves there", said["still"], may[0])
            return
        if not may:
            return
        able = [name for name in self.sheet["formats"] if format_named(name).frames]
        if must and not able:
            raise Cannot(f"{self._labels()} cannot move", must, *self._text.of("formats")[:1])
        motion: dict[str, Any] = {"allowed": True, "required": must is not None}
        for key in ("max_seconds", "max_fps", "loop"):
            fact = self._only(
                f"motion.{key}",
                {"max_seconds": "how long it plays", "max_fps": "how fast it plays"}.get(key, "whether it loops"),
            )
            if fact:
                if key != "loop" and fact.value <= 0:
                    raise Cannot("this is no time to play", fact)
                motion[key] = fact.value
        self.sheet["motion"] = motion

    def _moving_alone(self, moving: list[Fact]) -> Fact | None:
        """Motion is required where an animated format is named first, and all that are named can move; and where all
        of them always do.
        """
        named = self._text.of("formats")
        if named and all(fact.value[1] or fact.value[0] in ALWAYS_MOVING for fact in named):
            return named[0]
        all_move = all(format_named(fact.value[0]).frames for fact in named)
        return moving[0] if moving and all_move and named[0] is moving[0] else None

    def _cut(self) -> None:
        cut = self._only("cut", "the cut")
        if cut is None:
            return
        shape, radius = cut.value
        if shape == "circle":
            self.sheet["cut"] = {"shape": "circle"}
            return
        share = self._radius(radius)
        if share is None:
            self.assumed.append("cut.radius")
        self.sheet["cut"] = {"shape": "rounded", "radius": share or USUAL_RADIUS}

    def _radius(self, radius: tuple[float, str] | None) -> float | None:
        """In shares of the short side."""
        if radius is None or not radius[0]:
            return None
        if radius[1] == "%":
            return min(radius[0] / 100, 0.5)
        size = self._stated_size()
        return min(radius[0] / min(size), 0.5) if size else None

    def _stated_size(self) -> tuple[int, int] | None:
        size = self.sheet["size"]
        known = size if "width" in size else size.get("recommended")
        return (known["width"], known["height"]) if known else None

    def _veil(self) -> None:
        veil = self._only("veil", "the veil")
        if veil:
            self.sheet["veil"] = {"colour": veil.value[0], "opacity": veil.value[1]}

    def _seen(self) -> None:
        density = self._only("seen.density", "the density of the screen")
        many = {"density": density.value} if density else {}
        widths = list(dict.fromkeys(width for fact in self._text.of("seen") for width in fact.value))
        size = self._stated_size()
        if not widths and density and size and density.value > 1:
            widths = [round(size[0] / density.value)]
        if density and not widths:
            for fact in self._text.of("seen.density"):
                self._text.give_up(fact)
        if widths:
            self.sheet["seen"] = [{"name": f"at {width} px", "width": width, **many} for width in widths]

    def _grounds(self) -> None:
        facts = self._text.of("grounds")
        if facts:
            self.sheet["grounds"] = list(dict.fromkeys(colour for fact in facts for colour in fact.value))
            said = " ".join(self._text.folded[fact.start : fact.end] for fact in facts)
            if NOT_ONE_COLOUR & set(re.findall(r"\w+", said)) and not re.search(r"(?:dark|light) gr[ae]y", said):
                self.assumed.append("grounds")

    def _count(self) -> None:
        count = self._only("capacity", "how many it takes")
        if count:
            if count.value < 1:
                raise Cannot("it has to take at least one file", count)
            self.sheet["capacity"] = count.value

    def _fields(self) -> None:
        fields: dict[str, dict[str, Any]] = {}
        for fact in self._text.of("fields"):
            label, letters = fact.value
            entry = fields.setdefault(
                label, {"name": safe_stem(label, longest=LONGEST_SLUG), "label": label.capitalize()}
            )
            if letters:
                entry["max_length"] = letters
        if fields:
            self.sheet["fields"] = list(fields.values())
