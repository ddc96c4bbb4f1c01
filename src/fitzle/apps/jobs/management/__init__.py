"""Commands for who runs the server."""
