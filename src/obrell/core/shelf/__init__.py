"""What is shipped for every kit: materials and gradients."""

from obrell.core.shelf.gradients import GRADIENTS, Named
from obrell.core.shelf.materials import SHIPPED

__all__ = ["GRADIENTS", "SHIPPED", "Named"]
