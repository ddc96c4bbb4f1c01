"""Made pictures, each with what it must and must not get: on them the rules for the eye are measured."""
