"""Where a picture will be seen: scenes as data, worked out for a picture and drawn by the server or the browser."""
