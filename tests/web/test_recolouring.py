"""The sheet of hues: the very art, tried, read, and kept in three ways."""

import json
import re

import pytest
from fastapi.testclient import TestClient

from obrell.app.wall import LastWall, WallRequest, preview_wall
from obrell.core.document.model import Canvas
from obrell.core.document.resolve import palette
from obrell.core.document.swatch_uses import uses
from obrell.core.render.cache import PixelCache
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
    made = client.post(f"{BENCH}/recolour/colourway", json={"edits": [TURN], "name": "Heather"})
    assert made.json() == {"ids": ["heather"], "said": "Made the colourway “Heather”."}
    index = client.app.state.kits.index("wendmere-lock")
    before, after = palette(index), palette(index, "heather")
    assert {name for name in before if before[name] != after[name]} == {"moss"}
    again = client.post(f"{BENCH}/recolour/colourway", json={"edits": [TURN], "name": "Heather"})
    assert (again.status_code, "already" in again.text) == (422, True)
    assert client.app.state.kits.index("wendmere-lock") == index


def test_several_hues_are_colourways_in_one_step_named_by_one_word_or_one_each(client):
    kits, edits = client.app.state.kits, [TURN, TURN | {"to_hue": 30}, TURN | {"to_hue": None, "swatch": "signal"}]
    made = client.post(f"{BENCH}/recolour/colourway", json={"edits": edits, "name": "Reed"}).json()
    assert made["said"] == "Made the colourways “Reed 300°”, “Reed 30°”, “Reed signal”."
    assert len({palette(kits.index("wendmere-lock"), one)["moss"] for one in made["ids"]}) == 3
    kits.undo("wendmere-lock")
    assert len(kits.index("wendmere-lock").colourways) == 2
    each = client.post(f"{BENCH}/recolour/colourway", json={"edits": edits, "name": "Rain, Moor , Heath"}).json()
    assert each["said"] == "Made the colourways “Rain”, “Moor”, “Heath”."
    taken = client.post(f"{BENCH}/recolour/colourway", json={"edits": edits, "name": "Fen, Moor, Ash"})
    assert taken.status_code == 422
    assert not any(one.name == "Fen" for one in kits.index("wendmere-lock").colourways)


def test_art_that_follows_nothing_cannot_become_a_colourway_but_a_control(tmp_path):
    client = serving(tmp_path, unlinked_lock())
    edit = TURN | {"groups": ["hue-0"]}
    refused = client.post(f"{BENCH}/recolour/colourway", json={"edits": [edit], "name": "Heather"})
    assert "follow a swatch yet" in refused.text
    made = client.post(f"{BENCH}/recolour/control", json={"edits": [TURN, TURN | {"to_hue": 30}], "name": "A, B"})
    one, other = (client.app.state.kits.control("wendmere-lock", name).control for name in made.json()["ids"])
    assert (one.name, other.name) == ("A", "B")
    assert one.parts != other.parts != client.app.state.kits.control("wendmere-lock", "c12").control.parts
    client.app.state.kits.undo("wendmere-lock")
    assert len(client.app.state.kits.tiles("wendmere-lock")) == 13


def test_only_a_recolouring_is_kept_so(client):
    edit = {"kind": "set", "changes": [{"path": "name", "value": "x"}]}
    assert client.post(f"{BENCH}/recolour/control", json={"edits": [edit], "name": "A"}).status_code == 422
    assert client.post(f"{BENCH}/recolour/control", json={"edits": [TURN], "name": ""}).status_code == 422
    assert client.post(f"{BENCH}/recolour/control", json={"edits": [], "name": "A"}).status_code == 422


def test_a_tint_is_shown_on_the_tiles_and_kept_as_a_control_but_not_as_a_colourway(client):
    text, edits, pictures = tiles(client, way="color", target="#8a4fb0")
    assert {edit["kind"] for edit in edits} == {"tint-from-above"}
    assert edits[0]["colour"] == "#8a4fb0"
    assert len({client.get(address).content for address in pictures}) == 13
    assert "Tinted with moss" in text
    refused = client.post(f"{BENCH}/recolour/colourway", json={"edits": edits[:1], "name": "Dusk"})
    assert "changes no swatch" in refused.text
    made = client.post(f"{BENCH}/recolour/control", json={"edits": edits[:1], "name": "Dusk"}).json()
    assert client.app.state.kits.control("wendmere-lock", made["ids"][0]).control.parts[-1].name == "Tint from above"


