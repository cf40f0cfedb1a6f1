"""How many chords follow a curve within a tolerance; called from kernels."""

from __future__ import annotations

import numpy as np

from obrell.core.raster.jit import helper


@helper
def pieces(bend, tolerance):
    """For a curve whose second derivative is at most ``bend``."""
    return min(4096, max(1, int(np.ceil(np.sqrt(bend / (8.0 * tolerance))))))


@helper
def cubic_pieces(x0, y0, n, tolerance):
    """For a cubic from (x0, y0) with the places ``n`` of a path's row."""
    first = np.hypot(x0 - 2 * n[0] + n[2], y0 - 2 * n[1] + n[3])
    second = np.hypot(n[0] - 2 * n[2] + n[4], n[1] - 2 * n[3] + n[5])
    return pieces(6.0 * max(first, second), tolerance)


@helper
def arc_pieces(n, tolerance):
    """For an arc with the places ``n`` of a path's row."""
    return pieces(max(n[2], n[3]) * n[6] * n[6], tolerance)
