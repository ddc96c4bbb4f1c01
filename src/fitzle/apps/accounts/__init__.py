"""People, workspaces and who may do what."""
