"""How much is read from outside."""

MAX_KIT_BYTES = 20_000_000
