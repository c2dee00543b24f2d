"""A program for one owner on one machine: who may talk to it, and what a page may load."""

from urllib.parse import urlsplit

from flask import Flask, Response, abort, request

LOCAL_HOSTS = frozenset({"127.0.0.1", "localhost", "::1"})


def content_policy(style: str = "") -> str:
    """What a page may load: what is ours, pictures that it holds itself, and a style that it brings.

    Args:
        style: the style of the page, by its hash.
    """
    # A page that brings its style brings its fonts in it.
    fonts = "font-src 'self' data:; " if style else ""
    return (
        f"default-src 'self'; img-src 'self' data: blob:; style-src 'self'{style and ' '}{style}; {fonts}"
        "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
    )


CHANGING = frozenset({"POST", "PUT", "PATCH", "DELETE"})
# What a browser says of who asks; other programs say nothing.
FOREIGN = frozenset({"cross-site", "same-site"})
HEADERS = {
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "no-referrer",
    "X-Frame-Options": "DENY",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
    "Permissions-Policy": "camera=(), geolocation=(), microphone=(), payment=(), usb=()",
}


def _name(netloc: str) -> str:
    return urlsplit(f"//{netloc}").hostname or ""


def protect(app: Flask, hosts: frozenset[str]) -> None:
    """Refuse requests that other web sites send, and tell the browser what a page may load.

    Args:
        app: the application.
        hosts: host names under which it may be reached; a foreign name in the Host header would be
            another site's name that points here.
    """

    @app.before_request
    def only_from_here() -> None:
        if _name(request.host) not in hosts:
            abort(403, "This address is not the program's own.")
        origin = request.headers.get("Origin")
        if request.method in CHANGING and origin and urlsplit(origin).netloc != request.host:
            abort(403, "Changes are only taken from the program's own pages.")
        if request.headers.get("Sec-Fetch-Site") in FOREIGN and not _visits_a_page():
            abort(403, "Other sites are told nothing.")

    @app.after_request
    def headers(response: Response) -> Response:
        for name, value in HEADERS.items():
            response.headers.setdefault(name, value)
        response.headers.setdefault("Content-Security-Policy", content_policy())
        return response


def _visits_a_page() -> bool:
    """Whether somebody follows a link to one of the pages, as against a site that asks behind their back."""
    goes = request.headers.get("Sec-Fetch-Mode") == "navigate"
    whole = request.headers.get("Sec-Fetch-Dest", "document") == "document"
    return request.method == "GET" and goes and whole and not request.path.startswith("/api/")
