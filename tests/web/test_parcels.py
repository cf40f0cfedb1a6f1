"""What an edit sends: what differs, nothing else; put together it is what is there."""

from hypothesis import given
from hypothesis import strategies as st

from obrell.core.document.fingerprint import fingerprints
from obrell.core.document.resolve import resolve
from obrell.core.edit import Surroundings, applied, read_edit
from obrell.samples.wendmere_lock import wendmere_lock
from obrell.web.parcels import Parcels, View
from tests.web.test_bench import BENCH, client  # noqa: F401 — a fixture

LISTS = st.dictionaries(st.sampled_from("abcdef"), st.integers(0, 3)).flatmap(
    lambda items: st.permutations(list(items)).map(lambda order: {key: items[key] for key in order})
)
VIEWS = st.builds(
    lambda facts, blocks, items: View(
        {"version": 1, "hash": "", "selected": [], "effect": "", **facts}, blocks, items
    ),
    st.dictionaries(st.sampled_from("xyz"), st.integers(0, 3)),
    st.fixed_dictionaries({"top": st.sampled_from(["<p>", "<b>"])}),
    st.fixed_dictionaries({"parts": LISTS}),
)


def put_together(before, parcel):
    """As ``ui/told.js`` does."""
    facts, lists = dict(before.facts), {}
    if not parcel["from"]:
        facts = {}
    for name, old in before.lists.items():
        change = parcel["lists"].get(name, {"items": {}})
        order = change.get("order", list(old))
        lists[name] = {key: change["items"].get(key, old.get(key)) for key in order}
    return View(facts | parcel["facts"], before.blocks | parcel["blocks"], lists)


@given(st.lists(VIEWS, min_size=1, max_size=6))
def test_what_differs_put_together_is_what_is_there(views):
    parcels = Parcels()
    first = parcels.parcel(views[0])
    assert first["from"] == ""
    have, token = views[0], first["token"]
    for view in views[1:]:
        parcel = parcels.parcel(view, token)
        assert parcel["from"] == token
        for name, items in parcel["lists"].items():
            old = have.lists[name]
            assert all(old.get(key) != value or key not in old for key, value in items["items"].items())
        have, token = put_together(have, parcel), parcel["token"]
        assert set(view.facts) <= set(have.facts)
        assert {key: have.facts[key] for key in view.facts} == view.facts
        assert (have.blocks, list(have.lists["parts"].items())) == (view.blocks, list(view.lists["parts"].items()))


def test_a_view_that_is_forgotten_is_sent_whole():
    parcels = Parcels(most=2)
    view = View({"version": 1}, {"top": "<p>"}, {"parts": {"a": 1}})
    old = parcels.parcel(view)["token"]
    assert parcels.parcel(view, old)["blocks"] == {}
    parcels.parcel(view)
    whole = parcels.parcel(view, old)
    assert (whole["from"], whole["blocks"]) == ("", {"top": "<p>"})
    assert Parcels().parcel(view, whole["token"])["from"] == "", "another process knows nothing of it"


def test_one_value_of_one_part_sends_that_part_only(client):  # noqa: F811
    start = client.get(f"{BENCH}/blocks", params={"part": "p2"}).json()
    edit = {"kind": "set", "changes": [{"path": "parts/p2/x", "value": 100}]}
    seen = {"part": "p2", "have": start["token"]}
    answer = client.post(f"{BENCH}/edits", json={"edit": edit, "seen": seen})
    told = answer.json()
    assert told["from"] == start["token"]
    assert set(told["lists"]["parts"]["items"]) == set(told["lists"]["scene"]["items"]) == {"p2"}
    assert "sheet-top" not in told["blocks"]
    assert "around" not in told["facts"]
    assert len(answer.content) < 47_000


def test_the_pictures_of_other_parts_keep_their_addresses_and_old_ones_are_found(client):  # noqa: F811
    def thumbs():
        lines = client.get(f"{BENCH}/blocks").json()["lists"]["parts"]["items"]
        return {name: line.split('class="thumb" src="')[1].split('"')[0] for name, line in lines.items()}

    before = thumbs()
    edit = {"kind": "set", "changes": [{"path": "parts/p2/effects/e1/opacity", "value": 0.5}]}
    assert client.post(f"{BENCH}/edits", json={"edit": edit}).status_code == 200
    after = thumbs()
    assert [name for name in before if before[name] != after[name]] == ["p2"]
    for address in (*before.values(), *after.values()):
        answer = client.get(address.replace("&amp;", "&"))
        assert (answer.status_code, answer.headers["content-type"]) == (200, "image/png")
    gone = after["p2"].replace("/c1/", "/c1/0")
    assert client.get(gone.replace("&amp;", "&")).status_code == 404


def test_a_fingerprint_changes_with_what_a_part_shows_and_with_nothing_else():
    start = wendmere_lock().controls[0]
    name = start.parts[0].id
    kit = wendmere_lock().settings()
    before = fingerprints(resolve(kit, start))

    def changed(path, value):
        edit = {"kind": "set", "changes": [{"path": path, "value": value}]}
        after = fingerprints(resolve(kit, applied(read_edit(edit), start, Surroundings())))
        return {key for key in before if before[key] != after[key]}

    assert changed(f"parts/{name}/name", "Other") == set()
    assert changed(f"parts/{name}/locked", True) == set()
    assert changed(f"parts/{name}/x", 3) == {name}
    assert changed("light/direction", 90) == set(before)
    assert changed("canvas/width", 300) == set(before)
