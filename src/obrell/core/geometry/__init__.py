"""Paths and what can be asked of them. Plain values and pure functions.

Lengths and places are px of whatever space a path lies in: logical px of a part or canvas, or device px. Angles are
degrees, clockwise on the screen from straight up, but for those of arcs in paths, which are radians, clockwise from
straight to the right. Radii and sizes are 0 or more, distances outwards positive.
"""
