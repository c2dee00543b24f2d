"""The database and the day that the application serves."""

from datetime import date

from flask import current_app

from vast_harbor.store.database import Database


def database() -> Database:
    """The database that the application was made with."""
    found: Database = current_app.config["DATABASE"]
    return found


def today() -> str:
    """The day that figures hold for, ISO 8601."""
    found: str = current_app.config["TODAY"]()
    return found


def counted_today() -> int:
    """The same as a counted day (``date.toordinal``)."""
    return date.fromisoformat(today()).toordinal()
