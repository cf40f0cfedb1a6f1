"""What the journeys share."""

from pathlib import Path

import pytest

from tests.browser.hand import Hand, new_control
from tests.late import hold_back, let_go, turn_of

HERE = Path(__file__).parent


def pytest_collection_modifyitems(items):
    """A journey that fails is tried once more, and that is said at the end: machines that do other things too keep
    windows waiting. One that fails twice has failed."""
    for item in items:
        if HERE in item.path.parents:
            item.add_marker(pytest.mark.flaky(reruns=1))


@pytest.fixture
def hand(request, page, common_server):
    """An empty control of 120 × 96, on a server whose answers are late by turns."""
    new_control(page, common_server.url, "120", "96")
    hold_back(common_server.data, turn_of(request.node.name))
    yield Hand(page)
    let_go(common_server.data)
