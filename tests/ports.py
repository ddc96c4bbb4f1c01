"""Ports for servers that tests start."""

import random
import socket

# Below the ports that Linux gives to outgoing connections (32768 and up, net.ipv4.ip_local_port_range): a connection of
# another test may take one of those between the choice of a port and the start of its server.
LOWEST, HIGHEST = 20_000, 32_000
TRIES = 200
_chance = random.SystemRandom()  # processes that run side by side must not choose the same ones


def free_port() -> int:
    """A port that nobody uses now, and the next one is free as well: a Fitzle takes both."""
    for _ in range(TRIES):
        port = _chance.randrange(LOWEST, HIGHEST, 2)
        if _is_free(port) and _is_free(port + 1):
            return port
    raise AssertionError(f"no free port between {LOWEST} and {HIGHEST}")


def _is_free(port: int) -> bool:
    with socket.socket() as probe:
        try:
            probe.bind(("127.0.0.1", port))
        except OSError:
            return False
        return True
