"""The disk is other people's: a command changes what it was told to, and nothing else."""

import json
import os
import signal
import subprocess
import sys
import tempfile
import urllib.request
from pathlib import Path

import pytest
import typer
from typer.testing import CliRunner

from obrell.cli import main
from obrell.core.disk import scratch
from obrell.core.disk.cache import CACHE
from obrell.core.disk.private import NotOurs, private_folder
from obrell.core.disk.whole import write_below, write_whole
from obrell.core.errors import NoSuchThing, ObrellError, Refused
from obrell.core.interchange.kit_file import write_kit
from obrell.samples.wendmere_lock import wendmere_lock
from obrell.store.database import Database
from obrell.store.failures import StoreFailed
from tests.conftest import copied
from tests.watching import standing, watched

NAMES = ("kits.db", "lamp.png", "kit.json", "copy.db", "tokens.json", "manifest.json", "day/rest.png")
"""What commands write; beside each lies a link at the name that a careless one would write first."""


@pytest.fixture
def home(tmp_path, sample, monkeypatch):
    """Somebody's home, full of things of theirs, with links to them wherever we may write."""
    theirs = tmp_path / "theirs"
    for place in ("tmp/obrell-2026-12-01", "tmp/obrell-99999-x", f"tmp/{scratch.PREFIX}mine", "work/files"):
        (tmp_path / place).mkdir(parents=True)
        (tmp_path / place / "work.zip").write_text("theirs")
    (theirs / "folder").mkdir(parents=True)
    for number, name in enumerate(NAMES):
        (theirs / f"{number}").write_text("theirs")
        for folder in (tmp_path / "work", tmp_path / "work" / "files"):
            link = folder / f"{name}.part"
            link.parent.mkdir(exist_ok=True)
            link.symlink_to(theirs / f"{number}")
    (tmp_path / "work" / "files" / "linked").symlink_to(theirs / "folder")
    (tmp_path / "data").mkdir()
    copied(sample, tmp_path / "data")
    monkeypatch.setenv("TMPDIR", str(tmp_path / "tmp"))
    monkeypatch.setattr(tempfile, "tempdir", None)
    monkeypatch.chdir(tmp_path / "work")
    (tmp_path / "work" / "in.json").write_bytes(write_kit(wendmere_lock()))
    (tmp_path / "work" / "in.txt").write_text("#1f8a92 tarn")
    return tmp_path


RENDERED = ["render", "wendmere-lock", "c1", "--out"]
FILES = ["deliver", "wendmere-lock", "--control", "c1", "--density", "1", "--format", "png"]
COMMANDS = {
    "render": ([*RENDERED, "lamp.png"], ["work/lamp.png"]),
    "deliver": ([*FILES, "--out", "files", "--pattern", "day/{control}-{state}"], ["work/files"]),
    "check": (["check", "wendmere-lock", "--control", "c3"], []),
    "backup": (["backup", "copy.db"], ["work/copy.db"]),
    "schema": (["schema"], []),
    "warm": (["warm"], []),
    "kit export": (["kit", "export", "wendmere-lock", "kit.json"], ["work/kit.json"]),
    "kit import": (["kit", "import", "in.json"], []),
    "swatches write": (["swatches", "write", "wendmere-lock", "tokens.json"], ["work/tokens.json"]),
    "swatches read": (["swatches", "read", "wendmere-lock", "in.txt"], []),
}
"""Every command that ends by itself, and what it is told to change besides the database."""
SERVERS = ("demo", "serve")


def names_of(app: typer.Typer, before: str = "") -> set[str]:
    own = {before + (one.name or one.callback.__name__.replace("_", "-")) for one in app.registered_commands}
    return own.union(*(names_of(one.typer_instance, f"{one.name or 'swatches'} ") for one in app.registered_groups))


def test_every_command_is_watched():
    assert names_of(main.app) == {*COMMANDS, *SERVERS}


def without(found, *places):
    return {name: what for name, what in found.items() if not name.startswith(places)}


@pytest.mark.parametrize("name", COMMANDS)
def test_a_command_changes_what_it_was_told_to_and_nothing_else(home, name):
    words, told = COMMANDS[name]
    before = standing(home)
    data = home / "data" / "kits.db"
    with watched() as touched:
        done = CliRunner().invoke(main.app, words, env={"OBRELL_DATA": str(data)}, catch_exceptions=False)
    assert done.exit_code == 0, done.output
    after = standing(home)
    for place in told:
        assert before != after
        assert (home / place).exists()
    links = {name: what for name, what in before.items() if name.endswith(".part") or name.startswith("work/files/l")}
    assert links.items() <= after.items()
    assert without(after, "data/", "work/files/day/", *told) == without(before, "data/", "work/files/day/", *told)
    allowed = (home / "data", *(home / place for place in told), CACHE, Path("/dev"), Path("/proc"))
    for path in touched:
        assert path.is_relative_to(home / "work") or any(path.is_relative_to(place) for place in allowed), path


def test_a_server_changes_nothing_but_its_database(home):
    before = standing(home)
    for word in SERVERS:
        data = home / "data" / "kits.db"
        code = "from obrell.cli import main; main()"
        served = subprocess.Popen(
            [sys.executable, "-c", code, word, "--port", "0", "--data", str(data)], stdout=subprocess.PIPE, text=True
        )  # fmt: skip
        urllib.request.urlopen(served.stdout.readline().split()[-1], timeout=60).close()
        served.send_signal(signal.SIGTERM)
        served.communicate(timeout=60)
    assert without(standing(home), "data/") == without(before, "data/")


