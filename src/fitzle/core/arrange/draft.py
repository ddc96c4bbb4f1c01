"""An arrangement that may be taken: where every part would stand, and what of pictures would show."""

from __future__ import annotations

from functools import cached_property

from fitzle.core.arrange.intent import Intent
from fitzle.core.arrange.laying import Laid
from fitzle.core.arrange.members import Member
from fitzle.core.arrange.place import Place
from fitzle.core.arrange.windows import Shown, best_window
from fitzle.core.geometry.fitting import fill_window
from fitzle.core.geometry.rect import Point, Rect


class Draft:
    """Boxes of all kept parts, backdrops among them; worked out from them: windows, and what stands free."""

    def __init__(self, intent: Intent, place: Place, laid: Laid, kept: frozenset[str]) -> None:
        self.intent, self.place, self.kept = intent, place, kept
        whole = Rect(0, 0, place.size.width, place.size.height)
        behind = {one.part: whole for one in intent.members.values() if one.backdrop and one.part in kept}
        self.boxes = {**behind, **laid.boxes}
        self.capitals, self.aligned = laid.capitals, laid.aligned

    @cached_property
    def front(self) -> list[Member]:
        """What is not behind everything, back to front."""
        found = [self.intent.members[part] for part in self.boxes if not self.intent.members[part].backdrop]
        return sorted(found, key=lambda member: member.depth)

    @cached_property
    def solid(self) -> list[Member]:
        """Of that what is no panel: panels are there to be written on."""
        return [member for member in self.front if member.part not in self.intent.groups.panels]

    @cached_property
    def windows(self) -> dict[str, Shown]:
        """What of each picture shows, chosen so that its subject does and is not written over."""
        found = {}
        for member in self.intent.members.values():
            if member.subject and member.part in self.boxes:
                box, over = self.boxes[member.part], self._over(member)
                found[member.part] = best_window(member.subject, box, over, _kept_at(member, self.intent))
        return found

    def meant(self, one: Member, other: Member) -> bool:
        """Whether two parts lie over each other on purpose."""
        return frozenset((one.part, other.part)) in self.intent.groups.meant

    def _over(self, picture: Member) -> list[Rect]:
        """What stands over a picture without being meant to."""
        above = self.front if picture.backdrop else self.solid
        return [
            self.boxes[other.part]
            for other in above
            if other.part != picture.part and other.depth > picture.depth and not self.meant(picture, other)
        ]


def _kept_at(member: Member, intent: Intent) -> Point:
    """Where in its window the subject of a picture stood; of one in a frame of its own, in the middle."""
    assert member.subject
    if not member.backdrop:
        return Point(0.5, 0.5)
    whole, own = member.subject.whole, member.subject.box
    middle = Point((own.centre.x - whole.x) / whole.width, (own.centre.y - whole.y) / whole.height)
    window = fill_window(whole, intent.size.width / intent.size.height, middle)
    return Point((own.centre.x - window.x) / window.width, (own.centre.y - window.y) / window.height)
