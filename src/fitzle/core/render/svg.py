"""A plan as SVG: an emitter of our own from the same boxes and outlines that skia draws.

Words are outlines, gradients and dies stay what they are, vector marks stay vectors; photos are embedded, and so is
what SVG has no word for (a gradient around a point, a pattern, a mark fitted to the pixel grid). Blurs are filters.
"""

from __future__ import annotations

from collections.abc import Mapping

from fitzle.core.artwork.sources import Source
from fitzle.core.geometry.rect import Rect
from fitzle.core.piece.fills import Fill, Gradient, PaintFill, Solid
from fitzle.core.plan.placed import Line, Placed, PlacedArtwork, PlacedShape, PlacedWords, Plan
from fitzle.core.render.painting import Painter
from fitzle.core.render.svg_artwork import artwork_markup
from fitzle.core.render.svg_defs import Defs, figure, paint_attributes
from fitzle.core.render.svg_edges import edge_outline
from fitzle.core.render.svg_pictures import border_markup, path_markup, picture_markup
from fitzle.core.render.svg_words import words_markup


def svg_of(plan: Plan, sources: Mapping[str, Source]) -> bytes:
    """The plan as an SVG document of the plan's size; colours of words must be decided."""
    defs = Defs()
    body = [_part(part, plan, sources, defs) for part in plan.parts]
    ground = _ground(plan, sources, defs)
    if plan.edge:
        under = _under(plan)
        edge = _edge_around(plan, sources, plan.edge)
        content = [under, edge, ground, *body]
    else:
        content = [_under(plan), ground, *body]
    width, height = plan.size
    head = f'<svg xmlns="http://www.w3.org/2000/svg" width="{width}" height="{height}" viewBox="0 0 {width} {height}">'
    return "".join([head, defs.markup(), *content, "</svg>"]).encode()


def _under(plan: Plan) -> str:
    return f'<rect width="100%" height="100%" fill="{plan.under}"/>' if plan.under else ""


def _ground(plan: Plan, sources: Mapping[str, Source], defs: Defs) -> str:
    whole = Rect(0, 0, plan.size.width, plan.size.height)
    if plan.fill is None:
        return ""
    if isinstance(plan.fill, Solid | Gradient) and _has_words(plan.fill):
        return (
            f'<rect width="{plan.size.width}" height="{plan.size.height}" {paint_attributes(plan.fill, whole, defs)}/>'
        )
    alone = plan._replace(parts=(), under=None, edge=None)
    return picture_markup(Painter(alone, sources).finished(), whole)


def _has_words(fill: Fill) -> bool:
    """Whether SVG can say it."""
    return isinstance(fill, Solid) or (isinstance(fill, Gradient) and fill.form != "angled")


def _part(part: Placed, plan: Plan, sources: Mapping[str, Source], defs: Defs) -> str:
    if isinstance(part, PlacedArtwork):
        inner = artwork_markup(part, sources[part.artwork], defs)
    elif isinstance(part, PlacedWords):
        inner = words_markup(part, defs)
    else:
        inner = _shape(part, plan, sources, defs)
    look = part.look
    middle = part.box.centre
    if look.rotation:
        turn = f"rotate({figure(look.rotation)} {figure(middle.x)} {figure(middle.y)})"
        inner = f'<g transform="{turn}">{inner}</g>'
    if look.edge:
        inner = _edge_of_part(part, plan, sources, look.edge) + inner
    style = "" if look.blend == "normal" else f' style="mix-blend-mode:{look.blend.replace(" ", "-")}"'
    opacity = "" if look.opacity == 1 else f' opacity="{figure(look.opacity)}"'
    return f"<g{opacity}{style}>{inner}</g>" if style or opacity else inner


def _shape(part: PlacedShape, plan: Plan, sources: Mapping[str, Source], defs: Defs) -> str:
    fill: PaintFill | None = part.fill
    made = []
    if fill is not None and _has_words(fill):
        made.append(path_markup(part.path, paint_attributes(fill, part.stands, defs)))
    elif fill is not None:
        flat = part._replace(border=None, look=part.look._replace(rotation=0.0, opacity=1.0, blend="normal", edge=None))
        alone = plan._replace(parts=(flat,), under=None, fill=None, edge=None)
        painter = Painter(alone, sources)
        painter.draw(flat)
        made.append(picture_markup(painter.finished(), Rect(0, 0, plan.size.width, plan.size.height)))
    if part.border:
        made.append(border_markup(part.path, part.border, defs))
    return "".join(made)


def _edge_of_part(part: Placed, plan: Plan, sources: Mapping[str, Source], edge: Line) -> str:
    alone = part._replace(look=part.look._replace(opacity=1.0, blend="normal", edge=None))
    return _edge(plan._replace(parts=(alone,), under=None, fill=None, edge=None), sources, edge)


def _edge_around(plan: Plan, sources: Mapping[str, Source], edge: Line) -> str:
    return _edge(plan._replace(under=None, edge=None), sources, edge)


def _edge(plan: Plan, sources: Mapping[str, Source], edge: Line) -> str:
    """The border as an outline around what the plan shows."""
    painter = Painter(plan, sources)
    for part in plan.parts:
        painter.draw(part)
    outline = edge_outline(painter.finished()[..., 3], edge.width_px)
    return f'<path d="{outline}" fill="{edge.colour}" fill-rule="evenodd"/>'
