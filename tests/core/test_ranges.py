"""The ranges that the pages hold to are those of the documents."""

import pytest
from pydantic import BaseModel, ValidationError

from fitzle.apps.api.limits_view import _DOCUMENTS
from fitzle.core.artwork.steps.document import Preparation
from fitzle.core.piece.effects import Outline
from fitzle.core.piece.parts import ArtworkPart, WordsPart
from fitzle.core.ranges import Range, most_in, ranges_of


@pytest.mark.parametrize(
    ("document", "field", "least", "most"),
    [
        (ArtworkPart, "zoom", 1, 20),
        (ArtworkPart, "rotation", -360, 360),
        (WordsPart, "letter_spacing", -0.3, 2),
        (WordsPart, "size", 0, 10),  # a number or null
        (Outline, "width", 0, 1),
    ],
)
def test_a_range_is_read_off_the_document(document: type[BaseModel], field: str, least: float, most: float) -> None:
    assert ranges_of(document)[field] == Range(least=least, most=most)


@pytest.mark.parametrize("name", _DOCUMENTS)
def test_what_lies_outside_a_range_is_refused_by_the_document(name: str) -> None:
    model, found = _DOCUMENTS[name], ranges_of(_DOCUMENTS[name])
    assert found or name == "trace", name
    for field, limits in found.items():
        if limits.most is not None:
            with pytest.raises(ValidationError) as caught:
                model.model_validate({field: limits.most + 1})
            assert any(error["loc"][0] == field for error in caught.value.errors()), field


def test_how_many_there_may_be_is_read_off_the_document_too() -> None:
    assert most_in(Preparation, "steps") == 40
    with pytest.raises(ValueError, match="no most"):
        most_in(WordsPart, "italic")
