"""A proof sheet for a client: scenes with what was found and measured, the names and the date, as PDF or PNG.

Words are real text in the PDF. Lengths are in points of an A4 page that lies on its side (842 x 595).
"""

from __future__ import annotations

import io
from collections.abc import Callable, Mapping, Sequence
from typing import Any, NamedTuple

import numpy as np

from fitzle.core.artwork.sources import Pixels
from fitzle.core.findings import Finding
from fitzle.core.scenes.drawing import draw_scene
from fitzle.core.scenes.items import DrawnScene
from fitzle.core.scenes.lines import broken, draw_line

PAGE_WIDTH, PAGE_HEIGHT = 842.0, 595.0
MARGIN, GAP = 36.0, 18.0
TOP, FOOT = 96.0, 30.0
CAPTION = 16.0
SIDE_WIDTH = 216.0  # of the column of figures on the first page
ACROSS = 2  # scenes in a row, where they are not wide
TALLEST = (PAGE_HEIGHT - TOP - FOOT) / 2 - CAPTION - GAP / 2
PNG_SCALE = 2.0
PICTURE_SCALE = 3.0  # px of a picture for each point: 216 to the inch
PAPER, INK, SOFT, LINE = "#fffdf7", "#1c2324", "#5d6664", "#d9d1bf"
_COLOURS = {"refused": "#b02a20", "risky": "#9a6200", "note": SOFT}


class SheetOf(NamedTuple):
    """What a proof sheet is about: names, the date in words, what was asked and measured, and what was found.

    `shot` is the screenshot of a scene that has one.
    """

    title: str
    place: str
    business: str
    date: str
    figures: Sequence[tuple[str, str]]
    findings: Sequence[Finding]
    shot: Pixels | None = None


class _Block(NamedTuple):
    """A scene on a page, in a box; it is made smaller, never larger than its real size."""

    scene: DrawnScene
    x: float
    y: float
    width: float
    height: float


Page = list[_Block]


def pdf_of(about: SheetOf, scenes: Sequence[DrawnScene], pictures: Mapping[str, Pixels]) -> bytes:
    """All pages as a PDF; `pictures` are what the destination shows in each scene, (h, w, 4) with straight alpha."""
    import skia

    out = skia.DynamicMemoryWStream()
    metadata = skia.PDF.Metadata()
    metadata.fTitle = f"{about.title}: {about.place}"
    metadata.fCreator = "Fitzle"
    document = skia.PDF.MakeDocument(out, metadata)
    pages = _pages(scenes)
    for number in range(len(pages)):
        canvas = document.beginPage(PAGE_WIDTH, PAGE_HEIGHT)
        _draw_page(canvas, about, pages, number, pictures)
        document.endPage()
    document.close()
    return bytes(out.detachAsData())


def png_of(about: SheetOf, scenes: Sequence[DrawnScene], pictures: Mapping[str, Pixels]) -> bytes:
    """All pages below each other as a PNG."""
    import skia
    from PIL import Image

    pages = _pages(scenes)
    width, height = round(PAGE_WIDTH * PNG_SCALE), round(PAGE_HEIGHT * PNG_SCALE)
    surface = skia.Surface(width, height * len(pages))
    canvas = surface.getCanvas()
    canvas.scale(PNG_SCALE, PNG_SCALE)
    for number in range(len(pages)):
        _draw_page(canvas, about, pages, number, pictures)
        canvas.translate(0, PAGE_HEIGHT)
    pixels = np.array(surface.makeImageSnapshot().toarray(colorType=skia.kRGBA_8888_ColorType))
    out = io.BytesIO()
    Image.fromarray(pixels[..., :3]).save(out, "PNG", compress_level=3)
    return out.getvalue()


def _pages(scenes: Sequence[DrawnScene]) -> list[Page]:
    """Scenes from the left top on, row by row; the first page leaves room for the figures at its right."""
    pages: list[Page] = [[]]
    right, x, y, row = PAGE_WIDTH - MARGIN - SIDE_WIDTH - GAP, MARGIN, TOP, 0.0
    for scene in scenes:
        width, height = _scaled(scene, right - MARGIN)
        if x > MARGIN and x + width > right:
            x, y, row = MARGIN, y + row + CAPTION + GAP, 0.0
        if y + height + CAPTION > PAGE_HEIGHT - FOOT:
            pages.append([])
            right, x, y, row = PAGE_WIDTH - MARGIN, MARGIN, TOP, 0.0
            width, height = _scaled(scene, right - MARGIN)
        pages[-1].append(_Block(scene, x, y, width, height))
        x, row = x + width + GAP, max(row, height)
    return pages


def _scaled(scene: DrawnScene, whole: float) -> tuple[float, float]:
    """Its size on a page of which `whole` is left across: never more than half of the height, nor its real size."""
    room = (whole - (ACROSS - 1) * GAP) / ACROSS
    scale = min(1.0, _widest(scene, room, whole) / scene.width, TALLEST / scene.height)
    return scene.width * scale, scene.height * scale


