"""The small immutable values documents are made of."""
