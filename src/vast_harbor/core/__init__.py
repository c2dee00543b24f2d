"""Computation only: no web, no database, no files, no clock.

One module a phenomenon (``peukert``, ``temperature``, ``ageing``, ``money`` ...) holds plain
functions of numbers; ``stops`` puts them together for the stops of the passage and hangs the
workings on every figure.
"""
