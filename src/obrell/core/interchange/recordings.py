"""Recordings brought in: CSV (RFC 4180) with times and numbers."""

from __future__ import annotations

import csv
import math
from collections.abc import Iterator

from obrell.core.door import reads
from obrell.core.errors import BadDocument, TooLarge
from obrell.core.interchange.limits import MAX_RECORDING_BYTES
from obrell.core.values.sources import MAX_ROWS, Row

LARGEST = 1e6
LAST_S = 86_400.0
SHOWN = 24


@reads(
    "recording", "Reading this recording", most=MAX_RECORDING_BYTES,
    words=f"A recording can have at most {MAX_RECORDING_BYTES // 1_000_000} MB.",
)  # fmt: skip
def read_recording(content: bytes) -> tuple[tuple[Row, ...], str]:
    """The rows of a recording: a time, s, and a number, or numbers alone, one a second; a first row of words says what
    they are and is left out. Rows with a gap are left out, which is said in the second value, empty otherwise. Raises
    ``BadDocument`` or ``TooLarge`` in words that say where."""
    try:
        text = content.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        raise BadDocument("This is not a recording: it is not UTF-8 text.") from error
    rows, gaps = _rows(text)
    if not rows:
        raise BadDocument("There is no number in this recording.")
    remark = f"{gaps} row{'' if gaps == 1 else 's'} with a gap left out" if gaps else ""
    return tuple(rows), remark


def _rows(text: str) -> tuple[list[Row], int]:
    rows: list[Row] = []
    gaps = 0
    delimiter = ";" if text.partition("\n")[0].count(";") else "\t" if "\t" in text.partition("\n")[0] else ","
    for number, line in enumerate(_lines(text, delimiter), start=1):
        cells = [cell.strip() for cell in line[:2]]
        if not any(cells):
            continue
        if "" in cells:
            gaps += 1
            continue
        if number == 1 and not _is_number(cells[-1]):
            continue
        value = _number(cells[-1], number, LARGEST)
        time = _number(cells[0], number, LAST_S) if len(cells) > 1 else float(len(rows))
        _check_time(time, rows, number)
        rows.append(Row(time=time, value=value))
    return rows, gaps


def _lines(text: str, delimiter: str) -> Iterator[list[str]]:
    """The lines of the table, whichever way they end; raises ``BadDocument`` where it is none."""
    number = 0
    try:
        for number, line in enumerate(csv.reader(text.splitlines(), delimiter=delimiter), start=1):  # noqa: B007
            yield line
    except csv.Error as error:
        raise BadDocument(f"Row {number + 1} cannot be read: what stands in it is far too long.") from error


def _check_time(time: float, rows: list[Row], number: int) -> None:
    if time < 0:
        raise BadDocument(f"Row {number}: a time cannot be less than 0.")
    if rows and time <= rows[-1].time:
        raise BadDocument(f"Row {number}: its time, {time:g}, is not after that of the row above, {rows[-1].time:g}.")
    if len(rows) >= MAX_ROWS:
        raise TooLarge(f"A recording can have at most {MAX_ROWS:,} rows.")


def _is_number(text: str) -> bool:
    try:
        return math.isfinite(float(text))
    except ValueError:
        return False


def _number(text: str, row: int, most: float) -> float:
    if not _is_number(text):
        raise BadDocument(f"Row {row}: “{text[:SHOWN]}” is not a number.")
    value = float(text)
    if abs(value) > most:
        raise BadDocument(f"Row {row}: {value:g} is too large; {most:g} is the most.")
    return value
