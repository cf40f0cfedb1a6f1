"""The same services from the command line."""

from obrell.cli.starting import uncollected


def main() -> None:
    """Run a command."""
    with uncollected():
        from obrell.cli.main import main as run
    run()
