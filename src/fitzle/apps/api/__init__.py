"""The HTTP API: thin routers, one error mapping."""
