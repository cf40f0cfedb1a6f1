"""Two applications in one process know nothing of each other."""

from fastapi.testclient import TestClient

from obrell.samples.wendmere_lock import wendmere_lock
from obrell.web.app import create_app
from obrell.web.pictures import picture_address


def test_what_one_has_drawn_the_other_has_not(tmp_path):
    one, other = (TestClient(create_app(tmp_path / f"{name}.db"), base_url="http://localhost") for name in "ab")
    for client in (one, other):
        client.app.state.kits.import_kit(wendmere_lock())
    kits = one.app.state.kits
    index, stored = kits.index_hash("wendmere-lock"), kits.control("wendmere-lock", "c1")
    address = picture_address(index, stored.hash, 1.0)
    drawn = one.get(address).content
    assert one.app.state.memory.cache.size > 0
    assert other.app.state.memory.cache.size == 0
    assert other.get(address).content == drawn
    one.app.state.memory.cache.clear()
    assert other.app.state.memory.cache.size > 0
