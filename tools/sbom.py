"""What is shipped, as CycloneDX 1.6: packages of the server and of the interface, with licences and hashes.

Usage: sbom.py FOLDER, which gets ``server.cdx.json`` and ``interface.cdx.json``.

The server's packages are those of ``requirements.lock``; their licences are what the installed ones say.
The interface's are those that became part of it when it was built; their hashes are those of
``package-lock.json``.
"""

import base64
import json
import subprocess
import sys
from importlib import metadata
from pathlib import Path
from typing import Any

from cyclonedx.schema import SchemaVersion
from cyclonedx.validation.json import JsonStrictValidator

ROOT = Path(__file__).parents[1]
SHIPPED = ROOT / "src" / "vast_harbor" / "web" / "static" / "licences.json"
ALGORITHMS = {"sha512": "SHA-512", "sha384": "SHA-384", "sha256": "SHA-256", "sha1": "SHA-1"}


def server() -> dict[str, Any]:
    """The server, as the standard tool lists it, with what the installed packages say of their licences."""
    command = [
        sys.executable, "-m", "cyclonedx_py", "requirements", "--output-reproducible", "--of", "JSON",
        "--pyproject", "pyproject.toml", "requirements.lock",
    ]  # fmt: skip
    said = subprocess.run(command, cwd=ROOT, capture_output=True, text=True, check=True).stdout
    found: dict[str, Any] = json.loads(said)
    for component in found["components"]:
        component["licenses"] = [licence_of(metadata.metadata(component["name"]))]
    return found


def licence_of(about: metadata.PackageMetadata) -> dict[str, Any]:
    """What a package says of its licence: an expression, or a name."""
    if (expression := about.get("License-Expression")) is not None:
        return {"expression": expression}
    said = [
        c.rpartition("::")[2].strip() for c in about.get_all("Classifier") or [] if c.startswith("License")
    ]
    first = (about.get("License") or "see its text").strip().splitlines()[0]
    return {"license": {"name": ", ".join(said) or first}}


def interface() -> dict[str, Any]:
    """The interface, by what became part of it when it was built."""
    own = json.loads((ROOT / "frontend" / "package.json").read_text("utf-8"))
    lock = json.loads((ROOT / "frontend" / "package-lock.json").read_text("utf-8"))["packages"]
    locked = {(path.rpartition("node_modules/")[2], p.get("version")): p for path, p in lock.items()}
    components = []
    for one in json.loads(SHIPPED.read_text("utf-8")):
        purl = f"pkg:npm/{one['name'].replace('@', '%40')}@{one['version']}"
        algorithm, _, digest = locked[one["name"], one["version"]]["integrity"].partition("-")
        components.append(
            {
                "type": "library", "bom-ref": purl, "purl": purl, "name": one["name"],
                "version": one["version"], "licenses": [{"expression": one["licence"]}],
                "hashes": [{"alg": ALGORITHMS[algorithm], "content": base64.b64decode(digest).hex()}],
            }
        )  # fmt: skip
    root = {"type": "application", "bom-ref": "interface", "name": own["name"]}
    return {
        "$schema": "http://cyclonedx.org/schema/bom-1.6.schema.json", "bomFormat": "CycloneDX",
        "specVersion": "1.6", "version": 1, "metadata": {"component": root}, "components": components,
        "dependencies": [{"ref": "interface", "dependsOn": [c["bom-ref"] for c in components]}],
    }  # fmt: skip


def main() -> int:
    """Write both, valid by their schema."""
    folder = Path(sys.argv[1])
    folder.mkdir(parents=True, exist_ok=True)
    for name, made in (("server", server()), ("interface", interface())):
        text = json.dumps(made, indent=1)
        wrong = JsonStrictValidator(SchemaVersion.V1_6).validate_str(text)
        if wrong is not None:
            print(f"{name}: {wrong}", file=sys.stderr)
            return 1
        (folder / f"{name}.cdx.json").write_text(text, "utf-8")
        print(f"{folder / name}.cdx.json: {len(made['components'])} packages")
    return 0


if __name__ == "__main__":
    sys.exit(main())
