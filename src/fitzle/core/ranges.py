"""Between which values the fields of documents may lie, read off the documents themselves."""

from __future__ import annotations

from types import UnionType
from typing import Annotated, Any, Union, get_args, get_origin

from annotated_types import Ge, Gt, Le, Lt, MaxLen
from pydantic import BaseModel

from fitzle.core.findings import Frozen


class Range(Frozen):
    """The least and the most that a number may be; null where nothing limits it."""

    least: float | None = None
    most: float | None = None


def ranges_of(model: type[BaseModel]) -> dict[str, Range]:
    """The range of each field of a document that is a limited number, or null."""
    found = {}
    for name, field in model.model_fields.items():
        range_ = _range([*field.metadata, *_metadata_of(field.annotation)])
        if range_:
            found[name] = range_
    return found


def most_in(model: type[BaseModel], field: str) -> int:
    """How many entries a list or a mapping may have; raises ValueError for a field without such a limit."""
    own = model.model_fields[field]
    limits = [entry.max_length for entry in [*own.metadata, *_metadata_of(own.annotation)] if isinstance(entry, MaxLen)]
    if not limits:
        raise ValueError(f"{model.__name__}.{field} has no most")
    return int(limits[0])


def _metadata_of(annotation: Any) -> list[Any]:
    """What stands in the annotations of a type, through unions with None."""
    origin = get_origin(annotation)
    if origin is Annotated:
        inner, *more = get_args(annotation)
        unpacked = [entry for one in more for entry in getattr(one, "metadata", [one])]
        return [*unpacked, *_metadata_of(inner)]
    if origin in (Union, UnionType):
        return [entry for one in get_args(annotation) for entry in _metadata_of(one)]
    return []


def _range(metadata: list[Any]) -> Range | None:
    least = next((one for entry in metadata for one in _figures(entry, "ge", "gt")), None)
    most = next((one for entry in metadata for one in _figures(entry, "le", "lt")), None)
    return None if least is None and most is None else Range(least=least, most=most)


def _figures(entry: Any, *names: str) -> list[float]:
    limit = isinstance(entry, Ge | Gt | Le | Lt)
    return [float(getattr(entry, name)) for name in names if limit and hasattr(entry, name)]
