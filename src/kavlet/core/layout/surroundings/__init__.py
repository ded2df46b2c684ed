"""What stands around the plots: titles, the source line, notes, the legend."""
