"""The command line, on the core alone: `./fitzle inspect | fit | check | sheet | learn | render | still | cutout`.

Heavy libraries are imported only once a command needs them.
"""

from __future__ import annotations

import argparse
import gc
import json
import os
import sys
import tempfile
from concurrent.futures import ThreadPoolExecutor
from contextlib import nullcontext
from datetime import UTC, datetime
from functools import cache
from importlib import import_module
from pathlib import Path
from typing import Any

from fitzle.core.bounds import Allowance
from fitzle.core.errors import ArtworkError, FitzleError, NoSubjectFound, ValueOutOfRange
from fitzle.lost import TOO_MUCH, run_in_a_child

ACCEPTED, REFUSED, WRONG = 0, 1, 2  # exit codes
LARGEST_INPUT_BYTES = 100_000_000
DRAWING_SECONDS, DRAWING_BYTES = 8.0, 500_000_000  # for all drawing of one run, beside what is loaded
may_be_lost = False  # whether this is the child of one that says so where a drawing ends it
SPEC_HELP = 'the spec sheet: a JSON file, or words like "PNG 512x512 under 200 KB"'
USUAL_SECONDS = 10.0  # as core.encode.budget has it, which is not loaded for the help alone


def main(arguments: list[str] | None = None) -> int:
    """Runs one command; the exit code says whether the file would be accepted."""
    args = _parser().parse_args(arguments)
    try:
        answer, code = args.run(args)
    except FitzleError as error:
        return _say_error(args.json, error.message)
    except MemoryError:
        return _say_error(args.json, TOO_MUCH)
    except OSError as error:
        return _say_error(args.json, f"{error.filename or 'the file'}: {error.strerror or error}.")
    _print(json.dumps(answer, ensure_ascii=False) if args.json else _table(answer))
    return int(code)


def _print(text: str) -> None:
    try:
        print(text, flush=True)
    except BrokenPipeError:  # whoever read has enough, as `head` has; Python would complain once more at its end
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())


class _Explain(argparse.Action):
    """Prints the page of a rule and ends, as --help does."""

    def __call__(self, parser: argparse.ArgumentParser, _names: Any, value: Any, _option: Any = None) -> None:
        from fitzle.core.preflight.pages import page_of

        try:
            _print(page_of(str(value)).rstrip())
        except FitzleError as error:
            parser.exit(_say_error(False, error.message))
        parser.exit(0)


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="./fitzle", description="Say where it goes, and Fitzle works out the rest.")
    parser.add_argument("--explain", metavar="RULE", action=_Explain, help="what a rule measures, and its source")
    commands = parser.add_subparsers(required=True, metavar="COMMAND")
    common = argparse.ArgumentParser(add_help=False)
    common.add_argument("--json", action="store_true", help="one JSON object instead of a table")

    inspect = commands.add_parser("inspect", parents=[common], help="what an artwork really is")
    inspect.add_argument("artwork", type=Path)
    inspect.set_defaults(run=_inspect)

    fit = commands.add_parser("fit", parents=[common], help="fit an artwork into a placement")
    fit.add_argument("artwork", type=Path)
    _add_fit_options(fit)
    fit.set_defaults(run=_fit)

    check = commands.add_parser("check", parents=[common], help="would this file be accepted?")
    check.add_argument("files", type=Path, nargs="+", metavar="file", help="several are also compared: twins are told")
    check.add_argument("--spec", required=True, help=SPEC_HELP)
    check.set_defaults(run=_check)

    learning = commands.add_parser("learn", parents=[common], help="how a place shows a picture, from a screenshot")
    learning.add_argument("picture", type=Path, help="the picture that was uploaded")
    learning.add_argument("screenshot", type=Path, help="of the place where it appears")
    learning.add_argument("--density", type=float, default=1.0, help="px of the screenshot for each of the page")
    learning.set_defaults(run=_learn)

    sheet = commands.add_parser("sheet", parents=[common], help="a spec sheet from what an upload page says")
    sheet.add_argument("words", help="for example: PNG, at least 150 x 150 px, max. 1 MB")
    sheet.add_argument("--out", type=Path, help="the file for the sheet (JSON)")
    sheet.set_defaults(run=_sheet)

    render = commands.add_parser("render", parents=[common], help="make the file of a piece for a placement")
    render.add_argument("piece", type=Path)
    render.add_argument("--spec", required=True, help=SPEC_HELP)
    render.add_argument("--out", type=Path, required=True, help="the folder for the file")
    render.add_argument("--take", default="", help="one of the piece's alternatives")
    render.add_argument("--row", type=Path, help='values for the piece\'s fields (JSON): {"values": {"title": "…"}}')
    _add_budget(render)
    _add_wish(render)
    render.set_defaults(run=_render)

    _add_icons(commands.add_parser("icons", parents=[common], help="all icon files of a site from one mark"))
    still = commands.add_parser("still", parents=[common], help="one frame of a clip at full resolution")
    still.add_argument("clip", type=Path)
    still.add_argument("--at", type=float, required=True, help="seconds from the beginning")
    still.add_argument("--out", type=Path, required=True, help="the picture file: .png, .jpg or .webp")
    still.set_defaults(run=_still)

    cutout = commands.add_parser("cutout", parents=[common], help="make a picture's background transparent")
    cutout.add_argument("picture", type=Path)
    cutout.add_argument("--out", type=Path, required=True, help="the picture file: .png or .webp")
    cutout.add_argument("--method", choices=["auto", "flat", "person", "object"], default="auto")
    cutout.add_argument("--box", help="where the subject is: x,y,width,height in px")
    cutout.add_argument("--tolerance", type=float, default=1.0, help="how much counts as backdrop; 1 is as measured")
    cutout.add_argument("--softness", type=float, default=1.0, help="of the edge, in px of a picture 1280 px long")
    cutout.add_argument("--holes", choices=["auto", "all", "none"], default="auto", help="backdrop inside the subject")
    cutout.set_defaults(run=_cutout)
    return parser


