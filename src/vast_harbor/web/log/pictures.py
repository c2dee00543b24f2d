"""Pictures of a rig: taken, shown, removed and brought back."""

import sqlite3
import time
from collections.abc import Callable

from flask import Response, make_response, request
from flask_openapi3.models.tag import Tag
from pydantic import BaseModel, Field

from vast_harbor.formats.door import clean
from vast_harbor.formats.picture import LARGEST_BYTES, PictureError, picture
from vast_harbor.formats.problem import Problem
from vast_harbor.phrases import phrase
from vast_harbor.store import pictures, rigs
from vast_harbor.store.pictures import NoPicture, StoredPicture, TooMany
from vast_harbor.web.base.answers import json_response
from vast_harbor.web.base.blueprint import BYTES, JPEG, UNPACKED, Blueprint
from vast_harbor.web.base.database import database
from vast_harbor.web.base.errors import problems
from vast_harbor.web.base.queries import RigPath
from vast_harbor.web.base.views import ProblemsView, View, view_of

api = Blueprint(
    "pictures", __name__, url_prefix="/api", abp_tags=[Tag(name="log")],
    abp_responses={404: ProblemsView, 413: ProblemsView, 422: ProblemsView},
)  # fmt: skip

GONE = Problem("", phrase("log.pictures.gone"))
ID = r"^[A-Za-z0-9_-]{1,40}$"


class NewPictureQuery(BaseModel):
    """Of what a picture is."""

    id: str = Field(pattern=ID, description="Made by the sender: sent twice, it is kept once")
    place: str = Field(
        pattern=r"^(wiring|(entry|step):[A-Za-z0-9_-]{1,40})$", description="entry:<id>, step:<key> or wiring"
    )
    name: str = Field(default="", max_length=200)


class PicturePath(RigPath):
    """Which picture."""

    picture_id: str = Field(pattern=ID)


class PictureView(View):
    """A picture of the rig."""

    id: str
    place: str
    at: int
    name: str
    width: int
    height: int


class PicturesView(View):
    """The pictures of a rig in the order in which they were kept."""

    pictures: list[PictureView]


def _view(one: StoredPicture) -> PictureView:
    return view_of(PictureView, one)


@api.get("/rigs/<int:rig_id>/pictures", responses={200: PicturesView})
def list_pictures(path: RigPath) -> Response:
    """All pictures of a rig, without their content."""
    with database().reading() as db:
        rigs.revision(db, path.rig_id)
        found = pictures.listed(db, path.rig_id)
    return json_response(PicturesView(pictures=[_view(one) for one in found]))


@api.post(
    "/rigs/<int:rig_id>/pictures", lane=UNPACKED, takes=BYTES, largest=LARGEST_BYTES,
    responses={200: PictureView},
)  # fmt: skip
def add_picture(path: RigPath, query: NewPictureQuery) -> Response:
    """Keep a picture (JPEG, PNG or WebP, sent as the body), scaled down and without its place."""
    size = request.content_length or 0
    if size > LARGEST_BYTES:
        size_mb, most = f"{size / 1e6:.0f}", f"{LARGEST_BYTES / 1e6:.0f}"
        return problems(413, Problem("", phrase("files.picture.size", size=size_mb, most=most)))
    try:
        made = picture(request.get_data())
    except PictureError as error:
        return problems(422, Problem("", str(error)))
    name = clean(query.name).strip()[:80]
    stored = StoredPicture(query.id, query.place, int(time.time()), name, made.width, made.height)
    try:
        with database().writing() as db:
            rigs.revision(db, path.rig_id)
            pictures.add(db, path.rig_id, stored, made.large, made.small)
    except TooMany:
        return problems(422, Problem("", phrase("log.pictures.too_many", most=pictures.MOST)))
    return json_response(_view(stored))


def _content(rig_id: int, id: str, small: bool) -> Response:
    try:
        with database().reading() as db:
            body = pictures.content(db, rig_id, id, small)
    except NoPicture:
        return problems(404, GONE)
    response = make_response(body)
    response.mimetype = "image/jpeg"
    # A picture never changes under its id.
    response.headers["Cache-Control"] = "private, max-age=604800, immutable"
    return response


@api.get("/rigs/<int:rig_id>/pictures/<string:picture_id>.jpg", answers=JPEG)
def large_picture(path: PicturePath) -> Response:
    """A picture."""
    return _content(path.rig_id, path.picture_id, False)


@api.get("/rigs/<int:rig_id>/pictures/<string:picture_id>/small.jpg", answers=JPEG)
def small_picture(path: PicturePath) -> Response:
    """A picture, small."""
    return _content(path.rig_id, path.picture_id, True)


@api.delete("/rigs/<int:rig_id>/pictures/<string:picture_id>", responses={200: PicturesView})
def remove_picture(path: PicturePath) -> Response:
    """Remove a picture; it can be brought back."""
    return _changed(path, pictures.remove)


@api.post("/rigs/<int:rig_id>/pictures/<string:picture_id>/restore", responses={200: PicturesView})
def restore_picture(path: PicturePath) -> Response:
    """Bring a removed picture back."""
    return _changed(path, pictures.restore)


def _changed(path: PicturePath, change: Callable[[sqlite3.Connection, int, str], None]) -> Response:
    try:
        with database().writing() as db:
            change(db, path.rig_id, path.picture_id)
            found = pictures.listed(db, path.rig_id)
    except NoPicture:
        return problems(404, GONE)
    return json_response(PicturesView(pictures=[_view(one) for one in found]))
