"""Labels and offers as pasted, in five languages, read into a battery."""

from vast_harbor.formats.quotes.figures import number
from vast_harbor.formats.quotes.quote import LONGEST, Ask, Quote, Said, offers_in
from vast_harbor.formats.quotes.reader import read_quote

__all__ = ("LONGEST", "Ask", "Quote", "Said", "number", "offers_in", "read_quote")
