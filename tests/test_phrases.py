"""Every text lies in the catalogue, every phrase is used, and every place in it gets a value."""

import ast
import json
import re
import tomllib
from collections.abc import Iterator
from functools import cache
from pathlib import Path

import pytest

import vast_harbor
from vast_harbor.phrases import and_list, catalogue, phrase, places

ROOT = Path(vast_harbor.__file__).parent
SOURCES = sorted(path for path in ROOT.rglob("*.py") if "phrases" not in path.parts)
# Two words of letters in a row: a text, or an identifier that happens to hold a space.
TEXT = re.compile(r"[A-Za-z]{3,},? [a-z]{2,}|^[A-Z][a-z]+ [a-z]+")
# What an owner does not read: SQL, drawings, headers, descriptions of the API, the log, names of states.
NOT_READ = re.compile(
    r"^ ?(FROM|AND|ORDER BY|WHERE|SELECT|UPDATE|INSERT|DELETE|PRAGMA|BEGIN|DROP INDEX|deleted_at|<"
    r"|font-family|attachment;|public, max-age|private, max-age|default-src|camera=|upper left|lower left"
    r"|outside upper"
    r"|offset points|Vast Harbor rig file|Unit: )"
)
# The last hold words of offers, lists and the log, which are read and never shown; one writes TypeScript.
NOT_READ_IN = {
    "web/plan/lists.py",
    "web/base/description.py", "web/server/http_server.py", "web/base/security.py",
    "formats/quotes/offer.py", "formats/quotes/price.py", "formats/quotes/printed_figures.py",
    "formats/quotes/figures.py",
    "formats/load_headings.py", "formats/log_line.py", "formats/monitor_headings.py",
}  # fmt: skip
STATES = {
    "house rule", "old bank", "second bank", "at fault", "not known", "polar day", "polar night", "New rig",
    "Off-grid day", "all day", "w per day", "wh per day", "ah per day", "the waste tank", "tapered posts",
    "drop what was tried", "unforeseen error", "In the unit of the draw",
    "The interface is not built yet: run make build.",
    "the card of rig %s was not kept: %s", "the card of rig %s could not be worked out: %s",
}  # fmt: skip


def phrases_in(tree: ast.AST) -> Iterator[ast.Call]:
    for node in ast.walk(tree):
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id == "phrase":
            yield node


FILES = [path.relative_to(ROOT).as_posix() for path in SOURCES]


# Read when they are wanted: each worker collects all tests, and few run these.
@cache
def trees() -> dict[str, ast.Module]:
    return {file: ast.parse((ROOT / file).read_text("utf-8")) for file in FILES}


@cache
def calls() -> list[tuple[str, ast.Call]]:
    return [(file, call) for file, tree in trees().items() for call in phrases_in(tree)]


TEXTS = catalogue()
# A template calls phrases as Python does.
TEMPLATES = [path.read_text("utf-8") for path in sorted((ROOT / "formats").rglob("*.html"))]


def forms(key: str) -> list[str]:
    text = TEXTS[key]
    return [text] if isinstance(text, str) else list(text.values())


def test_every_phrase_is_used_and_exists() -> None:
    assert len(calls()) > 2000
    assert all(isinstance(call.args[0], ast.Constant) for _, call in calls())
    used = {call.args[0].value for _, call in calls()}  # type: ignore[attr-defined]
    used |= set(re.findall(r"phrase\('([\w.]+)'", "".join(TEMPLATES)))
    assert used == set(TEXTS)


def test_every_value_has_its_place() -> None:
    for file, call in calls():
        given = {keyword.arg for keyword in call.keywords}
        key = call.args[0].value  # type: ignore[attr-defined]
        has = {name for form in forms(key) for name in places(form)}
        assert given - {"count"} <= has, (file, key)
        assert given <= has or isinstance(TEXTS[key], dict), (file, key)


def test_no_text_is_left_in_the_report() -> None:
    for template in TEMPLATES:
        body = re.sub(r"(?s)<style>.*</style>|\{[{%].*?[%}]\}|<[^>]*>", "", template)
        assert not re.findall("[A-Za-z]{2,}", body)


