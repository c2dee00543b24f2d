"""The application, and the server that it runs in."""
