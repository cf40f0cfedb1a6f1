"""Roles of states: when each is shown, whatever its name is."""

from __future__ import annotations

from typing import Literal, get_args

Role = Literal["hover", "pressed", "focus", "disabled", "on", "own"]
"""A state is shown under the pointer, while pressed, with the keyboard focus, disabled, or while on; ``own`` is none
of these."""
ROLES: tuple[Role, ...] = get_args(Role)
PASSING: frozenset[Role] = frozenset(("hover", "pressed", "focus"))
"""Roles that last only as long as the pointer or the focus is there."""


def role_called(name: str) -> Role:
    """Return the role with a name as its usual word, else ``own``.

    >>> role_called("Hover"), role_called("Sunken 2")
    ('hover', 'own')
    """
    return next((role for role in ROLES if role == name.strip().lower()), "own")
