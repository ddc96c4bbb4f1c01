"""A place said in words: what an upload page or its help says, read into a spec sheet (docs/places-in-words.md)."""
