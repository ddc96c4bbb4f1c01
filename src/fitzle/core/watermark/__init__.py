"""A mark in the corner of many pictures, moving pictures and clips."""
