"""Sunshine of a site: from the database where it was worked out before, else worked out and kept."""

import threading
from functools import lru_cache

import numpy as np
from flask import Flask, Response, current_app

from vast_harbor.core.weather import insolation
from vast_harbor.core.weather.insolation import Sunshine
from vast_harbor.store import sunshine as kept
from vast_harbor.store.database import Database

SHAPE = (12, 96)


class Sunshines:
    """Looks sunshine up, and keeps what is new once the request that asked for it is done.

    Args:
        database: where it is kept.
    """

    def __init__(self, database: Database) -> None:
        self._database = database
        self._new: dict[str, Sunshine] = {}
        self._lock = threading.Lock()
        self.find = lru_cache(maxsize=256)(self._find)

    def _find(
        self, latitude: float, longitude: float, utc_offset_h: float | None, tilt: float, azimuth: float
    ) -> Sunshine:
        site = repr((latitude, longitude, utc_offset_h, tilt, azimuth))
        with self._database.reading() as db:
            found = kept.find(db, site)
        if found is not None:
            return Sunshine(*(np.frombuffer(part).reshape(SHAPE) for part in found))
        sun = insolation.sunshine(latitude, longitude, utc_offset_h, tilt, azimuth)
        with self._lock:
            self._new[site] = sun
        return sun

    def keep_new(self) -> None:
        """Write what was worked out since the last time."""
        with self._lock:
            new, self._new = self._new, {}
        if not new:
            return
        with self._database.writing() as db:
            for site, sun in new.items():
                kept.keep(db, site, sun.clear.tobytes(), sun.cloudy.tobytes())


def keep_sunshine(app: Flask, database: Database) -> None:
    """Give an application its sunshine."""
    sunshines = Sunshines(database)
    app.config["SUNSHINES"] = sunshines

    @app.after_request
    def keep(response: Response) -> Response:
        sunshines.keep_new()
        return response


def sunshines() -> Sunshines:
    """Those of the application."""
    found: Sunshines = current_app.config["SUNSHINES"]
    return found
