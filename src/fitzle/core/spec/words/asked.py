"""Readers of what is asked for: formats, motion, how many, the fields of the upload form, what it is called."""

from __future__ import annotations

import re

from fitzle.core.spec.words.numbers import NUMBER, whole
from fitzle.core.spec.words.text import Text

_SPELLINGS = {
    r"(?:animated|moving|animierte?[sr]?|animé[es]*|animad[oa]s?) png|apngs?|a-png": "apng",
    r"(?:animated |moving |animierte?[sr]? )?lottie(?: json| files?| animations?)?": "lottie",
    r"mp-?4s?(?: videos?)?|h\.?264(?: videos?)?": "mp4",
    r"web-?ms?(?: videos?)?|vp9(?: videos?)?": "webm",
    r"pngs?(?:[- ]?(?:8|24|32)(?! ?(?:x|px|by|pixel)|\d))?|portable network graphics": "png",
    r"jpe?gs?|jpe|jfif": "jpeg",
    r"web-?p": "webp",
    r"avifs?": "avif",
    r"gifs?": "gif",
    r"svgs?(?:z)?|scalable vector graphics?": "svg",
    r"icos?|icon files?": "ico",
    r"bmps?|bitmap files?": "bmp",
}
_FORMAT = "|".join(f"(?:{spelling})" for spelling in _SPELLINGS)
_EACH_FORMAT = re.compile(
    rf"(animated |moving |animierte?[sr]? |still |static )?\.?(?<![\w])({_FORMAT})(?!\w|-?2000"
    rf"| 2000)(?: ?animé[es]*| animad[oa]s?)?"
)
_JOIN = (
    r"(?: ?[,/|;&+] ?(?:or |and |oder |und |ou |et |o |y )?| or | and | oder | und | ou | et | o | y | ?\((?=\.)|\)? ?)"
)
_NOT = re.compile(
    rf"(?:no|not|without|except|excluding|never|kein\w*|nicht|außer|pas de|sauf|sin|no se admiten?|but not"
    rf"|rather than|instead of) (?:an? "
    rf"|any )?(?P<all>{_EACH_FORMAT.pattern}(?:{_JOIN}{_EACH_FORMAT.pattern})*)(?: files?| images?)?"
    rf"|(?P<all2>{_EACH_FORMAT.pattern}(?:{_JOIN}{_EACH_FORMAT.pattern})*)(?: files?| images?)? (?:is|are|ist"
    rf"|sind|est|es)? ?(?:not (?:supported|allowed|accepted|taken|possible)|refused|rejected|nicht erlaubt"
    rf"|unsupported|forbidden)"
)
_FIRST = re.compile(
    rf"(?:preferably|ideally|best|bevorzugt|am besten|de préférence|preferiblemente) (?:an? "
    rf"|als )?{_EACH_FORMAT.pattern}|{_EACH_FORMAT.pattern} ?\(?(?:preferred|recommended|is best|is preferred"
    rf"|bevorzugt|empfohlen|recommandé|recomendado|works best)\)?"
)
_STILL = re.compile(
    r"(?:(?:but )?not animated gifs?|but no animat\w+(?: gifs?)?|(?:still|static) (?:images?|pictures?"
    r"|files?)(?: only)?|no (?:animations?|motion|animated (?:images?|files?|gifs?|pictures?))|not animated"
    r"|non-animated|without animation"
    r"|must not (?:move|be animated)|keine animation(?:en)?|nicht animiert|sans animation|pas d'animation"
    r"|sin animación|no animad[oa]|animations? (?:is |are )?not (?:allowed|supported)"
    r"|animated (?:gifs? |images? |files? )?(?:is |are )?not (?:allowed|supported|accepted)|doesn't move|does not move)"
)
_MOVES = re.compile(
    r"(?:(?:must|has to|needs to) (?:move|be animated)|animation (?:is )?required|animated only|only animated"
    r"|muss animiert sein|\b(?:an? )?animated (?:sticker|banner|image|picture|header|logo|file|icon|emoji)s?\b"
    r"|moving (?:sticker|banner|image|picture|header|logo|icon)s?\b)"
)
_MAY_MOVE = re.compile(
    r"(?:may|can|darf|peut|puede)(?: be)? (?:move|animated|animiert(?: sein)?|être animé\w*|ser animad\w)"
    r"|animations? (?:is |are )?(?:allowed|ok|okay|optional|supported|possible)|(?:also|optionally|auch) animated"
    r"|\banimated\b(?: is fine)?|\banimiert\w*\b|\banimé[es]*\b|\banimad[oa]s?\b"
)
_LOOPS = re.compile(
    r"(?:(?:must|should|has to|needs to|will|plays? in a|in an?|endless|infinite|seamless|runs in an?"
    r"|plays in an?|als|en) )?(?:endless |infinite |continuous |seamless )?\b(?:loops?|looped|looping|loopt"
    r"|endlosschleife|schleife|boucle|bucle|repeats forever|repeating)\b(?: forever| endlessly)?"
)
_ONCE = re.compile(
    r"(?:no loop(?:ing|s)?|not? loop(?:ed)?|does not loop|doesn't loop|must not loop|without (?:a )?loop(?:ing)?"
    r"|plays? (?:only )?once|ohne schleife|sans boucle|sin bucle|no repeat)"
)
_SILENT = re.compile(
    r"(?:(?:no|without|ohne|sans|sin|kein\w*) (?:any )?(?:sound|audio|ton|son|sonido|music)|silent|muted?|stumm)"
)
_COUNT_WORDS = {
    "one": 1,
    "two": 2,
    "three": 3,
    "four": 4,
    "five": 5,
    "six": 6,
    "eight": 8,
    "ten": 10,
    "twelve": 12,
    "a single": 1,
    "ein": 1,
    "zwei": 2,
    "drei": 3,
    "single": 1,
    "only one": 1,
    "un": 1,
    "deux": 2,
    "trois": 3,
    "dos": 2,
    "tres": 3,
}
_COUNT = re.compile(
    rf"(?:(?:up to|at most|max\.?|maximum(?: of)?|no more than|maximal|bis zu|jusqu'à|hasta|máximo|room for"
    rf"|holds?|takes|there are|you (?:can|may) (?:upload|add|use)(?: up to)?|limit(?: of)?|exactly|only) )*"
    rf"(?:({NUMBER})|\b({'|'.join(sorted(_COUNT_WORDS, key=len, reverse=True))})) (?:different |more )?(?:slots?"
    rf"|files?|images?|pictures?|photos?|items?|stickers|banners|logos|icons|slides|uploads?|places|bilder"
    rf"|dateien|plätze|images|fichiers|imágenes|archivos|emotes?|entries|fotos)\b(?: (?:per|in|at a time"
    rf"|max(?:imum)?|each|at most|allowed|in total|total)\b(?: \w+)?)?"
)
_AT_LEAST = re.compile(r"(?:at least|min\.?|minimum|mindestens|au moins|al menos)\s*\Z")
_FIELD = (
    r"(?:alt(?:ernative)?[ -]?texts?|alt|titles?|captions?|descriptions?|labels?|tags?|keywords?|credits?"
    r"|links?|file ?names?|headlines?|titel|beschreibung|bildunterschrift|titre|légende|descripción|título"
    r"|texto alternativo|texte alternatif|alternativtext)"
)
_LETTERS = r"(?:characters?|chars?|letters?|zeichen|caractères|caracteres|signs)"
_MEASURED_FIELD = re.compile(
    rf"(?:(?:plus|and|with|asks for|needs|requires|also|add|enter|an?|the|of|optional|required|eine?n?"
    rf"|un[ea]?) )*({_FIELD})(?: ?\(|:? |, ?)(?:(?:of|with|has|is|may have|can have|up to|max\.?|maximum(?: of)?"
    rf"|at most|no more than|limited to|under|less than|bis zu|maximal|höchstens|jusqu'à|hasta|máximo|maximum"
    rf"|in) )*({NUMBER}) {_LETTERS}(?: (?:max(?:imum)?|at most|or less|long))?\)?"
    rf"|(?:(?:up to|max\.?|maximum(?: of)?|at most) )?({NUMBER}) {_LETTERS}(?: max(?:imum)?)? (?:for|of"
    rf"|in) (?:the |an? )?({_FIELD})"
)
_PLAIN_FIELDS = re.compile(
    rf"(?:asks? for|asked for|needs|requires|also wants|wants|fill in|enter|provide|add|fields?:?|verlangt"
    rf"|demande|pide)(?: also)? (?:an? |the |eine?n? |un[ea]? )?({_FIELD}(?:(?: ?, ?(?:and )?| and | und | et "
    rf"| y )(?:an? |the |eine?n? |un[ea]? )?{_FIELD}(?! ?\(| (?:of|up|max)))*)(?! ?\(| (?:of|up|max))"
)
_NAMES = (
    "thumbnail|banner|header|logo|watermark|favicon|tab icon|site icon|app icon|touch icon|icon|avatar"
    "|profile picture|profile photo|profile image|sticker|badge|cover|hero|card|"
    "bannière|werbebanner|logotipo|logotype|vignette|miniatura|kopfbild|profilbild|titelbild|vorschaubild|icône"
    "|icono|symbol|encabezado|en-tête|cabecera|"
    "photo de profil|foto de perfil|aufkleber|autocollant|pegatina|couverture|portada|hintergrundbild|kachel"
    "|abzeichen|insignia|"
    "background|product picture|product photo|product image|glyph|letterhead|signature|poster|emote|emoji|story"
    "|headshot|end card|end screen|title picture|teaser|wallpaper|link preview(?: picture| image)?|preview picture"
    "|preview image"
)
_NAME = re.compile(
    rf"\b((?:(?:page|channel|shop|blog|course|event|site|website|podcast|header|profile|video|form|group|email|mail"
    rf"|store|team|sign-in|login|lesson|clip|corner|chat|newsletter|gift|product|certificate|document|book|desktop) )?"
    rf"(?:{_NAMES})|(?:group|lesson|team) (?:picture|image|photo))s?\b"
)


