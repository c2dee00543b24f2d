"""Every sentence that an owner reads, by its key.

The catalogue lies in ``en/``: one file for each stop or subject, one group for each module, one line for each
phrase. ``{name}`` stands for a value. What a call does not give is left as it stands, for the figures of a
:class:`~vast_harbor.core.figures.workings.Sentence`, which are written in the owner's units only when shown.

A phrase that depends on a count holds a form for each plural of the language (CLDR, through Babel)::

    "batteries": {"one": "{count} battery", "other": "{count} batteries"}
"""

import json
import re
from collections.abc import Iterable
from importlib.resources import files

from babel.core import Locale
from babel.lists import format_list

LANGUAGE = "en"
# Whose way of joining words holds: without a comma before the last one.
_LISTS = Locale("en", "GB")
COUNT = "count"
_PLACE = re.compile(r"(?<!\{)\{(\w+)\}(?!\})")
_PLURAL = Locale.parse(LANGUAGE).plural_form


def catalogue() -> dict[str, str | dict[str, str]]:
    """All phrases as they stand in the files.

    Returns:
        key (``file.group.name``) → text, or plural form → text.
    """
    folder = files(__name__) / LANGUAGE
    return {
        f"{file.name.removesuffix('.json')}.{group}.{name}": text
        for file in sorted(folder.iterdir(), key=lambda entry: entry.name)
        for group, names in json.loads(file.read_text("utf-8")).items()
        for name, text in names.items()
    }


def places(text: str) -> tuple[str, ...]:
    """The names of the values that a text has places for, in their order."""
    return tuple(_PLACE.findall(text))


# A text with ``%s`` at its places, and for each of them its name and how it stands in the text.
_Cut = tuple[str, tuple[tuple[str, str], ...]]


def _cut(text: str) -> _Cut:
    words = _PLACE.split(text)
    template = "%s".join(part.replace("%", "%%") for part in words[::2])
    return template, tuple((name, f"{{{name}}}") for name in words[1::2])


_TEXTS = catalogue()
_AS_IT_STANDS = {key: text for key, text in _TEXTS.items() if isinstance(text, str)}
_CUT = {key: _cut(text) for key, text in _AS_IT_STANDS.items()}
_PLURALS = {
    key: {form: _cut(words) for form, words in text.items()}
    for key, text in _TEXTS.items()
    if not isinstance(text, str)
}


def phrase(key: str, /, **values: object) -> str:
    """A phrase with its values in it.

    Args:
        key: ``file.group.name`` in the catalogue.
        values: place → value; ``count`` also chooses the plural form.

    Returns:
        The text; places without a value are left as they stand.

    Raises:
        KeyError: there is no such phrase.
    """
    if not values and (text := _AS_IT_STANDS.get(key)) is not None:
        return text
    if key in _CUT:
        template, names = _CUT[key]
    else:
        forms, number = _PLURALS[key], values[COUNT]
        template, names = forms[_PLURAL(number) if isinstance(number, int | float) else "other"]
    return template % tuple([values.get(name, stands) for name, stands in names])


def and_list(items: Iterable[str]) -> str:
    """Some words as a list in a sentence, after CLDR.

    Args:
        items: the words, with places of a sentence in them or not.

    Returns:
        e.g. ``a, b and c``; empty for none.
    """
    return format_list(list(items), locale=_LISTS)
