"""The canonical text of a control, put together of its parts': an edit leaves most of them the same objects."""

from __future__ import annotations

import json
from functools import partial

from obrell.core.document.model import Control
from obrell.core.values.base import canonical, canonical_json
from obrell.core.workspace import OfObject

_PARTS = OfObject[str](8192)


def control_json(control: Control) -> str:
    """``canonical_json`` of a control, sooner."""
    rest = control.model_dump(mode="json", exclude={"parts"})
    texts = {name: canonical(value) for name, value in rest.items()}
    parts = (_PARTS.get(part, "", partial(canonical_json, part)) for part in control.parts)
    texts["parts"] = f"[{','.join(parts)}]"
    return f"{{{','.join(f'{json.dumps(name)}:{texts[name]}' for name in sorted(texts))}}}"
