"""Two applications in one process know nothing of each other."""

import subprocess
import sys

from fastapi.testclient import TestClient

from obrell.samples.wendmere_lock import wendmere_lock
from obrell.web.app import create_app
from obrell.web.assets import ASSETS
from obrell.web.pictures import picture_address


def test_scripts_and_styles_are_asked_for_once_and_an_older_page_finds_them(tmp_path):
    client = TestClient(create_app(tmp_path / "kits.db"), base_url="http://localhost")
    page = client.get("/", follow_redirects=True).text
    assert f'src="{ASSETS}/js/ui/page.js"' in page
    now, then = (client.get(f"{at}/js/ui/page.js") for at in (ASSETS, "/static/of-an-earlier-version"))
    assert now.content == then.content
    assert "immutable" in now.headers["cache-control"]
    assert "cache-control" not in then.headers
    for path in ("js/none.js", "../assets.py", "..%2Fassets.py"):
        assert client.get(f"{ASSETS}/{path}").status_code == 404


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


FIRST_PAGE = """
import sys
from pathlib import Path
from fastapi.testclient import TestClient
from obrell.web.app import create_app

client = TestClient(create_app(Path(sys.argv[1])), base_url="http://localhost")
assert client.get("/").status_code == 200
print("obrell.web.bench" in sys.modules)
print(client.get("/kits/none/controls/none").status_code, client.get("/nowhere").status_code)
print("obrell.web.bench" in sys.modules)
"""


def test_the_first_page_comes_before_the_modules_of_others_are_read(tmp_path):
    command = [sys.executable, "-c", FIRST_PAGE, str(tmp_path / "kits.db")]
    said = subprocess.run(command, capture_output=True, text=True, check=True).stdout
    assert said.split() == ["False", "404", "404", "True"]
