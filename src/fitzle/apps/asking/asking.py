"""Questions: asked, answered once by each person, ended, counted."""

from __future__ import annotations

import hashlib
import secrets
from collections.abc import Sequence
from datetime import timedelta
from typing import NamedTuple
from uuid import UUID

from django.db import IntegrityError, transaction
from django.http import Http404
from django.utils import timezone

from fitzle.apps.accounts.access import Access, Capability, action
from fitzle.apps.asking.models import Option, Question, Vote
from fitzle.apps.pieces.fits import fit_of
from fitzle.apps.pieces.takes import name_of_take
from fitzle.core.errors import DocumentError
from fitzle.core.votes import Verdict, verdict

LASTS_DAYS, LONGEST_DAYS = 7, 60
LONGEST_WHY = 200
TOKEN_BYTES, KEY_BYTES = 24, 6
GONE = "This question has ended, or there never was one here."


class Answered(NamedTuple):
    """An option as it was answered: the take's letter, its votes, and why they chose it."""

    name: str
    votes: int
    why: list[str]


class Result(NamedTuple):
    """A question with what people said."""

    question: Question
    answers: list[Answered]
    verdict: Verdict


@action(Capability.CHANGE)
@transaction.atomic
def ask_people(
    access: Access, fit_id: UUID, scene: str, pictures: Sequence[tuple[str, bytes]], days: int = LASTS_DAYS
) -> Question:
    """Asks which of several takes (each with its picture, PNG) people like better in a scene.

    Raises DocumentError for fewer than two takes, or for a time that is too long.
    """
    if len(pictures) < 2:
        raise DocumentError("there is one take only", advice="Make another take, then ask which one people like.")
    if not 1 <= days <= LONGEST_DAYS:
        raise DocumentError(f"a question lasts from 1 day to {LONGEST_DAYS}")
    fit = fit_of(access.workspace, fit_id)
    question = Question.objects.create(
        workspace=access.workspace,
        piece=fit.piece,
        placement=fit.placement,
        token=secrets.token_urlsafe(TOKEN_BYTES),
        scene=scene[:120],
        asked_by=access.actor,
        ends_at=timezone.now() + timedelta(days=days),
    )
    for take, picture in pictures:
        Option.objects.create(question=question, take=take, key=secrets.token_hex(KEY_BYTES), picture=picture)
    return question


@action(Capability.CHANGE)
def end_question(access: Access, question_id: UUID) -> Question:
    """Ends a question now; its link opens nothing any more, and what was said stays."""
    question = Question.objects.filter(workspace=access.workspace, pk=question_id).first()
    if question is None:
        raise Http404("There is no such question.")
    question.closed_at = question.closed_at or timezone.now()
    question.save(update_fields=["closed_at"])
    return question


def results_beside(access: Access, fit_id: UUID) -> list[Result]:
    """All questions about the takes of a fit's piece in its place, the newest first."""
    access.require(Capability.SEE)
    fit = fit_of(access.workspace, fit_id)
    asked = Question.objects.filter(workspace=access.workspace, piece=fit.piece, placement=fit.placement)
    return [result_of(one) for one in asked.prefetch_related("options__votes")]


def result_of(question: Question) -> Result:
    """What people said."""
    answers = [
        Answered(
            name_of_take(option.take), len(option.votes.all()), [vote.why for vote in option.votes.all() if vote.why]
        )
        for option in question.options.all()
    ]
    return Result(question, answers, verdict({one.name: one.votes for one in answers}))


def is_open(question: Question) -> bool:
    """Whether it can still be answered."""
    return question.closed_at is None and question.ends_at > timezone.now() and not question.workspace.leaving_at


def open_question(token: str) -> Question:
    """The question of a link; Http404 where it ended, or never was."""
    question = Question.objects.select_related("workspace").filter(token=token).first()
    if question is None or not is_open(question):
        raise Http404(GONE)
    return question


def option_of(question: Question, key: str) -> Option:
    """One of its options; Http404 for any other."""
    option = question.options.filter(key=key).first()
    if option is None:
        raise Http404("This question has no such answer.")
    return option


def keys_for(question: Question, voter: str) -> list[str]:
    """The options in an order that is each person's own, so that none stands first for everybody."""
    keys = list(question.options.values_list("key", flat=True))
    return sorted(keys, key=lambda key: hash_of(f"{voter}/{key}"))


def hash_of(text: str) -> str:
    """A hash that is the same in every process."""
    return hashlib.sha256(text.encode()).hexdigest()


def has_voted(question: Question, voter: str) -> bool:
    """Whether this person has answered."""
    return question.votes.filter(voter=voter).exists()


def vote(question: Question, voter: str, key: str, why: str) -> None:
    """Takes an answer; raises DocumentError for a second one of the same person."""
    option = option_of(question, key)
    try:
        with transaction.atomic():
            Vote.objects.create(question=question, option=option, voter=voter, why=" ".join(why.split())[:LONGEST_WHY])
    except IntegrityError as error:
        advice = "Thank you: one answer is all it takes."
        raise DocumentError("you have answered this already", advice=advice) from error
