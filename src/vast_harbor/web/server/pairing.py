"""Phones over the local network: paired once with a code that is shown here, and nothing else is let in."""

import base64
import contextlib
import hashlib
import ipaddress
import secrets
import socket
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from pathlib import Path
from threading import Lock

import segno
from flask import Flask, Response, current_app, make_response, redirect, render_template_string, request
from flask_openapi3.models.tag import Tag
from markupsafe import Markup
from pydantic import BaseModel, Field
from werkzeug.http import parse_cookie
from werkzeug.wrappers import Response as Answer

from vast_harbor.formats.door import clean
from vast_harbor.formats.rig_file import Problem
from vast_harbor.phrases import phrase
from vast_harbor.store import phones
from vast_harbor.store.database import Database
from vast_harbor.store.trouble import Trouble
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import COOKIE, Blueprint
from vast_harbor.web.base.database import database
from vast_harbor.web.base.errors import problems
from vast_harbor.web.base.security import content_policy
from vast_harbor.web.base.streams import SHUT_OUT
from vast_harbor.web.base.views import ProblemsView, view_of
from vast_harbor.web.log.calendar import CALENDARS

api = Blueprint(
    "pairing", __name__, url_prefix="/api", abp_tags=[Tag(name="phones")],
    abp_responses={403: ProblemsView, 404: ProblemsView},
)  # fmt: skip

PAIRING = "/pair"
# What only this computer may ask for: who is let in, and all rigs at once.
ONLY_HERE = ("/api/phones", "/api/backup", "/api/restore", "/api/kept")
# An open stream of a phone looks so often whether that is paired still [s].
LOOK_AGAIN_S = 0.5
# Letters and digits that are not mistaken for one another.
SIGNS = "ABCDEFGHJKLMNPQRSTUVWXYZ23456789"
LENGTH = 8
VALID_S = 600.0
MOST_WRONG = 10


@dataclass
class Codes:
    """The one code that pairs a phone now: it counts once, for ten minutes, and not after ten wrong ones.

    Attributes:
        clock: tells the time [s].
    """

    clock: Callable[[], float] = time.monotonic
    _code: str = ""
    _until: float = 0.0
    _wrong: int = 0
    _lock: Lock = field(default_factory=Lock)

    def fresh(self) -> str:
        """Make a new code; the one before no longer works."""
        with self._lock:
            self._code = "".join(secrets.choice(SIGNS) for _ in range(LENGTH))
            self._until, self._wrong = self.clock() + VALID_S, 0
            return self._code

    @property
    def left_s(self) -> float:
        """For how long the code still counts [s]; 0 without one."""
        return max(0.0, self._until - self.clock()) if self._code else 0.0

    def take(self, given: str) -> bool:
        """Whether a code is the one that counts; it does not count twice."""
        plain = "".join(c for c in given.upper() if c in SIGNS)
        with self._lock:
            if not self.left_s:
                return False
            if secrets.compare_digest(plain, self._code):
                self._code = ""
                return True
            self._wrong += 1
            if self._wrong >= MOST_WRONG:
                self._code = ""
            return False


def local_addresses() -> list[str]:
    """Addresses of this machine in its local networks (IPv4), the one that leads out first."""
    found: list[str] = []
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as out, contextlib.suppress(OSError):
        # Nothing is sent: the system only says by which of its addresses it would be.
        out.connect(("10.255.255.255", 1))
        found.append(out.getsockname()[0])
    with contextlib.suppress(OSError):
        found += [str(a[4][0]) for a in socket.getaddrinfo(socket.gethostname(), None, socket.AF_INET)]
    return list(dict.fromkeys(a for a in found if not is_here(a)))


def is_here(address: str | None) -> bool:
    """Whether an address is this machine's own loop."""
    try:
        return address is None or ipaddress.ip_address(address).is_loopback
    except ValueError:
        return False


def let_phones_in(app: Flask, port: int, addresses: list[str]) -> None:
    """Let paired phones in over the local network, and nobody else.

    Args:
        app: the application.
        port: where it listens.
        addresses: of this machine in its networks.
    """
    app.config["LAN"] = (port, addresses)
    app.config["CODES"] = Codes()

    @app.before_request
    def only_paired() -> Answer | None:
        rule = request.url_rule.rule if request.url_rule is not None else ""
        # A calendar shows its secret in place of a cookie; nothing else lies below its address.
        if is_here(request.remote_addr) or rule == PAIRING or rule.startswith(CALENDARS):
            return None
        phone = _phone(current_app.config["DATABASE"])
        if phone is None:
            if request.path.startswith("/api/"):
                return problems(401, Problem("", phrase("answers.pairing.not_paired")))
            return redirect(PAIRING)
        if request.path.startswith(ONLY_HERE):
            return problems(403, Problem("", phrase("answers.pairing.only_here")))
        request.environ[SHUT_OUT] = _shut_out(current_app.config["DATABASE"], request.cookies[COOKIE])
        return None

    app.add_url_rule(PAIRING, view_func=pairing_page, methods=["GET", "POST"])


def _shut_out(where: Database, token: str) -> Callable[[], bool]:
    """Tells whether a phone that was let in is paired no more, looking again every half second."""
    looked, out = time.monotonic(), False

    def is_out() -> bool:
        nonlocal looked, out
        if not out and time.monotonic() - looked > LOOK_AGAIN_S:
            with where.reading() as db:
                out = phones.known(db, token) is None
            looked = time.monotonic()
        return out

    return is_out


