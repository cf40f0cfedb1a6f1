"""Pixel kernels: plain arrays in, plain arrays out. They know nothing of documents."""
