"""Units, reading what people type, and writing numbers as the trade writes them."""

from cutting.quantities.asked import Asked, read_asked, refuse_long
from cutting.quantities.dimension import Dimension, read_dimension
from cutting.quantities.kinds import KINDS, QuantityKind
from cutting.quantities.read import Quantity, read_quantity
from cutting.quantities.write import Display, display, write

__all__ = [
    "KINDS",
    "Asked",
    "Dimension",
    "Display",
    "Quantity",
    "QuantityKind",
    "display",
    "read_asked",
    "read_dimension",
    "read_quantity",
    "refuse_long",
    "write",
]
