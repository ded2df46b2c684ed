"""One file per recipe; recipes draw nothing."""
