"""Readers of how a place shows a picture: sizes at which it is seen, transparency, cut, veil, grounds."""

from __future__ import annotations

import re

from fitzle.core.spec.words.colour_words import COLOURS
from fitzle.core.spec.words.measures import PX
from fitzle.core.spec.words.numbers import NUMBER, decimal, whole
from fitzle.core.spec.words.text import Text

_SHOWN = (
    r"(?:shown|we (?:show|display) (?:it|them)|shows? (?:it|them)|displayed|displays|appears?|appearing|seen"
    r"|rendered|visible|viewed|shows up|angezeigt|dargestellt"
    r"|erscheint|gezeigt"
    r"|zu sehen|affichée?s?|apparaît|visible|se muestra|mostrad[oa]|aparece|visto|vu|vue)"
)
_AT = (
    r"(?:(?: (?:in the \w+|on \w+|at|as|in|with|only|just|a size of|mit|in|als|à|en|de|a|con|nur|later|usually"
    r"|mostly|then|there|about|small|down to)){0,4})"
)
_SEEN = re.compile(
    rf"{_SHOWN}{_AT} ({NUMBER}){PX}?(?:(?: ?x ?| by )({NUMBER}){PX}?)?(?: (?:wide|across|breit|de large|de ancho"
    rf"|square))?"
    rf"((?:(?: ?, ?| and | or | und | et | y | & )(?:at )?{NUMBER}{PX}?(?! ?x| ?[km]b| (?:tall|high|slots?|files?"
    rf"|images?)))*)(?: (?:wide|across|breit|square))?"
)
_DENSITY = re.compile(
    r"(?:(?:for|on|at|in|as) )?(?:@ ?)?(?<![\d.x])([1-5](?:[.,]5)?) ?x(?! ?\d|\w)(?: (?:screens?|displays?"
    r"|density|retina|version|resolution|pixel density))?"
    r"|\b(retina)\b(?: (?:screens?|displays?|ready|resolution))?|\b(double|triple) (?:pixel )?(?:density|resolution)\b"
)
_TRANSPARENT = (
    r"(?:\btransparen(?:t|te|cy|ce|z|cia|ten|ter|tes|tem)\b|alpha(?: channel)?|freigestellt\w*"
    r"|durchsichtig\w*|see-through|alphakanal|canal alpha|cut-?out background)"
)
_BACK = r"(?: ?(?:background|backgrounds|hintergrund|fond|fondo|bg|areas?|pixels?))?"
_FORE = r"(?:(?:background|hintergrund|fond|fondo) (?:is |ist |est |es )?)?"
_EITHER_ALPHA = re.compile(rf"(?:with or without|mit oder ohne|avec ou sans|con o sin) (?:a )?{_TRANSPARENT}{_BACK}")
_NO_ALPHA = re.compile(
    rf"(?:no|not?|without(?: any)?|non[- ]|kein\w*|nicht|ohne|pas de|sans|sin|ni|never|instead of)[ -]?(?:a |be "
    rf"|have (?:a )?|any |un |una )?{_TRANSPARENT}{_BACK}"
    rf"|{_TRANSPARENT}{_BACK} (?:is |are |ist |sind |est )?(?:not allowed|not supported|not accepted|not possible"
    rf"|forbidden|nicht erlaubt|verboten|interdit\w*|no permitid\w*"
    r"|will be (?:filled|black|lost)|turns black|is lost|not permitted)|\b(?:must be |fully |be )?opaque\b"
    r"|\b(?:deckend|opaque|opaco|opaca)\b|\bsolid background(?: only)?\b"
)
_MAY_ALPHA = re.compile(
    rf"(?:may be|can be|optionally|optional|allows?|supports?|with or without|darf|kann|peut être|puede ser"
    rf"|possibly)(?: a| an)? {_TRANSPARENT}{_BACK}"
    rf"|{_TRANSPARENT}{_BACK} (?:is |are |ist |est |es )?(?:allowed|optional|supported|accepted|possible"
    rf"|permitted|fine|ok|okay|welcome|erlaubt|möglich|permitid\w|autorisé\w*)"
)
_ALPHA = re.compile(
    rf"(?:(?:must|should|has to|needs to) (?:be|have) (?:a |an )?|(?:with|on|mit|auf|sur|con|avec|à|in)(?: a| an"
    rf"| einem| eine| un| una| the)? )?{_FORE}{_TRANSPARENT}{_BACK}(?: (?:required|needed|only|a must|is required"
    rf"|erforderlich|nötig|obligatoire|obligatorio|please))?"
)
_AT_A_SIZE = re.compile(rf" ?(?:of |at |only |just |mit |von |à |de |a )+({NUMBER}){PX}(?: (?:wide|across|breit))?")
_SEEN_HIGH = re.compile(rf"{_SHOWN}{_AT} {NUMBER}{PX}? (?:high|tall|in height|hoch|de haut|de alto)\b")
_MUST = re.compile(r"must|should|has to|needs to|required|needed|only|erforderlich|nötig|obligat")
_CIRCLE = re.compile(
    r"(?:(?:shown|displayed|cropped|cut|appears?|masked|seen|clipped|zugeschnitten|angezeigt|affichée?|recadrée?"
    r"|recortad[oa]|se muestra|dargestellt|will be)(?: \w+){0,2}? )?"
    r"(?:(?:as|in|to|into|inside|within|im|in|als|en|dans|with)(?: a| an| the| einem| einen| un| una)? )?"
    r"\b(?:circles?|circular(?: (?:crop|mask|frame|shape|avatar))?|round(?!e| ?view)(?: (?:frame|crop|shape"
    r"|mask))?|kreis\w*|rund(?:er|en|e|es)?(?: (?:ausschnitt|rahmen|zugeschnitten|ausgeschnitten))?|cercle|rond"
    r"|ronde|círculo|circulo|redond[oa])\b"
)
_ROUNDED = re.compile(
    r"(?:(?:shown |displayed |appears |cut )?(?:with|has|mit|avec|con|and|in)(?: a)? )?(?:(?:slightly|softly) )?"
    rf"(?:rounded(?: corners?| edges?| square| rectangle)?|round corners|abgerundete\w*(?: ecken)?|coins arrondis"
    rf"|esquinas redondeadas|corner radius)"
    rf"(?: ?\(?(?:of|with|at|radius|a radius of|von|de|:|mit|corner radius| )* ?({NUMBER}) ?(%|percent|prozent|px"
    rf"|pixels?)\)?)?(?: radius)?"
)
_VEIL = re.compile(
    rf"(?:(?:with|under|behind|and) )?(?:a |an |is |the )?(?:(dark|black|white|light)\w* )?(?:veil|overlay|shade"
    rf"|tint|darken\w*|dimmed|dims|lightened|abgedunkelt|assombri\w*|oscurecid[oa])"
    rf"(?: (?:over it|over the picture|on top|the picture|it))?(?: ?\(?(?:of|by|at|with|um|de|con|un"
    rf"|:)* ?)({NUMBER}) ?(?:%|percent|prozent)(?: (dark|black|white))?(?: (?:veil|overlay|black|white))?\)?"
    rf"|(?P<before>{NUMBER}) ?(?:%|percent|prozent) (?:(?:dark|black|white|light)\w* )?(?:darken\w*|darker|veil"
    rf"|overlay|shade|tint|dimmed|lightened|abgedunkelt)"
)
_HEX = r"#(?:[0-9a-f]{6}|[0-9a-f]{3})(?![0-9a-z])"
_COLOUR = rf"(?:(?:{'|'.join(sorted(COLOURS, key=len, reverse=True))})\b|{_HEX})"
_ONE = (
    rf"(?:(?:on|auf|sur|sobre|over|against|vor|en)(?: both)?(?: a| an| the| einem?| un| una| fond| fondo"
    rf"| pages in)?(?: colou?r)? )?{_COLOUR}(?: (?:background|page|ground|site|pages|hintergrund|fond|theme|mode"
    rf"|backgrounds|grounds|header|bar))?"
)
_GROUNDS = re.compile(
    rf"(?:(?:{_SHOWN}|placed|stands?|sits?|used|works?|works)(?: both)? )?(?:on|auf|sur|sobre|over|against"
    rf"|vor)(?: both)?(?: a| an| the| einem?| un| una| fond| fondo"
    rf"| pages in)?(?: colou?r)? ({_COLOUR}(?: (?:background|page|ground|site|pages|hintergrund|fond|theme|mode"
    rf"|backgrounds|grounds|header|bar))?"
    rf"(?:(?: ?, ?(?:and |und |et |y )?| and | und | et | y | or | oder | ?/ ?| ?& ?){_ONE})*)"
)
_PAGE_COLOUR = re.compile(
    rf"(?:page|site|background|hintergrund|ground)(?: colou?rs?| background)?(?: is| are| ist|:"
    rf"|=)? ?({_COLOUR}(?:(?: ?, ?| and | und ){_COLOUR})*)"
)
_EACH_COLOUR = re.compile(_COLOUR)


