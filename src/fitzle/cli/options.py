"""The commands and their options. Each names the function that runs it, which is loaded once it is needed."""

from __future__ import annotations

import argparse
from pathlib import Path
from typing import Any

from fitzle.cli.telling import say, say_error
from fitzle.core.errors import FitzleError

RUN_RULE = "{subject}-{row}_{width}x{height}"
SPEC_HELP = 'the spec sheet: a JSON file, or words like "PNG 512x512 under 200 KB"'
USUAL_SECONDS = 10.0  # as core.encode.budget has it, which is not loaded for the help alone


class _Explain(argparse.Action):
    """Prints the page of a rule and ends, as --help does."""

    def __call__(self, parser: argparse.ArgumentParser, _names: Any, value: Any, _option: Any = None) -> None:
        from fitzle.core.preflight.pages import page_of

        try:
            say(page_of(str(value)).rstrip())
        except FitzleError as error:
            parser.exit(say_error(False, error.message))
        parser.exit(0)


def parser() -> argparse.ArgumentParser:
    """All commands with their options."""
    parser = argparse.ArgumentParser(prog="./fitzle", description="Say where it goes, and Fitzle works out the rest.")
    parser.add_argument("--explain", metavar="RULE", action=_Explain, help="what a rule measures, and its source")
    commands = parser.add_subparsers(required=True, metavar="COMMAND")
    common = argparse.ArgumentParser(add_help=False)
    common.add_argument("--json", action="store_true", help="one JSON object instead of a table")

    inspect = commands.add_parser("inspect", parents=[common], help="what an artwork really is")
    inspect.add_argument("artwork", type=Path)
    inspect.set_defaults(run="artworks:inspect")

    fit = commands.add_parser("fit", parents=[common], help="fit an artwork into a placement")
    fit.add_argument("artwork", type=Path, nargs="+", help="several, or a pattern in quotes")
    _add_fit_options(fit)
    fit.set_defaults(run="fitting:fit")

    check = commands.add_parser("check", parents=[common], help="would this file be accepted?")
    check.add_argument("files", type=Path, nargs="+", metavar="file", help="several are also compared: twins are told")
    check.add_argument("--spec", required=True, help=SPEC_HELP)
    check.set_defaults(run="checking:check")

    learning = commands.add_parser("learn", parents=[common], help="how a place shows a picture, from a screenshot")
    learning.add_argument("picture", type=Path, help="the picture that was uploaded")
    learning.add_argument("screenshot", type=Path, help="of the place where it appears")
    learning.add_argument("--density", type=float, default=1.0, help="px of the screenshot for each of the page")
    learning.set_defaults(run="places:learn")

    sheet = commands.add_parser("sheet", parents=[common], help="a spec sheet from what an upload page says")
    sheet.add_argument("words", help="for example: PNG, at least 150 x 150 px, max. 1 MB")
    sheet.add_argument("--out", type=Path, help="the file for the sheet (JSON)")
    sheet.set_defaults(run="places:sheet")

    render = commands.add_parser("render", parents=[common], help="make the file of a piece for a placement")
    render.add_argument("piece", type=Path, nargs="+", help="several, or a pattern in quotes")
    render.add_argument("--spec", required=True, help=SPEC_HELP)
    render.add_argument("--out", type=Path, required=True, help="the folder for the file")
    render.add_argument("--take", default="", help="one of the piece's alternatives")
    render.add_argument("--row", type=Path, help='values for the piece\'s fields (JSON): {"values": {"title": "…"}}')
    _add_budget(render)
    _add_wish(render)
    render.set_defaults(run="fitting:render")

    _add_animating(commands.add_parser("animate", parents=[common], help="a moving file of a piece or a clip"))
    _add_watermark(commands.add_parser("watermark", parents=[common], help="a mark in the corner of many pictures"))
    _add_icons(commands.add_parser("icons", parents=[common], help="all icon files of a site from one mark"))
    _add_building(commands, common)
    _add_alone(commands, common)
    return parser