def _add_icons(icons: argparse.ArgumentParser) -> None:
    icons.add_argument("mark", type=Path)
    icons.add_argument("--out", type=Path, required=True, help="the folder for the files")
    icons.add_argument("--dark", type=Path, help="the mark for dark tabs; without it colours are lightened")
    icons.add_argument("--ground", help="a colour like '#1d3b4f' behind icons that may not be clear")
    icons.add_argument("--path", default="/", help="where the files will stand on the site, for example /icons/")
    icons.add_argument("--name", help="what the site is called; without it as the file is")
    icons.set_defaults(run=_icons)


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


def _wish(args: argparse.Namespace) -> Any:
    from fitzle.core.documents import validated
    from fitzle.core.encode.wish import Wish

    given = {name: getattr(args, name) for name in Wish.model_fields}
    return validated(Wish, given, subject="", noun="wish for the file")


def _seconds(text: str) -> float:
    seconds = float(text)
    if not 0 < seconds < float("inf"):
        raise ValueError(text)
    return seconds


def _inspect(args: argparse.Namespace) -> tuple[dict[str, Any], int]:
    from fitzle.core.artwork.inspecting import inspected

    _check_file(args.artwork)
    with args.artwork.open("rb") as file, _allowance(_begin_of(args.artwork)) or nullcontext():
        facts = inspected(file, args.artwork.name)
    return {"file": str(args.artwork), **_whole_px(facts.model_dump(mode="json"))}, ACCEPTED


def _whole_px(value: Any) -> Any:
    """Sizes are fractions for drawings' sake; px of bitmaps are whole and printed so."""
    if isinstance(value, dict):
        return {key: _whole_px(inner) for key, inner in value.items()}
    if isinstance(value, list):
        return [_whole_px(inner) for inner in value]
    return int(value) if isinstance(value, float) and value.is_integer() else value


def _still(args: argparse.Namespace) -> tuple[dict[str, Any], int]:
    from fitzle.core.artwork.clips.frames import frame_at, still_of
    from fitzle.core.artwork.clips.opening import opened_clip
    from fitzle.core.encode.saving import format_of, picture_file

    format_of(args.out.suffix)
    if not 0 <= args.at < float("inf"):
        raise ValueOutOfRange("this is not a moment", expected="seconds from the beginning", actual=str(args.at))
    _check_file(args.clip)
    try:
        with args.clip.open("rb") as file, opened_clip(file) as clip:
            still = still_of(clip, frame_at(clip, args.at))
    except FitzleError as error:
        raise error.about(args.clip.name) from error
    return _saved(args.out, picture_file(still.pixels, args.out.suffix), still.pixels, seconds=still.seconds)


