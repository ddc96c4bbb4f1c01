"""Uploading: files handed over to a destination itself, through one port with an adapter for each way."""
