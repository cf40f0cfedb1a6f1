"""Pixel kernels: plain arrays in, plain arrays out. They know nothing of documents.

Lengths are device px, opacities 0 to 1, blend modes codes 0 to 15 (``values.blends.BLEND_CODES``), colours and
coverages float32 from 0 to 1.
"""
