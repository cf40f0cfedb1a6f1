"""Swatches on the Wall, through its routes and its socket."""

import io
import json
import struct

import numpy as np
import pytest
from fastapi.testclient import TestClient
from PIL import Image

from obrell.app import pictures
from obrell.core.edit.kits import KitIndex
from obrell.samples.wendmere_lock import unlinked_lock
from obrell.store.kits import NOTHING_CHANGED
from obrell.web.app import create_app
from tests.making import png

KIT = "/kits/wendmere-lock"
SWATCHES = f"{KIT}/swatches"
LINK = {"swatch": "tarn", "tint": -20}


@pytest.fixture
def client(tmp_path):
    app = create_app(tmp_path / "kits.db")
    app.state.kits.import_kit(plain())
    return TestClient(app, base_url="http://localhost")


def plain():
    """The sample kit without colours that follow, so that tests say which do."""
    kit = unlinked_lock()
    return kit.evolve(controls=kit.controls[:3])


def index(client) -> KitIndex:
    return client.app.state.kits.index("wendmere-lock")


def link_ground(client, control="c1"):
    edit = {"kind": "set", "changes": [{"path": "ground", "value": {"kind": "solid", "colour": LINK}}]}
    assert client.post(f"{KIT}/controls/{control}/edits", json={"edit": edit}).status_code == 200


def link_shadow(client, link):
    """Make the first drop shadow of c1 follow a swatch; the part's id."""
    shown = client.app.state.kits.control("wendmere-lock", "c1").control
    part, shadow = next((p.id, e.id) for p in shown.parts for e in p.effects if e.kind == "drop-shadow")
    edit = {"kind": "set", "changes": [{"path": f"parts/{part}/effects/{shadow}/colour", "value": link}]}
    assert client.post(f"{KIT}/controls/c1/edits", json={"edit": edit}).status_code == 200
    return part


def post(client, path, **fields):
    answer = client.post(f"{SWATCHES}{path}", data=fields)
    assert answer.status_code == 200, answer.text
    return answer.text


def test_a_swatch_is_made_named_given_a_role_coloured_moved_and_taken_out(client):
    post(client, "", name="Rush green", colour="7A8B3C", role="reeds")
    assert [(one.id, one.colour, one.role) for one in index(client).swatches][-1] == ("rush-green", "#7a8b3c", "reeds")
    post(client, "/rush-green/name", name="Rush")
    post(client, "/rush-green/role", role="")
    post(client, "/rush-green/colour", colour="oklch(60% 0.1 120)")
    post(client, "/rush-green/move", to="0")
    first = index(client).swatches[0]
    assert (first.id, first.name, first.role) == ("rush-green", "Rush", "")
    assert first.colour != "#7a8b3c"
    said = post(client, "/rush-green/remove")
    assert "Removed the swatch “Rush”" in said
    assert "rush-green" not in [one.id for one in index(client).swatches]


@pytest.mark.parametrize(
    ("path", "fields", "words"),
    [
        ("", {"name": "tarn", "colour": "#123456"}, "There is a swatch “tarn” already"),
        ("", {"name": "Tarn ", "colour": "#123456"}, "There is a swatch “Tarn” already"),
        ("", {"name": "x", "colour": "teal-ish"}, "“teal-ish” is not a colour"),
        ("", {"name": "", "colour": "#123456"}, "Name"),
        ("/tarn/name", {"name": "brass"}, "There is a swatch “brass” already"),
        ("/tarn/colour", {"colour": "12"}, "is not a colour"),
        ("/tarn/colour", {"colour": "#12345680"}, "A swatch has no opacity: type “#123456”"),
        ("/tarn/colour-from-bench", {"colour": "#12345680"}, "A swatch has no opacity: type “#123456”"),
        ("/gone/colour-from-bench", {"colour": "#123456"}, "no longer there"),
        ("/tarn/role", {"role": "x" * 41}, "Role: must be at most 40"),
        ("/gone/colour", {"colour": "#123456"}, "no longer there"),
        ("/tarn/remove", {"instead": "tarn"}, "cannot stand for itself"),
        ("/tarn/remove", {"instead": "gone"}, "no longer there"),
    ],
)
def test_what_cannot_be_is_refused_in_words_and_changes_nothing(client, path, fields, words):
    before = client.app.state.kits.index_hash("wendmere-lock")
    answer = client.post(f"{SWATCHES}{path}", data=fields)
    assert answer.status_code in (404, 409, 422), answer.text
    assert words in answer.text
    assert client.app.state.kits.index_hash("wendmere-lock") == before


