"""``obrell``: serve, render, deliver, move kits."""

from __future__ import annotations

import json
import os
import sys
import threading
from collections.abc import Sequence
from pathlib import Path
from typing import Annotated, Any

import typer

from obrell.app.checking import check as check_all
from obrell.app.delivering import ordered
from obrell.app.opening import opened
from obrell.app.rendering import Seen, file_of
from obrell.app.swatches import bring_in
from obrell.cli.telling import complain, progress, say
from obrell.cli.typed import a_count, a_number, a_time
from obrell.core.deliver.bundle import made
from obrell.core.deliver.manifest import MANIFEST, entry, manifest
from obrell.core.deliver.names import PATTERN
from obrell.core.deliver.order import read_order
from obrell.core.deliver.plan import LeftOut, plan
from obrell.core.disk.whole import write_below, write_whole
from obrell.core.document.editions import sizes_of
from obrell.core.document.model import REGULAR, REST, Control, KitSettings
from obrell.core.document.resolve import DAY, DAY_NAME
from obrell.core.door import Reader
from obrell.core.edit.typed import number_from
from obrell.core.errors import BadValue, NoSuchThing, ObrellError, Refused, TooLarge, Unreadable
from obrell.core.findings import SEVERITIES
from obrell.core.formats import FORMATS
from obrell.core.interchange.kit_file import kit_schema, write_kit
from obrell.core.interchange.palettes import WRITERS, read_palette
from obrell.core.raster.compiling import Compilation
from obrell.core.raster.jit import compiled
from obrell.core.trial.kits import read_kit
from obrell.core.values.fields import Live
from obrell.samples.wendmere_lock import wendmere_lock
from obrell.store.kits import Kits, Lost, Stored

app = typer.Typer(no_args_is_help=True, add_completion=False, help="Draw controls, deliver pixels.")
kit_app = typer.Typer(no_args_is_help=True, help="Kits as files.")
app.add_typer(kit_app, name="kit")

FAILED = 1
DEFAULT_DATA = Path(os.environ.get("OBRELL_DATA", "var/obrell.db"))
PORT = 8420

NAMES = f"{', '.join(FORMATS)}; may be given again."
OPTIONS = ", ".join(
    f"{name}.{field}: {info.title}"
    for name, form in FORMATS.items()
    for field, info in form.options.model_fields.items()
)
"""What can be asked of formats, in words."""
Data = Annotated[Path, typer.Option("--data", help="The database file.", envvar="OBRELL_DATA")]
KitName = Annotated[str, typer.Argument(help="The kit's id or name.")]
Port = Annotated[int, typer.Option(help="The port to serve on; 0 for any that is free.", parser=a_count)]


def main() -> None:
    """Run a command; what it refuses becomes words and an exit code."""
    try:
        app()
    except ObrellError as error:
        _fail(str(error))
    except OSError as error:
        where = f"{error.filename}: " if error.filename else ""
        _fail(f"{where}{error.strerror or error}. Nothing half-made was left behind.")


def _fail(words: str) -> None:
    complain(words)
    sys.exit(FAILED)


@app.command()
def demo(data: Data = DEFAULT_DATA, port: Port = PORT) -> None:
    """Serve the sample kit, put in first if there is no kit at all."""
    with opened(data, new=True) as kits:
        if not kits.names():
            kits.import_kit(wendmere_lock())
    serve(data, port)


@app.command()
def warm() -> None:
    """Compile the pixel kernels, once per version; some seconds."""
    compilation = Compilation()
    compilation.start()
    watch(compilation)


@app.command()
def serve(data: Data = DEFAULT_DATA, port: Port = PORT) -> None:
    """Serve the kits of a database on this machine's own address."""
    from obrell.cli.server import run

    compilation = None if compiled() else Compilation()
    if compilation is not None:
        compilation.start()
        threading.Thread(target=watch, args=[compilation], daemon=True).start()
    run(data, port, compilation)


def watch(compilation: Compilation) -> None:
    """Say how far it is until it is done."""
    words = "Preparing to draw, once for this version"
    with progress() as shown:
        task = shown.add_task(words, total=compilation.total)
        while not compilation.ready.wait(0.2):
            shown.update(task, completed=compilation.done)