def _cutout(args: argparse.Namespace) -> tuple[dict[str, Any], int]:
    from fitzle.core.artwork.steps.cutting_alone import cut_alone
    from fitzle.core.encode.saving import format_of, picture_file
    from fitzle.core.formats import format_of_extension

    name = args.picture.name
    if format_of_extension(args.out.suffix) == "jpeg":
        raise ValueOutOfRange("this ending has no transparency", expected=".png or .webp", actual=repr(args.out.suffix))
    format_of(args.out.suffix)
    source = _read(_bytes_of(args.picture), name).source
    wishes = {name: getattr(args, name) for name in ("method", "tolerance", "softness", "holes")}
    width, height = source.width, source.height
    try:
        cut = cut_alone(source, wishes, _box(args.box))
    except NoSubjectFound as error:
        if error.box:
            error.advice = f"Try --box {_box_px(error.box, width, height)}, or --method flat."
        raise error.about(name) from error
    except FitzleError as error:
        raise error.about(name) from error
    data = picture_file(cut.pixels, args.out.suffix)
    more = {"wider_box": _box_px(cut.wider, width, height)} if cut.wider else {}
    return _saved(args.out, data, cut.pixels, method=cut.method, confidence=cut.confidence, **more)


def _box_px(box: tuple[float, float, float, float], width: float, height: float) -> str:
    x, y, across, down = box
    return f"{x * width:.0f},{y * height:.0f},{across * width:.0f},{down * height:.0f}"


def _saved(out: Path, data: bytes, pixels: Any, **more: Any) -> tuple[dict[str, Any], int]:
    path = _written(out.parent, out.name, data)
    height, width = pixels.shape[:2]
    return {"file": str(path), **more, "width": width, "height": height, "bytes": len(data)}, ACCEPTED


def _fit(args: argparse.Namespace) -> tuple[dict[str, Any], int]:
    from fitzle.core.artwork.decoding import decoded_ahead

    data = _bytes_of(args.artwork)
    ahead = decoded_ahead(data)  # before anything large is loaded, which takes as long

    with ThreadPoolExecutor(1) as beside:
        loading = beside.submit(_load_for_making, args.spec)
        artwork = _read(data, args.artwork.name, ahead=ahead)
        sheet = loading.result()
    part = {
        "id": "artwork",
        "role": artwork.facts.kind,
        "artwork": "artwork",
        "mode": args.mode,
        "tint": args.tint,
        "focal_point": _focus(args.focus),
        "padding": _padding(args.padding),
        "centring": args.centring,
    }
    ground = None if args.ground in (None, "none") else {"kind": "solid", "colour": args.ground}
    document = {
        "subject": args.subject or args.artwork.stem[:120] or "picture",
        "parts": [{"id": "ground", "role": "ground", "fill": ground}, part],
    }
    from fitzle.core.documents import validated
    from fitzle.core.piece.document import Piece

    piece = validated(Piece, document, subject="the options", noun="fit")
    return _deliver(piece, sheet, sheet.placement, {"artwork": artwork}, args)


def _load_for_making(spec: str) -> Any:
    """Loads what making a file needs, and reads the spec sheet, while the artwork is looked at."""
    for name in ("piece.document", "fit.making", "encode.jpeg"):
        import_module(f"fitzle.core.{name}")
    return _spec_of(spec)


def _render(args: argparse.Namespace) -> tuple[dict[str, Any], int]:
    from fitzle.core.piece.document import artworks_in
    from fitzle.core.piece.editing import read_piece

    sheet = _spec_of(args.spec)
    piece = read_piece(_bytes_of(args.piece), args.piece.name)
    row = _row_of(args.row)
    # Pieces that were kept before placements had slugs name them by what the sheet is called.
    placement = sheet.placement if sheet.placement in piece.adjustments else sheet.name
    shown = artworks_in(piece, placement, args.take, row)
    names = shown | {other for name in shown for other in piece.versions.get(name, ())}
    artworks = {name: _read(_bytes_of(args.piece.parent / name), name) for name in sorted(names)}
    return _deliver(piece, sheet, placement, artworks, args, take=args.take, row=row)