def _add_alone(commands: Any, common: argparse.ArgumentParser) -> None:
    still = commands.add_parser("still", parents=[common], help="one frame of a clip at full resolution")
    still.add_argument("clip", type=Path)
    still.add_argument("--at", type=float, required=True, help="seconds from the beginning")
    still.add_argument("--out", type=Path, required=True, help="the picture file: .png, .jpg or .webp")
    still.set_defaults(run="artworks:still")

    cutout = commands.add_parser("cutout", parents=[common], help="make a picture's background transparent")
    cutout.add_argument("picture", type=Path)
    cutout.add_argument("--out", type=Path, required=True, help="the picture file: .png or .webp")
    cutout.add_argument("--method", choices=["auto", "flat", "person", "object"], default="auto")
    cutout.add_argument("--box", help="where the subject is: x,y,width,height in px")
    cutout.add_argument("--tolerance", type=float, default=1.0, help="how much counts as backdrop; 1 is as measured")
    cutout.add_argument("--softness", type=float, default=1.0, help="of the edge, in px of a picture 1280 px long")
    cutout.add_argument("--holes", choices=["auto", "all", "none"], default="auto", help="backdrop inside the subject")
    cutout.set_defaults(run="artworks:cutout")


def _add_building(commands: Any, common: argparse.ArgumentParser) -> None:
    building = commands.add_parser("build", parents=[common], help="make all pictures of a fitzle.toml that changed")
    building.add_argument("file", type=Path, nargs="?", default=Path("fitzle.toml"), help="or the folder that it is in")
    building.add_argument("--check", action="store_true", help="change nothing; exit 1 where something would be")
    building.add_argument("--strict", action="store_true", help="exit 1 for risky pictures too")
    building.set_defaults(run="building:build")

    _add_run(commands.add_parser("run", parents=[common], help="make the files of a piece for every row of a table"))

    beginning = commands.add_parser("init", parents=[common], help="write a fitzle.toml from what lies in a folder")
    beginning.add_argument("folder", type=Path, nargs="?", default=Path())
    beginning.set_defaults(run="building:init")


def _add_run(run: argparse.ArgumentParser) -> None:
    run.add_argument("piece", type=Path, help="a piece whose fields the columns of the table fill")
    run.add_argument("table", type=Path, help="CSV, text with tabs, or XLSX; its first line has the headings")
    run.add_argument("--spec", required=True, action="append", help=f"{SPEC_HELP}; several times for several places")
    run.add_argument("--out", type=Path, required=True, help="the folder for the files")
    run.add_argument("--pictures", type=Path, help="the folder of pictures that cells name; else that of the table")
    run.add_argument("--name", default=RUN_RULE, help="what files are called; fields and {row} are tokens too")
    _add_budget(run)
    run.set_defaults(run="rows:run")


def _add_animating(animate: argparse.ArgumentParser) -> None:
    animate.add_argument("source", type=Path, nargs="+", help="a piece (JSON), a mark, a clip, or a moving picture")
    animate.add_argument("--spec", required=True, help=SPEC_HELP)
    animate.add_argument("--out", type=Path, required=True, help="the folder for the file")
    cut = animate.add_argument_group("what of a clip")
    cut.add_argument("--from", dest="begin", type=float, default=0.0, help="seconds from its beginning")
    cut.add_argument("--to", dest="end", type=float, help="seconds from its beginning; without it, to its end")
    cut.add_argument("--loop", choices=["smooth", "back", "cut"], default="cut", help="how the end meets the beginning")
    cut.add_argument("--best", type=_seconds, metavar="SECONDS", help="find the part of so many that closes best")
    cut.add_argument("--speed", type=float, default=1.0, help="2 is twice as fast")
    cut.add_argument("--focus", type=_point, help="the point that must show, for example 0.5,0.4")
    cut.add_argument(
        "--follow",
        choices=("nothing", "faces", "subject"),
        default="nothing",
        help="what the focus moves with: faces, or what lies under it as the loop begins",
    )
    cut.add_argument("--subject", help="what the file name calls it")
    piece = animate.add_argument_group("how a piece moves that does not yet")
    piece.add_argument("--lively", type=_share, default=0.5, help="0 (calm) to 1 (lively)")
    piece.add_argument("--take", default="", help="one of the piece's alternatives")
    animate.add_argument("--seconds", type=_seconds, help="how long the search may take (36)")
    animate.set_defaults(run="animating:animate")


