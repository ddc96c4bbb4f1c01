"""Everything that is kept as a file: written whole or not at all, read only as it was written."""
