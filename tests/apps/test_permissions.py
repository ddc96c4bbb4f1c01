"""Actions refuse who may not do them, and work that is done later asks once more."""

from typing import Any
from uuid import UUID, uuid4

import pytest
from django.core.exceptions import PermissionDenied

from fitzle.apps.accounts import joining
from fitzle.apps.accounts import tokens as token_actions
from fitzle.apps.accounts import workspaces as workspace_actions
from fitzle.apps.accounts.access import ACTIONS as CHECKED
from fitzle.apps.accounts.access import Access, access_to
from fitzle.apps.accounts.models import Membership, Role
from fitzle.apps.artwork import actions as artwork_actions
from fitzle.apps.artwork.models import Artwork
from fitzle.apps.asking import asking as ask_actions
from fitzle.apps.deliveries import actions as delivery_actions
from fitzle.apps.deliveries import of_rows
from fitzle.apps.destinations import learning as learning_actions
from fitzle.apps.destinations.shelves import ShelfChange
from fitzle.apps.jobs.tasks import take_in_artwork
from fitzle.apps.pieces import actions as piece_actions
from fitzle.apps.pieces import house as house_actions
from fitzle.apps.pieces import icons as icon_actions
from fitzle.apps.pieces import places as place_actions
from fitzle.apps.pieces import row_actions, row_files, row_likeness, row_preparing
from fitzle.apps.pieces import serving as serving_actions
from fitzle.apps.pieces import takes as take_actions
from fitzle.apps.pieces.models import Fit, Piece
from fitzle.apps.uploading import connections
from fitzle.apps.watermarking import actions as watermark_actions
from fitzle.core.artwork.steps.document import NOT_PREPARED, CutOut
from fitzle.core.encode.wish import Wish
from fitzle.core.handover.handing import Handing
from fitzle.core.motion.footage import Cut
from fitzle.core.runs.table import Table
from tests.apps.helpers import send
from tests.make import sheet, svg

pytestmark = pytest.mark.django_db
NOBODY: UUID = uuid4()  # refused before anything is looked for
MODULES = (
    artwork_actions,
    delivery_actions,
    piece_actions,
    place_actions,
    serving_actions,
    house_actions,
    icon_actions,
    watermark_actions,
    connections,
    token_actions,
    learning_actions,
    workspace_actions,
    take_actions,
    ask_actions,
    row_actions,
    row_files,
    row_likeness,
    row_preparing,
    joining,
    of_rows,
)
LARGER = svg('<circle cx="50" cy="25" r="24" fill="#1d3b4f"/>')
ACTIONS: dict[str, tuple[Any, ...]] = {
    "bring_in": ("a.svg", [svg()], [], []),
    "bring_from_web": ("https://ottermoor.example/a.svg", []),
    "make_mark": ("bike", "outline", None, None),
    "describe": (NOBODY, "Another name"),
    "recolour": (NOBODY, {"#000000": "#ffffff"}),
    "replace": (NOBODY, "a.svg", [svg()]),
    "bring_back": (NOBODY, 0),
    "take_stills": (NOBODY, [0.0]),
    "take_loop": (NOBODY, Cut(0.0, 1.0)),
    "take_pages": (NOBODY, [1]),
    "save_steps": (NOBODY, 0, NOT_PREPARED, "turned"),
    "move_in_history": (NOBODY, -1),
    "make_dark_version": (NOBODY,),
    "deliver_these": ([NOBODY],),
    "make_icons": (NOBODY,),
    "begin_watermarking": (NOBODY,),
    "change_watermarking": (NOBODY,),
    "add_picture": (NOBODY, "a.jpg", [b""]),
    "remove_picture": (NOBODY, NOBODY),
    "start_watermarking": (NOBODY,),
    "cancel_watermarking": (NOBODY,),
    "delete_watermarking": (NOBODY,),
    "cancel_delivery": (NOBODY,),
    "go_on_with": (NOBODY,),
    "take_back": (NOBODY,),
    "say_live": (NOBODY, True),
    "remember_handing": (NOBODY, Handing()),
    "end_search": (NOBODY,),
    "fill_fields": (NOBODY, {}, None),
    "connect": (NOBODY, connections.Opening("s3", "https://a.example", "x", "", "")),
    "disconnect": (NOBODY,),
    "make_token": ("CI", []),
    "revoke_token": (0,),
    "change_fit": (NOBODY, piece_actions.Edit(0, "moved")),
    "repair_fit": (NOBODY, "plate", None),
    "add_role": (NOBODY, 0, "headline"),
    "add_artwork": (NOBODY, 0, str(NOBODY), None),
    "replace_artwork": (NOBODY, 0, "mark", str(NOBODY)),
    "bring_into": (str(NOBODY), f"into/{NOBODY}/0.5/0.5"),
    "place_artwork": (NOBODY, [str(NOBODY)]),
    "begin_piece": (NOBODY, 0),
    "stand_elsewhere": (NOBODY, [NOBODY]),
    "empty_placement": (NOBODY,),
    "join_versions": (NOBODY, None),
    "save_house_style": ([], "", "", ""),
    "change_piece": (NOBODY, 0, [], "moved"),
    "undo": (NOBODY,),
    "add_place": ("Forum", sheet()),
    "change_place": (NOBODY, place_actions.Change()),
    "bring_sheet_back": (NOBODY, 1),
    "rename_workspace": ("Mine",),
    "delete_workspace": (),
    "bring_workspace_back": (),
    "take_house_style": (NOBODY,),
    "change_destination": (NOBODY, ShelfChange(name="x")),
    "mute_rule": (NOBODY, "busy", "meant so"),
    "judge_again": (NOBODY, "busy"),
    "share_file": ([NOBODY], NOBODY),
    "give_its_own_file": (NOBODY,),
    "delete_destination": (NOBODY,),
    "begin_learning": (learning_actions.Shown("a", b"x", b"x"),),
    "redo": (NOBODY,),
    "add_take": (NOBODY,),
    "simplify_mark": (NOBODY, "mark"),
    "let_move": (NOBODY, 0.5),
    "compose_for": (NOBODY, True),
    "prepare_here": (NOBODY, "mark", "cut out"),
    "fix_file": (NOBODY, Wish()),
    "make_prepared_version": (NOBODY, CutOut(id="cut"), "cut out"),
    "choose_take": (NOBODY, False),
    "ask_people": (NOBODY, "page-0-0", [("", b"x"), ("b", b"x")]),
    "end_question": (NOBODY,),
    "begin_run": (NOBODY,),
    "change_rows": (NOBODY, [], "x"),
    "paste_cells": (NOBODY, [], [], []),
    "add_table": (NOBODY, Table((), [], [])),
    "put_into_row": (NOBODY, "a.png", f"row/{NOBODY}/guest"),
    "fit_of_row": (NOBODY, "r", NOBODY),
    "name_files": (NOBODY, ""),
    "hand_on": ("",),
    "prepare_alike": (NOBODY, "guest", "r"),
    "one_size": (NOBODY, "headline", True),
    "align_faces": (NOBODY, "guest", True),
    "undo_rows": (NOBODY,),
    "redo_rows": (NOBODY,),
    "make_row_files": (NOBODY,),
    "cancel_row_files": (NOBODY,),
    "deliver_rows": (NOBODY,),
}


