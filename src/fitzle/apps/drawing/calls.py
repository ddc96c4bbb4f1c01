"""Functions that the drawing service runs: named, with arguments and results that travel as JSON or as a picture.

`drawable` makes a function a Call. Called directly it runs where it is (in workers, commands and the service itself);
`ask` has the drawing service run it, where there is one.
"""

from __future__ import annotations

import inspect
import json
from collections.abc import Callable
from functools import cached_property
from typing import Any, Generic, NamedTuple, ParamSpec, TypeVar, cast, get_type_hints

from django.conf import settings
from pydantic import TypeAdapter

P = ParamSpec("P")
R = TypeVar("R")
JSON = "application/json"
CALLS: dict[str, Call[Any, Any]] = {}


class Picture(NamedTuple):
    """A file to be shown; `key` changes with it where only whoever draws it knows what it depends on."""

    data: bytes
    media_type: str
    key: str = ""


class Call(Generic[P, R]):
    """A function of the service. Its arguments and its result are of types that pydantic knows, or a Picture."""

    def __init__(self, function: Callable[P, R]) -> None:
        self.function = function
        self.name = f"{function.__module__}.{function.__qualname__}"
        self.__doc__ = function.__doc__

    def __call__(self, *args: P.args, **kwargs: P.kwargs) -> R:
        return self.function(*args, **kwargs)

    def ask(self, state: str, *args: P.args, **kwargs: P.kwargs) -> R:
        """Has the drawing service run it. `state` changes whenever the same arguments may draw something else.

        What proved too heavy is not drawn again for a while, nor at a larger `width`, if that is one of its arguments.
        Raises what the function raises, DrawingTooHeavy and DrawingBusy.
        """
        if not settings.DRAWING:
            return self.function(*args, **kwargs)
        from fitzle.apps.drawing.client import asked

        return cast("R", self.result_of(asked(self.name, state, self.plain(*args, **kwargs))))

    def plain(self, *args: P.args, **kwargs: P.kwargs) -> dict[str, Any]:
        """Arguments as plain data for JSON."""
        bound = self._signature.bind(*args, **kwargs).arguments
        return {name: self._adapters[name].dump_python(value, mode="json") for name, value in bound.items()}

    def run(self, packed: bytes) -> Picture:
        """Runs it with arguments that came as JSON; a result that is no picture comes as JSON too."""
        given = {name: self._adapters[name].validate_python(value) for name, value in json.loads(packed).items()}
        result = cast("Callable[..., R]", self.function)(**given)
        if isinstance(result, Picture):
            return result
        return Picture(self._adapters["return"].dump_json(result), JSON)

    def result_of(self, came: Picture) -> Any:
        """What came back, as the function would have returned it."""
        return came if self._hints["return"] is Picture else self._adapters["return"].validate_json(came.data)

    @cached_property
    def _signature(self) -> inspect.Signature:
        return inspect.signature(self.function)

    @cached_property
    def _hints(self) -> dict[str, Any]:
        return get_type_hints(self.function, include_extras=True)

    @cached_property
    def _adapters(self) -> dict[str, TypeAdapter[Any]]:
        return {name: TypeAdapter(hint) for name, hint in self._hints.items()}


def drawable(function: Callable[P, R]) -> Call[P, R]:
    """Makes a function one that the drawing service can be asked for."""
    call = Call(function)
    CALLS[call.name] = call
    return call
