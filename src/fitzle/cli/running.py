"""One command run: its answer printed, its errors in words, its exit code."""

from __future__ import annotations

import argparse
import json
from collections.abc import Callable
from importlib import import_module
from typing import cast

from fitzle.cli.options import parser
from fitzle.cli.telling import Answer, say, say_error, table
from fitzle.core.errors import FitzleError
from fitzle.lost import TOO_MUCH


def main(arguments: list[str] | None = None) -> int:
    """Runs one command; the exit code says whether the file would be accepted."""
    args = parser().parse_args(arguments)
    try:
        answer, code = _function(args.run)(args)
    except FitzleError as error:
        return say_error(args.json, error.message)
    except MemoryError:
        return say_error(args.json, TOO_MUCH)
    except OSError as error:
        return say_error(args.json, f"{error.filename or 'the file'}: {error.strerror or error}.")
    say(json.dumps(answer, ensure_ascii=False) if args.json else table(answer))
    return int(code)


def _function(name: str) -> Callable[[argparse.Namespace], Answer]:
    """The function of a command, like `fitting:fit`."""
    module, _, function = name.partition(":")
    return cast("Callable[[argparse.Namespace], Answer]", getattr(import_module(f"fitzle.cli.{module}"), function))
