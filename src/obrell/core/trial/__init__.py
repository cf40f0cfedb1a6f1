"""Trial: controls operated on simulated screens."""
