"""What people brought in is decoded and drawn in bounded processes of their own, never in the pages'."""