def test_the_colour_that_a_swatch_has_is_no_step(client):
    before = client.app.state.kits.index_hash("wendmere-lock")
    assert "Nothing changed" in post(client, "/tarn/colour", colour="#1F8A92")
    assert (
        client.post(f"{SWATCHES}/tarn/colour-from-bench", data={"colour": "1f8a92"}).json()["said"] == NOTHING_CHANGED
    )
    assert client.app.state.kits.index_hash("wendmere-lock") == before
    assert not client.app.state.kits.history("wendmere-lock").can_undo


def test_where_a_swatch_is_followed_is_said_with_the_way_there(client):
    assert "Nothing follows it yet" in client.get(f"{SWATCHES}/moss/uses").text
    part = link_shadow(client, {"swatch": "moss"})
    said = client.get(f"{SWATCHES}/moss/uses").text
    assert f'href="{KIT}/controls/c1?part={part}"' in said
    assert "drop shadow" in said
    wall = " ".join(client.get(KIT).text.split())
    assert "1 part <" in wall.split('id="swatch-moss"')[1]


def test_a_picture_offers_its_main_colours(client):
    pixels = np.zeros((40, 60, 4), np.uint8)
    pixels[:, :40], pixels[:, 40:] = (31, 138, 146, 255), (201, 149, 44, 255)
    said = client.post(f"{SWATCHES}/candidates", files={"picture": ("p.png", png(pixels), "image/png")}).text
    assert said.index('data-candidate="#1f8a92"') < said.index('data-candidate="#c9952c"')
    assert said.count("data-candidate") == 2
    bad = client.post(f"{SWATCHES}/candidates", files={"picture": ("p.png", b"no picture", "image/png")})
    assert bad.status_code == 422
    assert "not a PNG, JPEG or WebP" in bad.text


def addresses(client):
    text = client.get(KIT).text
    return {
        one.split("/")[5]: one for one in (part.split('"')[0] for part in text.split('src="')[1:]) if "/1.png" in one
    }


def test_another_colour_moves_the_pictures_of_those_that_follow_it_alone(client, monkeypatch):
    link_ground(client)
    before = addresses(client)
    post(client, "/tarn/colour", colour="#a05020")
    after = addresses(client)
    drawn = []
    monkeypatch.setattr(pictures, "_encoded", lambda resolved, *rest: drawn.append(resolved.control.id) or b"png")
    for address in set(after.values()) - set(before.values()):
        assert client.get(address).status_code == 200
    assert drawn == ["c1"]
    assert set(before.values()) & set(after.values())
    post(client, "/brass/colour", colour="#a05020")
    assert addresses(client) == after


def test_a_picture_of_how_it_was_is_still_found_after_the_swatch_has_changed(client):
    link_ground(client)
    old = next(
        one for one in addresses(client).values() if client.app.state.kits.control("wendmere-lock", "c1").hash in one
    )
    old = f"{old}?ground=1"
    first = client.get(old).content
    post(client, "/tarn/colour", colour="#a05020")
    again = client.get(old)
    assert (again.status_code, again.content) == (200, first)
    gone = old.split("/")
    gone[5] = "0" * 32
    assert client.get("/".join(gone)).status_code == 404


def ask(socket, **request):
    socket.send_text(json.dumps({"seq": 1, "density": 1, **request}))
    data = socket.receive_bytes()
    (length,) = struct.unpack("<I", data[:4])
    return json.loads(data[4 : 4 + length]), data[4 + length :]