def text_left(tree: ast.AST) -> Iterator[str]:
    """Texts of a module that are neither documentation nor described to developers."""
    parents = {child: node for node in ast.walk(tree) for child in ast.iter_child_nodes(node)}
    for node in ast.walk(tree):
        if not (isinstance(node, ast.Constant) and isinstance(node.value, str)):
            continue
        parent = parents[node]
        if isinstance(parent, ast.Expr | ast.keyword) and getattr(parent, "arg", "description") in (
            "description",
            "summary",
            "allow",
        ):
            continue
        above = parent
        while above in parents and not isinstance(above, ast.Raise | ast.stmt):
            above = parents[above]
        if isinstance(above, ast.Raise) and ast.unparse(above).startswith(
            ("raise ValueError(f", "raise TypeError")
        ):
            continue
        yield node.value


@pytest.mark.parametrize("file", [file for file in FILES if file not in NOT_READ_IN])
def test_no_text_is_left_in_the_code(file: str) -> None:
    left = {
        text
        for text in text_left(trees()[file])
        if TEXT.search(text) and not NOT_READ.match(text) and text not in STATES
    }
    assert not left


def test_a_count_chooses_its_form(monkeypatch: pytest.MonkeyPatch) -> None:
    one, many = (phrase("command_line.cli.rigs_saved", count=n, to="b", newest="") for n in (1, 2))
    assert "1 rig," in one
    assert "2 rigs," in many


def test_words_are_listed_as_in_a_sentence() -> None:
    assert [and_list(words) for words in ([], ["a"], ["{a}", "b"], ["a", "b", "c"])] == [
        "",
        "a",
        "{a} and b",
        "a, b and c",
    ]


def test_what_is_not_given_is_left_for_the_figures() -> None:
    left = phrase("checks.capacity.covers_need_broken", short="1 kWh")
    assert set(places(left)) == {"x", "limit"}
    assert "1 kWh" in left
    with pytest.raises(KeyError):
        phrase("checks.capacity.nothing")


# Turns that docs/wording.md gives up for plainer ones.
GIVEN_UP = re.compile(
    r"\b(besides|reckon(ed|s)?|put up|take down|hangs? on|held against|comes? to|will not do|dearer"
    r"|direct volts|far from plus|counts no more|while it lies|its label lasts|air the place"
    r"|nameplate|hardest moment|run year|futures?|unserved|schools?|goes dark|source of charge)\b",
    re.IGNORECASE,
)


# What a machine can see of a text that was joined badly: two stops, a percent sign without its space, a
# hyphen as a minus.
SLIPS = re.compile(r"\.:|[^.]\.\.(?!\.)|\d%|(?<![\w–\-{}.])-\d")
MOST_WORDS = 25


def every_text() -> list[str]:
    interface = ROOT.parent.parent / "frontend" / "src" / "phrases" / "en"
    texts = [form for key in TEXTS for form in forms(key)]
    for file in interface.glob("*.json"):
        texts += [text for group in json.loads(file.read_text("utf-8")).values() for text in group.values()]
    return texts


def test_no_sentence_is_long_or_badly_joined() -> None:
    texts = every_text()
    assert [text for text in texts if SLIPS.search(text)] == []
    sentences = (one for text in texts for one in re.split(r"(?<=[.!?])\s|\n|\|", text))
    words = re.compile(r"\{[^}]*\}|[\w’'–-]+")
    assert [one for one in sentences if len(words.findall(one)) > MOST_WORDS] == []


def test_words_that_were_given_up_do_not_come_back() -> None:
    texts = every_text()
    for row in tomllib.loads((ROOT / "data" / "assumptions.toml").read_text("utf-8"))["assumption"]:
        texts += [row[name] for name in ("name", "source", "note") if name in row]
    assert len(texts) > 4000
    assert [text for text in texts if GIVEN_UP.search(text)] == []
