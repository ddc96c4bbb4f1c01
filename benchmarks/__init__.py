"""Figures of ours and of an alternative, measured in the same run. `./bench` prints them."""