@app.command()
def render(
    kit: KitName,
    control: Annotated[str, typer.Argument(help="The control's id or name.")],
    out: Annotated[Path, typer.Option(help="The file to write; its ending says the format.")],
    density: Annotated[
        float | None,
        typer.Option(help="Device px per logical px, 1 if not said; of what an SVG embeds, 2.", parser=a_number),
    ] = None,
    colourway: Annotated[str, typer.Option(help="A colourway's id or name.")] = DAY,
    size: Annotated[str, typer.Option(help="A size's id or name.")] = REGULAR,
    state: Annotated[str, typer.Option(help="A state's id or name, or several with + between.")] = REST,
    reading: Annotated[list[str] | None, typer.Option(help="A number, as level=62; may be given again.")] = None,
    came: Annotated[str | None, typer.Option(help="The state that it is on its way from, to the other.")] = None,
    after: Annotated[float, typer.Option(help="How many ms it has been on that way.", parser=a_time)] = 0.0,
    data: Data = DEFAULT_DATA,
) -> None:
    """Write one control as a file; where it has art of its own for the density, as that."""
    form = FORMATS.get(out.suffix.lower().removeprefix("."))
    if form is None:
        endings = " or ".join(f".{name}" for name in FORMATS)
        raise Refused(f"{out} does not end in {endings}, the kinds of files that can be written.")
    if density is not None:
        read_order({"densities": (density,)})
    with opened(data) as kits:
        kit_id = find_kit(kits, kit)
        found = find_control(kits.shelf(kit_id), control)
        settings = kits.index(kit_id).settings()
        seen = Seen(
            find_size(found, size), find_state(found, state), find_colourway(settings, colourway),
            find_readings(found, reading or ()), None if came is None else find_state(found, came), after,
        )  # fmt: skip
        content = file_of(settings, found, form, seen, density)
        write_whole(out, content)
        say(f"{out} ({len(content)} bytes)")


@app.command()
def deliver(
    kit: KitName,
    out: Annotated[Path, typer.Option(help="The folder to write to.")],
    control: Annotated[list[str] | None, typer.Option(help="Only this control; may be given again.")] = None,
    density: Annotated[list[float] | None, typer.Option(help="One of several densities.", parser=a_number)] = None,
    form: Annotated[list[str] | None, typer.Option("--format", help=NAMES)] = None,
    trimmed: Annotated[bool, typer.Option(help="Cut to the first pixel that is not transparent.")] = False,
    margin: Annotated[float, typer.Option(help="Logical px around a trimmed picture.", parser=a_number)] = 0.0,
    ground: Annotated[bool, typer.Option(help="Show what the controls stand on too.")] = False,
    option: Annotated[list[str] | None, typer.Option(help=OPTIONS)] = None,
    colourway: Annotated[list[str] | None, typer.Option(help="A colourway; may be given again.")] = None,
    size: Annotated[list[str] | None, typer.Option(help="Only this size; may be given again.")] = None,
    state: Annotated[list[str] | None, typer.Option(help="Only this state; may be given again.")] = None,
    frames: Annotated[
        int, typer.Option(help="Pictures of each reading, from one end to the other.", parser=a_count)
    ] = 1,
    stretch: Annotated[list[str] | None, typer.Option(help="Of a part of it only, as level=20..80.")] = None,
    pattern: Annotated[str, typer.Option(help="How files are named.")] = PATTERN,
    data: Data = DEFAULT_DATA,
) -> None:  # fmt: skip
    """Write all files of a delivery, and the manifest, into a folder."""
    with opened(data) as kits:
        kit_id = find_kit(kits, kit)
        chosen = [find_control(kits.shelf(kit_id), name).id for name in control or ()]
        values = {
            "controls": chosen, "densities": density or (1.0, 1.5, 2.0, 3.0), "formats": form or tuple(FORMATS),
            "trimmed": trimmed, "margin": margin, "ground": ground, "options": option or (), "pattern": pattern,
            "colourways": [find_colourway(kits.index(kit_id), name) for name in colourway or (DAY,)],
            "frames": frames, "stretches": [stretch_from(one) for one in stretch or ()],
            "states": find_states(kits.shelf(kit_id), state or ()),
            "sizes": find_sizes(kits.shelf(kit_id), size or ()),
        }  # fmt: skip
        order = read_order(values)
        about = ordered(kits, kit_id, order.controls)
        planned = plan(about.settings, about.documents, order)
        entries, left_out = [], [*about.lost, *planned.left_out]
        with progress() as shown:
            for file, content in shown.track(made(planned.files), len(planned.files), description="Making files"):
                if isinstance(content, LeftOut):
                    left_out.append(content)
                    continue
                write_below(out, file.name, content)
                entries.append(entry(file, content))
        write_below(out, MANIFEST, manifest(about.settings, planned, entries, left_out).encode())
        say(f"{len(entries)} files in {out}")
        _say_left_out(left_out)


