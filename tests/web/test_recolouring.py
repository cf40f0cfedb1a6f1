"""The sheet of hues: the very art, tried, read, and kept in three ways."""

import json
import re

import pytest
from fastapi.testclient import TestClient

from obrell.core.document.resolve import palette
from obrell.samples.wendmere_lock import unlinked_lock, wendmere_lock
from obrell.web.app import create_app

KIT = "/kits/wendmere-lock"
BENCH = f"{KIT}/controls/c12"
TURN = {"kind": "recolour", "groups": ["moss"], "to_hue": 300}


def serving(tmp_path, kit):
    app = create_app(tmp_path / "kits.db")
    app.state.kits.import_kit(kit)
    return TestClient(app, base_url="http://localhost")


@pytest.fixture
def client(tmp_path):
    return serving(tmp_path, wendmere_lock())


def tiles(client, **asked):
    text = client.get(f"{BENCH}/recolour", params=asked).text.replace("&#34;", '"').replace("&amp;", "&")
    edits = [json.loads(one) for one in re.findall(r'data-recolour="(\{.*?\})"', text)]
    return text, edits, re.findall(r'src="(/pictures/[^"]+)"', text)


def test_twelve_hues_of_the_very_art_and_every_swatch_are_offered(client):
    text, edits, pictures = tiles(client)
    assert [edit["groups"] for edit in edits] == [["moss"]] * len(edits)
    hues = [edit["to_hue"] for edit in edits if "to_hue" in edit]
    assert len(hues) == len(pictures) == 12
    assert len({round(hue / 30) % 12 for hue in hues}) >= 11
    assert [edit["swatch"] for edit in edits if "swatch" in edit] == [one.id for one in wendmere_lock().swatches]
    seen = {client.get(address).content for address in pictures}
    assert len(seen) == 12
    assert '"moss" checked' in " ".join(text.split()) or 'value="moss" checked' in " ".join(text.split())


def test_a_typed_colour_comes_first_with_its_chroma(client):
    _, edits, _ = tiles(client, target="#8a4fb0", groups="moss", strength=1)
    assert edits[0]["to_hue"] == pytest.approx(311, abs=3)
    assert edits[0]["strength"] > 1
    assert len(tiles(client, groups="")[1]) == 0
    refused = client.get(f"{BENCH}/recolour", params={"target": "purple-ish"})
    assert refused.status_code == 422
    assert "is not a colour" in refused.text


def test_the_label_that_is_read_least_is_told_while_a_swatch_or_a_colour_is_chosen(client):
    kit = wendmere_lock()
    view = {"seq": 1, "colours": {"tarn": "#d9d0b0"}, "controls": [one.id for one in kit.controls]}
    pale = client.post(f"{KIT}/readable", json=view).json()
    assert not pale["enough"]
    assert re.fullmatch(r"Label of \w+ sluice: 2\.\d : 1", pale["words"])
    assert client.post(f"{KIT}/readable", json=view | {"colours": {"tarn": "#0f4a50"}}).json()["enough"]
    assert client.post(f"{KIT}/readable", json=view | {"controls": []}).json() == {}
    change = {"path": "parts/p4/effects/e2/fill/colour", "value": "#2a4a20"}
    asked = {"edit": {"kind": "set", "changes": [change]}, "part": "p4", "hue": 120}
    told = client.post(f"{BENCH}/readable", json=asked).json()
    assert told["words"].startswith("Word ")
    assert not told["enough"]
    assert told["boundaries"]


def test_what_can_be_read_less_well_is_said_with_its_remedy(client):
    onto = {"kind": "recolour", "groups": ["chalk"], "swatch": "moss"}
    answer = client.post(f"{BENCH}/contrast", json={"edit": onto})
    said = " ".join(answer.text.split())
    assert re.search(r"Word can be read at [\d.]+ : 1 instead of [\d.]+ : 1; \d+ (lighter|darker)", said)
    same = client.post(f"{BENCH}/contrast", json={"edit": {"kind": "recolour", "groups": ["signal"], "by": 90}})
    assert "as readable as before" in same.text


