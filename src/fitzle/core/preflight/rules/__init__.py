"""One module a rule; ../registry.py lists them."""
