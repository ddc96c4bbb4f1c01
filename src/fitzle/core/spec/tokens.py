"""The naming rule's tokens."""

from __future__ import annotations

import re

USUAL_RULE = "{subject}_{width}x{height}"  # of a sheet that states none
TOKENS = ("subject", "placement", "width", "height", "size", "date", "version")
_TOKEN = re.compile(r"\{([^{}]*)\}")


def checked_rule(rule: str) -> str:
    """The rule itself when each `{token}` in it is known; raises ValueError with the known ones otherwise."""
    for token in _TOKEN.findall(rule):
        if token not in TOKENS:
            raise ValueError(f"unknown token {{{token}}}; known are " + " ".join(f"{{{name}}}" for name in TOKENS))
    if "{" in _TOKEN.sub("", rule) or "}" in _TOKEN.sub("", rule):
        raise ValueError("a curly bracket is not closed or not opened")
    return rule


def tokens_in(rule: str) -> list[str]:
    """The tokens of a rule, in their order."""
    return _TOKEN.findall(rule)


def filled_rule(rule: str, values: dict[str, str]) -> str:
    """The rule with each token replaced; a token without a value becomes nothing."""
    return _TOKEN.sub(lambda found: values.get(found[1], ""), rule)
