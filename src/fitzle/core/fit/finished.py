"""A finished file, made anywhere, judged by what can be known of it without its parts."""

from __future__ import annotations

from dataclasses import replace

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.reading import Artwork, read_and_judge
from fitzle.core.errors import FitzleError
from fitzle.core.findings import Finding
from fitzle.core.fit.deciding import decide, plan_fit
from fitzle.core.fit.making import Judgement, look_at
from fitzle.core.fit.request import FitArtwork, FitRequest
from fitzle.core.piece.document import Piece
from fitzle.core.plan.standing import standing_at
from fitzle.core.preflight.file_facts import FileFacts, read_file_facts
from fitzle.core.preflight.readings import EyeReading
from fitzle.core.preflight.registry import demands_of, judged
from fitzle.core.preflight.rule import Evidence
from fitzle.core.preflight.seeing import finished_readings
from fitzle.core.spec.sheet import ExactSize, SpecSheet
from fitzle.core.units import Size

_OF_CUT_OUT = frozenset({"contrast", "halo", "smudge", "strokes", "stretched", "off-centre", "enlarging"})
_OF_OPAQUE = frozenset({"box", "stretched", "enlarging"})
_OF_PICTURE = frozenset({"covered", "enlarging"})
# What a finished file does not tell, in words, by rule.
NOT_KNOWN = {
    "letters": "how tall its letters are: words are not told from other drawing",
    "contrast": "how words stand out from what is behind them",
    "busy": "what lies behind words",
    "crowded": "how many words and parts it has",
    "covered": "which words and marks lie where the place covers; faces are found",
    "clearance": "whether drawing that reaches the edge was meant to",
    "enlarging": "from how many px its pictures were made; that the whole was enlarged is found",
}


def judge_finished(
    data: bytes, name: str, sheet: SpecSheet, series: tuple[EyeReading, ...] = ()
) -> tuple[FileFacts, Judgement]:
    """A file against a spec sheet; raises ArtworkError when it cannot be read.

    `series` are the figures of it beside others. Marks with nothing around them are judged as where they stand alone;
    of pictures the colours and the faces are looked at. Findings carry no repairs: there is no piece to repair.
    """
    file = read_file_facts(data, name)
    eye = (*finished_readings(data, sheet), *series)
    findings = judged(Evidence(sheet, file=file, eye=eye), "seen", "file") + _as_artwork(data, name, sheet)
    return file, Judgement(findings, demands_of(file, sheet))


def _as_artwork(data: bytes, name: str, sheet: SpecSheet) -> list[Finding]:
    try:
        artwork = read_and_judge(data, name)
    except FitzleError:
        return []  # it was opened as a file already; what is wrong with it is said by the demands
    facts = artwork.facts
    rules = _rules_for(facts)
    found = [one for one in _judged_alone(artwork, sheet) if one.rule in rules]
    return [one.model_copy(update={"repair": None, "other_repairs": (), "offer": None, "part": None}) for one in found]


def _rules_for(facts: ArtworkFacts) -> frozenset[str]:
    if facts.kind != "mark":
        return _OF_PICTURE
    return _OF_OPAQUE if facts.transparency == "none" else _OF_CUT_OUT


def _judged_alone(artwork: Artwork, sheet: SpecSheet) -> list[Finding]:
    """The file as the one part of a piece of its own size."""
    facts = artwork.facts
    size = Size(max(1, round(facts.width)), max(1, round(facts.height)))
    piece = Piece.model_validate({"subject": "file", "parts": [{"id": "ground", "role": "ground"}, _part(facts, size)]})
    here = sheet.model_copy(update={"size": ExactSize(width=size.width, height=size.height)})
    artworks = {"file": FitArtwork(facts, "file")}
    decided = decide(plan_fit(FitRequest(piece, here, "file", artworks)), {"file": artwork.source})
    evidence = replace(decided.evidence, eye=look_at(decided, {"file": artwork.source}))
    return judged(evidence, "plan", "pixels", "seen")


def _part(facts: ArtworkFacts, size: Size) -> dict[str, object]:
    """A mark where it stands in its file, or a picture over all of it."""
    if facts.kind != "mark":
        return {"id": "file", "role": "picture", "artwork": "file"}
    stands, _ = standing_at(facts.trimmed.rect, size)
    return {"id": "file", "role": "mark", "artwork": "file", "stands": stands.model_dump(), "beyond": True}
