"""The Bench's routes: every effect opened in the sheet, looks tried, files brought in, materials followed."""

import io
import re

import numpy as np
import pytest
from fastapi.testclient import TestClient
from PIL import Image

from obrell.core.document.resolve import resolve
from obrell.core.effects import EFFECTS
from obrell.core.shelf import SHIPPED
from obrell.core.text.fonts import FONT_FOLDER
from obrell.web.app import create_app
from tests.making import png, slope

KIT = "/kits/wendmere-lock"
BENCH = f"{KIT}/controls/c1"
NUNITO = (FONT_FOLDER / "nunito" / "latin.woff2").read_bytes()


@pytest.fixture
def client(database):
    app = create_app(database)
    return TestClient(app, base_url="http://localhost")


def edit(client, *, control="c1", selected="p2", **values):
    answer = client.post(f"{KIT}/controls/{control}/edits", json={"edit": values, "seen": {"part": selected}})
    assert answer.status_code == 200, answer.text
    return shown(answer.json())


def sheet(client, **seen):
    answer = client.get(f"{BENCH}/blocks", params=seen)
    assert answer.status_code == 200, answer.text
    return shown(answer.json())


def shown(parcel):
    """A whole parcel as a page puts it together, spaces in its HTML as a browser shows them."""
    assert not parcel["from"]
    html = {name: " ".join(text.split()) for name, text in parcel["blocks"].items()}
    lines = " ".join(" ".join(line.split()) for line in parcel["lists"]["parts"]["items"].values())
    scene = {**parcel["facts"]["around"], "parts": list(parcel["lists"]["scene"]["items"].values())}
    blocks = html | {"sheet": f"{html['sheet-top']} {lines}"}
    return parcel | parcel["facts"] | {"blocks": blocks, "scene": scene}


def pixels(client, address):
    answer = client.get(address)
    assert answer.status_code == 200, answer.text
    return np.array(Image.open(io.BytesIO(answer.content)))


@pytest.mark.parametrize("kind", EFFECTS)
def test_every_effect_opens_in_the_sheet(client, kind):
    added = edit(client, kind="add-effect", part="p2", effect=kind)
    html = added["blocks"]["sheet"]
    assert re.search(rf">\s*{EFFECTS[kind].label}\s*</button>", html)
    assert 'class="eff open"' in html
    assert "points=(" not in html
    assert "None" not in html.split('class="eff open"')[1].split("</li>")[0].replace('value="None"', "")


@pytest.mark.parametrize("fill", ["solid", "linear", "radial", "conic", "texture"])
def test_every_fill_opens_and_is_told_by_its_kind(client, fill):
    effect = edit(client, kind="add-effect", part="p2", effect="paint")["effect"]
    path = f"parts/p2/effects/{effect}/fill/kind"
    edit(client, kind="set", changes=[{"path": path, "value": fill}])
    state = sheet(client, part="p2", effect=effect)
    assert f'<option value="{fill}" selected>' in state["blocks"]["sheet"]
    assert (state["gradient"] is not None) == (fill in ("linear", "radial", "conic"))


def test_a_mask_only_takes_gradients_and_offers_other_parts(client):
    effect = edit(client, kind="add-effect", part="p2", effect="mask")["effect"]
    base = f"parts/p2/effects/{effect}/cover"
    refused = client.post(
        f"{BENCH}/edits", json={"edit": {"kind": "set", "changes": [{"path": f"{base}/fill/kind", "value": "solid"}]}}
    )
    assert refused.status_code == 422
    assert "cannot be of that kind" in refused.text
    edit(client, kind="set", changes=[{"path": f"{base}/kind", "value": "part"}])
    html = sheet(client, part="p2", effect=effect)["blocks"]["sheet"]
    slot = f'id="v-{base.replace("/", "-")}-part"'
    assert 'data-parts-but="p2"' in html.split(slot)[1][:90], "the page offers all parts but the part itself"