def test_a_hue_is_kept_as_a_colourway_in_which_the_control_looks_so(client):
    made = client.post(f"{BENCH}/recolour/colourway", json={"edit": TURN, "name": "Heather"})
    assert made.json() == {"id": "heather"}
    index = client.app.state.kits.index("wendmere-lock")
    before, after = palette(index), palette(index, "heather")
    assert {name for name in before if before[name] != after[name]} == {"moss"}
    again = client.post(f"{BENCH}/recolour/colourway", json={"edit": TURN, "name": "Heather"})
    assert (again.status_code, "already" in again.text) == (422, True)
    assert client.app.state.kits.index("wendmere-lock") == index


def test_art_that_follows_nothing_cannot_become_a_colourway_but_a_control(tmp_path):
    client = serving(tmp_path, unlinked_lock())
    edit = TURN | {"groups": ["hue-0"]}
    refused = client.post(f"{BENCH}/recolour/colourway", json={"edit": edit, "name": "Heather"})
    assert "follow a swatch yet" in refused.text
    made = client.post(f"{BENCH}/recolour/control", json={"edits": [TURN, TURN | {"to_hue": 30}], "names": ["A", "B"]})
    one, other = (client.app.state.kits.control("wendmere-lock", name).control for name in made.json()["ids"])
    assert (one.name, other.name) == ("A", "B")
    assert one.parts != other.parts != client.app.state.kits.control("wendmere-lock", "c12").control.parts
    client.app.state.kits.undo("wendmere-lock")
    assert len(client.app.state.kits.tiles("wendmere-lock")) == 13


def test_only_a_recolouring_is_kept_so(client):
    edit = {"kind": "set", "changes": [{"path": "name", "value": "x"}]}
    assert client.post(f"{BENCH}/recolour/control", json={"edits": [edit], "names": ["A"]}).status_code == 422
    assert client.post(f"{BENCH}/recolour/control", json={"edits": [TURN], "names": [""]}).status_code == 422


def test_several_controls_are_turned_as_one_step(client):
    shown = client.get(f"{KIT}/recolour").text
    assert shown.count('name="to_hue"') == 12
    assert 'value="tarn" data-again checked' in " ".join(shown.split())
    for address in re.findall(r'src="(/pictures/[^"]+)"', shown.replace("&amp;", "&"))[:3]:
        assert client.get(address).status_code == 200
    kits = client.app.state.kits
    before = {tile.id: tile.hash for tile in kits.tiles("wendmere-lock")}
    onto = {"control": ["c1", "c12"], "group": ["chalk", "slate"], "to_hue": 20, "strength": 0.2}
    said = client.get(f"{KIT}/recolour/contrast", params=onto).text
    assert "Open gate: " in said or "Raise sluice: " in said or "as readable as before" in said
    lower = next(tile.id for tile in kits.tiles("wendmere-lock") if tile.name == "Lower sluice")
    asked = {"control": ["c1", lower, "c2"], "group": ["tarn"], "to_hue": "320", "strength": "1"}
    said = client.post(f"{KIT}/recolour", data=asked).text
    assert "Recoloured to 320°: 2 controls" in said
    after = {tile.id: tile.hash for tile in kits.tiles("wendmere-lock")}
    assert {name for name in before if before[name] != after[name]} == {"c1", lower}
    kits.undo("wendmere-lock", lower)
    assert {tile.id: tile.hash for tile in kits.tiles("wendmere-lock")} == before


@pytest.mark.parametrize(
    ("asked", "words"),
    [
        ({"group": "tarn", "to_hue": "20"}, "at least one control"),
        ({"control": "c1", "group": "tarn"}, "Choose a hue"),
        ({"control": "c1", "to_hue": "20"}, "Choose colours to turn"),
        ({"control": "c2", "group": "tarn", "to_hue": "20"}, "No colour of the kit is changed"),
        ({"control": "c1", "group": "tarn", "to_hue": "teal"}, "To hue: must be a number"),
    ],
)
def test_what_cannot_be_turned_is_said_and_nothing_changes(client, asked, words):
    before = [tile.hash for tile in client.app.state.kits.tiles("wendmere-lock")]
    answer = client.post(f"{KIT}/recolour", data=asked)
    assert answer.status_code in (409, 422)
    assert words in answer.text
    assert [tile.hash for tile in client.app.state.kits.tiles("wendmere-lock")] == before
