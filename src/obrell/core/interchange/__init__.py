"""Files from outside, read with suspicion."""
