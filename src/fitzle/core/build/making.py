"""One target made: its files by their paths in the output folder, and what the rules say of it."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from pathlib import Path
from typing import NamedTuple

from fitzle.core.artwork.reading import Artwork
from fitzle.core.build.document import Icons, Picture
from fitzle.core.build.targets import Target
from fitzle.core.encode.wish import Wish
from fitzle.core.findings import Finding, Verdict, verdict_of
from fitzle.core.fit.alone import Asked, made_alone, piece_of
from fitzle.core.fit.beside import row_of
from fitzle.core.formats import format_named
from fitzle.core.icons.making import make_icon_set
from fitzle.core.piece.editing import read_piece

ArtworkReader = Callable[[Path], Artwork]
_WISHES = ("format", "chroma", "quality", "colours")


class Output(NamedTuple):
    """What a target came to; a refused one has no files."""

    files: dict[str, bytes]
    verdict: Verdict
    findings: tuple[str, ...]


def made_target(
    target: Target, read: ArtworkReader, bytes_of: Callable[[Path], bytes], house: tuple[str, ...]
) -> Output:
    """The files of a target; `read` opens artwork, so that one that several targets show is opened once."""
    if isinstance(target.asked, Icons):
        return _icons(target, target.asked, read)
    return _picture(target, target.asked, read, bytes_of, house)


def _picture(
    target: Target, asked: Picture, read: ArtworkReader, bytes_of: Callable[[Path], bytes], house: tuple[str, ...]
) -> Output:
    assert target.sheet  # every picture has one
    wish = Wish(**{name: getattr(asked, name) for name in _WISHES})
    if asked.piece:
        piece = read_piece(bytes_of(target.inputs["piece"]), target.inputs["piece"].name)
        artworks = {name: read(path) for name, path in target.inputs.items() if name != "piece"}
    else:
        artworks = {"artwork": read(target.inputs["artwork"])}
        subject = asked.subject or target.inputs["artwork"].stem
        stands = Asked(asked.mode, asked.tint, asked.focus, asked.padding, asked.centring, asked.ground, subject)
        piece = piece_of(artworks["artwork"], stands)
    row = row_of({"values": asked.row}, target.name) if asked.row else None
    made = made_alone(piece, target.sheet, artworks, take=asked.take, row=row, wish=wish, house=house)
    findings = _counting(made.judgement.findings, asked.accept)
    verdict = verdict_of(findings)
    if made.encoded is None or verdict == "refused":
        return Output({}, "refused", _words(findings))
    name = f"{target.name}.{format_named(made.encoded.format).extension}"
    return Output({name: made.encoded.data}, verdict, _words(findings))


def _icons(target: Target, asked: Icons, read: ArtworkReader) -> Output:
    mark, dark = read(target.inputs["mark"]), read(target.inputs["dark"]) if asked.dark else None
    title = asked.title or target.inputs["mark"].stem.replace("-", " ").replace("_", " ")
    found = make_icon_set(mark, title, dark, asked.ground, asked.path)
    findings = _counting(found.findings, asked.accept)
    files = {f"{asked.folder}/{name}": data for name, data in found.files.items()}
    return Output(files, verdict_of(findings), _words(findings))


def _counting(findings: Iterable[Finding], accepted: tuple[str, ...]) -> list[Finding]:
    """Without what is right as it is; that a file would be refused is never accepted away."""
    return [one for one in findings if one.rule not in accepted or one.severity == "refused"]


def _words(findings: Iterable[Finding]) -> tuple[str, ...]:
    return tuple(f"{one.severity}: {one.message}" for one in findings)
