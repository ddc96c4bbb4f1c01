"""`animate`: the moving file of a piece, a mark, a clip or a moving picture for a placement."""

from __future__ import annotations

import argparse
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

from fitzle.cli.files import bytes_of, written
from fitzle.cli.fitting import candidate_told
from fitzle.cli.reading import read, spec_of
from fitzle.cli.several import together
from fitzle.cli.telling import ACCEPTED, REFUSED, Answer, plain_findings
from fitzle.core.errors import ValueOutOfRange


def animate(args: argparse.Namespace) -> Answer:
    """The moving file of each piece or clip."""
    return together(args.source, lambda path: _animate_one(path, args))


def _animate_one(path: Path, args: argparse.Namespace) -> Answer:
    from fitzle.core.artwork.sniff import sniff_format
    from fitzle.core.fit.alone import Asked, piece_of
    from fitzle.core.fit.animating import of_clip, of_piece
    from fitzle.core.fit.beside import artwork_beside
    from fitzle.core.motion.played import plays
    from fitzle.core.piece.editing import read_piece

    sheet, data = _moving_sheet(args.spec), bytes_of(path)
    fmt, how = sniff_format(data), {"liveliness": args.lively, "seconds": args.seconds}
    if path.suffix.lower() == ".json" and fmt != "lottie":
        piece = read_piece(data, path.name)
        artworks = {
            name: read(bytes_of(path.parent / name), name) for name in artwork_beside(piece, sheet, args.take, None)
        }
        made = of_piece(piece, sheet, artworks, take=args.take, **how)
    elif fmt and not plays(data):
        still = read(data, path.name)
        piece = piece_of(still, Asked(focus=args.focus, subject=args.subject or path.stem[:120]))
        made = of_piece(piece, sheet, {"artwork": still}, **how)
    else:
        made = of_clip(
            data,
            path.name,
            sheet,
            _cut(args, data, path.name),
            args.subject or path.stem[:120],
            args.focus,
            args.follow,
            args.seconds,
        )
    return _told(made, args)


def _moving_sheet(spec: str) -> Any:
    from fitzle.core.formats import DRAWN, MOVING, label_of

    sheet, made = spec_of(spec), (*MOVING, *DRAWN)
    if not set(sheet.formats) & set(made):
        taken = ", ".join(label_of(fmt) for fmt in sheet.formats)
        raise ValueOutOfRange(
            f"this place takes {taken}, in which nothing moves here",
            advice=f"Moving files are made as {', '.join(label_of(fmt) for fmt in made)}.",
        )
    if not sheet.motion.allowed:  # words seldom say it; who animates wants it
        sheet = sheet.model_copy(update={"motion": sheet.motion.model_copy(update={"allowed": True})})
    return sheet


def _cut(args: argparse.Namespace, data: bytes, name: str) -> Any:
    from fitzle.core.motion.footage import Cut

    cut = Cut(begin=args.begin, end=args.end, speed=args.speed, closing=args.loop)
    if args.best is None:
        return cut
    from fitzle.core.motion.looping import best_loop

    return best_loop(data, name, cut, args.best)


def _told(animated: Any, args: argparse.Namespace) -> Answer:
    from fitzle.core.fit.making import name_of
    from fitzle.core.formats import format_named

    made, still = animated.made, animated.still
    best, judgement = made.encoded, made.judgement
    size, moving, looks = made.size, made.choice.moving, made.choice.looks
    answer: dict[str, Any] = {"file": None, "still": None, "width": size.width, "height": size.height}
    if best and judgement.verdict != "refused":
        today = datetime.now(UTC).date().isoformat()
        name = name_of(made, made.decided.resolved.request.piece.subject, date=today, version="1")
        answer["file"] = str(written(args.out, name, best.data))
        if still:
            beside = f"{Path(name).stem}-still.{format_named(still.format).extension}"
            answer["still"] = str(written(args.out, beside, still.data))
    answer |= {
        "format": best.format if best else None,
        "bytes": len(best.data) if best else None,
        "frames": moving.frames if moving else None,
        "fps": round(moving.fps, 3) if moving else None,
        "seconds": moving.seconds if moving else None,
        "verdict": judgement.verdict,
        "quality": {
            "metric": "ssimulacra2",
            "score": best.score if best else None,
            "mean": looks.mean if looks else None,
            "worst_tenth": looks.worst if looks else None,
            "smoothness": looks.smoothness if looks else None,
        },
        "findings": plain_findings(judgement.findings),
    }
    if args.json:
        answer["candidates"] = [candidate_told(one) for one in made.choice.candidates]
    return answer, REFUSED if judgement.verdict == "refused" else ACCEPTED
