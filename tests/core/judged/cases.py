"""The cases: a piece for a place, what must be found in it, and what must not.

`held` ones were made after every threshold was chosen; the others are those that thresholds were looked at with.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field
from typing import Any

from demo.marks import MARKS

from tests.core.composed import mark, picture, piece, shape, words
from tests.core.judged import drawings as draw
from tests.make import solid

# Every rule that needs eyes; what is refused is judged by other rules.
EYE = frozenset(
    "letters contrast busy strokes smudge crowded covered clearance enlarging box halo stretched clash merging"
    " off-centre".split()
)


@dataclass(frozen=True)
class Case:
    """One picture. A good one (`must` is empty) gets nothing risky; a bad one gets `must`, and perhaps `may`."""

    name: str
    document: dict[str, Any]
    place: dict[str, Any]
    files: dict[str, bytes | str] = field(default_factory=dict)
    must: frozenset[str] = frozenset()
    may: frozenset[str] = frozenset()
    held: bool = True


def seen(*widths: int, density: float = 1) -> list[dict[str, Any]]:
    return [{"name": f"a list, {width} px", "width": width, "density": density} for width in widths]


def wide(**more: Any) -> dict[str, Any]:
    return {"size": {"width": 640, "height": 360}, "formats": ["png"], "max_bytes": None, **more}


def square(side: int = 256, **more: Any) -> dict[str, Any]:
    return {
        "size": {"width": side, "height": side},
        "formats": ["png"],
        "max_bytes": None,
        "grounds": ["#ffffff"],
        **more,
    }


def _case(name: str, *args: Any, must: str = "", may: str = "", held: bool = True, **files: bytes | str) -> Case:
    document, place = args
    return Case(name, document, place, files, frozenset(must.split()), frozenset(may.split()), held)


def standing(x: float, y: float, width: float, height: float, anchor: str = "centre") -> dict[str, Any]:
    return {"stands": {"anchor": anchor, "dx": x, "dy": y, "width": width, "height": height}}


def letters_cases() -> Iterator[Case]:
    def said(
        name: str, text: str, family: str, height: float, at: int, must: str, density: float = 1, **more: Any
    ) -> Case:
        document = piece(
            words(text, family=family, weight=more.pop("weight", 700), colour="#17443c", **standing(0, 0, 1.7, height)),
            ground=solid("#ffffff"),
        )
        return _case(
            f"letters {name}", document, wide(seen=seen(at, density=density)), must=must, may="crowded", **more
        )

    yield said("chosen large", "Truing a wheel", "Work Sans", 0.3, 320, "", held=False)
    yield said("chosen tiny", "Truing a wheel", "Work Sans", 0.08, 160, "letters", held=False)
    yield said("card", "Spring opening", "Lora", 0.35, 320, "")
    yield said("card small", "Spring opening", "Lora", 0.05, 320, "letters")
    yield said("condensed capitals", "BELLS AND BASKETS", "Barlow Condensed", 0.07, 200, "letters")
    yield said("condensed capitals large", "BELLS AND BASKETS", "Barlow Condensed", 0.3, 300, "")
    yield said("rounded", "Bells", "Nunito", 0.3, 160, "")
    yield said("rounded small", "Bells and baskets for every errand in town", "Nunito", 0.09, 150, "letters")
    yield said("dense screen", "Bring a tube", "Rubik", 0.13, 200, "", density=2)
    yield said("dense screen small", "Bring a tube", "Rubik", 0.045, 240, "letters", density=2)
    yield said("script", "Evening ride", "Caveat", 0.4, 400, "")
    yield said("script small", "Evening ride", "Caveat", 0.07, 300, "letters")
    yield said("mono", "chain 9 speed", "Space Mono", 0.25, 300, "")
    yield said("mono small", "chain 9 speed", "Space Mono", 0.06, 240, "letters")
    yield said("heavy", "Brakes", "Anton", 0.35, 168, "")
    yield said("heavy small", "Brakes that hold on every hill", "Anton", 0.07, 168, "letters")


def contrast_cases() -> Iterator[Case]:
    def on(
        name: str, colour: str, ground: Any, must: str, may: str = "busy merging clash", held: bool = True, **files: Any
    ) -> Case:
        text = words("Winter tyres", colour=colour, **standing(0, 0, 1.5, 0.4))
        document = (
            piece(text, ground=solid(ground)) if isinstance(ground, str) else piece(picture(artwork="back"), text)
        )
        if not isinstance(ground, str):
            files["back"] = ground
        return _case(
            f"contrast {name}", document, wide(seen=seen(480)), must=must, may=may if must else "", held=held, **files
        )

    yield on("chosen grey on white", "#c9cfd2", "#ffffff", "contrast", held=False)
    yield on("chosen green on cream", "#17443c", "#f6e7b8", "", held=False)
    yield on("yellow on white", "#f4d06f", "#ffffff", "contrast")
    yield on("white on yellow", "#ffffff", "#f4d06f", "contrast")
    yield on("rust on green", "#7a3b14", "#17443c", "contrast")
    yield on("blue on black", "#1a2a7a", "#111111", "contrast")
    yield on("mid grey on mid grey", "#808080", "#9a9a9a", "contrast")
    yield on("white on green", "#ffffff", "#17443c", "")
    yield on("black on rust", "#111111", "#e08a4f", "")
    yield on("cream on navy", "#f6e7b8", "#1b2a49", "")
    yield on("white on light mist", "#ffffff", draw.soft(1, 170, 240), "contrast")
    yield on("white on dark mist", "#ffffff", draw.soft(2, 10, 70), "")
    yield on("black on light mist", "#111111", draw.soft(3, 180, 250), "")
    yield on("dark green on dark mist", "#17443c", draw.soft(4, 10, 60), "contrast")
    yield on("words over a light ramp", "#ffffff", draw.ramp("#17443c", "#f6e7b8"), "contrast")
    for name, colour, grounds, must in [
        ("white mark on a light page", "#ffffff", ["#ffffff"], "contrast"),
        ("pale mark on cream", "#f4e3b0", ["#fbf3da"], "contrast"),
        ("dark mark on dark", "#20302c", ["#111111"], "contrast"),
        ("dark mark on both", "#17443c", ["#ffffff", "#111111"], "contrast"),
        ("mid mark on both", "#8a6a3c", ["#ffffff", "#111111"], ""),
        ("dark mark on white", "#17443c", ["#ffffff"], ""),
    ]:
        yield _case(
            f"contrast {name}",
            piece(mark("m")),
            square(grounds=grounds, seen=seen(128)),
            must=must,
            m=draw.star(colour),
        )
    veil = {"colour": "#000000", "opacity": 0.5}
    dim = piece(words("Basics", colour="#6b6b6b", **standing(0, 0, 1.5, 0.5)), ground=solid("#e8e8e8"))
    yield _case("contrast grey under a veil", dim, wide(veil=veil, seen=seen(480)), must="contrast", may="busy")
    bright = piece(words("Basics", colour="#ffffff", **standing(0, 0, 1.5, 0.5)), ground=solid("#777777"))
    yield _case("contrast white under a veil", bright, wide(veil=veil, seen=seen(480)), must="contrast", may="busy")
    dark = piece(words("Basics", colour="#ffffff", **standing(0, 0, 1.5, 0.5)), ground=solid("#17443c"))
    yield _case("contrast white on green under a veil", dark, wide(veil={**veil, "opacity": 0.3}, seen=seen(480)))


def busy_cases() -> Iterator[Case]:
    def over(
        name: str, back: bytes, colour: str, must: str, held: bool = True, text: str = "True a wheel", **more: Any
    ) -> Case:
        document = piece(picture(artwork="back"), words(text, colour=colour, **{**standing(0, 0, 1.2, 0.6), **more}))
        return _case(
            f"busy {name}",
            document,
            wide(seen=seen(480)),
            must=must,
            may="contrast crowded merging clash" if must else "",
            held=held,
            back=back,
        )

    yield over("chosen foliage", draw.foliage(1, "#173a2a", "#8fc46a"), "#f6e7b8", "busy", held=False)
    yield over(
        "chosen wheel edge", draw.rings("#d78c46", "#111111", 420, 240, 90, 9, 12), "#111111", "busy", held=False
    )
    yield over("chosen mist", draw.soft(5, 10, 60), "#ffffff", "", held=False)
    yield over("foliage of other greens", draw.foliage(7, "#0f2a12", "#c6e08a", 16), "#ffffff", "busy")
    yield over("coarse foliage", draw.foliage(8, "#224422", "#e0efc0", 44), "#f4d06f", "busy")
    yield over("bookshelf", draw.shelf(2, ("#1b2a49", "#f6e7b8", "#7a3b14", "#cfd8dc")), "#f6e7b8", "busy")
    yield over("bookshelf with black words", draw.shelf(3, ("#111111", "#f6e7b8", "#cfd8dc"), 34), "#111111", "busy")
    yield over("checker", draw.checker("#111111", "#8a8a8a", 12), "#ffffff", "busy")
    yield over("checker of its tone", draw.checker("#ffffff", "#17443c", 40), "#ffffff", "busy")
    yield over("a thick wheel", draw.rings("#f4d06f", "#1c2324", 300, 180, 100, 26), "#1c2324", "busy")
    yield over(
        "a tyre under one letter",
        draw.rings("#e8c9a0", "#111111", 500, 250, 110, 12),
        "#111111",
        "busy",
        **standing(0, 0, 1.45, 0.7),
    )
    yield over("half of it on white", draw.halves("#17443c", "#ffffff", 0.55), "#ffffff", "busy")
    yield over("a bar through it", draw.bars("#f6e7b8", "#111111", [0.36, 0.64], 14), "#111111", "busy")
    yield over(
        "thin lines through it", draw.bars("#f6e7b8", "#111111", [0.3, 0.36, 0.42, 0.6, 0.66], 5), "#111111", "busy"
    )
    yield over("mist, dark", draw.soft(9, 5, 70), "#f6e7b8", "")
    yield over("mist, light", draw.soft(10, 190, 250), "#17443c", "")
    yield over("a calm ramp", draw.ramp("#102a24", "#2f6a58"), "#ffffff", "")
    yield over("strong grain", draw.soft(11, 20, 50, grain=9), "#ffffff", "")
    yield over("pale pattern", draw.checker("#f6e7b8", "#efdcA0".lower(), 14), "#111111", "")
    yield over(
        "drawing beside it",
        draw.rings("#d78c46", "#111111", 570, 300, 50, 8, 10),
        "#111111",
        "",
        **standing(-0.3, -0.2, 1.0, 0.5),
    )
    yield over("light drawing behind dark words", draw.rings("#d78c46", "#f6e7b8", 320, 180, 120, 12), "#111111", "")
    yield over(
        "foliage under a plate", draw.foliage(12, "#173a2a", "#8fc46a"), "#f6e7b8", "", plate={"colour": "#17443c"}
    )
    yield over(
        "foliage, words with a line",
        draw.foliage(13, "#173a2a", "#5a8a4a"),
        "#ffffff",
        "",
        outline={"width": 0.14, "colour": "#111111"},
    )
    yield over("clouds", draw.soft(14, 120, 200, cells=9), "#111111", "")


def mark_cases() -> Iterator[Case]:
    def at(
        name: str,
        drawing: bytes | str,
        px: int,
        must: str,
        may: str = "",
        held: bool = True,
        density: float = 1,
        **more: Any,
    ) -> Case:
        return _case(
            name,
            piece(mark("m")),
            square(seen=seen(px, density=density), **more),
            must=must,
            may=may,
            held=held,
            m=drawing,
        )

    both = "smudge strokes"
    yield at("strokes chosen hairline ring", draw.ring("#17443c", 1), 32, "strokes", both, held=False)
    yield at("strokes chosen fat ring", draw.ring("#17443c", 14), 32, "", held=False)
    for width, px, must in [
        (1, 48, "strokes"),
        (2, 24, "strokes"),
        (1.5, 32, "strokes"),
        (6, 48, ""),
        (10, 24, ""),
        (4, 64, ""),
    ]:
        yield at(f"strokes ring of {width} at {px}", draw.ring("#1b2a49", width), px, must, both)
    for width, px, must in [(1, 48, "strokes"), (0.8, 64, "strokes"), (6, 96, ""), (4, 128, "")]:
        yield at(f"strokes lattice of {width} at {px}", draw.lattice("#7a3b14", width, 5), px, must, both)
    yield at("strokes a tip is none", draw.drop("#17443c"), 32, "", may="")
    yield at("strokes a star's points", draw.star("#17443c", 6, 0.3), 64, "")
    yield at("strokes gaps that close", draw.comb("#17443c", 12, 1.6), 32, "strokes", both)
    yield at("strokes gaps that stay open", draw.comb("#17443c", 12, 6), 64, "")
    for name, drawing, px, must in [
        ("of rings", draw.target("#1b2a49", 4, 1.2), 40, "strokes"), ("of rings, open", draw.target("#1b2a49", 3, 7), 48, ""),
        ("of blocks", draw.cut_blocks("#7a3b14", 4, 1.4), 36, "strokes"), ("of blocks, open", draw.cut_blocks("#7a3b14", 3, 8), 36, ""),
        ("of a comb", draw.comb("#333333", 9, 1), 64, "strokes"), ("of a comb, open", draw.comb("#333333", 9, 5), 72, ""),
    ]:  # fmt: skip
        yield at(f"strokes gaps {name}", drawing, px, must, both)
    yield at("smudge chosen crest", draw.crest(1, "#17443c", "#f4d06f"), 16, "smudge", held=False)
    yield at("smudge chosen bars", draw.two_bars("#17443c"), 16, "", held=False)
    for seed, px, must in [(2, 16, "smudge"), (3, 20, "smudge"), (4, 24, "smudge"), (5, 200, "")]:
        yield at(f"smudge crest {seed} at {px}", draw.crest(seed, "#1b2a49", "#f6e7b8"), px, must)
    yield at("smudge gear of many teeth", draw.gear("#333333", 40), 16, "smudge", both)
    yield at("smudge gear large", draw.gear("#333333", 12), 128, "")
    yield at("smudge words at 48", MARKS["ottermoor-dark.svg"], 48, "smudge", both + " strokes clearance")
    yield at("smudge badge at 32", MARKS["wheel-badge.svg"], 32, "")
    yield at("smudge disc at 16", draw.disc("#b4541a"), 16, "")
    yield at("smudge star at 16", draw.star("#17443c"), 16, "")
    yield at("smudge badge at 16 dense", MARKS["wheel-badge.svg"], 16, "", density=2)
    for rim, inner, ground, must in [
        ("#ffffff", "#3c1e0a", "#17181a", "halo"), ("#ffffff", "#b4541a", "#1b2a49", "halo"), ("#000000", "#f4d06f", "#ffffff", "halo"),
        ("#00ff00", "#6a3a5a", "#111111", "halo"), ("#3c1e0a", "#3c1e0a", "#f6e7b8", ""), ("#b4541a", "#b4541a", "#17181a", ""),
        ("#ffffff", "#3c1e0a", "#ffffff", ""), ("#f4d06f", "#f4d06f", "#17181a", ""),
    ]:  # fmt: skip
        yield at(
            f"halo of {rim} around {inner} on {ground}",
            draw.cut_out(rim, inner, 2),
            128,
            must,
            "contrast" if must else "",
            grounds=[ground],
        )
    yield at("halo on a card", draw.cut_out("#ffffff", "#2a5a7a", 2, "card"), 128, "halo", grounds=["#111111"])
    yield at("halo clean card", draw.cut_out("#2a5a7a", "#2a5a7a", 2, "card"), 128, "", grounds=["#f6e7b8"])
    for ground, page, must in [
        ("#ffffff", "#17443c", "box"),
        ("#ffffff", "#f6e7b8", "box"),
        ("#f6e7b8", "#ffffff", "box"),
        ("#ffffff", "#ffffff", ""),
        ("#17443c", "#17443c", ""),
    ]:
        colour = "#f4d06f" if ground == "#17443c" else "#b4541a"
        yield at(f"box of {ground} on {page}", draw.boxed(ground, colour), 160, must, grounds=[page])
    for ratio, must in [(1.05, "stretched"), (1.12, "stretched"), (1.25, "stretched"), (1.0, "")]:
        yield at(f"stretched ellipse of {ratio}", draw.ellipse("#17443c", ratio), 128, must)
    for name, drawing, across, must in [
        ("a wheel", draw.wheel("#17443c", 6, 6), 0.9, "stretched"), ("a wheel", draw.wheel("#17443c", 6, 6), 1.0, ""),
        ("a ring", draw.ring("#7a3b14", 12), 1.08, "stretched"), ("a ring", draw.ring("#7a3b14", 12), 1.0, ""),
        ("a disc", draw.disc("#1b2a49"), 0.94, "stretched"), ("a square", draw.two_bars("#1b2a49"), 0.9, ""),
        ("a badge", MARKS["wheel-badge.svg"], 1.0, ""), ("a drop", draw.drop("#333333"), 0.95, ""),
    ]:  # fmt: skip
        yield at(f"stretched {name} by {across}", draw.squeezed(drawing, across), 128, must)
    for name, drawing, move, must in [
        ("disc right", draw.disc("#17443c"), 0.06, "off-centre"), ("disc left", draw.disc("#17443c"), -0.08, "off-centre"),
        ("star right", draw.star("#7a3b14"), 0.07, "off-centre"), ("bars left", draw.two_bars("#1b2a49"), -0.06, "off-centre"),
        ("disc", draw.disc("#17443c"), 0.0, ""), ("star", draw.star("#7a3b14"), 0.01, ""), ("gear", draw.gear("#333333", 9), 0.0, ""),
        ("drop", draw.drop("#17443c"), 0.0, ""),
    ]:  # fmt: skip
        document = piece(mark("m", **standing(move, 0, 0.6, 0.6)))
        yield _case(f"off-centre {name}", document, square(seen=seen(128)), must=must, m=drawing)


def place_cases() -> Iterator[Case]:
    badge = {"x": 0.72, "y": 0.78, "width": 0.28, "height": 0.22, "label": "running time"}
    title = {"x": 0.0, "y": 0.0, "width": 0.6, "height": 0.35, "label": "title"}
    window = {"name": "phone", "x": 0.25, "y": 0.0, "width": 0.5, "height": 1.0}
    for name, at, zone, must in [
        ("under the running time", standing(-0.02, -0.02, 0.7, 0.25, "bottom-right"), badge, "covered"),
        ("under the title", standing(0.04, 0.06, 0.8, 0.25, "top-left"), title, "covered"),
        ("beside the title", standing(0.04, -0.06, 0.8, 0.3, "bottom-left"), title, ""),
        ("above the running time", standing(0.04, 0.06, 1.2, 0.4, "top-left"), badge, ""),
    ]:
        document = piece(words("Two bells", colour="#17443c", **at), ground=solid("#ffffff"))
        yield _case(f"covered {name}", document, wide(covered=[zone], seen=seen(480)), must=must)
    for name, at, must in [
        ("outside of the window", standing(0.05, 0, 0.6, 0.3, "left"), "covered"),
        ("inside of the window", standing(0, 0, 0.6, 0.3), ""),
    ]:
        document = piece(words("Bells", colour="#17443c", **at), ground=solid("#ffffff"))
        yield _case(f"covered {name}", document, wide(windows=[window], seen=seen(480)), must=must)
    for name, at, must in [
        ("a tip at the edge", standing(0, 0, 1.0, 1.0), "clearance"), ("a star cut off", {**standing(0.5, 0, 0.9, 0.9), "beyond": True}, "clearance"),
        ("a star in the middle", standing(0, 0, 0.8, 0.8), ""),
    ]:  # fmt: skip
        yield _case(
            f"clearance {name}",
            piece(mark("m", **at), ground=solid("#ffffff")),
            square(seen=seen(128)),
            must=must,
            may="off-centre covered",
            m=draw.star("#17443c"),
        )
    for name, at, must in [
        ("words at the edge", {**standing(0, 0, 1.0, 0.3, "left"), "beyond": True}, "clearance"), ("words cut off", {**standing(-0.2, 0, 1.2, 0.4, "left"), "beyond": True}, "clearance"),
        ("words at the foot", {**standing(0, 0.02, 1.2, 0.3, "bottom"), "vertical_align": "bottom", "beyond": True}, "clearance"), ("words inside", standing(0.08, 0, 1.2, 0.3, "left"), ""),
    ]:  # fmt: skip
        document = piece(words("Open late", colour="#17443c", **at), ground=solid("#ffffff"))
        yield _case(f"clearance {name}", document, wide(seen=seen(480)), must=must, may="off-centre")
    circle = {"mask": {"shape": "circle"}}
    yield _case(
        "clearance words in a circle",
        piece(words("Ottermoor cycles", colour="#17443c", **standing(0, 0.36, 0.9, 0.2)), ground=solid("#ffffff")),
        square(seen=seen(200), **circle),
        must="clearance",
        may="letters",
    )
    yield _case(
        "clearance short words in a circle",
        piece(words("Otter", colour="#17443c", **standing(0, 0, 0.7, 0.3)), ground=solid("#ffffff")),
        square(seen=seen(200), **circle),
    )
    for width, must in [(160, "enlarging"), (320, "enlarging"), (1280, "")]:
        yield _case(
            f"enlarging a photo of {width}",
            piece(picture(artwork="p")),
            wide(seen=seen(480)),
            must=must,
            p=draw.small_photo(width, width),
        )
    yield _case(
        "enlarging again on dense screens",
        piece(picture(artwork="p")),
        wide(seen=seen(640, density=2)),
        must="enlarging",
        p=draw.small_photo(600, 4),
    )


def colour_cases() -> Iterator[Case]:
    pairs = [
        ("#ff2200", "#8a4dff", "clash"), ("#e6002e", "#0072ff", "clash"), ("#ff0066", "#00a000", "clash"), ("#d2007a", "#1f7a00", "clash"),
        ("#b03a2e", "#6b6b00", "merging"), ("#8a6d00", "#a04a3a", "merging"), ("#c0504d", "#6f7f2a", "merging"), ("#7a5c2e", "#4f6b35", "merging"),
        ("#f4d06f", "#17443c", ""), ("#ffffff", "#b4541a", ""), ("#1b2a49", "#f6e7b8", ""), ("#111111", "#e08a4f", ""), ("#2a6fdb", "#ffffff", ""),
    ]  # fmt: skip
    for front, back, must in pairs:
        document = piece(shape("circle", solid(front), **standing(0, 0, 0.8, 0.8)), ground=solid(back))
        yield _case(
            f"colours {front} on {back}",
            document,
            square(seen=seen(256)),
            must=must,
            may="clash merging" if must else "",
        )


def crowded_cases() -> Iterator[Case]:
    long = "Everything you need to know about brakes bells baskets tyres tubes chains and lamps in one evening"
    for name, text, at, must in [
        ("an essay", long, 320, "crowded"), ("an essay in a list", long, 240, "crowded"), ("three words", "Brakes that hold", 320, ""), ("five words", "Five bells under ten coins", 400, ""),
    ]:  # fmt: skip
        document = piece(words(text, colour="#17443c", **standing(0, 0, 1.6, 0.85)), ground=solid("#ffffff"))
        yield _case(f"crowded {name}", document, wide(seen=seen(at)), must=must, may="letters")
    for name, text, at, must in [
        ("a recipe", "Clean the chain then oil each link wipe off the rest and ride it round the block once", 320, "crowded"),
        ("a recipe on a page", "Clean the chain then oil each link wipe off the rest and ride it round", 640, ""),
        ("twelve words", "Clean the chain then oil each link and wipe off the rest", 400, ""),
        ("a list of dates", "Mon Tue Wed Thu Fri Sat Sun open from nine to six all year", 200, "crowded"),
        ("one word", "Open", 96, ""),
    ]:  # fmt: skip
        document = piece(words(text, colour="#1b2a49", **standing(0, 0, 1.6, 0.85)), ground=solid("#ffffff"))
        yield _case(f"crowded {name}", document, wide(seen=seen(at)), must=must, may="letters")
    for count, at, must in [(24, 120, "crowded"), (9, 240, ""), (6, 96, "")]:
        blocks = [
            {
                **shape(
                    "rectangle", solid("#17443c"), **standing(-0.7 + 0.2 * (n % 8), -0.3 + 0.25 * (n // 8), 0.12, 0.12)
                ),
                "id": f"b{n}",
            }
            for n in range(count)
        ]
        yield _case(
            f"crowded {count} blocks at {at}", piece(*blocks, ground=solid("#ffffff")), wide(seen=seen(at)), must=must
        )
    dots = [
        {
            **shape(
                "circle", solid("#b4541a"), **standing(-0.7 + 0.14 * (n % 10), -0.3 + 0.12 * (n // 10), 0.06, 0.06)
            ),
            "id": f"d{n}",
        }
        for n in range(50)
    ]
    yield _case("crowded with parts", piece(*dots, ground=solid("#ffffff")), wide(seen=seen(240)), must="crowded")


def good_pieces() -> Iterator[Case]:
    """Whole pieces as people make them, with nothing to say about."""
    for number, (colour, ground, text, family) in enumerate([
        ("#f6e7b8", "#17443c", "Spring service", "Work Sans"), ("#111111", "#f4d06f", "Open on Sunday", "Archivo Black"),
        ("#ffffff", "#1b2a49", "Night ride", "Fredoka"), ("#17443c", "#f6e7b8", "Bells & baskets", "Lora"),
        ("#ffffff", "#7a3b14", "Made by hand", "Zilla Slab"), ("#111111", "#ffffff", "Lesson 4", "Rubik"),
        ("#f4d06f", "#111111", "Lamps", "Bungee"), ("#1b2a49", "#cfe3ea", "Rain gear", "Nunito"),
    ]):  # fmt: skip
        document = piece(
            words(text, colour=colour, family=family, **standing(0.1, 0, 1.0, 0.5, "left")),
            mark("m", **standing(-0.1, 0, 0.4, 0.4, "right"), tint=colour),
            ground=solid(ground),
        )
        yield _case(f"good card {number}", document, wide(seen=seen(320)), m=draw.star(colour, 5 + number % 3))
    for number, (low, high, colour) in enumerate(
        [
            (5, 60, "#ffffff"),
            (10, 80, "#f6e7b8"),
            (190, 250, "#111111"),
            (200, 250, "#17443c"),
            (0, 40, "#f4d06f"),
            (170, 240, "#111111"),
        ]
    ):
        document = piece(
            picture(artwork="back"), words("Truing wheels", colour=colour, **standing(0.1, 0.1, 1.3, 0.45, "top-left"))
        )
        yield _case(
            f"good thumbnail {number}",
            document,
            wide(seen=seen(320, 480)),
            back=draw.soft(60 + number, low, high, cells=4 + number),
        )
    for number, (drawing, page) in enumerate(
        [
            (draw.disc("#b4541a"), "#ffffff"),
            (draw.two_bars("#f6e7b8"), "#17443c"),
            (draw.star("#1b2a49"), "#f6e7b8"),
            (draw.ring("#f4d06f", 16), "#111111"),
            (draw.gear("#17443c", 8), "#ffffff"),
            (draw.drop("#f6e7b8"), "#7a3b14"),
        ]
    ):
        yield _case(f"good mark {number}", piece(mark("m")), square(seen=seen(64), grounds=[page]), m=drawing)


def all_cases() -> list[Case]:
    """Every case, in order."""
    families = (
        letters_cases,
        contrast_cases,
        busy_cases,
        mark_cases,
        place_cases,
        colour_cases,
        crowded_cases,
        good_pieces,
    )
    return [case for family in families for case in family()]
