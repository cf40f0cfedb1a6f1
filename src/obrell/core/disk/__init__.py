"""The disk, which is other people's: files written whole, folders that only we can use, and our own leftovers."""
