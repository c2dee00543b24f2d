"""Parts of the API that describe themselves when somebody asks, so that the program starts sooner."""

from collections.abc import Callable
from typing import Any

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.types import ParametersTuple


class Blueprint(APIBlueprint):
    """A part of the API. What its calls take and answer is worked out by ``describe`` only."""

    def __init__(self, *names: Any, **options: Any) -> None:
        super().__init__(*names, **options)
        self._undescribed: list[tuple[str, Callable[..., Any], dict[str, Any]]] = []

    def _collect_openapi_info(self, rule: str, func: Callable[..., Any], **told: Any) -> ParametersTuple:
        self._undescribed.append((rule, func, told))
        return super()._collect_openapi_info(rule, func, **told | {"doc_ui": False})

    def describe(self) -> None:
        """Work out the description of every call, once; an application that registers it then has it."""
        for rule, func, told in self._undescribed:
            super()._collect_openapi_info(rule, func, **told)
        self._undescribed.clear()