def wall_sheet(client, **asked):
    text = client.get(f"{KIT}/recolour", params=asked).text.replace("&#34;", '"').replace("&amp;", "&")
    return text, [json.loads(one) for one in re.findall(r'data-recolour="(\{.*?\})"', text)]


def test_several_controls_are_turned_as_one_step(client):
    shown, edits = wall_sheet(client)
    assert len([edit for edit in edits if "to_hue" in edit]) == 12
    assert 'value="tarn" checked' in " ".join(shown.split())
    for address in re.findall(r'src="(/pictures/[^"]+)"', shown)[:3]:
        assert client.get(address).status_code == 200
    kits = client.app.state.kits
    before = {tile.id: tile.hash for tile in kits.tiles("wendmere-lock")}
    pale = TURN | {"groups": ["chalk", "slate"], "to_hue": 20, "strength": 0.2}
    said = client.post(f"{KIT}/recolour/contrast", json={"controls": ["c1", "c12"], "edit": pale}).text
    assert "Open gate: " in said or "Raise sluice: " in said or "as readable as before" in said
    lower = next(tile.id for tile in kits.tiles("wendmere-lock") if tile.name == "Lower sluice")
    asked = {"controls": ["c1", lower, "c2"], "edit": TURN | {"groups": ["tarn"], "to_hue": 320}}
    said = client.post(f"{KIT}/recolour", json=asked).text
    assert "Recoloured to 320°: 2 controls" in said
    after = {tile.id: tile.hash for tile in kits.tiles("wendmere-lock")}
    assert {name for name in before if before[name] != after[name]} == {"c1", lower}
    kits.undo("wendmere-lock", lower)
    assert {tile.id: tile.hash for tile in kits.tiles("wendmere-lock")} == before


def test_several_controls_go_towards_a_colour_follow_a_swatch_or_are_tinted(client):
    _, edits = wall_sheet(client, controls="c1,c12", groups="tarn,moss", target="#8a4fb0")
    assert edits[0]["to_hue"] == pytest.approx(311, abs=3)
    onto = next(edit for edit in edits if edit.get("swatch") == "signal")
    assert "2 controls" in client.post(f"{KIT}/recolour", json={"controls": ["c1", "c12"], "edit": onto}).text
    assert "signal" in uses(client.app.state.kits.control("wendmere-lock", "c12").control)
    _, tints = wall_sheet(client, controls="c3", way="hue")
    assert "1 control" in client.post(f"{KIT}/recolour", json={"controls": ["c3"], "edit": tints[4]}).text
    assert "Tick controls" in wall_sheet(client, controls="")[0]
    # What was ticked of other controls is not here: what usually is turned takes its place, but for nothing at all.
    usual = wall_sheet(client, controls="c12")[1][0]["groups"]
    assert usual
    assert wall_sheet(client, controls="c12", groups="tarn")[1][0]["groups"] == usual
    assert wall_sheet(client, controls="c12", groups="")[1] == []


def test_several_hues_of_several_controls_are_kept_in_one_go(client):
    kits = client.app.state.kits
    asked = {"controls": ["c1", "c12", "c2"], "edits": [TURN | {"groups": ["tarn", "moss"], "to_hue": 20},
             TURN | {"groups": ["tarn", "moss"], "to_hue": 80}], "name": "Dawn, Dusk"}  # fmt: skip
    said = client.post(f"{KIT}/recolour/control", json=asked).text
    names = [tile.name for tile in kits.tiles("wendmere-lock")]
    first, gate = names.index("Raise sluice"), names.index("Open gate")
    assert names[first + 1 : first + 3] == ["Raise sluice Dawn", "Raise sluice Dusk"]
    assert names[gate + 1 : gate + 3] == ["Open gate Dawn", "Open gate Dusk"]
    assert len(names) == 17
    assert "Made the controls “Raise sluice Dawn”" in said
    kits.undo("wendmere-lock")
    assert len(kits.tiles("wendmere-lock")) == 13
    said = client.post(f"{KIT}/recolour/colourway", json=asked | {"colourway": "frost"}).text
    assert "Made the colourways “Dawn”, “Dusk”." in said
    index = kits.index("wendmere-lock")
    frost, dawn, dusk = (palette(index, way) for way in ("frost", "dawn", "dusk"))
    assert {name for name in frost if frost[name] != dawn[name]} == {"tarn", "moss"}
    assert dawn["tarn"] != dusk["tarn"]


