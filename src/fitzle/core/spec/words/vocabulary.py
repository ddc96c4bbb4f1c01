"""The words around a measure, in English, German, French and Spanish: limits and sides."""

from __future__ import annotations

import re
from typing import Literal, NamedTuple

Sort = Literal[
    "least width",
    "least height",
    "most width",
    "most height",
    "least",
    "most",
    "exact",
    "recommended",
    "width",
    "height",
    "both",
    "long",
    "short",
    "glue",
]

_PHRASES: dict[Sort, str] = {
    "least width": """
        broader than | breiter als | plus large que | más ancho que
        or wider | wider than | oder breiter | mindestbreite | ou plus large | o más ancho
    """,
    "least height": """
        höher als | plus haut que | más alto que
        or taller | or higher | taller than | higher than | oder höher | mindesthöhe | o más alto
    """,
    "most width": """
        schmaler als
        no wider than | not wider than | nicht breiter als
        or narrower | narrower than | oder schmaler | maximalbreite | höchstbreite
    """,
    "most height": """
        lower than | niedriger als
        no taller than | no higher than | not higher than | not taller than | nicht höher als
        or shorter | shorter than | oder niedriger | maximalhöhe | höchsthöhe
    """,
    "least": """
        minimum of | at least | no less than | not less than | not smaller than | no smaller than | minimum
        over | above | heavier than | schwerer als | mehr als | plus de | más de | mayor de | supérieur à | supérieure à
        minimal | minimally | min | min. | mini | or larger | or more | or bigger | or greater | or above
        or up | and up | and above | upwards | larger than | bigger than | more than | greater than | >= | ≥ | >
        starting at | starts at
        mindestens | mind. | mind | mindest | wenigstens | oder mehr | oder größer | größer als
        au moins | au minimum | ou plus | al menos | por lo menos | como mínimo | mínimo | mínima | mínimos
        minimo | minima | minimale | mindestgröße | o más | no menos de | not below | not under | smallest
    """,
    "most": """
        nicht größer als | nicht mehr als | nicht schwerer als | pas plus de
        ne dépasse pas | ne doit pas dépasser | no mayor de | no supere | no supera | no exceda | no más grande de
        maximum of | a maximum of | at most | no more than | not more than | no larger than | not larger than
        no bigger than | not bigger than | not exceed | not exceeding | must not exceed | may not exceed
        should not exceed | cannot exceed | can't exceed | not over | not above | no greater than | maximum
        maximal | max | max. | maxi | up to | or smaller | or less | or under | or below | or lower | or fewer
        under | below | less than | smaller than | lighter than | within | limit | limited to | limit of | <=
        ≤ | < | stay under | keep under | keep it under | keep below | fewer than | bis zu | bis | höchstens
        maximale | oder weniger | kleiner als | weniger als | unter | nicht mehr als | maximalgröße | maximum de
        jusqu'à | jusqu'a | au plus | au maximum | ou moins | moins de | ne pas dépasser | hasta | como máximo
        máximo | máxima | máximos | maximo | maxima | menos de | no más de | o menos | largest | heaviest
        not heavier than | no heavier than | limite | límite | inférieur à | inférieure à | does not exceed
    """,
    "exact": """
        exactly | exact | precisely | fixed | always | genau | exakt
        exactement | exactamente | = | needs to be | fest | needs to measure | fix
    """,
    "recommended": """
        recommended | recommend | recommends | we recommend | recommendation | ideal | ideally | best | best at
        suggested | we suggest | optimal | optimum | preferably | preferred | empfohlen | empfehlen | empfehlung
        am besten | optimalerweise | idealerweise | recommandé | recommandée | recommandés | idéal | idéalement
        de préférence | recomendado | recomendada | recomendamos | idealmente | looks best at | works best at
        preferible | bevorzugt | our advice | empfohlene | empfohlener | empfohlenes | recommandées
        recomendados | recomendadas | ideale | optimale
    """,
    "width": """
        wide | width | widths | w | in width | across | breit | breite | breiten | large de | de large | largeur
        largeur de | ancho | de ancho | anchura | bildbreite | horizontally | de largeur
    """,
    "height": """
        tall | high | height | heights | h | in height | hoch | höhe | höhen | haut | de haut | hauteur
        hauteur de | alto | de alto | altura | bildhöhe | vertically | de hauteur
    """,
    "both": """
        wide and tall | tall and wide | wide and high | width and height | height and width | in both directions
        each side | on each side | both sides | on both sides | each way | per side | square | squared | a side
        side length | on a side | every side | sides | breite und höhe | breit und hoch | quadratisch
        kantenlänge | seitenlänge | de côté | carré | carrée | cuadrado | cuadrada | de lado | por lado
        pro seite | in either direction | either side | large et haut | ancho y alto
    """,
    "long": """
        longest side | longest edge | long side | long edge | longer side | longer edge | on the longest side
        on its longest side | on the long side | on the long edge | längste seite | längsten seite | lange seite
        längere seite | längeren seite | plus grand côté | lado más largo | largest side | largest dimension
    """,
    "short": """
        shortest side | shortest edge | short side | short edge | shorter side | shorter edge
        on the shortest side | on its shortest side | on the short side | kürzeste seite | kürzesten seite
        kurze seite | kürzere seite | plus petit côté | lado más corto | smallest side | smallest dimension
    """,
    "glue": """
        may | can | could | must be | has to be | have to be | kann | darf | peut | puede | debe
        header | banner | logo | icon | avatar | cover | thumbnail | badge | card | sticker | kopfbild
        size | sizes | dimension | dimensions | resolution | file | files | image | images | picture | pictures
        photo | pixel | pixels | px | of | a | an | the | is | are | it | its | to | be | for | with | by
        with a | in | on | file size | weight | weighs | weighing | image size | picture size | upload | total
        and | größe | dateigröße | bildgröße | auflösung | abmessungen | maße | von | der | die | das | den
        dem | eine | einer | einem | ein | mit | sind | ist | taille | taille du fichier | de | du | la | le
        les | l' | un | une | d' | dimensions | poids | résolution | est | sont | avec | tamaño
        tamaño de archivo | peso | dimensiones | resolución | el | los | las | una | es | con | debe ser
        doit être | muss | sein | soll | should | must | has | have | at | format | side | edge | this | your
        que | not | x | datei | bild | archivo | imagen | fichier | image de | duration | length | long
        duración | durée | dauer | länge | limit | width x height | w x h | (w x h) | breite x höhe | b x h
        largeur x hauteur | l x h | ancho x alto | should be | will be | we need | measures | measuring | wants
        want | need | needs | takes | accepts | to be | mind | bitte | please | use | keep | use a | make it
        and be | canvas | artwork | graphic | grafik | frame | banner size | logo size
    """,
}


class Phrase(NamedTuple):
    """A phrase of the vocabulary."""

    words: tuple[str, ...]
    sort: Sort


WORD = re.compile(
    r"(?:[dlnsjmtc]|qu)'(?=\w)|[^\W\d_][\w'.]*(?<!\.)\.?|>=|<=|[≥≤<>=]|[(),;:/&|\n!?\"-]|\d+(?:[.,]\d+)*|\S"
)
_KNOWN: dict[tuple[str, ...], Sort] = {}
for _sort, _phrases in _PHRASES.items():
    for _phrase in re.split(r"[|\n]", _phrases):
        _KNOWN.setdefault(tuple(_phrase.split()), _sort)
_KNOWN.pop((), None)
LONGEST = max(len(words) for words in _KNOWN)


def sort_of(words: tuple[str, ...]) -> Sort | None:
    """What a phrase says of a measure; None where it is not in the vocabulary."""
    found = _KNOWN.get(words)
    return found or _KNOWN.get((*words[:-1], words[-1].rstrip(".")))


GLUE_WORDS = frozenset(word for words, sort in _KNOWN.items() if sort == "glue" for word in words)
