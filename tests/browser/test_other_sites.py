"""A second site in the same browser: it is told nothing, changes nothing, and frames nothing."""

import threading
from collections.abc import Iterator
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer

import pytest
from playwright.sync_api import Page

ASKS = """async (address) => {
  const image = new Image();
  const shown = new Promise((done) => {
    image.onload = () => done('shown');
    image.onerror = () => done('not');
  });
  image.src = `${address}/mark.svg`;
  const out = { image: await shown };
  for (const [name, how] of [['read', {}], ['blind', { mode: 'no-cors' }],
                             ['change', { method: 'POST', mode: 'no-cors', body: '{"name": "x"}' }]]) {
    out[name] = await fetch(`${address}/api/rigs`, how).then((r) => r.type, () => 'refused');
  }
  return out;
}"""


@pytest.fixture(scope="module")
def address(own_address: str) -> str:
    """Nobody else makes rigs meanwhile."""
    return own_address


@pytest.fixture
def second_site() -> Iterator[str]:
    """Address of another site on this machine, with one empty page."""

    class Site(BaseHTTPRequestHandler):
        def do_GET(self) -> None:
            self.send_response(200)
            self.send_header("Content-Type", "text/html")
            self.end_headers()
            self.wfile.write(b"<!doctype html><title>Elsewhere</title>")

        def log_message(self, *_: object) -> None:
            """Say nothing."""

    site = ThreadingHTTPServer(("127.0.0.1", 0), Site)
    threading.Thread(target=site.serve_forever, daemon=True).start()
    yield f"http://localhost:{site.server_port}"
    site.shutdown()


def rigs(page: Page, address: str) -> list[tuple[int, str]]:
    """Which rigs there are; their figures come as they are worked out."""
    return [(r["id"], r["name"]) for r in page.request.get(f"{address}/api/rigs").json()["rigs"]]


def test_another_site_reaches_nothing(page: Page, address: str, second_site: str) -> None:
    before = rigs(page, address)
    page.goto(second_site)
    found = page.evaluate(ASKS, address)
    assert found == {"image": "not", "read": "refused", "blind": "refused", "change": "refused"}
    assert rigs(page, address) == before
    # Nor can it put the program into a frame.
    page.evaluate(
        "(a) => { const f = document.createElement('iframe'); f.src = a; document.body.append(f) }", address
    )
    page.wait_for_timeout(500)
    assert all(frame.locator("h1", has_text="Vast Harbor").count() == 0 for frame in page.frames[1:])
    # A link from there may be followed.
    page.evaluate("(a) => { location.href = a }", address)
    page.locator("h1", has_text="Vast Harbor").wait_for()
