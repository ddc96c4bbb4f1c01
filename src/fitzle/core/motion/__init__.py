"""Time: when parts come in, keep moving and go, and the plan at any moment of a loop."""
