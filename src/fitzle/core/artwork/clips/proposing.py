"""Stills proposed from a clip: the sharpest frame of each distinct scene, never amid a fade, eyes open where faces are.

A frame amid a fade is nearly a mixture of one before and one after it that differ.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from fitzle.core.artwork.clips.looking import Look, Sign, looks_at
from fitzle.core.artwork.clips.opening import OpenClip
from fitzle.core.artwork.faces.detecting import faces_in
from fitzle.core.artwork.faces.eyes import has_open_eyes

COUNT = 12
NEW_SCENE = 0.10  # of the range, mean difference of two signs
DIM, BRIGHT, FLAT = 0.07, 0.95, 0.04  # mean light and its spread; beyond there is nothing to see
FADE_REACH_SECONDS = 0.6
FADE_DIFFERENCE, FADE_REST = 0.06, 0.35  # what lies on either side differs; that share of it is not explained
LOOKED_FOR_FACES, SPREAD = 2, 3  # of a part: its sharpest frames, and some at even distances
OPEN_WORTH, CLOSED_WORTH = 1.5, 0.4  # times the sharpness
LEAST_APART_SECONDS, BLINK_SECONDS = 0.4, 3.0


class Proposal(NamedTuple):
    """A still worth having; `eyes` is None where no face tells."""

    seconds: float
    score: float
    eyes: bool | None


def proposed_stills(clip: OpenClip, seconds: float, count: int = COUNT) -> list[Proposal]:
    """At most `count` proposals in the order of time; fewer where the clip has fewer moments."""
    looks = list(looks_at(clip, seconds))
    good = [look for look, fit in zip(looks, _shows(looks), strict=True) if fit] or looks
    parts = _parts(_scenes(good), count)
    found = [_best(part) for part in parts]
    return _apart(_awake(sorted(found)))


def _shows(looks: list[Look]) -> list[bool]:
    """Which frames show something, and not two things at once."""
    return [
        DIM <= look.light <= BRIGHT and look.spread >= FLAT and not _is_amid_fade(looks, index)
        for index, look in enumerate(looks)
    ]


def _is_amid_fade(looks: list[Look], index: int) -> bool:
    """Whether a frame is nearly a mixture of frames before and after it that differ."""
    now = looks[index]
    before = next((look for look in reversed(looks[:index]) if now.seconds - look.seconds >= FADE_REACH_SECONDS), None)
    after = next((look for look in looks[index + 1 :] if look.seconds - now.seconds >= FADE_REACH_SECONDS), None)
    near = [look for look in looks[max(0, index - 1) : index + 2] if look is not now]
    if before is None or after is None or after.seconds - before.seconds > 4 * FADE_REACH_SECONDS:
        return False
    across = after.sign - before.sign
    if _difference(after.sign, before.sign) < FADE_DIFFERENCE:
        return False
    share = float((across * (now.sign - before.sign)).sum() / max(float((across * across).sum()), 1e-9))
    rest = _difference(now.sign, before.sign + share * across) / _difference(after.sign, before.sign)
    changes = min(_difference(now.sign, look.sign) for look in near) > 0.01
    return 0.06 < share < 0.94 and rest < FADE_REST and changes


def _difference(one: Sign, other: Sign) -> float:
    return float(np.abs(one - other).mean())


def _scenes(looks: list[Look]) -> list[list[Look]]:
    """Runs of frames that look alike."""
    scenes: list[list[Look]] = []
    for look in looks:
        if scenes and _difference(scenes[-1][-1].sign, look.sign) < NEW_SCENE:
            scenes[-1].append(look)
        else:
            scenes.append([look])
    return _distinct(scenes)


def _distinct(scenes: list[list[Look]]) -> list[list[Look]]:
    """Scenes that come back are one scene."""
    kept: list[list[Look]] = []
    for scene in scenes:
        middle = scene[len(scene) // 2].sign
        same = next((one for one in kept if _difference(one[len(one) // 2].sign, middle) < NEW_SCENE / 2), None)
        if same is None:
            kept.append(list(scene))
        else:
            same.extend(scene)
    return kept


def _parts(scenes: list[list[Look]], count: int) -> list[list[Look]]:
    """`count` parts: the longest scenes, or scenes divided until there are enough."""
    parts = sorted(scenes, key=len, reverse=True)[:count]
    while len(parts) < count:
        longest = max(parts, key=len, default=[])
        if len(longest) < 2:
            break
        parts.remove(longest)
        parts += [longest[: len(longest) // 2], longest[len(longest) // 2 :]]
    return parts


def _best(part: list[Look]) -> Proposal:
    """The best of the sharpest frames and of a few from all over the part: eyes that blink are open elsewhere."""
    sharpest = sorted(part, key=lambda look: -look.sharpness)[:LOOKED_FOR_FACES]
    over_all = [part[len(part) * number // SPREAD] for number in range(SPREAD)]
    looks = {look.seconds: look for look in [*sharpest, *over_all]}
    judged = [_judged(look) for look in sorted(looks.values(), key=lambda look: -look.sharpness)]
    return max(judged, key=lambda proposal: proposal.score)


def _judged(look: Look) -> Proposal:
    pixels = look.pixels()
    faces = faces_in(pixels)
    told = [has_open_eyes(pixels, face) for face in faces]
    known = [one for one in told if one is not None]
    eyes = all(known) if known else None
    worth = 1.0 if eyes is None else OPEN_WORTH if eyes else CLOSED_WORTH
    return Proposal(round(look.seconds, 6), look.sharpness * worth, eyes)


def _awake(proposals: list[Proposal]) -> list[Proposal]:
    """Without closed eyes that are open shortly before or after."""
    opened = [proposal.seconds for proposal in proposals if proposal.eyes]
    return [
        proposal
        for proposal in proposals
        if proposal.eyes is not False or all(abs(proposal.seconds - at) > BLINK_SECONDS for at in opened)
    ]


def _apart(proposals: list[Proposal]) -> list[Proposal]:
    """Without those that show the same moment as the one before."""
    kept = proposals[:1]
    for proposal in proposals[1:]:
        if proposal.seconds - kept[-1].seconds >= LEAST_APART_SECONDS:
            kept.append(proposal)
    return kept