def test_looks_are_shown_on_the_part_and_are_what_they_become(client):
    html = client.get(f"{BENCH}/looks", params={"part": "p2"}).text
    assert html.count("data-lay=") == 2 + 17
    assert html.count("data-fill=", html.index("Shipped")) == 40
    assert 'title="paint of Body"' in html.split("On this control")[1].split("Shipped")[0]
    address = html.split('data-lay="shipped-brass"')[1].split('src="')[1].split('"')[0].replace("&amp;", "&")
    tried = pixels(client, address)
    edit(client, kind="lay-material", parts=["p2"], material="shipped-brass")
    strip = sheet(client, part="p2")["blocks"]["strip"]
    brass = next(material for material in SHIPPED if material.id == "shipped-brass")
    assert strip.count("data-step") == 1 + len(brass.effects)
    assert tried[..., 0].max() > 200
    assert client.get(f"{BENCH}/looks", params={"part": "p99"}).status_code == 404


def test_a_gradient_is_kept_in_the_kit_and_taken_off_again(client):
    path = "parts/p2/effects/e1/fill"
    kept = client.post(f"{BENCH}/gradients", json={"path": path, "name": "Deep tarn"})
    assert kept.status_code == 200, kept.text
    html = client.get(f"{BENCH}/looks", params={"part": "p2"}).text
    mine = html.split("In this kit")[1].split("On this control")[0]
    assert 'aria-label="Paint with Deep tarn"' in mine
    refused = client.post(f"{BENCH}/gradients", json={"path": "parts/p2/effects/e2/colour", "name": "None"})
    assert refused.status_code == 422
    assert client.post("/kits/wendmere-lock/gradients/g-deep-tarn/remove").status_code == 200
    assert "In this kit" not in client.get(f"{BENCH}/looks", params={"part": "p2"}).text


def test_kept_looks_are_compared_with_the_whole_control(client):
    for count in range(4):
        edit(client, kind="keep-version", parts=["p2"])
        edit(client, kind="lay-material", parts=["p2"], material=SHIPPED[count].id)
    html = client.get(f"{BENCH}/compare", params={"part": "p2"}).text
    shown = [pixels(client, one.split('"')[0].replace("&amp;", "&")) for one in html.split('src="')[1:]]
    assert len(shown) == 5
    now = pixels(client, html.split('src="')[1].split('"')[0].replace("&amp;", "&").split("?")[0])
    assert np.array_equal(shown[0], now)
    assert all(not np.array_equal(shown[0], other) for other in shown[1:])


def named(client, material):
    kept = client.app.state.kits.index("wendmere-lock").materials
    return next(one for one in kept if one.id == material)


def test_own_values_of_a_linked_part_are_marked_and_lengths_get_rules(client):
    client.post(f"{BENCH}/materials", json={"part": "p2", "name": "Tarn"})
    laid = edit(client, kind="lay-material", parts=["p2"], material="m-tarn", linked=True)
    html = laid["blocks"]["sheet"]
    assert "Linked to <b>Tarn</b>" in html
    assert "Of its own" not in html
    shadow = next(e["id"] for e in laid["clip"][0]["effects"] if e["kind"] == "inner-shadow")
    path = f"parts/p2/effects/{shadow}/blur"
    changed = edit(client, kind="set", changes=[{"path": path, "value": 1}])["blocks"]["sheet"]
    assert "blur of inner shadow" in changed.split("Of its own")[1]
    assert 'class="v num own"' in changed
    material = named(client, "m-tarn")
    rule = {"effect": next(e.id for e in material.effects if e.kind == "inner-shadow"), "path": "blur", "fixed": True}
    assert client.post("/kits/wendmere-lock/materials/m-tarn/lengths", json=rule).status_code == 200
    after = client.app.state.kits
    assert f"{rule['effect']}/blur" in named(client, "m-tarn").fixed
    followed = after.control("wendmere-lock", "c1").control.parts
    assert 1 in [e.blur for p in followed if p.id == "p2" for e in p.effects if e.kind == "inner-shadow"]
    assert client.post("/kits/wendmere-lock/materials/m-none/lengths", json=rule).status_code == 404


