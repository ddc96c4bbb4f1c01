"""The sample workspace, Ottermoor Cycle Works: made up, and drawn by the code in this folder."""
