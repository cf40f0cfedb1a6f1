"""Templates: pages and blocks of pages. Undefined names raise."""

from __future__ import annotations

import hashlib
import re
from pathlib import Path
from typing import Any

from fastapi import Request
from jinja2 import Environment, FileSystemBytecodeCache, FileSystemLoader, StrictUndefined
from jinja2.ext import Extension
from starlette.responses import HTMLResponse

from obrell.core.disk.cache import kept_at
from obrell.core.geometry.svgdata import number
from obrell.core.raster.compiling import Compilation
from obrell.web.assets import ASSETS
from obrell.web.services import kits_of
from obrell.web.shortcuts import KEYS


class Unindented(Extension):
    """Leaves one space of what a line is indented with, and nothing before the end of a tag: all that either means,
    and an eighth less to send."""

    def preprocess(self, source: str, name: str | None, filename: str | None = None) -> str:
        return re.sub(r"\n[ \n]+", "\n ", re.sub(r"\n[ \n]*(/?>)", r"\1", source))


def _compiled() -> FileSystemBytecodeCache:
    """Where compiled templates are kept: a folder for each way of compiling, which this module says."""
    way = hashlib.blake2b(Path(__file__).read_bytes(), digest_size=8).hexdigest()
    return FileSystemBytecodeCache(str(kept_at(f"templates/{way}")))


TEMPLATES = Environment(
    loader=FileSystemLoader(Path(__file__).parent / "templates"),
    autoescape=True, undefined=StrictUndefined, trim_blocks=True, lstrip_blocks=True,
    extensions=(Unindented,), bytecode_cache=_compiled(),
)  # fmt: skip
# In the order that answers have too, so that scripts can compare what a page came with to what they are sent.
TEMPLATES.policies["json.dumps_kwargs"] = {"sort_keys": False}
TEMPLATES.filters["number"] = number
TEMPLATES.globals["keys"] = KEYS
TEMPLATES.globals["assets"] = ASSETS


def page(request: Request, template: str, context: dict[str, Any], status: int = 200) -> HTMLResponse:
    """A whole page or a block, by the template's name; what keeps anything from being saved stands in its bar."""
    context = {"trouble": kits_of(request).trouble(), "preparing": preparing_of(request)} | context
    return HTMLResponse(TEMPLATES.get_template(template).render(request=request, **context), status)


def preparing_of(request: Request) -> Compilation | None:
    """The compilation of the kernels, as long as it is under way."""
    found: Compilation | None = request.app.state.compilation
    return None if found is None or found.ready.is_set() else found


def block(template: str, context: dict[str, Any]) -> str:
    """The text of a block."""
    return TEMPLATES.get_template(template).render(**context)
