"""Made-up destinations to rehearse with: a Django project of its own that takes uploads and judges by its own rules.

Nothing of Fitzle is imported here, so that a rehearsal proves something: Pillow and the standard library alone judge.
"""