@pytest.fixture
def viewing(juno: Any, make_person: Any) -> Access:
    """Somebody who may look at Juno's workspace and no more."""
    viewer, _ = make_person("vera")
    Membership.objects.create(user=viewer, workspace=juno[1], role=Role.VIEWER)
    return access_to(viewer, "juno")


def named(name: str) -> Any:
    return next(getattr(module, name) for module in MODULES if hasattr(module, name))


@pytest.mark.parametrize("name", ACTIONS)
def test_who_may_only_look_is_refused_each_action(name: str, viewing: Access) -> None:
    with pytest.raises(PermissionDenied, match="Ask its owner|Only its owner"):
        named(name)(viewing, *ACTIONS[name])
    assert not Artwork.objects.exists() and not Piece.objects.exists()


def test_delivering_all_is_an_action_too(viewing: Access) -> None:
    with pytest.raises(PermissionDenied, match="Ask its owner"):
        delivery_actions.deliver_all(viewing, changed=False)


def test_every_action_is_in_the_table() -> None:
    """So that a new action is not forgotten here; anybody may leave."""
    assert {name.rpartition(".")[2] for name in CHECKED} == {*ACTIONS, "deliver_all", "leave_workspace"}


def take_rights(person: Any, change: str) -> None:
    """The person leaves their workspace, or may only look from now on."""
    membership = Membership.objects.filter(user=person[0], workspace=person[1])
    if change == "gone":
        membership.delete()
    else:
        membership.update(role=Role.VIEWER)


@pytest.mark.parametrize("change", ["gone", "only looking"])
def test_a_worker_asks_again_what_the_person_may_do(change: str, juno: Any, place: Any, run: Any) -> None:
    """Dropped while they were a maker; by the time a worker has read it they have left, or may only look."""
    placement = place()
    with run(execute=False) as queued:
        access = access_to(juno[0], "juno")
        artwork = artwork_actions.bring_in(access, "a.svg", [svg()], [str(placement.pk)])
    assert queued, "a worker was to read it"
    take_rights(juno, change)
    take_in_artwork.run(str(artwork.pk))
    assert Artwork.objects.get(pk=artwork.pk).state == "ready", "the artwork is there"
    assert not Fit.objects.exists(), "and stands nowhere"


@pytest.mark.parametrize("change", ["gone", "only looking"])
def test_a_newer_file_stays_apart_where_the_person_may_not_change_any_more(
    change: str, juno: Any, bring: Any, run: Any
) -> None:
    first = bring("a.svg", svg())
    with run(execute=False):
        newer = artwork_actions.replace(access_to(juno[0], "juno"), UUID(first["id"]), "b.svg", [LARGER])
    take_rights(juno, change)
    take_in_artwork.run(str(newer.pk))
    kept = Artwork.objects.get(pk=first["id"])
    assert kept.name == "a.svg" and not kept.earlier, "what stood there stands on"
    assert Artwork.objects.get(pk=newer.pk).origin.get("replaces") is None, (
        "and the newer file is an artwork of its own"
    )


def test_a_viewer_s_request_changes_nothing(viewing: Access, juno: Any) -> None:
    from django.test import Client

    client = Client()
    client.force_login(viewing.actor, "django.contrib.auth.backends.ModelBackend")
    answer = send(
        client, "put", "workspaces/juno/house-style", {"colours": [], "heading": "", "text": "", "naming": ""}
    )
    assert answer.status_code == 403
    juno[1].refresh_from_db()
    assert juno[1].house_style["colours"], "the colours are as they were"
