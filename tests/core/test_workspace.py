"""What is remembered belongs to a workspace: two share nothing, and outside any nothing is kept."""

from concurrent.futures import ThreadPoolExecutor
from contextvars import Context, copy_context

import pytest

from obrell.core.errors import NoSuchThing
from obrell.core.files import content_of, file_id
from obrell.core.raster.samples import size_of
from obrell.core.workspace import Kept, OfObject, Workspace, remembered
from tests.making import png, slope

PICTURE = png(slope(7, 5))
NAME = file_id(PICTURE)
asked = []


@remembered(2)
def doubled(number):
    asked.append(number)
    return number * 2


@remembered(2)
def twice(number):
    return doubled(number)


@pytest.fixture(autouse=True)
def nothing_asked():
    asked.clear()


def test_the_results_asked_for_last_are_remembered_where_they_were_made():
    one, other = Workspace(), Workspace()
    with one.entered():
        assert [doubled(n) for n in (1, 2, 1, 3, 1, 2)] == [2, 4, 2, 6, 2, 4]
        assert asked == [1, 2, 3, 2]
        with other.entered():
            doubled(1)
            assert asked[-1:] == [1]
        assert len(asked) == 5
        doubled(1)
        assert len(asked) == 5
        one.forget(twice)
        doubled(1)
        assert len(asked) == 5
        one.forget(doubled)
        doubled(1)
        assert len(asked) == 6
        one.forget()
        doubled(1)
        assert len(asked) == 7


def test_outside_any_workspace_nothing_is_kept_and_no_file_is_found():
    def alone():
        doubled(4)
        doubled(4)
        assert asked == [4, 4]
        made = []
        for _ in range(2):
            OfObject(5).get(made, 0, lambda: made.append(0))
            Kept(5).get(1, lambda: made.append(1) or 1)
        assert made == [0, 1, 0, 1]
        with pytest.raises(NoSuchThing, match="not stored"):
            content_of(NAME)

    Context().run(alone)


def test_a_file_of_one_workspace_is_not_there_in_another_though_it_was_read():
    with Workspace({NAME: PICTURE}.get).entered():
        assert size_of(NAME) == (7, 5)
        with Workspace().entered(), pytest.raises(NoSuchThing):
            size_of(NAME)


def test_what_is_kept_of_an_object_is_not_given_for_another():
    kept = OfObject(2)
    things = [[n] for n in range(5)]
    with Workspace().entered():
        for thing in things * 2:
            assert kept.get(thing, "x", lambda thing=thing: thing[0] + 1) == thing[0] + 1
            assert kept.get(thing, "y", lambda thing=thing: thing[0] + 2) == thing[0] + 2


def test_threads_work_where_they_were_begun():
    workspace = Workspace({NAME: PICTURE}.get)
    with workspace.entered(), ThreadPoolExecutor(4) as pool:
        sizes = [pool.submit(copy_context().run, size_of, NAME) for _ in range(12)]
        assert {size.result() for size in sizes} == {(7, 5)}
