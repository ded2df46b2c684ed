"""Drawing primitives, the pens that record and measure them."""