def _widest(scene: DrawnScene, room: float, whole: float) -> float:
    """Wide scenes take a row of their own."""
    return whole if scene.width > 2.2 * scene.height and scene.width > room else room


def _draw_page(canvas: Any, about: SheetOf, pages: list[Page], number: int, pictures: Mapping[str, Pixels]) -> None:
    import skia

    from fitzle.core.render.skia_paths import skia_colour

    paper = skia.Paint(Color=skia_colour(PAPER))
    canvas.drawRect(skia.Rect.MakeWH(PAGE_WIDTH, PAGE_HEIGHT), paper)
    draw_line(canvas, about.title, MARGIN, 52, 22, 700, INK)
    draw_line(canvas, about.place, MARGIN, 72, 11, 400, SOFT)
    draw_line(canvas, about.business, PAGE_WIDTH - MARGIN, 52, 11, 600, INK, "right")
    draw_line(canvas, about.date, PAGE_WIDTH - MARGIN, 68, 10, 400, SOFT, "right")
    _rule(canvas, MARGIN, 82, PAGE_WIDTH - MARGIN)
    for block in pages[number]:
        _draw_block(canvas, block, pictures[block.scene.id], about.shot)
    if number == 0:
        _draw_side(canvas, about)
    if len(pages) > 1:
        words = f"page {number + 1} of {len(pages)}"
        draw_line(canvas, words, PAGE_WIDTH - MARGIN, PAGE_HEIGHT - 16, 8, 400, SOFT, "right")


def _draw_block(canvas: Any, block: _Block, picture: Pixels, shot: Pixels | None) -> None:
    import skia

    from fitzle.core.render.skia_paths import skia_colour

    canvas.save()
    canvas.translate(block.x, block.y)
    scale = block.width / block.scene.width
    canvas.scale(scale, scale)
    draw_scene(canvas, block.scene, picture, scale * PICTURE_SCALE, shot)
    canvas.restore()
    edge = skia.Paint(Color=skia_colour(LINE), Style=skia.Paint.kStroke_Style, StrokeWidth=0.5, AntiAlias=True)
    canvas.drawRect(skia.Rect.MakeXYWH(block.x, block.y, block.width, block.height), edge)
    size = "" if scale > 0.995 else f", at {scale:.0%}"
    line = broken(f"{block.scene.name}{size}", 8, 400, max(block.width, 90))[0]
    draw_line(canvas, line, block.x, block.y + block.height + 11, 8, 400, SOFT)


def _draw_side(canvas: Any, about: SheetOf) -> None:
    """Asked beside measured, and what was found, as far as the page goes."""
    left, y = PAGE_WIDTH - MARGIN - SIDE_WIDTH, TOP + 10
    draw_line(canvas, "Asked", left, y, 9, 600, INK)
    draw_line(canvas, "Measured", left + SIDE_WIDTH / 2, y, 9, 600, INK)
    for asked, measured in about.figures:
        _rule(canvas, left, y + 5, left + SIDE_WIDTH)
        y = max(
            _paragraph(canvas, asked, left, y + 17, SIDE_WIDTH / 2 - 8, INK),
            _paragraph(canvas, measured, left + SIDE_WIDTH / 2, y + 17, SIDE_WIDTH / 2, INK),
        )
    _rule(canvas, left, y + 5, left + SIDE_WIDTH)
    y = _paragraph(canvas, _heading(about.findings), left, y + 26, SIDE_WIDTH, INK, weight=600)
    for finding in about.findings:
        words = f"{finding.message} Left so: {finding.muted}" if finding.muted else finding.message
        if y + 11 * len(broken(words, 8, 400, SIDE_WIDTH)) > PAGE_HEIGHT - FOOT - 12:
            _paragraph(canvas, "More was found than there is room for here.", left, y + 14, SIDE_WIDTH, SOFT)
            return
        y = _paragraph(canvas, words, left, y + 14, SIDE_WIDTH, SOFT if finding.muted else _COLOURS[finding.severity])


def _heading(findings: Sequence[Finding]) -> str:
    return "What was found" if findings else "Nothing was found to mend"


def _paragraph(canvas: Any, text: str, x: float, y: float, width: float, fill: str, weight: int = 400) -> float:
    """Draws the text in lines and gives the base line of its last one."""
    lines = broken(text, 8, weight, width) or [""]
    for number, line in enumerate(lines):
        draw_line(canvas, line, x, y + 11 * number, 8, weight, fill)
    return y + 11 * (len(lines) - 1)


def _rule(canvas: Any, left: float, y: float, right: float) -> None:
    import skia

    from fitzle.core.render.skia_paths import skia_colour

    canvas.drawLine(left, y, right, y, skia.Paint(Color=skia_colour(LINE), StrokeWidth=0.75))


FORMATS: dict[str, tuple[Callable[[SheetOf, Sequence[DrawnScene], Mapping[str, Pixels]], bytes], str]] = {
    "pdf": (pdf_of, "application/pdf"),
    "png": (png_of, "image/png"),
}
