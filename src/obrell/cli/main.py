"""``obrell``: serve, render, deliver, move kits."""

from __future__ import annotations

import json
import os
import sys
from pathlib import Path
from typing import Annotated

import typer
from rich.console import Console
from rich.progress import Progress

from obrell.core.deliver.bundle import MANIFEST, entry, make, manifest
from obrell.core.deliver.names import PATTERN
from obrell.core.deliver.order import read_order
from obrell.core.deliver.pictured import USUAL_DENSITY
from obrell.core.deliver.plan import plan
from obrell.core.deliver.png import encode
from obrell.core.deliver.svg import svg
from obrell.core.document.model import Control
from obrell.core.document.resolve import resolve
from obrell.core.errors import NoSuchThing, ObrellError
from obrell.core.interchange.kit_file import kit_schema, read_kit, write_kit
from obrell.core.raster.jit import compiled, load_all
from obrell.core.render.picture import picture
from obrell.samples.wendmere_lock import wendmere_lock
from obrell.store.kits import Kits

app = typer.Typer(no_args_is_help=True, add_completion=False, help="Draw controls, deliver pixels.")
kit_app = typer.Typer(no_args_is_help=True, help="Kits as files.")
app.add_typer(kit_app, name="kit")
console = Console(stderr=True)

FAILED = 1
DEFAULT_DATA = Path(os.environ.get("OBRELL_DATA", "var/obrell.db"))
PORT = 8420

Data = Annotated[Path, typer.Option("--data", help="The database file.", envvar="OBRELL_DATA")]
KitName = Annotated[str, typer.Argument(help="The kit's id or name.")]
Port = Annotated[int, typer.Option(help="The port to serve on; 0 for any that is free.")]


def main() -> None:
    """Run a command; what it refuses becomes words and an exit code."""
    try:
        app()
    except ObrellError as error:
        console.print(f"[red]{error}[/red]", highlight=False)
        sys.exit(FAILED)


@app.command()
def demo(data: Data = DEFAULT_DATA, port: Port = PORT) -> None:
    """Serve the sample kit, put in first if there is no kit at all."""
    kits = Kits(data)
    if not kits.names():
        kits.import_kit(wendmere_lock())
    if not compiled():
        warm()
    serve(data, port)


@app.command()
def warm() -> None:
    """Compile the pixel kernels, once per version; a few seconds."""
    with console.status("Preparing the pixel kernels (once, about 20 s) …"):
        kit = wendmere_lock()
        picture(resolve(kit.settings(), kit.controls[0]), 1.0)
        load_all()


@app.command()
def serve(data: Data = DEFAULT_DATA, port: Port = PORT) -> None:
    """Serve the kits of a database on this machine's own address."""
    from obrell.cli.server import run

    run(data, port)


@app.command()
def render(
    kit: KitName,
    control: Annotated[str, typer.Argument(help="The control's id or name.")],
    out: Annotated[Path, typer.Option(help="The file to write: .png or .svg.")],
    density: Annotated[
        float | None, typer.Option(help="Device px per logical px, 1 if not said; of what an SVG embeds, 2.")
    ] = None,
    data: Data = DEFAULT_DATA,
) -> None:
    """Write one control as a PNG or SVG file."""
    kits = Kits(data)
    kit_id = find_kit(kits, kit)
    found = find_control([s.control for s in kits.controls(kit_id)], control)
    resolved = resolve(kits.index(kit_id).settings(), found)
    if out.suffix.lower() == ".svg":
        content = svg(resolved, density=density or USUAL_DENSITY).encode()
    else:
        content = encode(picture(resolved, density or 1.0), density=density or 1.0)
    write(out, content)
    console.print(f"{out} ({len(content)} bytes)", highlight=False)


@app.command()
def deliver(
    kit: KitName,
    out: Annotated[Path, typer.Option(help="The folder to write to.")],
    control: Annotated[list[str] | None, typer.Option(help="Only this control; may be given again.")] = None,
    density: Annotated[list[float] | None, typer.Option(help="A density; may be given again.")] = None,
    form: Annotated[list[str] | None, typer.Option("--format", help="png or svg; again for both.")] = None,
    trimmed: Annotated[bool, typer.Option(help="Cut to the first pixel that is not transparent.")] = False,
    margin: Annotated[float, typer.Option(help="Logical px around a trimmed picture.")] = 0.0,
    ground: Annotated[bool, typer.Option(help="Show what the controls stand on too.")] = False,
    pattern: Annotated[str, typer.Option(help="How files are named.")] = PATTERN,
    data: Data = DEFAULT_DATA,
) -> None:  # fmt: skip
    """Write all files of a delivery, and the manifest, into a folder."""
    kits = Kits(data)
    kit_id = find_kit(kits, kit)
    settings = kits.index(kit_id).settings()
    controls = tuple(stored.control for stored in kits.controls(kit_id))
    chosen = [find_control(list(controls), name).id for name in control or ()]
    values = {
        "controls": chosen, "densities": density or (1.0, 1.5, 2.0, 3.0), "formats": form or ("png", "svg"),
        "trimmed": trimmed, "margin": margin, "ground": ground, "pattern": pattern,
    }  # fmt: skip
    order = read_order(values)
    files = plan(settings, controls, order)
    entries = []
    with Progress(console=console, transient=True) as progress:
        for file in progress.track(files, description="Making files"):
            content = make(file)
            write(out / file.name, content)
            entries.append(entry(file, content))
    write(out / MANIFEST, manifest(settings, entries).encode())
    console.print(f"{len(files)} files in {out}", highlight=False)


@kit_app.command("export")
def export_kit(kit: KitName, out: Annotated[Path, typer.Argument()], data: Data = DEFAULT_DATA) -> None:
    """Write a kit as one JSON file."""
    kits = Kits(data)
    write(out, write_kit(kits.export_kit(find_kit(kits, kit))))


@kit_app.command("import")
def import_kit(file: Annotated[Path, typer.Argument(exists=True, dir_okay=False)], data: Data = DEFAULT_DATA) -> None:
    """Put a kit file in beside the others."""
    typer.echo(Kits(data).import_kit(read_kit(file.read_bytes())))


@app.command()
def schema() -> None:
    """Print the JSON Schema of a kit file."""
    typer.echo(json.dumps(kit_schema(), indent=2))


def find_kit(kits: Kits, wanted: str) -> str:
    """A kit's id by its id or name."""
    for kit in kits.names():
        if not kit.removed and wanted.lower() in (kit.id, kit.name.lower()):
            return kit.id
    raise NoSuchThing(f"There is no kit “{wanted}”.")


def find_control(controls: list[Control], wanted: str) -> Control:
    """A control by its id or name."""
    for control in controls:
        if wanted.lower() in (control.id, control.name.lower()):
            return control
    raise NoSuchThing(f"There is no control “{wanted}” in this kit.")


def write(path: Path, content: bytes) -> None:
    """Write a file whole or not at all."""
    path.parent.mkdir(parents=True, exist_ok=True)
    part = path.with_name(path.name + ".part")
    part.write_bytes(content)
    part.replace(path)
