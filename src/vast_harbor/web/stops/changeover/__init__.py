"""Changeover: the bank that is bought, its list, the order of work, settings and proof."""
