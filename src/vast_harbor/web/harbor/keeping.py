"""What keeps the rigs: all of them as one file, the copies of each day, and what was deleted."""

from datetime import datetime
from pathlib import Path

from flask import Response, request, send_file
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from vast_harbor.formats.rig_file import Problem
from vast_harbor.phrases import phrase
from vast_harbor.store import backup, cards
from vast_harbor.store.scratch import scratch
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import BYTES, Blueprint
from vast_harbor.web.base.database import database, today
from vast_harbor.web.base.errors import problems
from vast_harbor.web.base.views import ProblemsView, view_of
from vast_harbor.web.state.evaluated import forget

api = Blueprint(
    "keeping", __name__, url_prefix="/api", abp_tags=[Tag(name="harbor")],
    abp_responses={422: ProblemsView, 503: ProblemsView, 507: ProblemsView},
)  # fmt: skip

DATABASE_TYPE = "application/vnd.sqlite3"
READ_AT_ONCE, LARGEST_DATABASE = 1_000_000, 2_000_000_000


class DeletedView(BaseModel):
    """A rig that can be brought back."""

    id: int
    name: str
    at: str = Field(description="When it was deleted, ISO 8601, UTC")


class CopyView(BaseModel):
    """A copy that the program kept by itself."""

    name: str
    at: str = Field(description="When it was made, ISO 8601, local time")
    rigs: int | None = Field(description="How many rigs are in it; null where it cannot be read")


class KeptView(BaseModel):
    """Where the rigs lie, and what is kept beside them."""

    file: str = Field(description="The database file")
    copies: list[CopyView]
    deleted: list[DeletedView]


class RestoredView(BaseModel):
    """What was put back."""

    rigs: int
    kept: str = Field(description="The copy that was made of what was there before")


class CopyName(BaseModel):
    """Which of the kept copies."""

    name: str = Field(max_length=200)


@api.get("/kept", responses={200: KeptView})
def list_kept() -> Response:
    """Where the rigs lie, the copies of each day, and what can be brought back."""
    where = database()
    with where.reading() as db:
        gone = [view_of(DeletedView, d) for d in cards.deleted(db)]
    copies = [
        CopyView(
            name=p.name,
            at=datetime.fromtimestamp(p.stat().st_mtime).isoformat(timespec="minutes"),
            rigs=backup.count(p),
        )
        for p in backup.kept(where.path)
    ]
    return json_response(KeptView(file=str(where.path.resolve()), copies=copies, deleted=gone))


@api.get("/backup", answers=DATABASE_TYPE)
def all_as_one_file() -> Response:
    """All rigs, own appliances and deleted rigs as one file: a consistent copy of the database."""
    with scratch() as folder:
        made = backup.copy(database().path, folder / "harbor.sqlite3")
        # The file is gone with its folder, and goes on being readable until it is sent.
        response = send_file(
            made.open("rb"), DATABASE_TYPE, as_attachment=True, download_name=f"vast-harbor-{today()}.sqlite3"
        )
        response.content_length = made.stat().st_size
        return response


@api.post("/restore", takes=BYTES, largest=LARGEST_DATABASE, responses={200: RestoredView, 413: ProblemsView})
def restore() -> Response:
    """Put a file with all rigs, sent as the body of the request, in place of what is here."""
    with scratch() as folder:
        file = folder / phrase("answers.harbor_keeping.file")
        with file.open("wb") as out:
            while part := request.stream.read(READ_AT_ONCE):
                out.write(part)
        return _put_in(file)


@api.post("/kept/restore", responses={200: RestoredView, 404: ProblemsView})
def restore_copy(body: CopyName) -> Response:
    """Put one of the kept copies in place of what is here."""
    found = next((p for p in backup.kept(database().path) if p.name == body.name), None)
    if found is None:
        return problems(404, Problem("/name", phrase("answers.harbor_keeping.copy_longer_exists_been")))
    return _put_in(found)


def _put_in(file: Path) -> Response:
    where = database()
    try:
        backup.verify(file)
        kept = where.put_in(file, lambda: backup.keep_before_restore(file, where.path, today()))
    except backup.BadCopy as error:
        said = str(error).replace(str(file), phrase("answers.harbor_keeping.this_file"))
        return problems(422, Problem("", said))
    forget()
    with where.reading() as db:
        count = cards.listed(db, "", "").all
    return json_response(RestoredView(rigs=count, kept=kept.name))
