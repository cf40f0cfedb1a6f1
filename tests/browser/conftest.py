"""What the journeys share."""

import pytest

from tests.browser.hand import Hand, new_control


@pytest.fixture
def hand(page, common_server):
    """An empty control of 120 × 96."""
    new_control(page, common_server.url, "120", "96")
    return Hand(page)