def test_what_follows_the_light_is_listed_and_effects_in_common_are_edited_together(client):
    html = sheet(client, part="p2")["blocks"]["sheet"]
    assert "5 of 6 follow" in html.split('id="lit"')[1].split("</summary>")[0]
    assert 'data-path="parts/p2/effects/e2/offset/follow"' in html.split('id="lit"')[1].split("</details>")[0]
    both = sheet(client, part="p1,p2")["blocks"]["sheet"]
    assert 'data-path="parts/*/effects/paint:0/opacity"' in both


REMOVALS = {
    "part": {"kind": "remove", "parts": ["p1"]},
    "effect": {"kind": "remove-effect", "part": "p2", "effect": "e2"},
    "stop": {"kind": "remove-stop", "path": "parts/p2/effects/e1/fill", "index": 1},
    "guides": {"kind": "remove-guides"},
    "sweep": {"kind": "sweep-effects", "parts": ["p2"], "which": "edge", "do": "remove"},
    "ground": {"kind": "set", "changes": [{"path": "ground", "value": None}]},
}
KEEPING = {
    "hidden": {"kind": "sweep-effects", "parts": ["p2"], "which": "edge", "do": "hide"},
    "set": {"kind": "set", "changes": [{"path": "parts/p2/x", "value": 9}]},
    "added": {"kind": "add-effect", "part": "p2", "effect": "bevel"},
}


@pytest.mark.parametrize(("name", "removed"), [*((n, True) for n in REMOVALS), *((n, False) for n in KEEPING)])
def test_a_removal_says_that_it_is_one(client, name, removed):
    assert edit(client, **(REMOVALS | KEEPING)[name])["removed"] is removed


def test_what_changes_nothing_says_so_and_is_no_step(client):
    moved = edit(client, kind="move", parts=["p2"], dx=3, dy=0)
    assert moved["said"].startswith("Moved")
    again = edit(client, kind="move", parts=["p2"], dx=0, dy=0)
    assert again["said"] == "Nothing changed: it is so already"
    assert again["lists"]["steps"]["order"] == moved["lists"]["steps"]["order"]


def test_controls_follow_the_kits_light_unless_they_have_their_own(client):
    kits = client.app.state.kits
    edit(client, control="c3", kind="set", changes=[{"path": "light/direction", "value": 20}])
    moved = client.post("/kits/wendmere-lock/light", data={"direction": "-45"})
    assert moved.status_code == 200
    assert 'value="315"' in moved.text
    index = kits.index("wendmere-lock")
    lamps = [resolve(index.settings(), kits.control("wendmere-lock", c).control).lamp.direction for c in ("c1", "c3")]
    assert lamps == [315, 20]
    assert client.post("/kits/wendmere-lock/light", data={"height": "120"}).status_code == 422
    assert client.post("/kits/wendmere-lock/light", data={"height": "high"}).status_code == 422
    assert kits.index("wendmere-lock").light.height == index.light.height


def test_heat_and_costs_of_every_step(client):
    strip = sheet(client, part="p2")["blocks"]["strip"]
    heat = strip.split('data-heat="')[2].split('"')[0].replace("&amp;", "&")
    assert pixels(client, heat).shape[2] == 4
    spent = client.get(f"{BENCH}/costs", params={"part": "p2"}).json()["ms"]
    assert len(spent) == strip.count("data-step")


def test_a_saved_material_is_followed_in_every_control(client):
    saved = client.post(f"{BENCH}/materials", json={"part": "p2", "name": "Tarn glass"})
    assert "Saved" in saved.json()["said"]
    edit(client, control="c3", selected="p1", kind="lay-material", parts=["p1"], material="m-tarn-glass", linked=True)
    edit(client, kind="add-effect", part="p2", effect="bevel")
    client.post(f"{BENCH}/materials", json={"part": "p2", "name": "Tarn glass"})
    kits = client.app.state.kits
    followed = kits.control("wendmere-lock", "c3").control.parts[0]
    assert followed.effects[-1].kind == "bevel"
    client.post(f"{KIT}/materials/m-tarn-glass/remove", json={})
    assert "m-tarn-glass" not in [material.id for material in kits.index("wendmere-lock").materials]
    assert kits.control("wendmere-lock", "c3").control.parts[0] == followed
    nothing = client.post(f"{BENCH}/materials", json={"part": "p99", "name": "x"})
    assert nothing.status_code == 404


