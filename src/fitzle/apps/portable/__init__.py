"""A whole workspace in one ZIP, and out of it again."""