def test_an_empty_control_among_those_that_are_tinted_stays_empty(client):
    kits = client.app.state.kits
    new = kits.add_control("wendmere-lock", "Blank", Canvas(width=40, height=40))
    tint = {"kind": "tint-from-above", "colour": "#8a4fb0", "mode": "color"}
    asked = {"controls": [new, "c3"], "edit": tint}
    assert client.post(f"{KIT}/recolour/contrast", json=asked).status_code == 200
    view = WallRequest(seq=1, edit=tint, only=(new, "c3"), controls=(new, "c3"))
    last = LastWall(PixelCache(1 << 20))
    assert [control for control, _ in preview_wall(kits, "wendmere-lock", view, last)] == ["c3", new]
    kept = client.post(f"{KIT}/recolour/control", json={"controls": [new, "c3"], "edits": [tint], "name": "Dusk"})
    assert "Made the control “Log entry Dusk”." in kept.text
    assert ": 1 control" in client.post(f"{KIT}/recolour", json=asked).text
    assert not kits.control("wendmere-lock", new).control.parts
    assert "No colour" in client.post(f"{KIT}/recolour", json={"controls": [new], "edit": tint}).text


@pytest.mark.parametrize("how", ["control", "colourway"])
@pytest.mark.parametrize("whose", ["controls", "control"])
def test_hues_of_a_control_that_is_gone_or_without_a_name_are_not_kept(client, how, whose):
    kits = client.app.state.kits
    kits.remove_control("wendmere-lock", "c12")
    before = kits.standing("wendmere-lock")
    address = f"{KIT if whose == 'controls' else BENCH}/recolour/{how}"
    gone = {"controls": ["c1", "c12"], "edits": [TURN], "name": "Heath"}
    answer = client.post(address, json=gone)
    assert (answer.status_code, "was removed" in answer.text) == (404, True)
    kits.undo("wendmere-lock")
    before = kits.standing("wendmere-lock")
    blank = client.post(address, json=gone | {"name": "  "})
    assert (blank.status_code, "Name it first" in blank.text) == (422, True)
    assert kits.standing("wendmere-lock") == before
    long = client.post(
        address, json={"controls": ["c12", "c12"], "edits": [TURN, TURN | {"to_hue": 30}], "name": "h" * 80}
    )
    assert long.status_code == 200
    names = [
        one.name
        for one in (kits.tiles("wendmere-lock") if how == "control" else kits.index("wendmere-lock").colourways)
    ]
    assert sum(name.startswith("hhh") for name in names) == 2
    assert max(map(len, names)) == 80


TARN = TURN | {"groups": ["tarn"]}


@pytest.mark.parametrize(
    ("asked", "words"),
    [
        ({"controls": [], "edit": TARN}, "at least one control"),
        ({"controls": ["c1"], "edit": TARN | {"groups": []}}, "Choose colours to turn"),
        ({"controls": ["c2"], "edit": TARN}, "No colour of the kit is changed"),
        ({"controls": ["gone"], "edit": TARN}, "was removed"),
        ({"controls": ["c1"], "edit": TARN | {"to_hue": "teal"}}, "To hue: must be a number"),
        ({"controls": ["c1"], "edit": {"kind": "remove", "parts": ["p1"]}}, "Only a recolouring"),
    ],
)
def test_what_cannot_be_turned_is_said_and_nothing_changes(client, asked, words):
    before = [tile.hash for tile in client.app.state.kits.tiles("wendmere-lock")]
    answer = client.post(f"{KIT}/recolour", json=asked)
    assert answer.status_code in (404, 409, 422)
    assert words in answer.text
    kept = {"controls": asked["controls"], "edits": [asked["edit"]], "name": "Dawn"}
    assert client.post(f"{KIT}/recolour/control", json=kept).status_code in (404, 409, 422)
    assert [tile.hash for tile in client.app.state.kits.tiles("wendmere-lock")] == before


def test_all_colourways_beside_each_other_stand_on_their_own_grounds(client):
    shown = client.get(f"{KIT}?colourway=all").text.replace("&amp;", "&")
    grounds = re.findall(r'<span class="ground-here" data-own-ground="([^"]+)"', shown)[:3]
    assert len({client.get(address).content for address in grounds}) == 3
