"""Asking people: questions about takes for those inside, and the one page that a link opens for everybody else."""

from __future__ import annotations

import secrets
from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from django.conf import settings
from django.core import signing
from django.http import HttpRequest, HttpResponse
from ninja import Path, Router, Schema, Status
from ninja.throttling import AnonRateThrottle
from pydantic import Field

from fitzle.apps.accounts.access import access_to
from fitzle.apps.accounts.addresses import client_address
from fitzle.apps.api.drawn_scenes import draw_scene_picture
from fitzle.apps.api.pictures import immutable_picture
from fitzle.apps.api.scenes import state_of
from fitzle.apps.api.schemas import Message
from fitzle.apps.asking import asking
from fitzle.apps.pieces.fits import fit_of
from fitzle.apps.pieces.opening import open_fits
from fitzle.apps.pieces.takes import takes_beside

router = Router(tags=["asking"])
PICTURE_SCALE = 2.0
VOTER_COOKIE, VOTER_SALT = "fitzle_voter", "fitzle.voter"
A_YEAR = 31_536_000


class ByAddress(AnonRateThrottle):
    """So many requests from one address, whoever is signed in there."""

    def get_cache_key(self, request: HttpRequest) -> str:
        return f"asking/{self.scope}/{client_address(request)}"


class Looks(ByAddress):
    """Looking at questions: a page, its pictures, and room for an office that shares an address."""

    scope = "looks"


class Answers(ByAddress):
    """Answering them."""

    scope = "answers"


public = Router(tags=["asking"], throttle=[Looks("120/m")])


class Asking(Schema):
    """A question about all takes beside a fit, in one of its scenes."""

    scene: Annotated[str, Field(max_length=60)]
    days: Annotated[int, Field(ge=1, le=asking.LONGEST_DAYS)] = asking.LASTS_DAYS


class AnsweredOut(Schema):
    """A take with its votes and the reasons that came with them."""

    name: str
    votes: int
    why: list[str]


class QuestionOut(Schema):
    """A question as those see it who asked it."""

    id: UUID
    address: str
    scene: str
    asked_at: datetime
    ends_at: datetime
    open: bool
    answers: list[AnsweredOut]
    verdict: str


class AskedOut(Schema):
    """A question as those see it who are asked: pictures in an order of their own, and nothing of whose they are."""

    options: list[str]
    answered: bool
    longest_why: int = asking.LONGEST_WHY


class Answer(Schema):
    """The chosen option, and why in a line."""

    option: Annotated[str, Field(max_length=16)]
    why: Annotated[str, Field(max_length=asking.LONGEST_WHY)] = ""


@router.get("/fits/{uuid:fit}/questions", response=list[QuestionOut])
def list_questions(request: HttpRequest, workspace: Path[str], fit: UUID) -> list[QuestionOut]:
    """What people were asked about the takes of a fit, and what they said."""
    return [_view(request, one) for one in asking.results_beside(access_to(request.user, workspace), fit)]


@router.post("/fits/{uuid:fit}/questions", response={201: QuestionOut, 422: Message})
def ask(request: HttpRequest, workspace: Path[str], fit: UUID, given: Asking) -> Status[QuestionOut]:
    """Asks people which take they like better; the pictures are kept as they are now."""
    access = access_to(request.user, workspace)
    space = access.workspace
    beside = open_fits(space, takes_beside(space, fit_of(space, fit)))
    pictures = [
        (
            one.fit.take,
            draw_scene_picture.ask(state_of(one), space.pk, one.fit.pk, given.scene, "usual", PICTURE_SCALE).data,
        )
        for one in beside
    ]
    question = asking.ask_people(access, fit, given.scene, pictures, given.days)
    return Status(201, _view(request, asking.result_of(question)))


@router.delete("/questions/{uuid:question}", response=QuestionOut)
def end(request: HttpRequest, workspace: Path[str], question: UUID) -> QuestionOut:
    """Ends a question; its link opens nothing from then on."""
    ended = asking.end_question(access_to(request.user, workspace), question)
    return _view(request, asking.result_of(ended))


@public.get("/{token}", response=AskedOut, auth=None)
def read_question(request: HttpRequest, token: str, response: HttpResponse) -> AskedOut:
    """The question of a link."""
    question = asking.open_question(token)
    voter = _voter(request) or _new_voter(request, response)
    return AskedOut(options=asking.keys_for(question, voter), answered=asking.has_voted(question, voter))


@public.get("/{token}/{option}/picture", auth=None)
def option_picture(request: HttpRequest, token: str, option: str) -> HttpResponse:
    """One of its pictures."""
    found = asking.option_of(asking.open_question(token), option)
    return immutable_picture(bytes(found.picture), "image/png")


@public.post("/{token}", response={200: AskedOut, 422: Message}, auth=None, throttle=[Answers("20/h")])
def answer(request: HttpRequest, token: str, given: Answer) -> Any:
    """Takes an answer; one a person."""
    question = asking.open_question(token)
    voter = _voter(request)
    if not voter:
        return Status(422, {"message": "Your browser keeps no cookies from here. Allow them, and open the link again."})
    asking.vote(question, voter, given.option, given.why)
    return AskedOut(options=asking.keys_for(question, voter), answered=True)


def _voter(request: HttpRequest) -> str:
    """The number that this browser was given; empty where it has none, or one that we did not sign."""
    try:
        return str(signing.loads(request.COOKIES.get(VOTER_COOKIE, ""), salt=VOTER_SALT))
    except signing.BadSignature:
        return ""


def _new_voter(request: HttpRequest, response: HttpResponse) -> str:
    voter = secrets.token_hex(16)
    response.set_cookie(
        VOTER_COOKIE,
        signing.dumps(voter, salt=VOTER_SALT),
        max_age=A_YEAR,
        httponly=True,
        samesite="Lax",
        secure=settings.SESSION_COOKIE_SECURE,
    )
    return voter


def _view(request: HttpRequest, result: asking.Result) -> QuestionOut:
    question = result.question
    return QuestionOut(
        id=question.pk,
        address=request.build_absolute_uri(f"/ask/{question.token}"),
        scene=question.scene,
        asked_at=question.asked_at,
        ends_at=question.ends_at,
        open=asking.is_open(question),
        answers=[AnsweredOut(name=one.name, votes=one.votes, why=one.why) for one in result.answers],
        verdict=result.verdict.words,
    )
