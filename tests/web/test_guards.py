"""What the server refuses, and with which words."""

import pytest
from fastapi.testclient import TestClient
from starlette.websockets import WebSocketDisconnect

from obrell.app import editing
from obrell.core.edit import read_edit
from obrell.core.interchange.kit_file import write_kit
from obrell.samples.wendmere_lock import wendmere_lock
from obrell.store.tables import DocumentRow
from obrell.web.app import create_app
from obrell.web.sizes import size_for

C1 = "/kits/wendmere-lock/controls/c1"
MOVE = {"edit": {"kind": "move", "parts": ["p1"], "dx": 1, "dy": 0}}


@pytest.fixture
def client(database):
    app = create_app(database)
    with TestClient(app, base_url="http://127.0.0.1:8420") as made:
        yield made


def test_foreign_hosts_and_origins_are_refused(client):
    assert client.get("/", headers={"host": "lock.example"}).status_code == 403
    foreign = {"origin": "http://evil.example"}
    assert client.post(C1 + "/edits", json=MOVE, headers=foreign).status_code == 403
    own = {"origin": "http://127.0.0.1:8420"}
    assert client.post(C1 + "/edits", json=MOVE, headers=own).status_code == 200
    with pytest.raises(WebSocketDisconnect) as refusal, client.websocket_connect(C1 + "/live", headers=foreign):
        pass
    assert refusal.value.code == 1008


def test_every_answer_has_a_policy_without_inline_script(client):
    for path in ("/kits/wendmere-lock", C1, "/kits/wendmere-lock/deliver", "/nothing"):
        answer = client.get(path, headers={"accept": "text/html"})
        policy = answer.headers["content-security-policy"]
        assert "script-src 'self'" in policy
        assert "unsafe" not in policy
        assert " style=" not in answer.text
        assert "onclick" not in answer.text


@pytest.mark.parametrize(
    ("address", "most"),
    [
        ("/kits/import", "a kit file can have at most 60 MB"), (f"{C1}/edits", "an edit can have at most 1 MB"),
        (f"{C1}/pictures?name=a", "a picture file can have at most 15 MB"),
        (f"{C1}/drawings", "an SVG can have at most 10 MB"),
        ("/kits/wendmere-lock/trial/touch-panel/edits", "an edit can have at most 1 MB"),
        ("/kits/wendmere-lock/trial/touch-panel/ground", "a picture file can have at most 15 MB"),
        ("/kits/wendmere-lock/fonts", "a font file can have at most 10 MB"),
        ("/kits/wendmere-lock/swatches/file", "a file of swatches can have at most 2 MB"),
        ("/kits/wendmere-lock/light", "an edit can have at most 1 MB"),
    ],
)  # fmt: skip
def test_a_request_is_as_large_as_what_its_route_takes(client, address, most):
    limit = size_for(address.partition("?")[0]).most
    big = client.post(address, headers={"content-length": str(limit + 1)}, content=b"")
    assert big.status_code == 413
    assert most in big.json()["words"]
    assert client.post(address, content=b"x" * 1000).status_code != 413


def test_a_hundred_megabytes_are_refused_without_their_length(client):
    def flood():
        for _ in range(70):
            yield b"x" * 1_000_000

    flooded = client.post("/kits/demo/fonts", content=flood())
    assert flooded.status_code == 413
    assert "10 MB" in flooded.json()["words"]
    unclear = client.post("/kits", headers={"content-length": "many"})
    assert (unclear.status_code, unclear.text) == (400, "This request does not say how long it is.")


@pytest.mark.parametrize("headers", [{"host": "["}, {"origin": "["}, {"host": "[::1"}, {"origin": "http://[evil"}])
def test_addresses_that_are_none_are_refused(client, headers):
    assert client.get("/", headers=headers).status_code == 403


@pytest.mark.parametrize("site", ["cross-site", "same-site"])
def test_other_pages_may_lead_people_here_but_start_no_work(client, site):
    foreign = {"sec-fetch-site": site, "sec-fetch-mode": "no-cors", "sec-fetch-dest": "image"}
    visit = {"sec-fetch-site": site, "sec-fetch-mode": "navigate", "sec-fetch-dest": "document"}
    assert client.get(C1, headers=foreign).status_code == 403
    assert client.get("/kits/wendmere-lock/export", headers=visit).status_code == 403
    assert client.get("/pictures/a/b/c/1.png", headers=visit).status_code == 403
    assert client.get(C1, headers=visit).status_code == 200
    assert client.get(C1, headers=foreign | {"sec-fetch-site": "same-origin"}).status_code == 200


def damage(client, control):
    """A document that cannot be read any more, as a damaged disk leaves it."""
    kits = client.app.state.kits
    editing.edit(kits, "wendmere-lock", control, read_edit(MOVE["edit"]))
    head = kits.control("wendmere-lock", control).hash
    with kits._database.writing() as session:
        session.get(DocumentRow, head).body = "{}"
    kits._rows._documents._known.clear()


