"""A drawing service whose calls misbehave, for gunicorn: `tests.apps.hazards:application`."""

import ctypes
import os
import time

from django.db import OperationalError

import fitzle.config.drawing_wsgi  # noqa: F401  (sets Django up)
from fitzle.apps.drawing.calls import Picture, drawable
from fitzle.apps.drawing.service import application  # noqa: F401
from fitzle.core.errors import LimitError


@drawable
def draw_well(words: str) -> Picture:
    """Nothing wrong."""
    return Picture(words.encode(), "text/plain", str(os.getpid()))


@drawable
def loop_for_ever() -> int:
    """Python that does not end."""
    while True:
        pass


@drawable
def hold_the_interpreter() -> int:
    """A library that does not give the interpreter back."""
    ctypes.PyDLL(None).sleep(3600)
    return 0


@drawable
def take_memory(count: int) -> int:
    """So many bytes, all of them written."""
    return len(bytearray(count))


@drawable
def take_memory_in_a_library(count: int) -> int:
    """As a library does that ends the process where it gets none."""
    libc = ctypes.CDLL(None)
    libc.malloc.restype = ctypes.c_void_p
    if libc.malloc(ctypes.c_size_t(count)) is None:
        libc.abort()
    return count


@drawable
def crash() -> int:
    """A fault in a library."""
    ctypes.string_at(1)
    return 0


@drawable
def crash_once(folder: str) -> str:
    """Dies the first time, as where something else ends the process."""
    try:
        os.mkdir(f"{folder}/was-here")
    except FileExistsError:
        return "drawn"
    os.kill(os.getpid(), 9)
    return ""


@drawable
def refuse() -> int:
    """In words."""
    raise LimitError("this is too wide", subject="a.svg", expected="1", actual="2", advice="Make it smaller.")


@drawable
def fail() -> int:
    """A fault of our own."""
    raise ZeroDivisionError("ours")


@drawable
def wait(seconds: float, number: int) -> int:
    """Takes a while; the number makes the question another one."""
    time.sleep(seconds)
    return number


@drawable
def draw_wide(width: int) -> int:
    """Too much from 500 px on."""
    if width >= 500:
        loop_for_ever()
    return width


@drawable
def lose_the_database() -> int:
    """As where the database is away."""
    raise OperationalError(2002, "Can't connect to local server")