def keep_seen_heights(text: Text) -> None:
    """A height at which it is seen has no key: the sheet has widths, and neither follows from the other."""
    for found in list(text.find(_SEEN_HIGH)):
        text.leave(*found.span())


def read_seen(text: Text) -> None:
    """`seen` and `density`: widths of the screen at which people see it."""
    for found in text.find(_SEEN):
        widths = [found[1], *re.findall(NUMBER, found[3] or "")]
        text.claim(*found.span(), "seen", [round(whole(width)) for width in widths])


def read_seen_after_cut(text: Text) -> None:
    """`seen` where a cut and its size are said together: in a circle of 48 px."""
    for cut in text.of("cut"):
        found = _AT_A_SIZE.match(text.folded, cut.end)
        if found and text.free(*found.span(1)):
            text.claim(*found.span(), "seen", [round(whole(found[1]))])


def read_density(text: Text) -> None:
    """`seen.density`; after sizes, whose times sign looks alike."""
    for found in text.find(_DENSITY):
        words = {"retina": 2.0, "double": 2.0, "triple": 3.0}
        density = decimal(found[1]) if found[1] else words[found[2] or found[3]]
        text.claim(*found.span(), "seen.density", density)


def read_cut(text: Text) -> None:
    """`cut`; a corner's radius in percent of the short side or in px."""
    for found in text.find(_ROUNDED):
        radius = (decimal(found[1]), "%" if found[2] not in ("px", "pixel", "pixels") else "px") if found[1] else None
        text.claim(*found.span(), "cut", ("rounded", radius))
    for found in text.find(_CIRCLE):
        text.claim(*found.span(), "cut", ("circle", None))


