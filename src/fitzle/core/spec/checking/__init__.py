"""Whether the demands of a sheet can hold together, and what would resolve it where they cannot."""