@app.command()
def check(
    kit: KitName,
    control: Annotated[list[str] | None, typer.Option(help="Only this control; may be given again.")] = None,
    data: Data = DEFAULT_DATA,
) -> None:
    """Say what is found in the controls of a kit; fails when something of them is lost in every file."""
    with opened(data) as kits:
        kit_id = find_kit(kits, kit)
        about = ordered(kits, kit_id, [find_control(kits.shelf(kit_id), name).id for name in control or ()])
        worst = len(SEVERITIES)
        for one, finding in check_all(about.settings, about.documents):
            typer.echo(f"{one.name}: {finding.words}")
            worst = min(worst, SEVERITIES.index(finding.severity))
        _say_left_out(about.lost)
        if worst == 0:
            sys.exit(FAILED)


@kit_app.command("export")
def export_kit(kit: KitName, out: Annotated[Path, typer.Argument()], data: Data = DEFAULT_DATA) -> None:
    """Write a kit as one JSON file."""
    with opened(data) as kits:
        found = find_kit(kits, kit)
        write_whole(out, write_kit(kits.export_kit(found)))
        _say_left_out(ordered(kits, found).lost)


@kit_app.command("import")
def import_kit(file: Annotated[Path, typer.Argument(exists=True, dir_okay=False)], data: Data = DEFAULT_DATA) -> None:
    """Put a kit file in beside the others."""
    check_size(file, read_kit)
    # A file that is none makes no database; a database that cannot be used is said before a file is read.
    kit = None if data.exists() else read_kit(file.read_bytes())
    with opened(data, new=True) as kits:
        typer.echo(kits.import_texts(kit or read_kit(file.read_bytes())))


@app.command()
def backup(
    out: Annotated[Path, typer.Argument(help="The file to write; one that is there is replaced.")],
    data: Data = DEFAULT_DATA,
) -> None:
    """Write a whole copy of all kits and their history, also while Obrell is running."""
    if out.resolve() == data.resolve():
        raise Refused("A backup needs another name than the database itself.")
    with opened(data) as kits:
        kits.backup(out)
    say(f"{out} ({out.stat().st_size} bytes)")


@app.command()
def schema() -> None:
    """Print the JSON Schema of a kit file."""
    typer.echo(json.dumps(kit_schema(), indent=2))


swatches = typer.Typer(help="Swatches of a kit, out to other tools and in again.", no_args_is_help=True)
app.add_typer(swatches, name="swatches")


@swatches.command("write")
def write_swatches(
    kit: KitName,
    out: Annotated[Path, typer.Argument(help=f"The file to write; its ending says what: {', '.join(WRITERS)}.")],
    data: Data = DEFAULT_DATA,
) -> None:
    """Write the swatches of a kit as design tokens, CSS, a list of names, or a palette."""
    kind = out.suffix.lower().removeprefix(".")
    if kind not in WRITERS:
        raise Refused(f"{out} does not end in {' or '.join(f'.{name}' for name in WRITERS)}.")
    with opened(data) as kits:
        index = kits.index(find_kit(kits, kit))
        write_whole(out, WRITERS[kind](index).encode())
        typer.echo(f"{len(index.swatches)} swatches in {out}")


@swatches.command("read")
def read_swatches(
    kit: KitName,
    file: Annotated[
        Path, typer.Argument(exists=True, dir_okay=False, help="Tokens, CSS, a list of names, or a palette.")
    ],
    data: Data = DEFAULT_DATA,
) -> None:
    """Bring the swatches of a file into a kit: names that are there have its colours, others come to the end."""
    check_size(file, read_palette)
    with opened(data) as kits:
        typer.echo(bring_in(kits, find_kit(kits, kit), file.read_bytes()))


