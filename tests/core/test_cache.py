"""What is kept of masks and layers: never more bytes than the limit, those used last, each made once."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from obrell.core.raster.layers import Coverage, PixelBox
from obrell.core.render.cache import LARGEST_SHARE, PixelCache
from obrell.core.workspace import Kept

BYTES = 4


def mask(pixels):
    return Coverage(PixelBox(0, 0, pixels, 1), np.zeros((1, pixels), np.float32))


def ask(cache, key, pixels, made):
    def make():
        made.append(key)
        return mask(pixels)

    return cache.get(key, make)


@given(st.lists(st.tuples(st.integers(0, 12), st.integers(1, 30)), max_size=60))
def test_it_holds_no_more_bytes_than_its_limit_and_counts_them(asked):
    cache = PixelCache(100 * BYTES)
    sizes = {}
    for key, pixels in asked:
        ask(cache, key, sizes.setdefault(key, pixels), [])
        held = sum(entry.values.nbytes for entry in cache._entries.values())
        assert cache.size == held <= cache.limit
    cache.clear()
    assert (cache.size, len(cache._entries)) == (0, 0)


def test_what_was_used_last_stays():
    cache, made = PixelCache(100 * BYTES), []
    for key in "abcd":
        ask(cache, key, 25, made)
    ask(cache, "a", 25, made)
    ask(cache, "e", 25, made)
    assert made == ["a", "b", "c", "d", "e"]
    ask(cache, "a", 25, made)
    assert made[-1] == "e", "a was used after b and so is still there"
    ask(cache, "b", 25, made)
    assert made[-1] == "b"


def test_what_is_too_large_is_made_and_not_kept():
    cache, made = PixelCache(100 * BYTES), []
    large = int(100 * LARGEST_SHARE) + 1
    for _ in range(2):
        assert ask(cache, "large", large, made).values.size == large
    assert made == ["large", "large"]
    assert cache.size == 0


@pytest.mark.parametrize("count", [3, 40])
def test_arrays_are_let_go_of_in_the_order_of_their_last_use(count):
    kept, made = Kept(3 * 10 * BYTES, lambda array: array.nbytes), []
    for number in [*range(count), count - 1, count - 2]:
        kept.get(number, lambda number=number: made.append(number) or np.zeros(10, np.float32))
        assert kept.total() <= 3 * 10 * BYTES
    assert made == list(range(count))
