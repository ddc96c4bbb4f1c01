"""Made screenshots in which a picture stands, with all that is true of them.

Pages with lines of words and other pictures; the picture on them scaled, cut, veiled, written over, and all of it
packed as JPEG. Everything follows from a number.
"""

from __future__ import annotations

import io
import math
from pathlib import Path
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray
from PIL import Image, ImageDraw, ImageFilter, ImageFont

ROOT = Path(__file__).parents[1]
PAGES = ((1280, 720), (1366, 900), (1440, 900), (1920, 1080), (2560, 1440), (1024, 768))
KINDS = (
    "plain", "card", "hero", "avatar", "mark", "window", "series", "twice", "background", "small", "banner", "covered",
)  # fmt: skip
ABSENT = ("relatives", "others", "nothing")
WORDS = "north harbour slow bread winter evening lessons garden river quiet maps stone paper summer light notes".split()
FILTERS = (Image.Resampling.LANCZOS, Image.Resampling.BICUBIC, Image.Resampling.BILINEAR, Image.Resampling.BOX)

Box = tuple[float, float, float, float]  # left, top, right, bottom
Colour = tuple[int, int, int]


class Truth(NamedTuple):
    """One place: px of the screenshot, but for `window`, which is in px of the picture."""

    box: Box
    window: Box
    cut: str
    radius: float
    veil: tuple[Colour, float] | None
    zones: tuple[Box, ...]
    scale: float


class Case(NamedTuple):
    """A picture, a screenshot, and where the one stands in the other."""

    name: str
    picture: NDArray[np.uint8]
    shot: NDArray[np.uint8]
    truths: tuple[Truth, ...]


