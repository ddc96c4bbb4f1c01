"""`fit` and `render`: the file of an artwork, or of a piece, for a placement."""

from __future__ import annotations

import argparse
from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime
from importlib import import_module
from pathlib import Path
from typing import Any

from fitzle.cli.files import bytes_of, written
from fitzle.cli.reading import read, spec_of
from fitzle.cli.several import together
from fitzle.cli.telling import ACCEPTED, REFUSED, Answer, plain_findings
from fitzle.core.errors import ValueOutOfRange


def _wish(args: argparse.Namespace) -> Any:
    from fitzle.core.documents import validated
    from fitzle.core.encode.wish import Wish

    given = {name: getattr(args, name) for name in ("format", "chroma", "quality", "colours")}
    return validated(Wish, given, subject="", noun="wish for the file")


def fit(args: argparse.Namespace) -> Answer:
    """The file of each artwork in a placement."""
    return together(args.artwork, lambda path: _fit_one(path, args))


def render(args: argparse.Namespace) -> Answer:
    """The file of each piece in a placement."""
    return together(args.piece, lambda path: _render_one(path, args))


def _fit_one(path: Path, args: argparse.Namespace) -> Answer:
    from fitzle.core.artwork.decoding import decoded_ahead

    data = bytes_of(path)
    ahead = decoded_ahead(data)  # before anything large is loaded, which takes as long

    with ThreadPoolExecutor(1) as beside:
        loading = beside.submit(_load_for_making, args.spec)
        artwork = read(data, path.name, ahead=ahead)
        sheet = loading.result()
    from fitzle.core.fit.alone import Asked, piece_of

    subject = args.subject or path.stem[:120]
    asked = Asked(
        args.mode, args.tint, _focus(args.focus), args.padding, args.centring, args.ground, subject or "picture"
    )
    return _deliver(piece_of(artwork, asked), sheet, {"artwork": artwork}, args)


def _load_for_making(spec: str) -> Any:
    """Loads what making a file needs, and reads the spec sheet, while the artwork is looked at."""
    for name in ("piece.document", "fit.making", "encode.jpeg"):
        import_module(f"fitzle.core.{name}")
    return spec_of(spec)


def _render_one(path: Path, args: argparse.Namespace) -> Answer:
    from fitzle.core.fit.beside import artwork_beside
    from fitzle.core.piece.editing import read_piece

    sheet = spec_of(args.spec)
    piece = read_piece(bytes_of(path), path.name)
    row = _row_of(args.row)
    names = artwork_beside(piece, sheet, args.take, row)
    artworks = {name: read(bytes_of(path.parent / name), name) for name in names}
    return _deliver(piece, sheet, artworks, args, take=args.take, row=row)


def _row_of(path: Path | None) -> Any:
    from fitzle.core.documents import read_plain
    from fitzle.core.fit.beside import row_of

    return None if path is None else row_of(read_plain(bytes_of(path), path.name, "row"), path.stem)


def _deliver(piece: Any, sheet: Any, artworks: dict[str, Any], args: argparse.Namespace, **more: Any) -> Answer:
    from fitzle.core.fit.alone import made_alone
    from fitzle.core.fit.making import name_of

    made = made_alone(piece, sheet, artworks, wish=_wish(args), seconds=args.seconds, **more)
    size, verdict, encoded = made.size, made.judgement.verdict, made.encoded
    answer: dict[str, Any] = {"file": None, "width": size.width, "height": size.height}
    if encoded and verdict != "refused":
        name = name_of(made, piece.subject, date=datetime.now(UTC).date().isoformat(), version="1")
        answer["file"] = str(written(args.out, name, encoded.data))
    answer |= {
        "format": encoded.format if encoded else None,
        "bytes": len(encoded.data) if encoded else None,
        "verdict": verdict,
        "quality": {"metric": "ssimulacra2", "score": encoded.score if encoded else None},
        "findings": plain_findings(made.judgement.findings),
    }
    if args.json:
        answer["candidates"] = [candidate_told(one) for one in made.choice.candidates]
    return answer, REFUSED if verdict == "refused" else ACCEPTED


def candidate_told(one: Any) -> dict[str, Any]:
    """One file that was tried, with what the encoder was told."""
    settings = one.settings.model_dump(mode="json", exclude_none=True)
    return {**one._asdict(), "settings": settings, "words": one.settings.words}


def _focus(text: str | None) -> tuple[float, float] | None:
    if text is None:
        return None
    try:
        x, y = (float(part) for part in text.split(","))
    except ValueError as error:
        raise ValueOutOfRange("this is not a focus", expected="for example 0.5,0.4", actual=repr(text)) from error
    return x, y
