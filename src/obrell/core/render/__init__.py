"""From a resolved control to pixels."""