class Maker:
    """Draws by chance, but the same for the same number; with `photos` those stand for made pictures."""

    def __init__(self, number: int, photos: list[Path] | None = None) -> None:
        self.chance = np.random.default_rng(52_000 + number)
        self.photos = list(photos or [])

    def one_of(self, options: tuple[object, ...]) -> object:
        """One of several."""
        return options[int(self.chance.integers(len(options)))]

    def between(self, low: float, high: float) -> float:
        """A number, evenly."""
        return float(self.chance.uniform(low, high))

    def whole(self, low: int, high: int) -> int:
        """A whole number, both ends among them."""
        return int(self.chance.integers(low, high + 1))

    def colour(self, low: int = 0, high: int = 255) -> Colour:
        """A colour."""
        red, green, blue = (self.whole(low, high) for _ in range(3))
        return red, green, blue

    def words(self, count: int) -> str:
        """Some words."""
        return " ".join(str(self.one_of(tuple(WORDS))) for _ in range(count)).title()

    def face(self, size: float) -> ImageFont.FreeTypeFont:
        """A typeface."""
        faces = sorted((ROOT / "var" / "typefaces").glob("*-latin-[47]00-normal.ttf"))
        return ImageFont.truetype(str(faces[self.whole(0, len(faces) - 1)]), max(8, int(size)))

    def photo(self, long: int) -> Image.Image:
        """A picture with detail at all sizes, `long` px on its long side."""
        if self.photos:
            number = self.whole(0, len(self.photos) - 1)
            # Each photo once: another crop of the same one beside it would be no other picture.
            whole = Image.open(self.photos.pop(number) if len(self.photos) > 1 else self.photos[0]).convert("RGB")
            share = self.between(0.7, 1)
            width, height = int(whole.width * share), int(whole.height * self.between(0.7, 1))
            x, y = self.whole(0, whole.width - width), self.whole(0, whole.height - height)
            return _to_long(whole.crop((x, y, x + width, y + height)), long)
        return self.painted(long, self.between(0.5, 1))

    def painted(self, long: int, ratio: float) -> Image.Image:
        """Clouds of colours with shapes before them, and grain."""
        width, height = (long, int(long * ratio)) if self.chance.random() < 0.75 else (int(long * ratio), long)
        field = np.zeros((height, width, 3), np.float32)
        cells = self.whole(3, 6)
        while cells < min(width, height):
            grid = self.chance.normal(0, 1, (cells, max(2, cells * width // height), 3)).astype(np.float32)
            layer = np.stack(
                [np.asarray(Image.fromarray(grid[..., c]).resize((width, height), 3)) for c in range(3)], -1
            )
            field += layer * 46 * (3 / cells) ** 0.75
            cells *= 2
        picture = Image.fromarray((field + np.array(self.colour(60, 190))).clip(0, 255).astype(np.uint8))
        draw = ImageDraw.Draw(picture)
        for _ in range(self.whole(3, 9)):
            size = self.between(0.06, 0.4) * min(width, height)
            x, y = self.between(0, width), self.between(0, height)
            box = (x - size, y - size * self.between(0.4, 1), x + size, y + size * self.between(0.4, 1))
            shape = self.one_of((draw.ellipse, draw.rectangle))
            shape(box, fill=self.colour())  # type: ignore[operator]
        picture = picture.filter(ImageFilter.GaussianBlur(self.between(0, 0.9)))
        grain = self.chance.normal(0, 3.5, (height, width, 1))
        return Image.fromarray((np.asarray(picture, np.float32) + grain).clip(0, 255).astype(np.uint8))

    def mark(self, long: int) -> Image.Image:
        """A logo on a flat ground."""
        picture = Image.new("RGB", (long, int(long * self.between(0.35, 1))), self.one_of(((255,) * 3, (20, 24, 40))))  # type: ignore[arg-type]
        draw, short = ImageDraw.Draw(picture), min(picture.size)
        x, y, r = picture.width * 0.22, picture.height * 0.5, short * 0.26
        ink = self.colour(40, 200)
        draw.ellipse((x - r, y - r, x + r, y + r), fill=ink)
        draw.polygon(
            [(x - r * 0.6, y + r * 0.5), (x, y - r * 0.7), (x + r * 0.6, y + r * 0.5)], fill=self.colour(120, 255)
        )
        place = (x + r * 1.3, picture.height * 0.36)
        draw.text(place, self.words(1), font=self.face(picture.height * 0.25), fill=self.colour(60, 200))
        return picture

    def series(self, long: int, count: int = 3) -> list[Image.Image]:
        """Members of one series: the words differ, and nothing else."""
        ground, ink = self.photo(long), self.colour(200, 255)
        x, y = self.between(0.05, 0.25) * ground.width, self.between(0.1, 0.45) * ground.height
        face, large = self.face(ground.height * 0.13), self.face(ground.height * 0.24)
        found = []
        for _ in range(count):
            member = ground.copy()
            draw = ImageDraw.Draw(member)
            draw.text((x, y), self.words(2), font=face, fill=ink)
            draw.text((x, y + ground.height * 0.2), f"No {self.whole(10, 98)}", font=large, fill=ink)
            found.append(member)
        return found

    def page(self, width: int, height: int) -> tuple[Image.Image, Colour]:
        """A page of words, and its ground."""
        ground: Colour = self.one_of(((255, 255, 255), (245, 246, 248), (24, 26, 30), (250, 247, 240)))  # type: ignore[assignment]
        shot = Image.new("RGB", (width, height), ground)
        draw = ImageDraw.Draw(shot)
        ink = (34, 34, 38) if sum(ground) > 380 else (222, 224, 228)
        draw.rectangle((0, 0, width, self.whole(40, 74)), fill=self.one_of((ground, self.colour(), (18, 18, 22))))  # type: ignore[arg-type]
        y = 100.0
        while y < height - 20:
            face = self.face(float(self.one_of((13, 14, 16, 16, 26))))  # type: ignore[arg-type]
            x = float(self.one_of((30, width * 0.3, width * 0.6)))  # type: ignore[arg-type]
            draw.text((x, y), self.words(self.whole(2, 12)), font=face, fill=ink)
            y += self.between(22, 90)
        return shot, ground


def _to_long(picture: Image.Image, long: int) -> Image.Image:
    scale = long / max(picture.size)
    return picture.resize((max(64, round(picture.width * scale)), max(64, round(picture.height * scale))), 1)


def _mask(width: int, height: int, cut: str, radius: float) -> Image.Image:
    if cut == "none":
        return Image.new("L", (width, height), 255)
    fine = Image.new("L", (width * 4, height * 4), 0)
    draw = ImageDraw.Draw(fine)
    box = (0, 0, width * 4 - 1, height * 4 - 1)
    draw.ellipse(box, fill=255) if cut == "circle" else draw.rounded_rectangle(box, radius * 4, fill=255)
    return fine.resize((width, height), Image.Resampling.BOX)


class Look(NamedTuple):
    """How a picture is shown."""

    cut: str = "none"
    radius: float = 0.0
    veil: tuple[Colour, float] | None = None
    zones: int = 0
    zoom: float = 1.0
    x: float = 0.5
    y: float = 0.5


def put(make: Maker, shot: Image.Image, picture: Image.Image, box: tuple[int, int, int, int], look: Look) -> Truth:
    """Shows a picture in a box (x, y, width, height) of a page, filling it."""
    x, y, width, height = box
    whole_width, whole_height = picture.size
    shown = (whole_width, whole_width * height / width)
    if shown[1] > whole_height:
        shown = (whole_height * width / height, whole_height)
    shown = (shown[0] / look.zoom, shown[1] / look.zoom)
    left, top = (whole_width - shown[0]) * look.x, (whole_height - shown[1]) * look.y
    window = (left, top, left + shown[0], top + shown[1])
    scale = width / shown[0]
    way = FILTERS[make.whole(0, 2 if scale > 1 else 3)]
    drawn = picture.resize((width, height), way, box=window)
    if look.veil:
        drawn = Image.blend(drawn, Image.new("RGB", drawn.size, look.veil[0]), look.veil[1])
    shot.paste(drawn, (x, y), _mask(width, height, look.cut, look.radius))
    zones = _cover(make, shot, box, look)
    return Truth(
        (x, y, x + width, y + height), window, look.cut, look.radius, look.veil, zones, scale
    )  # fmt: skip


def _cover(make: Maker, shot: Image.Image, box: tuple[int, int, int, int], look: Look) -> tuple[Box, ...]:
    x, y, width, height = box
    draw, zones = ImageDraw.Draw(shot), list[Box]()
    for _ in range(look.zones):
        kind = "disc" if look.cut == "circle" else str(make.one_of(("title", "badge", "disc", "pill")))
        face = make.face(max(12, min(height * make.between(0.08, 0.15), 64)))
        text = make.words(make.whole(1, 3))
        size = {
            "title": draw.textbbox((0, 0), text, font=face)[2:],
            "badge": (max(16, width * make.between(0.14, 0.3)), max(12, height * make.between(0.1, 0.2))),
            "disc": (max(12, min(width, height) * 0.24),) * 2,
            "pill": (max(26, width * 0.2), max(13, height * 0.1)),
        }[kind]
        if size[0] > width * 0.9 or size[1] > height * 0.5:
            continue
        for _try in range(30):
            left = x + make.between(0.04, max(0.04, 0.96 - size[0] / width)) * width
            top = y + make.between(0.04, max(0.04, 0.96 - size[1] / height)) * height
            zone = (round(left), round(top), round(left + size[0]), round(top + size[1]))
            if all(zone[0] > z[2] + 8 or zone[2] < z[0] - 8 or zone[1] > z[3] + 8 or zone[3] < z[1] - 8 for z in zones):
                break
        else:
            continue
        bright = float(np.asarray(shot.crop(zone)).mean())
        if kind == "title":
            draw.text(zone[:2], text, font=face, fill=(255,) * 3 if bright < 128 else (10,) * 3)
            zones.append(tuple(float(v) for v in draw.textbbox(zone[:2], text, font=face)))  # type: ignore[arg-type]
            continue
        fill = make.colour(0, 90) if bright > 120 else make.colour(170, 255)
        shape = {"badge": draw.rectangle, "disc": draw.ellipse}.get(kind)
        inner = (zone[0], zone[1], zone[2] - 1, zone[3] - 1)
        shape(inner, fill=fill) if shape else draw.rounded_rectangle(inner, (zone[3] - zone[1]) / 2, fill=fill)
        zones.append(tuple(float(v) for v in zone))  # type: ignore[arg-type]
    return tuple(zones)


def _room(
    make: Maker, page: tuple[int, int], picture: Image.Image, sides: tuple[float, float], ratio: float
) -> tuple[int, int, int, int]:
    """A box of this ratio somewhere on a page, at a scale between 0.1 and 3."""
    width, height = page
    least, most = (
        max(sides[0], 0.1 * picture.width),
        min(sides[1], 3 * picture.width, width - 60, (height - 140) * ratio),
    )
    least = min(least, most)
    across = int(math.exp(make.between(math.log(least), math.log(most))))
    down = max(16, round(across / ratio))
    x, y = make.whole(20, max(20, width - across - 20)), make.whole(90, max(90, height - down - 20))
    return x, y, across, down


def _veil(make: Maker) -> tuple[Colour, float]:
    colour: Colour = make.one_of(((0, 0, 0), (0, 0, 0), (255, 255, 255), make.colour()))  # type: ignore[assignment]
    return colour, round(make.between(0.1, 0.6), 2)


SIDES = {
    "card": (120, 900), "hero": (700, 2500), "avatar": (48, 320), "window": (150, 1000), "small": (44, 110),
    "banner": (500, 1400), "covered": (240, 900), "mark": (90, 600),
}  # fmt: skip


def _shown(
    make: Maker, kind: str, page: tuple[int, int], picture: Image.Image
) -> tuple[tuple[int, int, int, int], Look]:
    own = picture.width / picture.height
    place = {"x": make.between(0, 1), "y": make.between(0, 1)} if make.chance.random() < 0.4 else {}
    if kind == "background":
        top = int(make.one_of((0, 60)))  # type: ignore[call-overload]
        tall = min(page[1] - top, max(200, int(page[1] * make.between(0.5, 1))))
        return (0, top, page[0], tall), Look(veil=_veil(make), zones=3, **place)
    ratios: dict[str, tuple[float, ...]] = {
        "card": (own, 16 / 9, 1.0, 4 / 3), "hero": (16 / 9, 21 / 9, 3.0), "avatar": (1.0,), "banner": (own * 2.4,),
        "window": (own * 0.5, own * 0.7, own * 1.5, own * 2.0),
    }  # fmt: skip
    box = _room(make, page, picture, SIDES.get(kind, (150, 900)), float(make.one_of(ratios.get(kind, (own,)))))  # type: ignore[arg-type]
    looks = {
        "card": Look("rounded", make.whole(5, max(6, min(box[2:]) // 6)), zones=make.whole(0, 2)),
        "hero": Look(veil=_veil(make), zones=make.whole(1, 3)),
        "avatar": Look("circle", zones=make.whole(0, 1)),
        "window": Look(zones=make.whole(0, 1), zoom=float(make.one_of((1, 1.3)))),  # type: ignore[arg-type]
        "covered": Look(zones=3, veil=_veil(make) if make.chance.random() < 0.4 else None),
        "small": Look(),
        "mark": Look(),
    }
    return box, looks.get(kind, Look(zones=make.whole(0, 1)))._replace(**place)


def _others(make: Maker, shot: Image.Image, relatives: list[Image.Image], taken: list[Box]) -> None:
    """Other pictures around."""
    width, height = shot.size
    for number in range(12):
        box = (40 + number % 4 * (width // 4), 120 + number // 4 * (height // 4), int(width * 0.17), int(height * 0.18))
        if any(
            box[0] < t[2] + 8 and box[0] + box[2] > t[0] - 8 and box[1] < t[3] + 8 and box[1] + box[3] > t[1] - 8
            for t in taken
        ):
            continue
        other = relatives[number % len(relatives)] if relatives and number % 3 else make.photo(500)
        put(make, shot, other, box, Look())


def made_case(number: int, *, absent: bool = False, photos: list[Path] | None = None) -> Case:
    """One case; its kind goes by its number."""
    make = Maker(number + (10_000 if absent else 0), photos)
    kind = (ABSENT if absent else KINDS)[number % len(ABSENT if absent else KINDS)]
    page: tuple[int, int] = make.one_of(PAGES)  # type: ignore[assignment]
    long = int(math.exp(make.between(math.log(260), math.log(4500))))
    relatives: list[Image.Image] = []
    if kind in ("series", "relatives"):
        picture, *relatives = make.series(long)
    else:
        picture = make.mark(long) if kind == "mark" else make.photo(long)
    shot, _ = make.page(*page)
    truths: list[Truth] = []
    if not absent:
        box, look = _shown(make, kind, page, picture)
        if box[2] / picture.width > 3.2:
            box = (box[0], box[1], 3 * picture.width, max(16, round(3 * picture.width * box[3] / box[2])))
        taken: list[Box] = [(box[0], box[1], box[0] + box[2], box[1] + box[3])]
        second = _second(make, page, picture, taken[0]) if kind == "twice" else None
        if second:
            taken.append((second[0], second[1], second[0] + second[2], second[1] + second[3]))
        if kind != "background":
            _others(make, shot, relatives, taken)
        truths.append(put(make, shot, picture, box, look))
        if second:
            truths.append(put(make, shot, picture, second, Look()))
    elif kind != "nothing":
        _others(make, shot, relatives, [])
    return _packed(make, f"{kind}-{number}", picture, shot, truths)


def _second(make: Maker, page: tuple[int, int], picture: Image.Image, first: Box) -> tuple[int, int, int, int] | None:
    for _ in range(60):
        box = _room(make, page, picture, (110, 300), picture.width / picture.height)
        if (
            box[0] > first[2] + 10
            or box[0] + box[2] < first[0] - 10
            or box[1] > first[3] + 10
            or box[1] + box[3] < first[1] - 10
        ):
            return box
    return None


def _packed(make: Maker, name: str, picture: Image.Image, shot: Image.Image, truths: list[Truth]) -> Case:
    """As JPEG, and at times scaled as a whole: then boxes have fractions."""
    if make.chance.random() < 0.3:
        share = make.between(0.65, 0.95)
        size = (round(shot.width * share), round(shot.height * share))
        across, down = size[0] / shot.width, size[1] / shot.height
        shot = shot.resize(size, FILTERS[make.whole(0, 2)])
        truths = [_scaled(one, across, down) for one in truths]
    out = io.BytesIO()
    shot.save(out, "JPEG", quality=make.whole(60, 95), subsampling=make.whole(0, 1) * 2)
    packed = np.asarray(Image.open(io.BytesIO(out.getvalue())).convert("RGB"))
    return Case(name, np.asarray(picture), packed, tuple(truths))


def _scaled(one: Truth, across: float, down: float) -> Truth:
    def box(old: Box) -> Box:
        return old[0] * across, old[1] * down, old[2] * across, old[3] * down

    return one._replace(
        box=box(one.box), radius=one.radius * across, zones=tuple(box(z) for z in one.zones), scale=one.scale * across
    )
