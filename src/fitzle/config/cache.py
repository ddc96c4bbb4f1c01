"""The cache: plain values only, and a cache that is away costs time and nothing else."""

from __future__ import annotations

import json
import logging
import time
from collections.abc import Callable
from functools import wraps
from typing import Any

from django.core.cache.backends.redis import RedisCache, RedisCacheClient
from redis.exceptions import RedisError

log = logging.getLogger(__name__)
AWAY_SECONDS = 5.0  # so long a cache that did not answer is not asked again
RAW, JSON = b"=", b"{"


class PlainSerializer:
    """Bytes as they are, numbers as numbers, everything else as JSON, in which tuples become lists.

    Whoever can write into the cache can change what is shown, but cannot run anything: nothing is pickled.
    """

    def __init__(self, protocol: Any = None) -> None:
        pass

    def dumps(self, value: Any) -> bytes | int:
        """A value as it is kept; raises TypeError for what JSON cannot say."""
        if type(value) is int:
            return value  # Redis counts with these
        if isinstance(value, bytes):
            return RAW + value
        return JSON + json.dumps(value).encode()

    def loads(self, data: bytes) -> Any:
        """The value that was kept; raises ValueError for anything that was not written by `dumps`."""
        kind, body = data[:1], data[1:]
        if kind == RAW:
            return body
        return json.loads(body) if kind == JSON else int(data)


def _forgiving(method: Callable[..., Any], otherwise: Any = None, given: int | None = None) -> Callable[..., Any]:
    """A method of the client that gives `otherwise` (or its argument `given`, a default) while Redis is away."""

    @wraps(method)
    def tried(client: ForgivingClient, *args: Any, **kwargs: Any) -> Any:
        default = args[given] if given is not None and len(args) > given else otherwise
        if time.monotonic() < ForgivingClient.away_until:
            return default
        try:
            return method(client, *args, **kwargs)
        except (RedisError, OSError) as error:
            ForgivingClient.away_until = time.monotonic() + AWAY_SECONDS
            log.warning("the cache is away: %s", error)
        except (ValueError, RecursionError):
            log.warning("the cache holds something that Fitzle did not write")
        return default

    return tried


class ForgivingClient(RedisCacheClient):
    """Answers as an empty cache would while Redis is away, and asks it again after a pause."""

    away_until = 0.0
    add = _forgiving(RedisCacheClient.add, otherwise=False)
    get = _forgiving(RedisCacheClient.get, given=1)
    set = _forgiving(RedisCacheClient.set)
    touch = _forgiving(RedisCacheClient.touch, otherwise=False)
    delete = _forgiving(RedisCacheClient.delete, otherwise=False)
    get_many = _forgiving(RedisCacheClient.get_many, otherwise={})
    has_key = _forgiving(RedisCacheClient.has_key, otherwise=False)
    incr = _forgiving(RedisCacheClient.incr, otherwise=0)
    set_many = _forgiving(RedisCacheClient.set_many)
    delete_many = _forgiving(RedisCacheClient.delete_many)


class ForgivingRedisCache(RedisCache):
    """Django's cache in Redis with a forgiving client."""

    def __init__(self, server: Any, params: dict[str, Any]) -> None:
        super().__init__(server, params)
        self._class = ForgivingClient
