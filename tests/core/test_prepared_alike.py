"""Pictures of a series prepared alike: what means the same for each is taken over, what stands on one alone is not."""

from fitzle.core.artwork.steps.document import Adjust, Crop, CutOut, Preparation, Stroke, Trim, Turn, Window
from fitzle.core.artwork.steps.sharing import prepared_like, shared_steps

BRUSH = Stroke(act="keep", points=((0.5, 0.5),), size=0.1)
MODEL = Preparation(
    steps=(
        Turn(id="turn", quarters=1),
        CutOut(id="cut", fill="#f4d06f", strokes=(BRUSH,), box=Window(x=0, y=0, width=0.5, height=0.5)),
        Adjust(id="light", brightness=0.2, on=False),
        Trim(id="trim"),
    )
)


def test_what_means_the_same_for_any_picture_is_shared_without_what_was_painted() -> None:
    cut, trim = shared_steps(MODEL)
    assert isinstance(cut, CutOut) and cut.fill == "#f4d06f" and not cut.strokes and cut.box is None
    assert isinstance(trim, Trim), "what is off is not shared"


def test_it_stands_behind_what_the_other_has_of_its_own() -> None:
    crop = Crop(id="cut", window=Window(x=0.1, y=0.1, width=0.5, height=0.5))
    own = Preparation(steps=(Adjust(id="old", contrast=0.4), crop))
    made = prepared_like(own, shared_steps(MODEL))
    assert [(step.kind, step.id) for step in made.steps] == [("crop", "cut"), ("cut out", "cut-2"), ("trim", "trim")]
    assert prepared_like(made, shared_steps(MODEL)) == made, "doing it again changes nothing"


def test_without_steps_the_other_loses_those_kinds_alone() -> None:
    own = Preparation(steps=(Turn(id="turn", quarters=1), Trim(id="trim")))
    assert prepared_like(own, ()) == Preparation(steps=(Turn(id="turn", quarters=1),))
