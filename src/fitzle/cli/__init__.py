"""The command line, on the core alone: `./fitzle --help`. Heavy libraries are loaded once a command needs them."""

from fitzle.cli.running import main

__all__ = ["main"]
