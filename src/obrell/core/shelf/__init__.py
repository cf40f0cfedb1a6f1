"""What is shipped for every kit: materials, gradients, and starts."""

from obrell.core.shelf.gradients import GRADIENTS, Named, plain_gradients
from obrell.core.shelf.materials import SHIPPED
from obrell.core.shelf.starts import STARTS

__all__ = ["GRADIENTS", "SHIPPED", "STARTS", "Named", "plain_gradients"]
