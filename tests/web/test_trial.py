"""Routes of Trial: what is refused, and what is much."""

from __future__ import annotations

import io
import json
from html import unescape

import numpy as np
import pytest
from fastapi.testclient import TestClient
from PIL import Image

from obrell.core.render.cache import PixelCache
from obrell.core.values.panels import MAX_PLACEMENTS, Placement
from obrell.samples.wendmere_lock import wendmere_lock
from obrell.web.app import create_app
from obrell.web.trial import seen

KIT = "wendmere-lock"
PANEL = f"/kits/{KIT}/trial/touch-panel"


@pytest.fixture(scope="module")
def app(tmp_path_factory):
    made = create_app(tmp_path_factory.mktemp("trial") / "kits.db")
    made.state.kits.import_kit(wendmere_lock())
    yield made
    made.state.kits.close()
    made.state.memory.close()


@pytest.fixture
def client(app):
    return TestClient(app, base_url="http://127.0.0.1")


def edited(client, edit, panel=PANEL):
    return client.post(f"{panel}/edits", json={"edit": edit})


def standing(client, panel=PANEL):
    return client.get(f"{panel}/now").json()["screen"]


def test_a_kit_without_panels_offers_to_make_one_and_others_open_their_first(client):
    assert client.get(f"/kits/{KIT}/trial", follow_redirects=False).headers["location"] == PANEL
    client.post("/kits", data={"name": "Bare"})
    assert "no screen to try anything on yet" in client.get("/kits/bare/trial").text
    made = client.post("/kits/bare/trial", data={"start": "phone", "name": "Mine"})
    assert made.headers["hx-redirect"] == "/kits/bare/trial/mine"
    assert standing(client, "/kits/bare/trial/mine")["fixtures"][0]["name"] == "Title “Lock 7”"
    assert client.post("/kits/bare/trial", data={"start": "boat", "name": "x"}).status_code == 422


@pytest.mark.parametrize(
    ("edit", "status", "words"),
    [
        ({"kind": "put", "control": "gone", "x": 0, "y": 0}, 404, "no longer in the kit"),
        ({"kind": "put", "control": "c1", "x": 1e9, "y": 0}, 422, "X: must be"),
        ({"kind": "fly"}, 422, "kind"),
        ("nonsense", 422, ""),
        ({"kind": "type", "path": "width", "text": "7/0"}, 422, "divided by 0"),
        ({"kind": "set", "path": "sources", "value": []}, 422, "not set directly"),
        ({"kind": "type", "path": "width", "text": "4096*2"}, 422, "Width: "),
        ({"kind": "set", "path": "ground", "value": {"kind": "picture", "file": "0" * 32}}, 422, "picture"),
        ({"kind": "set", "path": "ground", "value": {"kind": "solid", "colour": "moss"}}, 422, "must be a colour"),
        ({"kind": "add-move", "source": "upper-pound",
          "move": {"kind": "on", "placement": "i1", "when": "sideways", "than": 2}}, 422, ""),
        ({"kind": "add-move", "source": "upper-pound",
          "move": {"kind": "on", "placement": "i1", "when": "above", "than": 1e12}}, 422, ""),
        ({"kind": "set-move", "source": "upper-pound", "at": 0, "than": "high"}, 422, "“high”"),
    ],
)  # fmt: skip
def test_what_is_refused_says_why_and_changes_nothing(client, edit, status, words):
    before = standing(client)
    answer = edited(client, edit)
    assert answer.status_code == status
    assert words in answer.json()["words"]
    assert standing(client) == before


def test_a_screen_of_too_many_pixels_is_refused_and_one_that_just_fits_is_not(client):
    client.post(f"/kits/{KIT}/trial", data={"start": "empty", "name": "Wall of glass"})
    huge = f"/kits/{KIT}/trial/wall-of-glass"
    for name in ("width", "height"):
        assert edited(client, {"kind": "type", "path": name, "text": "4096"}, huge).status_code == 200
    before = standing(client, huge)
    answer = edited(client, {"kind": "type", "path": "density", "text": "1.5"}, huge)
    assert (answer.status_code, answer.json()["words"][:20]) == (413, "6144 × 6144 device p")
    assert standing(client, huge) == before


