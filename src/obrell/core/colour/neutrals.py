"""Whites and blacks that are not quite: warm, cool and plain."""

OFF_WHITES = ("#ffffff", "#fcfbf8", "#f6f3ea", "#f3f6f7", "#eceae4", "#e3e8e9")
OFF_BLACKS = ("#000000", "#14181b", "#1b1714", "#0f1d22", "#231f20", "#2a3238")
