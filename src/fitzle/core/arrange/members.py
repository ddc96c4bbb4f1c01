"""The parts of a composed piece as they are arranged: boxes, capitals, shapes that stay, subjects."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Literal, NamedTuple

from fitzle.core.arrange.boxes import area, around, clipped
from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.geometry.rect import Point, Rect
from fitzle.core.geometry.shapes import box_around_words
from fitzle.core.piece.fills import PictureFill
from fitzle.core.piece.line_breaks import joined_lines
from fitzle.core.piece.parts import AnyPart, ArtworkPart, GroundPart, ShapePart, WordsPart
from fitzle.core.plan.artwork import contents
from fitzle.core.plan.placed import Placed, PlacedArtwork, PlacedWords, Plan
from fitzle.core.plan.standing import rotated_size
from fitzle.core.plan.words import setting_of
from fitzle.core.type.setting import Align
from fitzle.core.type.tables import TableRow, WordTable, word_table
from fitzle.core.units import Size

Kind = Literal["words", "mark", "picture", "shape"]
Edge = Literal["left", "top", "right", "bottom"]
IMPORTANCE: dict[str, float] = {
    "headline": 1.0, "mark": 0.8, "picture": 0.7, "second line": 0.5, "badge": 0.45, "byline": 0.3, "shape": 0.2,
}  # fmt: skip
BACKDROP = 0.85  # of the picture: what covers more lies behind everything
TOUCHING_PX = 1.0
SUBJECT_SHARE = 0.42  # of the short side of a picture of which nobody said what it shows
FACE_ROOM = (0.15, 0.35, 1.3, 1.55)  # hair and chin around a face, in its width and height
FREE_SHAPES = ("rectangle", "rounded")  # that may take another ratio


class Subject(NamedTuple):
    """What a picture shows: all of it that can be seen, what matters of it (both px of the artwork), faces or not."""

    whole: Rect
    box: Rect
    faces: bool


class Member(NamedTuple):
    """One part. `box` in px of the composed picture, outline and plate included; `depth` counts from the back.

    Words have `capital_px`, the height of a capital, and their `table`, those with line breaks of their own that may go
    also that without (`soft`); `ratio` is a shape that stays (None: any).
    `bleeds` are the edges of the picture that it reaches, a `backdrop` lies behind everything.
    """

    part: str
    role: str
    kind: Kind
    box: Rect
    depth: int
    capital_px: float = 0.0
    table: WordTable | None = None
    lines: int = 1
    align: Align = "left"
    ratio: float | None = None
    bleeds: frozenset[Edge] = frozenset()
    backdrop: bool = False
    subject: Subject | None = None
    soft: WordTable | None = None

    @property
    def importance(self) -> float:
        """0 to 1: what gives way first is what matters least."""
        return IMPORTANCE[self.role]


def members_of(plan: Plan, parts: Sequence[AnyPart], facts: Mapping[str, ArtworkFacts]) -> list[Member]:
    """The parts of a plan, back to front; a ground that is a picture is the first of them."""
    by_id = {part.id: part for part in parts}
    ground = [
        _ground(part.id, part.fill, plan.size, facts)
        for part in parts
        if isinstance(part, GroundPart) and isinstance(part.fill, PictureFill) and not part.hidden
    ]
    return [
        *ground,
        *(_member(placed, by_id[placed.part], depth, plan.size, facts) for depth, placed in enumerate(plan.parts)),
    ]


def subject_of(whole: Rect, facts: ArtworkFacts, looked_at: Point) -> Subject:
    """What matters of a picture: its faces with room around them, else a square about a point (px of the artwork)."""
    if facts.faces:
        left, top, across, down = FACE_ROOM
        faces = around(
            Rect(face.x - left * face.width, face.y - top * face.height, across * face.width, down * face.height)
            for face in facts.faces
        )
        return Subject(whole, clipped(faces, whole), True)
    side = SUBJECT_SHARE * min(whole.width, whole.height)
    x = min(max(looked_at.x - side / 2, whole.x), whole.right - side)
    y = min(max(looked_at.y - side / 2, whole.y), whole.bottom - side)
    return Subject(whole, Rect(x, y, side, side), False)


def _ground(part: str, fill: PictureFill, size: Size, facts: Mapping[str, ArtworkFacts]) -> Member:
    own = facts[fill.artwork]
    whole = Rect(0, 0, own.width, own.height)
    at = fill.focal_point
    looked_at = Point(at.x * own.width, at.y * own.height) if at else whole.centre
    subject = subject_of(whole, own, looked_at)
    return Member(part, "picture", "picture", Rect(0, 0, *size), -1, backdrop=True, subject=subject)


def _member(placed: Placed, part: AnyPart, depth: int, size: Size, facts: Mapping[str, ArtworkFacts]) -> Member:
    box = _upright(placed)
    if isinstance(placed, PlacedWords):
        assert isinstance(part, WordsPart)
        return _words(placed, part, depth, size)
    member = Member(placed.part, placed.role, _kind(part), box, depth, ratio=_kept_ratio(placed, part, box))
    if isinstance(part, ArtworkPart) and isinstance(placed, PlacedArtwork) and part.role == "picture":
        whole, own = contents(part, facts[part.artwork]), facts[part.artwork]
        at = part.focal_point
        looked_at = Point(at.x * own.width, at.y * own.height) if at else placed.window.centre
        member = member._replace(subject=subject_of(whole, own, looked_at))
    if member.kind == "mark":
        return member
    picture = Rect(0, 0, *size)
    covers = area(clipped(box, picture)) >= BACKDROP * area(picture)
    return member._replace(bleeds=_edges(box, size), backdrop=covers)


def _words(placed: PlacedWords, part: WordsPart, depth: int, size: Size) -> Member:
    setting = setting_of(part, size)._replace(align="left", vertical_align="middle", largest_px=None)
    capital = placed.layout.cap_height_px
    box = placed.box
    by = setting.reach * capital
    box = Rect(box.x - by, box.y - by, box.width + 2 * by, box.height + 2 * by)
    table = word_table(part.as_set, setting)
    joined = joined_lines(part.text) if part.line_breaks == "flexible" else part.as_set
    soft = word_table(joined, setting) if joined != part.as_set else None
    if part.plate and part.plate.shape:
        shape = part.plate.shape
        box, table = box_around_words(shape, box), _in_shape(table, shape)
        soft = _in_shape(soft, shape) if soft else None
    turned = rotated_size(box, part.rotation)
    centre = box.centre
    upright = Rect(centre.x - turned[0] / 2, centre.y - turned[1] / 2, *turned)
    lines = len(placed.layout.lines)
    return Member(placed.part, placed.role, "words", upright, depth, capital, table, lines, part.align, soft=soft)


def _in_shape(table: WordTable, shape: str) -> WordTable:
    """What words take up with the shape around them."""
    rows = []
    for row in table.rows:
        box = box_around_words(shape, Rect(0, 0, row.width, row.height))
        rows.append(TableRow(row.lines, box.width, box.height))
    return table._replace(rows=tuple(rows))


def _upright(placed: Placed) -> Rect:
    """The box around a part that may be turned."""
    width, height = rotated_size(placed.box, placed.look.rotation)
    centre = placed.box.centre
    return Rect(centre.x - width / 2, centre.y - height / 2, width, height)


def _kind(part: AnyPart) -> Kind:
    if isinstance(part, ArtworkPart):
        return part.role
    return "shape"


def _kept_ratio(placed: Placed, part: AnyPart, box: Rect) -> float | None:
    """The ratio of a mark, of a picture that is cut to an outline and of shapes that would be distorted."""
    if isinstance(part, ArtworkPart) and isinstance(placed, PlacedArtwork):
        if part.role == "mark":
            return box.ratio if part.die else placed.window.ratio
        return box.ratio if part.die else None
    return box.ratio if isinstance(part, ShapePart) and part.shape not in FREE_SHAPES else None


def _edges(box: Rect, size: Size) -> frozenset[Edge]:
    reached: dict[Edge, bool] = {
        "left": box.x <= TOUCHING_PX,
        "top": box.y <= TOUCHING_PX,
        "right": box.right >= size.width - TOUCHING_PX,
        "bottom": box.bottom >= size.height - TOUCHING_PX,
    }
    return frozenset(edge for edge, touches in reached.items() if touches)
