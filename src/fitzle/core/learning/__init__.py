"""A place learnt from the picture that was uploaded and a screenshot of where it appears.

Model: screenshot = scale * picture + offset, without turning; pixel i covers [i, i + 1]. docs/learning.md has the whole
way in words, with figures.
"""
