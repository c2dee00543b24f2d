"""Harbor: the rigs as cards."""
