"""All that the first page does without: everything but the Wall with its pictures."""

from __future__ import annotations

from fastapi import APIRouter

from obrell.web import (
    bench,
    beside,
    colours,
    colourways,
    deliveries,
    following,
    imports,
    kit_recolouring,
    live,
    looks,
    lost,
    reading,
    recolouring,
    sharing,
    swatches,
    trial,
)

router = APIRouter()
for module in (
    lost, swatches, colourways, following, recolouring, kit_recolouring, beside, sharing, reading, bench, imports,
    looks, live, colours, deliveries, trial,
):  # fmt: skip
    router.include_router(module.router)
