"""What can be done to a control, as small values applied by pure functions.

Lengths and places are logical px of the canvas, angles degrees, clockwise, shares 0 to 1, unless a docstring says
otherwise; the ranges are those of the edits' fields.
"""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import Field, ValidationError

from obrell.core.edit.arrange import AlignParts, CopyAlong, CopyAround, DistributeParts, ScaleParts
from obrell.core.edit.base import Edit, Surroundings, Wrapped, applied
from obrell.core.edit.beside import PutBeside
from obrell.core.edit.colours import FollowSwatches, LaySwatch
from obrell.core.edit.companions import AddRim, FitAround, LinkedCopy, StayInside
from obrell.core.edit.containers import CombineParts, GroupParts, PutInto, RepeatParts, TakeApart
from obrell.core.edit.convert import ConvertToPath, FlipParts, GrowParts, OutlineLines, SimplifyPath
from obrell.core.edit.crop import Crop
from obrell.core.edit.drawing import Draw
from obrell.core.edit.editions import (
    AddArt,
    AddSize,
    InEditions,
    MoveSize,
    RemoveEdition,
    RenameSize,
    ReturnToRegular,
)
from obrell.core.edit.effect_stacks import (
    KeepVersion,
    PaintWith,
    PasteEffects,
    PlainLook,
    PressLook,
    StrengthenEffects,
    SwapFills,
    SweepEffects,
    UseVersion,
)
from obrell.core.edit.effects import AddEffect, DuplicateEffect, MoveEffect, RemoveEffect
from obrell.core.edit.follows import AddFollow, RemoveFollow
from obrell.core.edit.gradients import (
    AddStop,
    CloseSeam,
    CopyStop,
    JitterStops,
    MoveGradient,
    RemoveStop,
    ReverseStops,
    SpaceStops,
    TurnGradient,
    WriteStops,
)
from obrell.core.edit.guides import AddGuide, CommonGuides, MoveGuide, RemoveGuides, ShowGuides
from obrell.core.edit.insert import InsertParts
from obrell.core.edit.letters import PlainLetters, StyleLetters
from obrell.core.edit.materials import AddStart, FollowMaterial, FreeMaterial, LayMaterial
from obrell.core.edit.originals import LeaveOriginal
from obrell.core.edit.parts import (
    CanvasEdges,
    CentreParts,
    DuplicateParts,
    MoveParts,
    MoveToEnd,
    PasteParts,
    RemoveParts,
    RenamePart,
    ReorderPart,
    Turn,
)  # fmt: skip
from obrell.core.edit.pictures import AddPicture, FillWithPicture, PinReference, PlaceReference, UnpinReference
from obrell.core.edit.pieces import BeginPiece
from obrell.core.edit.points import (
    AddPoint,
    BendPoints,
    ClosePath,
    CutOpen,
    DragSegment,
    JoinEnds,
    MoveEnd,
    MoveHandle,
    MovePoints,
    PenNext,
    PenStart,
    PlacePoints,
    RemovePoints,
    RoundPoints,
)  # fmt: skip
from obrell.core.edit.readings import AddReading, AtReadings, DriveValue, RemoveReading, SetDrive, StopDriving
from obrell.core.edit.recolour import Recolour
from obrell.core.edit.repeats import OwnCopy, ShowCopy, SpreadCopies
from obrell.core.edit.resize import PullGrip, Resize
from obrell.core.edit.shadows import MoveShadow
from obrell.core.edit.starts import StartState
from obrell.core.edit.states import (
    AddState,
    DuplicateState,
    GiveRole,
    InStates,
    MoveState,
    RemoveState,
    RenameState,
    ReturnToRest,
)
from obrell.core.edit.tint import TintFromAbove
from obrell.core.edit.touch import BeginTouch, TouchAs
from obrell.core.edit.transitions import OwnTiming, SetEasing, SharedTiming
from obrell.core.edit.typed import TypeValue
from obrell.core.edit.values import SetValues
from obrell.core.errors import BadValue
from obrell.core.values.base import bad_value
from obrell.core.values.kinds import Kinds

AnyEdit = Annotated[
    SetValues | TypeValue | AddStop | WriteStops | RemoveStop | ReverseStops | TurnGradient | SpaceStops | CloseSeam
    | CopyStop | JitterStops | MoveGradient | MoveShadow
    | Draw | MoveParts | Resize | PullGrip | Crop | Turn | CentreParts | RemoveParts | DuplicateParts | PasteParts
    | MoveToEnd | ReorderPart | RenamePart | CanvasEdges
    | GroupParts | CombineParts | RepeatParts | PutInto
    | TakeApart | ConvertToPath | OutlineLines | SimplifyPath | FlipParts | GrowParts
    | AddFollow | RemoveFollow | FitAround | LinkedCopy | AddRim | StayInside | InsertParts
    | PasteEffects | PaintWith | SwapFills | StrengthenEffects | SweepEffects | PlainLook | PressLook
    | KeepVersion | UseVersion
    | LayMaterial | AddStart | FollowMaterial | FreeMaterial | PutBeside | ShowCopy | OwnCopy | SpreadCopies
    | StyleLetters | PlainLetters | AddPicture | FillWithPicture | PinReference | PlaceReference | UnpinReference
    | AddGuide | CommonGuides | MoveGuide | RemoveGuides | ShowGuides
    | AlignParts | DistributeParts | ScaleParts | CopyAround | CopyAlong
    | PenStart | PenNext | ClosePath | MovePoints | PlacePoints | MoveHandle | AddPoint | DragSegment | RemovePoints
    | BendPoints | RoundPoints | CutOpen | JoinEnds | MoveEnd
    | AddEffect | DuplicateEffect | RemoveEffect | MoveEffect | LeaveOriginal | LaySwatch | FollowSwatches
    | Recolour | TintFromAbove
    | AddState | GiveRole | RenameState | MoveState | DuplicateState | RemoveState | ReturnToRest
    | StartState | AddReading | RemoveReading | DriveValue | StopDriving | SetDrive
    | AddSize | AddArt | RenameSize | MoveSize | RemoveEdition | ReturnToRegular
    | OwnTiming | SharedTiming | SetEasing | TouchAs | BeginTouch | BeginPiece,
    Field(discriminator="kind"),
]  # fmt: skip


_KINDS: Kinds[Edit] = Kinds(AnyEdit, SetValues)


def read_edit(data: Any) -> Edit:
    """An edit from its JSON form; raises ``BadValue`` in words."""
    if isinstance(data, dict) and data.get("kind") in WRAPPERS:
        return _wrapped(data, WRAPPERS[data["kind"]])
    return _KINDS.read(data)


WRAPPERS: dict[str, type[Wrapped]] = {"in-editions": InEditions, "in-states": InStates, "at-readings": AtReadings}
"""Edits that say where another one is made, the outermost first."""


def _wrapped(data: dict[str, Any], wrapper: type[Wrapped]) -> Edit:
    edit = read_edit(data.get("edit"))
    order = list(WRAPPERS.values())
    if isinstance(edit, Wrapped) and order.index(type(edit)) <= order.index(wrapper):
        raise BadValue("An edit is made in editions once, in states inside of them, and at readings inside of those.")
    try:
        return wrapper.model_validate({**data, "edit": edit})
    except ValidationError as error:
        raise bad_value(error, wrapper) from error


__all__ = ["AnyEdit", "Edit", "Surroundings", "applied", "read_edit"]