def test_pictures_are_brought_in_shown_and_refused(client):
    put = client.post(f"{BENCH}/pictures?name=crest.png", content=png(slope(24, 16)))
    assert put.json()["facts"]["name"] == "Raise sluice"
    control = client.app.state.kits.control("wendmere-lock", "c1").control
    assert (control.parts[-1].shape.kind, control.parts[-1].name) == ("picture", "crest")
    assert pixels(client, f"/files/{control.parts[-1].shape.file}").shape == (16, 24, 4)
    assert client.get("/files/" + "0" * 32).status_code == 404
    bad = client.post(f"{BENCH}/pictures?name=x.png", content=b"not a picture")
    assert bad.status_code in (400, 422)
    assert "PNG, JPEG or WebP" in bad.text
    client.post(f"{BENCH}/pictures?use=reference", content=png(slope(24, 16)))
    assert sheet(client)["scene"]["reference"]["lies"] == "under the art"


def test_fonts_are_brought_in_listed_and_made_favourites(client):
    brought = client.post(f"{KIT}/fonts", content=NUNITO).json()
    again = client.post(f"{KIT}/fonts", content=NUNITO).json()
    assert brought == again
    client.post(f"{KIT}/fonts/{brought['font']}/favourite")
    fonts = client.get(f"{KIT}/fonts", params={"words": "Sluice 漢"}).json()["fonts"]
    assert len(fonts) == 9
    assert fonts[0]["name"] == brought["font"]
    assert all(font["missing"] and font["path"] for font in fonts)
    client.post(f"{KIT}/fonts/{brought['font']}/favourite")
    assert not any(font["favourite"] for font in client.get(f"{KIT}/fonts").json()["fonts"])
    edit(client, kind="set", changes=[{"path": "parts/p5/shape/font", "value": brought["font"]}])
    exported = client.get(f"{KIT}/export").json()
    assert list(exported["files"]) == [brought["font"]]


def test_letters_copies_and_versions_have_their_places_in_the_sheet(client):
    edit(client, selected="p5", kind="style-letters", part="p5", start=0, end=5)
    edit(client, selected="p5", kind="keep-version", parts=["p5"])
    html = sheet(client, part="p5")["blocks"]["sheet"]
    assert "“Raise”" in html
    assert 'data-path="parts/p5/shape/runs/0/weight"' in html
    repeat = edit(client, kind="repeat", parts=["p4"], way="row")["fresh"][0]
    edit(client, kind="own-copy", part=repeat, copy_number=1)
    html = sheet(client, part=repeat, copy_number="1")["blocks"]["sheet"]
    assert "Copy 2:" in html
    assert f'data-path="parts/{repeat}/shape/own/0/opacity"' in html


def test_a_state_is_made_for_other_controls_as_one_step(client):
    kits = client.app.state.kits
    shown = client.get(f"{BENCH}/share?state=disabled").text
    assert "called “Disabled” already" in shown
    assert "things have no place in it" in shown
    for address in re.findall(r'src="(/pictures/[^"]+)"', shown.replace("&amp;", "&"))[:3]:
        assert client.get(address).status_code == 200
    before = {tile.id: tile.hash for tile in kits.tiles("wendmere-lock")}
    for onto in ([], ["c13", "c9"], ["c1"]):
        refused = client.post(f"{BENCH}/share", json={"state": "disabled", "onto": onto})
        assert refused.status_code in (409, 422), onto
        assert {tile.id: tile.hash for tile in kits.tiles("wendmere-lock")} == before
    assert client.get(f"{BENCH}/share?state=rest").status_code == 422
    made = client.post(f"{BENCH}/share", json={"state": "disabled", "onto": ["c9", "c12"]})
    assert made.json()["said"] == "“Disabled” as Raise sluice has it: 2 controls"
    assert kits.control("wendmere-lock", "c12").control.states[-1].name == "Disabled"
    kits.undo("wendmere-lock", "c9")
    assert {tile.id: tile.hash for tile in kits.tiles("wendmere-lock")} == before