def test_a_damaged_control_takes_no_page_down_and_has_a_way_back(client):
    damage(client, "c3")
    wall = client.get("/kits/wendmere-lock", headers={"accept": "text/html"})
    assert wall.status_code == 200
    assert "is damaged" in wall.text
    page = client.get("/kits/wendmere-lock/controls/c3", headers={"accept": "text/html"})
    assert page.status_code == 422
    assert "cannot be shown" in page.text
    assert "Moved Body" in page.text
    order = "control=c1&control=c3&format=png&density=1&pattern={control}"
    listed = client.get(f"/kits/wendmere-lock/deliver/files?{order}")
    assert "Left out" in listed.text
    assert "raise-sluice" in listed.text
    assert client.get("/kits/wendmere-lock/export").status_code == 200
    back = client.post("/kits/wendmere-lock/controls/c3/versions/back")
    assert back.headers["hx-redirect"].endswith("/c3")
    assert client.get("/kits/wendmere-lock/controls/c3").status_code == 200


def test_a_damaged_kit_is_shown_as_such_and_leaves_the_others_alone(client):
    kits = client.app.state.kits
    other = kits.add_kit("Other")
    kits.change_index(other, lambda index: index.evolve(name="Second"), "Renamed")
    with kits._database.writing() as session:
        session.get(DocumentRow, kits.index_hash(other)).body = "{"
    kits._rows._documents._known.clear()
    assert client.get("/", follow_redirects=False).headers["location"] == "/kits/wendmere-lock"
    assert "cannot be read" in client.get("/kits/wendmere-lock").text
    page = client.get(f"/kits/{other}", headers={"accept": "text/html"})
    assert page.status_code == 422
    assert "Renamed" in page.text
    assert client.post(f"/kits/{other}/versions/back").headers["hx-redirect"] == f"/kits/{other}"
    assert client.get(f"/kits/{other}").status_code == 200


def test_a_database_that_is_moved_away_is_told_on_every_page_until_it_is_back(client, tmp_path):
    (tmp_path / "kits.db").rename(tmp_path / "away.db")
    for address in (C1, "/kits/wendmere-lock", "/kits/wendmere-lock/deliver"):
        assert "was moved or removed" in client.get(address).text
    refused = client.post(C1 + "/edits", json=MOVE)
    assert refused.status_code == 507
    (tmp_path / "away.db").rename(tmp_path / "kits.db")
    assert "was moved or removed" not in client.get(C1).text
    assert client.post(C1 + "/edits", json=MOVE).status_code == 200


def test_a_control_whose_font_is_gone_is_shown_as_such(client):
    kits = client.app.state.kits
    bare = wendmere_lock().controls[0]
    text = next(part for part in bare.parts if part.shape.kind == "text")
    lost = bare.evolve(parts=(text.evolve(shape=text.shape.evolve(font="0" * 32)),))
    kit = kits.import_kit(wendmere_lock().evolve(name="Fonts", controls=(lost,)))
    page = client.get(f"/kits/{kit}/controls/c1", headers={"accept": "text/html"})
    assert page.status_code == 422
    assert "Bring it in again" in page.text
    address = f"/pictures/x/{kits.index_hash(kit)}/{kits.control(kit, 'c1').hash}/1.png"
    shown = client.get(address, headers={"accept": "image/avif,image/webp,*/*"})
    assert shown.headers["content-type"] == "image/svg+xml"
    assert "cannot be drawn" in shown.text
    assert client.get(f"/kits/{kit}").status_code == 200


def test_a_live_edit_that_fails_never_ends_the_painter(client, monkeypatch):
    from obrell.web import live

    with client.websocket_connect(C1 + "/live", headers={"host": "127.0.0.1:8420"}) as socket:
        wish = {"seq": 1, "density": 1, "left": 0, "top": 0, "width": 8, "height": 8}
        monkeypatch.setattr(live, "preview", lambda *_: 1 / 0)
        socket.send_json(wish)
        assert b"our fault" in socket.receive_bytes()
        monkeypatch.undo()
        for edit in ({"kind": "flip", "parts": ["gone"]}, {"kind": "set", "changes": [{"path": "x", "value": 1}]}):
            socket.send_json(wish | {"edit": edit, "seq": 2})
            assert b'"words"' in socket.receive_bytes()
        socket.send_json(wish | {"seq": 3})
        assert b'"frame"' in socket.receive_bytes()


def test_kits_are_imported_and_bad_files_refused_in_words(client):
    good = client.post("/kits/import", files={"file": ("k.json", write_kit(wendmere_lock()))})
    assert good.headers["hx-redirect"] == "/kits/wendmere-lock-2"
    bad = client.post("/kits/import", files={"file": ("k.json", write_kit(wendmere_lock())[:900])})
    assert bad.status_code == 422
    assert "breaks off" in bad.json()["words"]
    assert client.get("/kits/wendmere-lock-2/export").content.count(b"schema_version") == 1


