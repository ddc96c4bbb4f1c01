"""Words for colours, in English, German, French and Spanish. Names are those of CSS Color 4, section 6.1."""

from __future__ import annotations

_BY_COLOUR = {
    "#ffffff": "white|weiß|weiss|weißem|blanc|blanco|blanche|weißen",
    "#000000": "black|schwarz|schwarzem|noir|negro",
    "#808080": "grey|gray|grau|gris",
    "#d3d3d3": "light grey|light gray",
    "#404040": "dark grey|dark gray",
    "#ff0000": "red|rot|rouge|rojo",
    "#008000": "green|grün|vert|verde",
    "#0000ff": "blue|blau|bleu|azul",
    "#000080": "navy",
    "#ffff00": "yellow|gelb|jaune|amarillo",
    "#ffa500": "orange",
    "#f5f5dc": "beige",
    "#fffdd0": "cream",
    "#800080": "purple",
    "#ee82ee": "violet",
    "#ffc0cb": "pink",
    "#a52a2a": "brown",
    "#008080": "teal",
    "#1c1c1c": "dark|dunkel|dunklem",
    "#f4f4f4": "light|hell|hellem",
}
# Dark and light are no colours: something stands for them, and is said to be assumed.
NOT_ONE_COLOUR = frozenset({"dark", "light", "dunkel", "hell", "dunklem", "hellem"})
COLOURS = {word: colour for colour, words in _BY_COLOUR.items() for word in words.split("|")}