def _row_of(path: Path | None) -> Any:
    from fitzle.core.documents import read_plain, validated
    from fitzle.core.piece.document import Row

    if path is None:
        return None
    data = {"id": path.stem[:40], **read_plain(_bytes_of(path), path.name, "row")}
    return validated(Row, data, subject=path.name, noun="row")


def _deliver(
    piece: Any, sheet: Any, placement: str, artworks: dict[str, Any], args: argparse.Namespace, **more: Any
) -> tuple[dict[str, Any], int]:
    from fitzle.core.encode.budget import Budget
    from fitzle.core.fit.deciding import decide, plan_fit
    from fitzle.core.fit.making import make_fit, name_of
    from fitzle.core.fit.request import FitArtwork, FitRequest

    known = {name: FitArtwork(artwork.facts, name) for name, artwork in artworks.items()}
    sources = {name: artwork.source for name, artwork in artworks.items()}
    planned = plan_fit(FitRequest(piece, sheet, placement, known, wish=_wish(args), **more))
    made = make_fit(decide(planned, sources), sources, Budget(args.seconds))
    size, verdict, encoded = made.decided.plan.size, made.judgement.verdict, made.encoded
    answer: dict[str, Any] = {"file": None, "width": size.width, "height": size.height}
    if encoded and verdict != "refused":
        name = name_of(made, piece.subject, date=datetime.now(UTC).date().isoformat(), version="1")
        answer["file"] = str(_written(args.out, name, encoded.data))
    answer |= {
        "format": encoded.format if encoded else None,
        "bytes": len(encoded.data) if encoded else None,
        "verdict": verdict,
        "quality": {"metric": "ssimulacra2", "score": encoded.score if encoded else None},
        "findings": _plain(made.judgement.findings),
    }
    if args.json:
        answer["candidates"] = [_candidate(one) for one in made.choice.candidates]
    return answer, REFUSED if verdict == "refused" else ACCEPTED


def _candidate(one: Any) -> dict[str, Any]:
    """One file that was tried, with what the encoder was told."""
    settings = one.settings.model_dump(mode="json", exclude_none=True)
    return {**one._asdict(), "settings": settings, "words": one.settings.words}


def _colour(text: str) -> str:
    from fitzle.core.colour.srgb import parse_hex, to_hex

    try:
        return to_hex(parse_hex(text))
    except ValueError as error:
        raise ValueOutOfRange("this is no colour", expected="one like #1d3b4f", actual=repr(text)) from error


def _icons(args: argparse.Namespace) -> tuple[dict[str, Any], int]:
    from fitzle.core.icons.making import make_icon_set

    mark = _read(_bytes_of(args.mark), args.mark.name)
    dark = _read(_bytes_of(args.dark), args.dark.name) if args.dark else None
    ground = _colour(args.ground) if args.ground else None
    name = args.name or args.mark.stem.replace("-", " ").replace("_", " ")
    found = make_icon_set(mark, name, dark, ground, args.path)
    for file, data in found.files.items():
        _written(args.out, file, data)
    answer = {
        "folder": str(args.out),
        "written": list(found.files),
        "ground": found.ground,
        "simpler_at": list(found.simpler_at),
        "dark_version": found.dark,
        "safe_reach": round(found.safe_reach, 4),
        "findings": _plain(list(found.findings)),
    }
    return answer, ACCEPTED


def _check(args: argparse.Namespace) -> tuple[dict[str, Any], int]:
    """One file is answered as before; several are also compared with each other."""
    sheet, files = _spec_of(args.spec), {str(path): path for path in args.files}
    series = _series(files, sheet) if len(files) > 1 else {}
    answers = [_checked(path, sheet, series.get(name, ())) for name, path in files.items()]
    code = REFUSED if any(answer["verdict"] == "refused" for answer in answers) else ACCEPTED
    return (answers[0] if len(answers) == 1 else {"files": answers}), code


