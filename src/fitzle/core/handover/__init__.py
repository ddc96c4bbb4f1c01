"""Handing over: what an upload form asks for, delivery.json, names on replacement, folders kept current."""
