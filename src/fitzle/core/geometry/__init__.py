"""Rectangles, anchors and fitting: arithmetic only."""
