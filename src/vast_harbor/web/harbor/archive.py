"""A rig with its log, its readings and its pictures: as one ZIP, and back."""

import re
import sqlite3
import time
from collections.abc import Iterator, Sequence
from typing import TypeVar

from flask import Response, request, send_file
from flask_openapi3.models.tag import Tag

from vast_harbor import data
from vast_harbor.core.log.entry import Entry
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.log_part import log_text
from vast_harbor.formats.problem import Problem
from vast_harbor.formats.rig_archive import (
    LARGEST_BYTES,
    Archive,
    MonitorMember,
    MonitorPart,
    PictureMember,
    PicturePart,
    read,
    write,
)
from vast_harbor.phrases import phrase
from vast_harbor.store import log, monitor, pictures, rigs
from vast_harbor.store.database import Database
from vast_harbor.store.pictures import StoredPicture
from vast_harbor.store.scratch import scratch
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import BYTES, UNPACKED, Blueprint
from vast_harbor.web.base.database import database
from vast_harbor.web.base.errors import problems
from vast_harbor.web.base.queries import KeyQuery, RigPath
from vast_harbor.web.base.views import MadeView, ProblemsView
from vast_harbor.web.harbor.routes import make_in
from vast_harbor.web.log.kept_readings import sum_again

api = Blueprint(
    "archive", __name__, url_prefix="/api", abp_tags=[Tag(name="log")],
    abp_responses={404: ProblemsView, 413: ProblemsView, 422: ProblemsView},
)  # fmt: skip

READ_AT_ONCE = 1_000_000
# What is kept in one transaction: others wait for none of them longer than a fifth of a second.
ENTRIES_AT_ONCE, READINGS_AT_ONCE = 500, 5_000
# Between two of them who waits gets its turn [s].
BREATH_S = 0.002
R = TypeVar("R")


@api.get("/rigs/<int:rig_id>/archive", answers="application/zip")
def export_archive(path: RigPath) -> Response:
    """The rig file, the log, all readings and pictures as one ZIP that can be imported again."""
    with scratch() as folder:
        file = folder / "rig.zip"
        with database().reading() as db:
            stored = rigs.get(db, path.rig_id)
            entries = (Entry(**row) for row in log.each(db, path.rig_id))
            write(
                file, files.to_json(stored.document), log_text(entries), _monitor(db, path.rig_id),
                _pictures(db, path.rig_id),
            )  # fmt: skip
        slug = re.sub(r"[^a-z0-9]+", "-", stored.name.lower()).strip("-") or "rig"
        # The file is gone with its folder, and goes on being readable until it is sent.
        response = send_file(
            file.open("rb"), "application/zip", as_attachment=True, download_name=f"{slug}-with-log.zip"
        )
        response.content_length = file.stat().st_size
        return response


def _monitor(db: sqlite3.Connection, rig_id: int) -> Iterator[MonitorPart]:
    # In the order in which they came, so that they come so again.
    for one in reversed(monitor.files(db, rig_id)):
        about = MonitorMember(
            bank=one.bank, name=one.name, digest=one.digest, added_at=one.added_at, told=one.told
        )
        yield MonitorPart(about, monitor.of_file(db, one.id))


def _pictures(db: sqlite3.Connection, rig_id: int) -> Iterator[PicturePart]:
    for one in pictures.listed(db, rig_id):
        about = PictureMember(
            id=one.id, place=one.place, at=one.at, name=one.name, width=one.width, height=one.height
        )
        large, small = (pictures.content(db, rig_id, one.id, small) for small in (False, True))
        yield PicturePart(about, large, small)


@api.post(
    "/rigs/import-archive", lane=UNPACKED, takes=BYTES, largest=LARGEST_BYTES, responses={201: MadeView}
)
def import_archive(query: KeyQuery) -> Response:
    """Take a ZIP with a rig and all that belongs to it, sent as the body: all of it, or nothing."""
    size = request.content_length or 0
    if size > LARGEST_BYTES:
        says = phrase("files.archive.size", size=f"{size / 1e6:.0f}", most=f"{LARGEST_BYTES / 1e6:.0f}")
        return problems(413, Problem("", says))
    with scratch() as folder:
        file = folder / "rig.zip"
        with file.open("wb") as out:
            while part := request.stream.read(READ_AT_ONCE):
                out.write(part)
        archive = read(file, int(time.time()))
        document = files.to_document(files.read(archive.document, data.reference()))
        where = database()
        with where.writing() as db:
            made, new = make_in(db, document, query.key, whole=False)
        if new:
            try:
                _keep(where, made.id, archive)
            except BaseException:
                with where.writing() as db:
                    rigs.drop_coming(db, made.id)
                raise
    return json_response(made, 201)


def _keep(where: Database, rig_id: int, archive: Archive) -> None:
    """Keep all that belongs to a rig, in slices that let others write between them, and show it then."""
    for some in _slices(archive.entries, ENTRIES_AT_ONCE):
        with where.writing() as db:
            for entry in some:
                log.add(db, rig_id, {column: getattr(entry, column) for column in log.COLUMNS})
    kept: dict[str, list[tuple[int, int]]] = {}
    for n, of in enumerate(archive.monitor):
        with where.writing() as db:
            number = monitor.add_file(db, rig_id, of.bank, of.name, of.digest, of.added_at)
            monitor.tell(db, number, of.told)
        for block in archive.readings(n):
            for rows in _slices(block, READINGS_AT_ONCE):
                with where.writing() as db:
                    monitor.add(db, rig_id, of.bank, number, rows)
                time.sleep(BREATH_S)
            kept.setdefault(of.bank, []).append((int(block[0][0] or 0), int(block[-1][0] or 0)))
    for bank, spans in kept.items():
        for first, last in sorted(spans):
            with where.writing() as db:
                sum_again(db, rig_id, bank, first, last)
            time.sleep(BREATH_S)
    for about in archive.pictures:
        picture = archive.picture(about)
        stored = StoredPicture(about.id, about.place, about.at, about.name, about.width, about.height)
        with where.writing() as db:
            pictures.add(db, rig_id, stored, picture.large, picture.small)
    with where.writing() as db:
        rigs.reveal(db, rig_id)


def _slices(rows: Sequence[R], most: int) -> Iterator[Sequence[R]]:
    """Rows in slices of at most so many."""
    for first in range(0, len(rows), most):
        yield rows[first : first + most]
