"""SVG text read as parts (SVG 2, CSS)."""