@pytest.mark.parametrize("size", [(16, 4096), (4096, 16), (16, 16), (360, 640)])
def test_screens_of_every_shape_are_seen_under_all_conditions_and_shared(client, size):
    name = f"shape-{size[0]}-{size[1]}"
    client.post(f"/kits/{KIT}/trial", data={"start": "empty", "name": name})
    shape = f"/kits/{KIT}/trial/{name}"
    for path, length in zip(("width", "height"), size, strict=True):
        assert edited(client, {"kind": "type", "path": path, "text": str(length)}, shape).status_code == 200
    edited(client, {"kind": "put", "control": "c7", "x": -20, "y": -20}, shape)
    sheet = client.get(f"{shape}/conditions.png")
    assert sheet.status_code == 200
    assert max(Image.open(io.BytesIO(sheet.content)).size) <= 4096
    assert client.get(f"{shape}/page.html").status_code == 200
    ground = client.get(standing(client, shape)["ground"])
    assert Image.open(io.BytesIO(ground.content)).size == size


def test_five_hundred_controls_are_shown_on_one_panel(app, client):
    client.post(f"/kits/{KIT}/trial", data={"start": "empty", "name": "Crowd"})
    crowd = f"/kits/{KIT}/trial/crowd"
    controls = [one.id for one in wendmere_lock().controls]
    placements = tuple(
        Placement(id=f"i{n}", control=controls[n % len(controls)], x=n % 25 * 20, y=n // 25 * 25)
        for n in range(MAX_PLACEMENTS)
    )

    def filled(index):
        panels = tuple(
            one.evolve(placements=placements, next_number=501) if one.id == "crowd" else one for one in index.panels
        )
        return index.evolve(panels=panels)

    app.state.kits.change_index(KIT, filled, "Filled")
    assert len(standing(client, crowd)["pieces"]) == MAX_PLACEMENTS
    assert client.get(crowd).status_code == 200
    answer = edited(client, {"kind": "put", "control": "c1", "x": 0, "y": 0}, crowd)
    assert (answer.status_code, answer.json()["words"]) == (422, "A panel can hold at most 500 controls.")


def test_a_ground_of_twenty_megabytes_is_refused_and_a_small_one_is_laid(client):
    before = standing(client)["ground"]
    answer = client.post(f"{PANEL}/ground", files={"file": ("g.png", b"\x89PNG" + bytes(20_000_000))})
    assert answer.status_code == 413
    assert "15 MB" in answer.json()["words"]
    assert standing(client)["ground"] == before
    file = io.BytesIO()
    Image.fromarray(np.full((4, 4, 3), (200, 40, 60), np.uint8)).save(file, "PNG")
    answer = client.post(f"{PANEL}/ground", files={"file": ("g.png", file.getvalue())})
    assert answer.status_code == 200
    ground = client.get(answer.json()["screen"]["ground"])
    assert Image.open(io.BytesIO(ground.content)).convert("RGB").getpixel((300, 590)) == (200, 40, 60)
    assert client.get(before).status_code == 404
    client.post(f"{PANEL}/steps/undo", json={})
    assert standing(client)["ground"] == before


def test_an_edit_of_a_control_is_made_where_it_stands(client):
    change = {"kind": "set", "changes": [{"path": "timing/duration", "value": 300}]}
    answer = client.post(f"{PANEL}/controls/c10/edits", json={"edit": change}).json()
    horn = next(one for one in answer["screen"]["pieces"] if one["id"] == "i11")
    assert horn["timings"][""] == [300, 18]
    assert "300 ms" in client.get(f"{PANEL}/under?placement=i11&state=hover").text or "300" in answer["said"]


def test_what_has_a_chooser_is_said_under_the_pointer_and_not_offered(client):
    change = {"kind": "set", "changes": [{"path": "parts/p1/effects/e1/colour", "value": "#aa3322"}]}
    edit = {"kind": "in-states", "states": ["hover"], "edit": change}
    assert client.post(f"{PANEL}/controls/c3/edits", json={"edit": edit}).status_code == 200
    under = client.get(f"{PANEL}/under?placement=i8&state=hover").text
    assert "Colour of drop shadow 3 on Body: #aa3322" in " ".join(under.split())
    assert "data-colour" not in under


def test_several_of_different_kinds_are_named_and_removed_together(client):
    made = client.post(f"/kits/{KIT}/trial", data={"start": "form", "name": "Mixed"}).headers["hx-redirect"]
    put = edited(client, {"kind": "put", "control": "c7", "x": 0, "y": 0}, made).json()["screen"]["pieces"][0]["id"]
    for chosen, said, lined in (
        (f"{put},f1", "2 things", False),
        ("f1,f2", "2 things", False),
        (f"{put},no", "", False),
    ):
        head = client.get(f"{made}/now?chosen={chosen}").json()["sheet"]["head"]
        assert (said in head, "With one another" in head) == (True, lined)
    answer = edited(client, {"kind": "remove", "placements": [put, "f1"]}, made).json()
    assert answer["said"] == "Removed 2 things from “Mixed”"
    assert answer["screen"]["fixtures"][0]["id"] == "f2"
    assert answer["screen"]["pieces"] == []


def test_the_socket_answers_nonsense_in_words(app):
    def asked(text):
        answer = seen(app.state.kits, KIT, "touch-panel", text, _last())
        size = int.from_bytes(answer[:4], "little")
        return json.loads(answer[4 : 4 + size])

    assert asked("{") == {"seq": -1, "words": "This window asked for nonsense."}
    wanted = {"seq": 3, "density": 1, "pieces": [{"id": "i1", "state": "nowhere"}]}
    assert asked(json.dumps(wanted))["words"] == "“Raise sluice” has no state “nowhere”."
    assert asked(json.dumps({"seq": 4, "density": 1}))["box"] == [0, 0, 600, 600]


def _last():
    from obrell.app.trial import LastScreen

    return LastScreen(PixelCache())


def test_a_page_is_whole_and_escapes_what_is_typed(client):
    edited(client, {"kind": "words", "placement": "i8", "part": "p2", "text": "</script><b>log & ' \""})
    page = client.get(f"{PANEL}/page.html").text
    assert page.count("</script>") == 2
    assert "<b>log" not in page
    assert "http:" not in page.replace("http-equiv", "")
    assert "https:" not in page
    client.post(f"{PANEL}/steps/undo", json={})


def test_conditions_out_of_range_are_refused(client):
    for query in ("sun=-1", "night=1e9", "vision=none", "severity=2", "distance=nan", "acuity=0"):
        assert client.get(f"{PANEL}/labels?{query}").status_code == 422
        assert client.get(f"{PANEL}/conditions.png?{query}").status_code == 422
    labels = client.get(f"{PANEL}/labels?sun=300").text
    assert "less than 4.5 : 1" in labels


@pytest.mark.parametrize(
    ("edit", "words"),
    [({"than": "9"}, "That is never so: “upper pound” goes from 2 to 2.8."),
     ({"than": "1"}, "That is always so"), ({"than": "2.5"}, "")],
)  # fmt: skip
def test_a_condition_that_is_never_or_always_met_is_said(client, edit, words):
    assert edited(client, {"kind": "set-move", "source": "upper-pound", "at": 0, **edit}).status_code == 200
    page = unescape(client.get(PANEL).text)
    assert words in page
    assert words or "so: “upper pound”" not in page


def test_what_is_changed_of_a_control_on_the_panel_is_taken_back_there_in_its_turn(client, app):
    bench = f"/kits/{KIT}/controls/c3"
    kits = app.state.kits

    def opacity():
        return kits.control(KIT, "c3").control.parts[0].opacity

    def set_to(value):
        return {"kind": "set", "changes": [{"path": "parts/p1/opacity", "value": value}]}

    first = opacity()
    assert client.post(f"{PANEL}/controls/c3/edits", json={"edit": set_to(0.5)}).json()["undo"]
    assert edited(client, {"kind": "set", "path": "width", "value": 640}).status_code == 200
    assert "width" in client.post(f"{PANEL}/steps/undo", json={}).json()["said"].lower()
    assert opacity() == 0.5
    assert client.post(f"{PANEL}/steps/undo", json={}).json()["said"].startswith("Took back: Opacity")
    assert opacity() == first
    assert client.post(f"{PANEL}/steps/redo", json={}).json()["said"].startswith("Did again: Opacity")
    assert opacity() == 0.5
    # What was done on the Bench since stays when the panel takes its own step back.
    rename = {"kind": "rename", "part": "p1", "name": "Rim of brass"}
    assert client.post(f"{bench}/edits", json={"edit": rename}).status_code == 200
    assert client.post(f"{PANEL}/steps/undo", json={}).json()["said"].startswith("Took back: Opacity")
    part = kits.control(KIT, "c3").control.parts[0]
    assert (part.opacity, part.name) == (first, "Rim of brass")
    # A new step on the Bench ends what the panel could do again.
    assert client.post(f"{bench}/edits", json={"edit": set_to(0.7)}).status_code == 200
    assert "Opacity" not in client.post(f"{PANEL}/steps/redo", json={}).json()["said"]
    assert opacity() == 0.7