def read_veil(text: Text) -> None:
    """`veil`: how much the destination darkens or lightens the whole picture."""
    for found in text.find(_VEIL):
        light = "white" in found[0] or "light" in found[0]
        opacity = decimal(found[2] or found["before"]) / 100
        if 0 < opacity <= 1:
            text.claim(*found.span(), "veil", ("#ffffff" if light else "#000000", opacity))


_ALPHAS = (
    (_EITHER_ALPHA, "allowed"),
    (_NO_ALPHA, "forbidden"),
    (_MAY_ALPHA, "allowed"),
    (_ALPHA, "required"),
)


def read_transparency(text: Text) -> None:
    """`transparency`: forbidden, allowed or required."""
    for pattern, value in _ALPHAS:
        for found in text.find(pattern):
            plainly = value == "required" and not _MUST.search(found[0])
            text.claim(*found.span(), "transparency", "transparent" if plainly else value)


def read_grounds(text: Text) -> None:
    """`grounds`: colours of the pages on which it stands."""
    for pattern in (_GROUNDS, _PAGE_COLOUR):
        for found in text.find(pattern):
            text.claim(*found.span(), "grounds", [_hex(name) for name in _EACH_COLOUR.findall(found[1])])


def _hex(name: str) -> str:
    found = COLOURS.get(name, name)
    return f"#{''.join(2 * figure for figure in found[1:])}" if len(found) == 4 else found
