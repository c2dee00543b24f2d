"""Names that would do harm where they are shown as they are."""

from typing import Any

from vast_harbor import data

# As long as the shortest limit allows. Each tries another reader.
HOSTILE = (
    "<img src=x onerror=harmed()><b>",
    "<script>harmed()</script>",
    "\"' onmouseover=harmed() x='",
    "]]></text><script>harmed()</script>",
    "=HYPERLINK(1)",
    "＝1+1",
    "a\r\nEND:VEVENT\r\nBEGIN:VEVENT",
    "../../etc/passwd",
    "evil \u202egpj.exe\u202c {name} %s {0}",
    # Two that try most readers at once.
    "=<img src=x onerror=harmed()>",
    "]]></text>\r\nEND:VEVENT<script>",
)
MOST_AT_ONCE = HOSTILE[-2:]
# What owners write freely: the key of a text, or of a mapping of texts.
FREE = {"name", "note", "notes", "reason", "maker", "other", "seller", "serial"}


def hostile_rig(text: str) -> dict[str, Any]:
    """A rig whose bank of own batteries is chosen, with a text in place of every text of its owner."""

    def within(value: Any, free: bool) -> Any:
        if isinstance(value, dict):
            return {k: within(v, free or k in FREE) for k, v in value.items()}
        if isinstance(value, list):
            return [within(v, free) for v in value]
        return text if free and isinstance(value, str) and value else value

    document = within(data.demo_rig("kittiwake"), False)
    document.setdefault("changeover", {})["chosen"] = "used"
    return document
