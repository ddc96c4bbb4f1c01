"""A mark laid into the corner of many pictures at once, by a worker."""