def _add_watermark(watermark: argparse.ArgumentParser) -> None:
    watermark.add_argument("mark", type=Path)
    watermark.add_argument("files", type=Path, nargs="+", help="pictures, or patterns in quotes")
    watermark.add_argument("--out", type=Path, required=True, help="the folder for the files, another than theirs")
    watermark.add_argument(
        "--or",
        dest="or_",
        type=Path,
        action="append",
        default=[],
        metavar="MARK",
        help="another version of the mark, used where the first one is hardly seen",
    )
    corners = ["top left", "top right", "bottom left", "bottom right"]
    watermark.add_argument(
        "--corner",
        choices=[*corners, *(one.replace(" ", "-") for one in corners)],
        default="bottom right",
        metavar="CORNER",
        help=", ".join(corners),
    )
    watermark.add_argument("--size", type=_percent, default=0.12, help="of the short side, for example 12%% (usual)")
    watermark.add_argument("--distance", type=_percent, default=0.03, help="from the edges, of the short side (3%%)")
    watermark.add_argument("--opacity", type=_percent, default=0.8, help="0 to 1, or in %% (0.8)")
    watermark.add_argument("--keep-details", action="store_true", help="keep what the camera wrote, its place too")
    watermark.set_defaults(run="watermarking:watermark")


def _percent(text: str) -> float:
    """12% or 0.12."""
    return float(text[:-1]) / 100 if text.endswith("%") else float(text)


def _point(text: str) -> tuple[float, float]:
    x, y = (float(part) for part in text.split(","))
    if not (0 <= x <= 1 and 0 <= y <= 1):
        raise ValueError(text)
    return x, y


def _share(text: str) -> float:
    share = float(text)
    if not 0 <= share <= 1:
        raise ValueError(text)
    return share


def _add_icons(icons: argparse.ArgumentParser) -> None:
    icons.add_argument("mark", type=Path, nargs="+", help="of several each gets a folder of its own")
    icons.add_argument("--out", type=Path, required=True, help="the folder for the files")
    icons.add_argument("--dark", type=Path, help="the mark for dark tabs; without it colours are lightened")
    icons.add_argument("--ground", help="a colour like '#1d3b4f' behind icons that may not be clear")
    icons.add_argument("--path", default="/", help="where the files will stand on the site, for example /icons/")
    icons.add_argument("--name", help="what the site is called; without it as the file is")
    icons.set_defaults(run="icons:icons")


def _add_fit_options(fit: argparse.ArgumentParser) -> None:
    fit.add_argument("--spec", required=True, help=SPEC_HELP)
    fit.add_argument("--out", type=Path, required=True, help="the folder for the file")
    fit.add_argument("--mode", choices=["fill", "whole"], help="fill the place or show all of it")
    fit.add_argument("--focus", help="the point that must show, for example 0.5,0.4")
    fit.add_argument("--padding", help="for example 2px or 6%%")
    fit.add_argument("--centring", choices=["box", "weight"], default="box", help="centre by box or by visual weight")
    fit.add_argument("--ground", help="a colour like '#1d3b4f', or none")
    fit.add_argument("--tint", help="draw a one-colour mark in this colour")
    fit.add_argument("--subject", help="what the file name calls it")
    _add_budget(fit)
    _add_wish(fit)


def _add_budget(command: argparse.ArgumentParser) -> None:
    command.add_argument(
        "--seconds", type=_seconds, default=USUAL_SECONDS, help="how long the search for the best file may take (10)"
    )


def _add_wish(command: argparse.ArgumentParser) -> None:
    fixed = command.add_argument_group("fix what you know better")
    fixed.add_argument("--format", help="one of the formats that the place takes")
    fixed.add_argument("--chroma", choices=["4:4:4", "4:2:0"], help="the resolution of colour in JPEG and AVIF")
    fixed.add_argument("--quality", type=int, help="1 to 100, of JPEG, WebP and AVIF")
    fixed.add_argument("--colours", type=int, help="2 to 256, of PNG and GIF")


def _seconds(text: str) -> float:
    seconds = float(text)
    if not 0 < seconds < float("inf"):
        raise ValueError(text)
    return seconds
