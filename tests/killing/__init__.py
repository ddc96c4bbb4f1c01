"""A whole Fitzle is killed at random; nothing is stuck or lost afterwards."""