@pytest.mark.parametrize(
    ("form", "words"),
    [
        ({"name": "", "width": "10", "height": "10"}, "name"),
        ({"name": "Horn", "width": "0", "height": "10"}, "Width: must be more than 0 px."),
        ({"name": "Horn", "width": "-4", "height": "10"}, "Width: must be more than 0 px."),
        ({"name": "Horn", "width": "99999", "height": "10"}, "Width: must be 4,096 px or less."),
        ({"name": "Horn", "width": "nan", "height": "10"}, "not a number"),
        ({"name": "Horn", "width": "10", "height": "1e999"}, "not a number"),
    ],
)
def test_a_new_control_that_cannot_be_is_refused_at_its_field(client, form, words):
    answer = client.post("/kits/wendmere-lock/controls", data=form)
    assert answer.status_code == 422
    assert words.lower() in answer.json()["words"].lower()


def test_edits_are_refused_in_words_and_the_document_stays(client):
    before = client.get(C1 + "/blocks").json()["facts"]["hash"]
    for edit, status in (
        ({"kind": "set", "changes": [{"path": "parts/p1/effects/e1/blur", "value": 501}]}, 422),
        ({"kind": "set", "changes": [{"path": "parts/p99/x", "value": 1}]}, 404),
        ({"kind": "set", "changes": [{"path": "canvas/width", "value": 5000}]}, 422),
        ({"kind": "type", "path": "parts/p1/x", "text": "1/0"}, 422),
        ({"kind": "nonsense"}, 422),
    ):
        answer = client.post(C1 + "/edits", json={"edit": edit})
        assert answer.status_code == status
        assert answer.json()["words"]
    assert client.get(C1 + "/blocks").json()["facts"]["hash"] == before
    assert client.post(C1 + "/edits", content=b"{", headers={"content-type": "application/json"}).status_code == 422


def test_a_control_that_is_gone_says_how_to_get_it_back(client):
    client.post(C1 + "/remove")
    answer = client.post(C1 + "/edits", json=MOVE)
    assert answer.status_code == 404
    assert "Undo on the Wall" in answer.json()["words"]
    page = client.get(C1, headers={"accept": "text/html"})
    assert "Undo on the Wall" in page.text


@pytest.mark.parametrize(
    ("query", "words"),
    [
        ({"format": "png", "density": "1"}, "No control"),
        ({"control": "c1", "density": "1"}, "No format"),
        ({"control": "c1", "format": "png"}, "No density"),
        ({"control": "c1", "format": "png", "typed": "1; 99"}, "Densities"),
        ({"control": "c1", "format": "png", "density": "1", "pattern": "../x"}, "Names"),
        ({"control": "c1", "format": "png", "density": "1", "cut": "trimmed", "margin": "x"}, "not a number"),
    ],
)
def test_a_delivery_that_cannot_be_made_says_why(client, query, words):
    pattern = {"pattern": "{control}.{density}"} | query
    assert words in client.get("/kits/wendmere-lock/deliver/files", params=pattern).text
    assert client.post("/kits/wendmere-lock/deliveries", data=pattern).status_code == 422


@pytest.mark.parametrize("value", ["#1f8a92", "1f8a92", "#19c"])
def test_a_typed_colour_comes_back_in_every_space(client, value):
    spaces = client.get("/colour", params={"space": "hex", "value": value}).json()
    for space in ("rgb", "hsl", "hsv", "oklch"):
        again = client.get("/colour", params={"space": space, "value": " ".join(spaces[space])}).json()
        away = [abs(int(one) - int(other)) for one, other in zip(again["rgb"], spaces["rgb"], strict=True)]
        assert max(away) <= (0 if space == "rgb" else 1), space
    assert client.get("/colour", params={"space": "hex", "value": "#12"}).status_code == 422


def test_pictures_may_be_kept_for_ever_and_oversized_ones_are_refused(client):
    address = client.get(C1 + "/blocks?part=p2").json()["blocks"]["edges"].split('src="')[1].split('"')[0]
    answer = client.get(address.replace("&amp;", "&"))
    assert "immutable" in answer.headers["cache-control"]
    huge = address.split("?")[0] + "?left=0&top=0&width=100000&height=100000"
    assert client.get(huge).status_code == 422


def test_the_live_socket_answers_nonsense_with_words(client):
    with client.websocket_connect(C1 + "/live", headers={"host": "127.0.0.1:8420"}) as socket:
        socket.send_text("{}")
        assert b"nonsense" in socket.receive_bytes()
        wish = '{"seq":1,"density":1,"left":0,"top":0,"width":8192,"height":8192}'
        socket.send_text(wish)
        assert b"too many" in socket.receive_bytes()


def test_a_full_disk_ends_a_delivery_in_words(client, monkeypatch, tmp_path):
    from pathlib import Path

    from obrell.app import delivering as deliveries

    kit = wendmere_lock()
    delivery = deliveries.Delivery("x", kit, kit.controls, deliveries.Order(), Path("/dev/full"), ())
    monkeypatch.setattr(Path, "unlink", lambda *_, **__: None)
    deliveries._run(delivery, client.app.state.memory)
    assert "disk is full" in delivery.words
    assert not delivery.done