def _checked(path: Path, sheet: Any, series: tuple[Any, ...]) -> dict[str, Any]:
    from fitzle.core.fit.finished import NOT_KNOWN, judge_finished

    facts, judgement = judge_finished(_bytes_of(path), path.name, sheet, series)
    return {
        "file": str(path), "width": facts.width, "height": facts.height, "format": facts.format,
        "bytes": facts.bytes, "verdict": judgement.verdict,
        "quality": {"metric": "ssimulacra2", "score": None},
        "demands": [
            {"rule": d.rule, "asked": d.asked, "measured": d.measured, "state": d.state} for d in judgement.demands
        ],
        "findings": _plain(judgement.findings),
        "not_known": NOT_KNOWN,
    }  # fmt: skip


def _series(files: dict[str, Path], sheet: Any) -> dict[str, tuple[Any, ...]]:
    from fitzle.core.preflight.seeing import finished_pixels
    from fitzle.core.preflight.series import twins_among

    pictures = {name: finished_pixels(_bytes_of(path)) for name, path in files.items()}
    return twins_among({name: pixels for name, pixels in pictures.items() if pixels is not None}, sheet)


def _plain(findings: list[Any]) -> list[dict[str, Any]]:
    return [finding.model_dump(mode="json") for finding in findings]


def _spec_of(spec: str) -> Any:
    """A sheet from a file, or from words where there is no such file."""
    if spec.endswith(".json") or os.path.exists(spec):
        from fitzle.core.spec.reading import read_spec_sheet

        path = Path(spec)
        return read_spec_sheet(_bytes_of(path), path.name)
    from fitzle.core.spec.words.reading import sheet_in_words

    return sheet_in_words(spec)


def _learn(args: argparse.Namespace) -> tuple[dict[str, Any], int]:
    from fitzle.core.artwork.limits import DEFAULT_LIMITS
    from fitzle.core.learning.finding import learn
    from fitzle.core.learning.reading import read_pair

    picture, shot, reduced = read_pair(_bytes_of(args.picture), _bytes_of(args.screenshot), DEFAULT_LIMITS)
    found = learn(picture, shot, args.density).in_picture_of(reduced)
    if not found.found:
        relatives = [one.model_dump(mode="json") for one in found.relatives]
        return {"box": None, "message": found.message, "relatives": relatives}, REFUSED
    first, *others = (one.model_dump(mode="json") for one in found.found)
    relatives = [one.model_dump(mode="json") for one in found.relatives]
    return first | {"others": others, "relatives": relatives}, ACCEPTED


def _sheet(args: argparse.Namespace) -> tuple[dict[str, Any], int]:
    from fitzle.core.spec.words.reading import read_words

    found = read_words(args.words)
    sheet = found.sheet.model_dump(mode="json", exclude_defaults=True) if found.sheet else None
    if sheet and args.out:
        _written(args.out.parent, args.out.name, json.dumps(sheet, ensure_ascii=False, indent=2).encode())
    answer = {
        "sheet": sheet,
        "understood": [one._asdict() for one in found.understood],
        "not_understood": [one._asdict() for one in found.not_understood],
        "assumed": list(found.assumed),
        "problems": [one.message for one in found.problems],
    }
    return answer if args.json else _sheet_for_people(answer), ACCEPTED if sheet else WRONG


def _sheet_for_people(answer: dict[str, Any]) -> dict[str, Any]:
    """Each key of the sheet in its own line, then what became of the words."""
    told = {key: value for key, value in (answer["sheet"] or {}).items() if key != "fitzle_spec"}
    for key in ("not_understood", "assumed", "problems"):
        if answer[key]:
            told[key] = [one["text"] if isinstance(one, dict) else one for one in answer[key]]
    return told


def _read(data: bytes, name: str, **more: Any) -> Any:
    """An artwork; one that has to be drawn takes time and memory out of the allowance of this run."""
    from fitzle.core.artwork.reading import read_artwork

    allowance = _allowance(data)
    if allowance is None:
        return read_artwork(data, name, **more)
    with allowance:
        found = read_artwork(data, name, **more)
    if hasattr(found.source, "allowance"):
        found.source.allowance = allowance
    return found