@pytest.mark.parametrize("name", ["linked/lamp.png", "../lamp.png", "/tmp/lamp.png", "", "in.txt/lamp.png"])
def test_nothing_outside_the_folder_that_was_named_is_written(home, name):
    (home / "work" / "files" / "in.txt").write_text("theirs")
    before = standing(home)
    with pytest.raises(Refused):
        write_below(Path("files"), name, b"ours")
    assert standing(home) == before


def test_a_link_is_replaced_and_a_folder_is_refused(home):
    Path("lamp.png").symlink_to(home / "theirs" / "0")
    write_whole(Path("lamp.png"), b"ours")
    assert (home / "theirs" / "0").read_text() == "theirs"
    assert Path("lamp.png").read_bytes() == b"ours"
    assert not Path("lamp.png").is_symlink()
    for words in ([*RENDERED, "files.png"], ["backup", "files.png"]):
        Path("files.png").mkdir(exist_ok=True)
        with pytest.raises(ObrellError, match="is a folder"):
            run(home, *words)


def run(home, *words):
    return CliRunner().invoke(main.app, words, env={"OBRELL_DATA": str(home / "data/kits.db")}, catch_exceptions=False)


@pytest.mark.parametrize(
    "words",
    [
        ["check", "wendmere-lock"], [*RENDERED, "lamp.png"], [*FILES, "--out", "files"], ["backup", "copy.db"],
        ["kit", "export", "wendmere-lock", "kit.json"], ["swatches", "write", "wendmere-lock", "tokens.json"],
        ["swatches", "read", "wendmere-lock", "in.txt"],
    ],
    ids=lambda words: words[0],
)  # fmt: skip
def test_a_slip_in_the_name_of_the_database_makes_none(home, words):
    before = standing(home)
    with pytest.raises(NoSuchThing, match="There is no database"):
        CliRunner().invoke(main.app, [*words, "--data", "slip/kits.db"], catch_exceptions=False)
    assert standing(home) == before


def test_a_kit_file_that_is_none_makes_no_database(home):
    Path("in.json").write_text("{")
    with pytest.raises(ObrellError):
        CliRunner().invoke(main.app, ["kit", "import", "in.json", "--data", "new/kits.db"], catch_exceptions=False)
    assert not Path("new").exists()


def test_nobody_else_reads_the_database_or_a_backup(home):
    mask = os.umask(0)
    try:
        database = Database(home / "new" / "kits.db")
        database.backup(home / "copy.db")
        for path in (home / "new" / "kits.db", home / "new" / "kits.db-wal", home / "copy.db"):
            assert path.stat().st_mode & 0o777 == 0o600
        assert (home / "new").stat().st_mode & 0o777 == 0o700
        database.close()
        database.path.chmod(0o644)
        Database(database.path).close()
        assert database.path.stat().st_mode & 0o777 == 0o600
    finally:
        os.umask(mask)


def test_a_database_that_is_a_link_to_nothing_is_refused(home):
    Path("kits.db").symlink_to("nothing.db")
    with pytest.raises(StoreFailed, match="link to a file that is not there"):
        Database(Path("kits.db"))
    assert not Path("nothing.db").exists()


@pytest.mark.skipif(os.geteuid() != 0, reason="only root gives files away")
def test_what_belongs_to_another_user_is_not_used(home):
    os.chown(home / "data" / "kits.db", 12345, 12345)
    with pytest.raises(StoreFailed, match="belongs to another user"):
        Database(home / "data" / "kits.db")
    os.chown(home / "tmp", 12345, 12345)
    with pytest.raises(NotOurs, match="belongs to another user"):
        private_folder(home / "tmp")


def test_a_cache_that_others_may_write_into_is_refused_in_words_before_anything_of_it_is_read(home):
    open_to_all = home / "cache"
    open_to_all.mkdir()
    open_to_all.chmod(0o777)
    code = "from obrell.cli import main; main()"
    for words in ([*RENDERED, "lamp.png"], ["serve", "--port", "0"]):
        environment = os.environ | {"OBRELL_CACHE": str(open_to_all), "OBRELL_DATA": str(home / "data/kits.db")}
        done = subprocess.run(
            [sys.executable, "-c", code, *words], env=environment, capture_output=True, text=True, check=False
        )  # fmt: skip
        assert done.returncode == 1
        assert "Others may write into" in done.stderr
        assert "Traceback" not in done.stderr
    assert list(open_to_all.iterdir()) == []
    open_to_all.chmod(0o755)
    assert private_folder(open_to_all).stat().st_mode & 0o777 == 0o700


def left_behind(home, **said):
    """A folder as a process that was killed leaves it."""
    made = scratch.Scratch()
    made.file("a").write_text("ours")
    marker = made.path / scratch.MARKER
    marker.write_text(json.dumps(json.loads(marker.read_text()) | said))
    return made.path


def test_what_a_killed_process_left_is_removed_and_nothing_that_looks_like_it(home):
    gone = left_behind(home, pid=4_000_000)
    reused = left_behind(home, began="1")
    alive = left_behind(home)
    copy = left_behind(home, pid=4_000_000, inode=1)
    with_theirs = left_behind(home, pid=4_000_000)
    (with_theirs / "letter.txt").write_text("theirs")
    (home / "tmp" / f"{scratch.PREFIX}link").symlink_to(left_behind(home, pid=4_000_000, inode=2))
    scratch.remove_left_behind()
    assert not gone.exists()
    assert not reused.exists()
    assert alive.exists()
    assert copy.exists()
    assert (with_theirs / "letter.txt").read_text() == "theirs"
    for place in ("obrell-2026-12-01", "obrell-99999-x", f"{scratch.PREFIX}mine"):
        assert (home / "tmp" / place / "work.zip").read_text() == "theirs"
