"""The API: all routers, one sign-in check, one error mapping."""

from __future__ import annotations

from typing import Any

from django.core.exceptions import PermissionDenied
from django.http import Http404, HttpRequest, HttpResponse
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, Throttled, ValidationError
from ninja.security import SessionAuth

from fitzle.apps.api import (
    artwork,
    asking,
    candidates,
    clips,
    composing,
    connecting,
    deliveries,
    doing,
    elsewhere,
    entrance,
    fits,
    glyphs,
    house_style,
    icons,
    joining,
    learning,
    motion,
    phone,
    pieces,
    places,
    preparation,
    room,
    rows,
    rules,
    scenes,
    serving,
    session,
    takes,
    tokens,
    trimming,
    typefaces,
    versions,
    wall,
    watermarking,
    workspaces,
)
from fitzle.apps.api.parsing import StrictParser
from fitzle.apps.api.place_schemas import StaleSheetOut
from fitzle.apps.api.plain_errors import answer_for
from fitzle.apps.api.preparation import view_of
from fitzle.apps.api.preparation_schemas import StaleSteps
from fitzle.apps.api.schemas import ClashOut, StalePiece
from fitzle.apps.api.sheet_views import view_of_place
from fitzle.apps.api.token_auth import TokenAuth
from fitzle.apps.api.views import piece_view
from fitzle.apps.artwork.preparing import StalePreparation
from fitzle.apps.destinations.shelves import StaleSheet
from fitzle.apps.drawing.errors import DrawingBusy, SavedTooHeavy
from fitzle.apps.files.errors import DamagedFileError, StorageAwayError, StorageFullError
from fitzle.apps.pieces.saving import StaleRevision
from fitzle.core.errors import FitzleError

api = NinjaAPI(
    title="Fitzle",
    version="1",
    auth=[TokenAuth(), SessionAuth()],
    docs_url=None,
    openapi_url="/openapi.json",
    parser=StrictParser(),
)
api.add_router("/session", session.router)
api.add_router("/door", session.door)
api.add_router("/entrance", entrance.router)
api.add_router("/mails", entrance.mails)
api.add_router("/invitations", entrance.invitations)
api.add_router("/doing", doing.router)
api.add_router("/rules", rules.router)
api.add_router("/seen", phone.seen)
api.add_router("/ask", asking.public)
api.add_router("/joining", joining.joining)
api.add_router("/workspaces", workspaces.router)
for module in (
    wall,
    learning,
    places,
    serving,
    artwork,
    pieces,
    fits,
    scenes,
    candidates,
    connecting,
    icons,
    motion,
    phone,
    takes,
    asking,
    composing,
    elsewhere,
    rows,
    joining,
    typefaces,
    deliveries,
    preparation,
    room,
    house_style,
    clips,
    trimming,
    glyphs,
    versions,
    tokens,
    watermarking,
):
    api.add_router("/workspaces/{workspace}", module.router)


def _answer(request: HttpRequest, message: str, status: int, **more: Any) -> HttpResponse:
    return api.create_response(request, {"message": message, **more}, status=status)


@api.exception_handler(Throttled)
def _on_throttled(request: HttpRequest, error: Throttled) -> HttpResponse:
    return _answer(request, "That is more than one person asks for. Wait a little, then go on.", error.status_code)


@api.exception_handler(HttpError)
def _on_unreadable(request: HttpRequest, error: HttpError) -> HttpResponse:
    """A body that the parser refused; its own words stand in the cause."""
    cause = error.__cause__
    if isinstance(cause, FitzleError):
        return _answer(request, cause.message, 422)
    return _answer(request, str(error), error.status_code)


@api.exception_handler(Exception)
def _on_anything(request: HttpRequest, error: Exception) -> HttpResponse:
    return answer_for(error)


@api.exception_handler(FitzleError)
def _on_fitzle_error(request: HttpRequest, error: FitzleError) -> HttpResponse:
    return _answer(request, error.message, 422)


@api.exception_handler(SavedTooHeavy)
def _on_saved_too_heavy(request: HttpRequest, error: SavedTooHeavy) -> HttpResponse:
    return _answer(request, error.message, 422, saved_revision=error.revision)


@api.exception_handler(StorageFullError)
def _on_full_disk(request: HttpRequest, error: StorageFullError) -> HttpResponse:
    return _answer(request, error.message, 503 if isinstance(error, StorageAwayError) else 507)


@api.exception_handler(DrawingBusy)
def _on_busy(request: HttpRequest, error: DrawingBusy) -> HttpResponse:
    answer = _answer(request, str(error), 503)
    answer["Retry-After"] = "1"
    return answer


@api.exception_handler(DamagedFileError)
def _on_damaged(request: HttpRequest, error: DamagedFileError) -> HttpResponse:
    if error.remedy:
        error.remedy()
    return _answer(request, error.message, 422)


@api.exception_handler(Http404)
def _on_missing(request: HttpRequest, error: Http404) -> HttpResponse:
    return _answer(request, str(error) or "There is nothing here.", 404)


@api.exception_handler(PermissionDenied)
def _on_denied(request: HttpRequest, error: PermissionDenied) -> HttpResponse:
    return _answer(request, str(error) or "You may not do that.", 403)


@api.exception_handler(AuthenticationError)
def _on_signed_out(request: HttpRequest, _error: AuthenticationError) -> HttpResponse:
    return _answer(request, "Please sign in.", 401)


@api.exception_handler(ValidationError)
def _on_invalid(request: HttpRequest, error: ValidationError) -> HttpResponse:
    first = error.errors[0] if error.errors else {}
    place = ".".join(str(step) for step in first.get("loc", ())[2:])
    return _answer(request, f"This request cannot be used: {place} {first.get('msg', '')}".strip(), 422)


@api.exception_handler(StaleRevision)
def _on_stale(request: HttpRequest, error: StaleRevision) -> HttpResponse:
    newest = StalePiece(
        message="Somebody else changed the same thing in the meantime.",
        newest=piece_view(error.piece, request.user.pk or 0),
        clashes=[ClashOut(**clash.model_dump(mode="json")) for clash in error.clashes],
    )
    return api.create_response(request, newest.model_dump(mode="json"), status=409)


@api.exception_handler(StaleSheet)
def _on_stale_sheet(request: HttpRequest, error: StaleSheet) -> HttpResponse:
    newest = StaleSheetOut(
        message="Somebody else changed this sheet in the meantime. Theirs is shown, with your changes over it.",
        newest=view_of_place(error.newest),
    )
    return api.create_response(request, newest.model_dump(mode="json"), status=409)


@api.exception_handler(StalePreparation)
def _on_stale_steps(request: HttpRequest, error: StalePreparation) -> HttpResponse:
    newest = StaleSteps(
        message="Somebody else changed this preparation in the meantime. Here is theirs; make your change once more.",
        newest=view_of(error.artwork, request.user.pk or 0),
    )
    return api.create_response(request, newest.model_dump(mode="json"), status=409)