def test_while_it_is_dragged_the_wall_shows_what_is_then_kept(client):
    link_shadow(client, LINK)
    with client.websocket_connect(f"{KIT}/live", headers={"host": "127.0.0.1:8420"}) as socket:
        controls = [tile.id for tile in client.app.state.kits.tiles("wendmere-lock")]
        header, pixels = ask(socket, colours={"tarn": "#d02040"}, controls=controls)
        assert [tile["control"] for tile in header["tiles"]] == ["c1"]
        _, _, width, height = header["tiles"][0]["box"]
        seen = np.frombuffer(pixels, np.uint8).reshape(height, width, 4)
        again, none = ask(socket, colours={"tarn": "#d02040"}, controls=controls)
        assert (again["tiles"][0]["box"][2:], none) == ([0, 0], b"")
        assert ask(socket, colours={"tarn": "#d02040"}, controls=["c2"])[0]["tiles"] == []
        linked, _ = ask(socket, links={"#ffffff": {"swatch": "signal"}}, controls=controls)
        assert [tile["control"] for tile in linked["tiles"]] == controls
        assert linked["tiles"][0]["box"][2] > 0
        assert "no longer there" in ask(socket, colours={"gone": "#d02040"}, controls=controls)[0]["words"]
        assert "nonsense" in ask(socket, colours="none")[0]["words"]
    post(client, "/tarn/colour", colour="#d02040")
    hash_ = client.app.state.kits.control("wendmere-lock", "c1").hash
    kept = client.get(next(one for one in addresses(client).values() if hash_ in one)).content
    assert np.array_equal(np.asarray(Image.open(io.BytesIO(kept)).convert("RGBA")), seen)


def test_a_colourway_is_made_shown_changed_alone_and_removed(client):
    link_ground(client)
    made = client.post(f"{KIT}/colourways", data={"name": "Dusk", "source": "frost", "how": "turned", "turn": "20*2"})
    assert made.headers["hx-redirect"] == f"{KIT}?colourway=dusk"
    shown = client.get(f"{KIT}?colourway=dusk").text
    assert "What is changed here changes Dusk alone" in " ".join(shown.split())
    assert "colourway=dusk" in shown
    before = index(client)
    answer = client.post(
        f"{SWATCHES}/tarn/colour",
        data={"colour": "#123456"},
        headers={"hx-current-url": f"http://x{KIT}?colourway=dusk"},
    )
    assert "in Dusk" in answer.text
    after = index(client)
    assert after.swatches == before.swatches
    assert next(way for way in after.colourways if way.id == "dusk").colours["tarn"] == "#123456"
    assert client.get(f"{KIT}?colourway=all").text.count('data-way="dusk"') == 3
    assert client.post(f"{KIT}/colourways", data={"name": "dusk"}).status_code == 422
    client.post(f"{KIT}/colourways/dusk/name", data={"name": "Dawn"})
    assert [way.name for way in index(client).colourways][-1] == "Dawn"
    client.post(f"{KIT}/colourways/dusk/remove")
    assert "dusk" not in [way.id for way in index(client).colourways]
    assert "What is changed here" not in client.get(f"{KIT}?colourway=dusk").text


def test_the_bench_shows_a_colourway_on_stage_and_in_all_its_pictures(client):
    link_shadow(client, LINK)
    day = client.get(f"{KIT}/controls/c1/blocks", params={"part": "p1"}).json()
    night = client.get(f"{KIT}/controls/c1/blocks", params={"part": "p1", "colourway": "night-watch"}).json()
    found = json.dumps(night).replace("&amp;", "&").split('\\"')
    pictures = {one for one in found if one.startswith("/pictures/") and " " not in one}
    assert pictures
    for address in pictures:
        assert "colourway=night-watch" in address
        assert client.get(address).status_code == 200, address
    assert day["blocks"]["states"] != night["blocks"]["states"]
    gone = client.get(f"{KIT}/controls/c1/blocks", params={"colourway": "gone"}).json()
    assert "colourway=gone" not in json.dumps(gone)


def test_swatches_go_out_as_files_are_edited_there_and_come_in_again(client):
    tokens = client.get(f"{SWATCHES}/file.json")
    assert "wendmere-lock.json" in tokens.headers["content-disposition"]
    edited = tokens.text.replace("#1f8a92", "#a05020")
    said = client.post(f"{SWATCHES}/file", files={"file": ("t.json", edited.encode(), "application/json")}).text
    assert "Brought in 8 swatches" in said
    assert index(client).swatches[0].colour == "#a05020"
    assert len(index(client).swatches) == 8
    for kind in ("css", "txt", "palette"):
        assert "#a05020" in client.get(f"{SWATCHES}/file.{kind}").text or kind == "palette"
    assert client.get(f"{SWATCHES}/file.exe").status_code == 404
    before = client.app.state.kits.index_hash("wendmere-lock")
    bad = client.post(f"{SWATCHES}/file", files={"file": ("t.json", b"{", "application/json")})
    assert (bad.status_code, "not JSON" in bad.text) == (422, True)
    assert client.app.state.kits.index_hash("wendmere-lock") == before
