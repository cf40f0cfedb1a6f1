"""The job itself: values in, values out. No web, no database, no clock, no randomness."""