def check_size(file: Path, reader: Reader[bytes, Any, Any]) -> None:
    """Raise ``TooLarge`` for a file that its reader would refuse, before it is loaded."""
    if file.stat().st_size > reader.most:
        raise TooLarge(reader.words)


def find_kit(kits: Kits, wanted: str) -> str:
    """A kit's id by its id or name."""
    for kit in kits.names():
        if not kit.removed and wanted.lower() in (kit.id, kit.name.lower()):
            return kit.id
    raise NoSuchThing(f"There is no kit “{wanted}”.")


def find_colourway(kit: KitSettings, wanted: str) -> str:
    """A colourway's id by its id or name."""
    for ident, name in ((DAY, DAY_NAME), *((way.id, way.name) for way in kit.colourways)):
        if wanted.lower() in (ident, name.lower()):
            return ident
    raise NoSuchThing(f"There is no colourway “{wanted}” in this kit.")


def find_state(control: Control, wanted: str) -> str:
    """A state's id by its id or name; of several with + between, all of them."""
    names = {one.name.lower(): one.id for one in control.states}
    if wanted.lower() in names:
        return names[wanted.lower()]
    return "+".join(names.get(name.strip().lower(), name.strip().lower()) for name in wanted.split("+"))


def find_size(control: Control, wanted: str) -> str:
    """A size's id by its id or name; raises ``NoSuchThing``."""
    for ident, name in sizes_of(control):
        if wanted.lower() in (ident, name.lower()):
            return ident
    raise NoSuchThing(f"“{control.name}” has no size “{wanted}”.")


def find_readings(control: Control, wanted: Sequence[str]) -> tuple[tuple[str, float], ...]:
    """Numbers of readings, each written as id=number or name=number."""
    ids = {one.name.lower(): one.id for one in control.readings}
    found = []
    for one in wanted:
        name, _, number = one.partition("=")
        ident = ids.get(name.strip().lower(), name.strip().lower())
        found.append((ident, number_from(number, Live())))
    return tuple(found)


def stretch_from(text: str) -> dict[str, str | float | None]:
    """A part of a reading, by its id, as id=from..to; raises ``BadValue``."""
    name, _, ends = text.partition("=")
    start, dots, end = ends.partition("..")
    if not dots:
        raise BadValue(f"“{text}” is no part of a reading: write it as level=20..80.")
    numbers = (number_from(one, Live()) if one.strip() else None for one in (start, end))
    return {"reading": name.strip().lower(), **dict(zip(("start", "end"), numbers, strict=True))}


def find_states(shelf: list[Stored | Lost], wanted: Sequence[str]) -> list[str]:
    """The ids of states that some control of the kit has, by ids or names."""
    controls = [one.control for one in shelf if isinstance(one, Stored)]
    there = {name for control in controls for name in control.state_ids}
    found = []
    for name in wanted:
        ids = {find_state(control, name) for control in controls} & there
        if not ids:
            raise NoSuchThing(f"No control of this kit has a state “{name}”.")
        found += sorted(ids)
    return found


def find_sizes(shelf: list[Stored | Lost], wanted: Sequence[str]) -> list[str]:
    """The ids of sizes that some control of the kit has, by ids or names."""
    there = [size for one in shelf if isinstance(one, Stored) for size in sizes_of(one.control)]
    found = []
    for name in wanted:
        ids = {ident for ident, called in there if name.lower() in (ident, called.lower())}
        if not ids:
            raise NoSuchThing(f"No control of this kit has a size “{name}”.")
        found += sorted(ids)
    return found


def _say_left_out(left_out: Sequence[LeftOut]) -> None:
    """What is missing is said, and the exit code tells a build server."""
    for one in left_out:
        complain(f"Left out: {one.name}. {one.words}")
    if left_out:
        sys.exit(FAILED)


def find_control(shelf: list[Stored | Lost], wanted: str) -> Control:
    """A control by its id or name."""
    for found in shelf:
        ident, name = (found.control.id, found.control.name) if isinstance(found, Stored) else (found.id, found.name)
        if wanted.lower() in (ident, name.lower()):
            if isinstance(found, Lost):
                raise Unreadable(found.words)
            return found.control
    raise NoSuchThing(f"There is no control “{wanted}” in this kit.")
