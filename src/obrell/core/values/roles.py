"""What a state is for, apart from what it is called."""

from __future__ import annotations

from typing import Literal, get_args

Role = Literal["hover", "pressed", "focus", "disabled", "on", "own"]
"""When a state is shown: under the pointer, while it is pressed, with the keyboard's focus, disabled, or while on;
``own`` is none of these."""
ROLES: tuple[Role, ...] = get_args(Role)
PASSING: frozenset[Role] = frozenset(("hover", "pressed", "focus"))
"""Roles that come and go with a hand, on top of those that last."""


def role_called(name: str) -> Role:
    """Return the role that a name is the usual word of, else ``own``.

    >>> role_called("Hover"), role_called("Sunken 2")
    ('hover', 'own')
    """
    return next((role for role in ROLES if role == name.strip().lower()), "own")
