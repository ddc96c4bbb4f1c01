"""Piece + spec sheet to placed parts with boxes in px: pure arithmetic, no pixels touched."""