def read_not_formats(text: Text) -> None:
    """`formats.not`: what is named to be left."""
    for found in text.find(_NOT):
        said = found["all"] or found["all2"]
        if "animated" in said:  # no animated GIF: a still one may be taken
            continue
        text.claim(*found.span(), "formats.not", [_format_of(one[1]) for one in _EACH_FORMAT.findall(said)])


def read_formats(text: Text) -> None:
    """`formats`, one fact for each, and `formats.first`; an animated one says something about motion too."""
    for found in text.find(_FIRST):
        one = next(one for one in _EACH_FORMAT.finditer(found[0]))
        text.claim(*found.span(), "formats.first", _format_of(one[2]))
    for found in text.find(_EACH_FORMAT):
        moves = bool(re.match(r"animat|moving|animier", found[1] or "")) or "anim" in found[0][len(found[1] or "") :]
        name = _format_of(found[2])
        text.claim(*found.span(), "formats", ("apng" if moves and name == "png" else name, moves))


def _format_of(spelling: str) -> str:
    return next(name for pattern, name in _SPELLINGS.items() if re.fullmatch(pattern, spelling))


def read_motion_first(text: Text) -> None:
    """`motion` where animated formats are named to be left, before they are taken for formats that are wanted."""
    for found in text.find(_STILL):
        text.claim(*found.span(), "motion", "still")