def may_send(app: Flask) -> Callable[[str, str], bool]:
    """Tells of an address and a Cookie header whether more than a form may be sent: of this machine, or a
    paired phone.

    Args:
        app: the application, its phones let in.
    """

    def may(address: str, cookies: str) -> bool:
        if is_here(address):
            return True
        token = parse_cookie(cookies).get(COOKIE, "")
        if not token or "LAN" not in app.config:
            return False
        try:
            with app.config["DATABASE"].reading() as db:
                return phones.known(db, token) is not None
        except Trouble:
            return False

    return may


def _phone(where: Database) -> phones.Phone | None:
    token = request.cookies.get(COOKIE, "")
    if not token:
        return None
    with where.reading() as db:
        phone = phones.known(db, token)
    if phone is not None and phones.due(phone):
        with where.writing() as db:
            phones.seen(db, phone.id)
    return phone


PAGE = Path(__file__).parent / "pairing.html"
STYLE = (
    "body{font:18px/1.45 system-ui,sans-serif;margin:0;background:#f4f1e8;color:#16262c}"
    "main{max-width:26rem;margin:0 auto;padding:1.5rem}label{display:block;margin:1rem 0;font-weight:600}"
    "input{display:block;width:100%;box-sizing:border-box;font:inherit;padding:.6rem;margin-top:.3rem;"
    "border:1px solid #8d9391;border-radius:6px;background:#fffdf8;color:inherit}"
    "button{font:inherit;font-weight:600;padding:.7rem 1.4rem;border:0;border-radius:7px;background:#0e5a66;"
    "color:#fffdf8;min-height:44px}.wrong{color:#a8371f;font-weight:600}"
)


def pairing_page() -> Answer:
    """The one page that a phone sees before it is paired."""
    codes: Codes = current_app.config["CODES"]
    wrong = ""
    if request.method == "POST":
        if codes.take(request.form.get("code", "")):
            name = clean(request.form.get("name", "")).strip()[:40] or phrase("answers.pairing.a_phone")
            with database().writing() as db:
                token = phones.pair(db, name)
            response = redirect("/", 303)
            response.set_cookie(
                COOKIE,
                token,
                max_age=int(phones.LASTS.total_seconds()),
                httponly=True,
                samesite="Strict",
                path="/",
            )
            return response
        wrong = phrase("answers.pairing.wrong_code")
    page = make_response(
        render_template_string(
            PAGE.read_text("utf-8"),
            style=Markup(STYLE),
            title=phrase("answers.pairing.title"),
            lead=phrase("answers.pairing.lead"),
            code_name=phrase("answers.pairing.code"),
            phone_name=phrase("answers.pairing.name"),
            pair=phrase("answers.pairing.pair"),
            code=request.values.get("code", "")[:20],
            name=request.form.get("name", "")[:40],
            wrong=wrong,
        ),
        403 if wrong else 200,
    )
    hashed = base64.b64encode(hashlib.sha256(STYLE.encode()).digest()).decode()
    page.headers["Content-Security-Policy"] = content_policy(f"'sha256-{hashed}'")
    # A form of a page that tells no referrer is sent as of no origin.
    page.headers["Referrer-Policy"] = "same-origin"
    page.headers["Cache-Control"] = "no-store"
    return page


class PhoneView(BaseModel):
    """A paired phone."""

    id: int
    name: str
    paired_at: str
    seen_at: str


class PhonesView(BaseModel):
    """Whether phones may come in, how one is paired, and which are."""

    listens: bool = Field(description="Whether the program listens on the local network")
    address: str = Field(description="What a phone opens; empty where no network was found")
    phones: list[PhoneView]


class CodeView(BaseModel):
    """A code that pairs one phone."""

    code: str
    address: str = Field(description="What a phone opens, the code in it")
    picture: str = Field(description="The same as a picture for its camera, as a data address")
    seconds: int = Field(description="For how long it counts")


class PhonePath(BaseModel):
    """Which phone."""

    phone_id: int = Field(ge=1, le=2**53)


def _address() -> str:
    port, addresses = current_app.config.get("LAN", (0, []))
    return f"http://{addresses[0]}:{port}" if addresses else ""


def _listed() -> PhonesView:
    with database().reading() as db:
        found = [view_of(PhoneView, p) for p in phones.listed(db)]
    return PhonesView(listens="LAN" in current_app.config, address=_address(), phones=found)


@api.get("/phones", responses={200: PhonesView})
def list_phones() -> Response:
    """The paired phones."""
    return json_response(_listed())


@api.post("/phones/code", responses={200: CodeView})
def new_code() -> Response:
    """A new code; the one before no longer works."""
    address = _address()
    if not address:
        return problems(404, Problem("", phrase("answers.pairing.not_listening")))
    codes: Codes = current_app.config["CODES"]
    code = codes.fresh()
    whole = f"{address}{PAIRING}?code={code}"
    picture = segno.make(whole, error="m").svg_data_uri(scale=5, border=2, dark="#16262c", light="#fffdf8")
    return json_response(CodeView(code=code, address=whole, picture=picture, seconds=int(codes.left_s)))


@api.delete("/phones/<int:phone_id>", responses={200: PhonesView})
def revoke_phone(path: PhonePath) -> Response:
    """Forget a phone: it must be paired again."""
    with database().writing() as db:
        phones.revoke(db, path.phone_id)
    return json_response(_listed())
