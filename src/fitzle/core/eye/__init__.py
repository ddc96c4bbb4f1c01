"""What the eye makes of a picture at the size at which it is seen: measures on pixels, without thresholds.

Formulas and what they were measured on: docs/rules. Rules of preflight turn the figures into findings.
"""
