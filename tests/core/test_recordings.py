"""Recordings brought in: what is read, what is left out, and what is refused with its row."""

import pytest

from obrell.core.errors import BadDocument, TooLarge
from obrell.core.interchange.recordings import read_recording


@pytest.mark.parametrize(
    ("text", "rows", "remark"),
    [
        ("0,1\n1,2.5\n4,-3\n", [(0, 1), (1, 2.5), (4, -3)], ""),
        ("time,level\n0,1\n1,2\n", [(0, 1), (1, 2)], ""),
        ("t;v\n0;1\n2;2\n", [(0, 1), (2, 2)], ""),
        ("5\n6\n7\n", [(0, 5), (1, 6), (2, 7)], ""),
        ("0,1\n1,\n\n2,3,more\n", [(0, 1), (2, 3)], "1 row with a gap left out"),
        ("\ufeff0\t1\r\n1\t2\r\n2\t\r\n\t5\r\n", [(0, 1), (1, 2)], "2 rows with a gap left out"),
    ],
)
def test_times_and_numbers_are_read(text, rows, remark):
    read, said = read_recording(text.encode())
    assert [(row.time, row.value) for row in read] == rows
    assert said == remark


@pytest.mark.parametrize(
    ("content", "words"),
    [
        (b"0,1\n1,high\n", "Row 2: “high” is not a number."),
        (b"0,1\n0,2\n", "Row 2: its time, 0, is not after that of the row above, 0."),
        (b"0,1\n-1,2\n", "Row 2: a time cannot be less than 0."),
        (b"0,1\n1,1e9\n", "Row 2: 1e\\+09 is too large"),
        (b"0,1\n1,nan\n", "“nan” is not a number"),
        (b"0,1\n1,inf\n", "“inf” is not a number"),
        (b"", "no number"),
        (b"time,level\n", "no number"),
        (b"\xff\xfe\x00", "not UTF-8"),
        (b"0,1\n1,2\n\"unclosed", "is not a number"),
    ],
)  # fmt: skip
def test_what_is_no_recording_is_refused(content, words):
    with pytest.raises(BadDocument, match=words):
        read_recording(content)


def test_one_that_is_too_large_is_refused():
    with pytest.raises(TooLarge, match="1 MB"):
        read_recording(b"1\n" * 600_000)
    with pytest.raises(TooLarge, match="5,000 rows"):
        read_recording("\n".join(map(str, range(5001))).encode())
