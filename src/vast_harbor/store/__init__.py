"""SQLite by plain SQL: the database, its migrations, and one module for each aggregate."""