def read_motion(text: Text) -> None:
    """`motion`: may move, must move, loops or not; without sound is what pictures are."""
    for pattern, key, value in (
        (_ONCE, "motion.loop", False),
        (_LOOPS, "motion.loop", True),
        (_SILENT, "motion.sound", False),
        (_MOVES, "motion", "moves"),
        (_MAY_MOVE, "motion", "may move"),
    ):
        for found in text.find(pattern):
            text.claim(*found.span(), key, value)


def read_count(text: Text) -> None:
    """`capacity`: how many files it takes."""
    for found in text.find(_COUNT):
        if least := _AT_LEAST.search(text.folded, 0, found.start()):
            text.leave(least.start(), found.end())
            continue
        count = round(whole(found[1])) if found[1] else _COUNT_WORDS[found[2]]
        text.claim(*found.span(), "capacity", count)


def read_fields(text: Text) -> None:
    """`fields`: what the upload form asks for beside the file."""
    for found in text.find(_MEASURED_FIELD):
        name, letters = (found[1], found[2]) if found[1] else (found[4], found[3])
        text.claim(*found.span(), "fields", (name, round(whole(letters))))
    for found in text.find(_PLAIN_FIELDS):
        for one in re.finditer(_FIELD, text.folded[found.start(1) : found.end(1)]):
            text.claim(found.start(1) + one.start(), found.start(1) + one.end(), "fields", (one[0], None))
        text.take(*found.span())


def read_name(text: Text) -> None:
    """`name`: what the place is called in the words."""
    found = next(text.find(_NAME), None)
    if found:
        text.claim(*found.span(), "name", found[1])