def _allowance(data: bytes) -> Allowance | None:
    """For drawings, where a run that they end is said in words; bitmaps have limits of their own."""
    from fitzle.core.artwork.sniff import sniff_format

    drawn = may_be_lost and sniff_format(data) in (None, "svg", "gzip", "pdf")
    return _shared_allowance() if drawn else None


@cache
def _shared_allowance() -> Allowance:
    return Allowance(DRAWING_SECONDS, DRAWING_BYTES)


def _begin_of(path: Path) -> bytes:
    with path.open("rb") as file:
        return file.read(4096)


def _check_file(path: Path) -> None:
    if path.is_dir():
        raise ArtworkError("this is a folder", subject=str(path), advice="Name a file.")
    path.stat()


def _bytes_of(path: Path) -> bytes:
    _check_file(path)
    if path.stat().st_size > LARGEST_INPUT_BYTES:
        raise ArtworkError("the file is too heavy", subject=path.name, advice="At most 100 MB are taken.")
    return path.read_bytes()


def _written(folder: Path, name: str, data: bytes) -> Path:
    """Writes beside the target first and then replaces it, so that a full disk never leaves half a file."""
    folder.mkdir(parents=True, exist_ok=True)
    handle, beside = tempfile.mkstemp(dir=folder, prefix=".fitzle-")
    try:
        with os.fdopen(handle, "wb") as out:
            out.write(data)
        umask = os.umask(0)
        os.umask(umask)
        os.chmod(beside, 0o666 & ~umask)
        os.replace(beside, folder / name)
    except OSError as error:
        os.unlink(beside)
        error.filename = str(folder / name)  # what people asked for, not what stood beside it for a moment
        raise
    return folder / name


def _focus(text: str | None) -> dict[str, float] | None:
    if text is None:
        return None
    try:
        x, y = (float(part) for part in text.split(","))
    except ValueError as error:
        raise ValueOutOfRange("this is not a focus", expected="for example 0.5,0.4", actual=repr(text)) from error
    return {"x": x, "y": y}


def _box(text: str | None) -> tuple[float, float, float, float] | None:
    if text is None:
        return None
    try:
        x, y, width, height = (float(part) for part in text.split(","))
    except ValueError as error:
        raise ValueOutOfRange("this is not a box", expected="x,y,width,height in px", actual=repr(text)) from error
    return x, y, width, height


def _padding(text: str | None) -> dict[str, Any] | None:
    from fitzle.core.lengths import parse_length

    return parse_length(text).model_dump() if text is not None else None


def _table(answer: dict[str, Any]) -> str:
    """The answer for people: figures first, then each finding in its own line."""
    if "files" in answer:
        return "\n\n".join(_table(one) for one in answer["files"])
    lines = []
    for key, value in answer.items():
        if key in ("findings", "demands", "edge_colours", "not_known"):
            continue
        lines.append(f"{key.replace('_', ' '):<14} {_cell(value)}")
    for demand in answer.get("demands", []):
        lines.append(f"  {demand['state']:<8} {demand['asked']:<28} {demand['measured']}")
    for finding in answer.get("findings", []):
        lines.append(f"{finding['severity']}: {finding['message']}")
    if answer.get("not_known"):
        lines.append(f"cannot be known of a finished file: {', '.join(answer['not_known'])} (./fitzle --explain RULE)")
    return "\n".join(lines)


def _cell(value: Any) -> str:
    if isinstance(value, dict):
        return ", ".join(f"{key} {_cell(entry)}" for key, entry in value.items())
    if isinstance(value, list | tuple):
        return "; ".join(_cell(entry) for entry in value) or "none"
    return "none" if value is None else f"{value:g}" if isinstance(value, float) else str(value)


def _say_error(as_json: bool, message: str) -> int:
    if as_json:
        print(json.dumps({"error": message}, ensure_ascii=False))
    print(f"fitzle: {message}", file=sys.stderr)
    return WRONG


def _say_lost(message: str) -> int:
    return _say_error("--json" in sys.argv, message)


if __name__ == "__main__":
    gc.set_threshold(50_000)  # loading makes many objects that stay; looking for garbage among them takes a tenth
    may_be_lost = True
    code = run_in_a_child(main, _say_lost, DRAWING_SECONDS)
    sys.stdout.flush()
    sys.stderr.flush()
    os._exit(code)
