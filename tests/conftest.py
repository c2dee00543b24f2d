"""What several tests start from."""

import gc
import os
from collections.abc import Callable
from functools import cache
from typing import Any

import pytest
from hypothesis import settings

from asserted import CountAsserted
from sampled import THOROUGH
from vast_harbor import data
from vast_harbor.core.battery.bank import Bank
from vast_harbor.core.passage import Results, evaluate
from vast_harbor.core.rig.loads import Inverter, Load
from vast_harbor.core.rig.plan import Candidate, Plan
from vast_harbor.core.rig.reference import Reference
from vast_harbor.formats import rig_file as files
from whole_run import end_server, is_worker

# How fast a machine is must not decide a test.
settings.register_profile("steady", deadline=None, max_examples=60 if THOROUGH else 15)
# For the many runs of ``make mutants``.
settings.register_profile("quick", deadline=None, max_examples=20)
settings.load_profile(os.environ.get("HYPOTHESIS_PROFILE", "steady"))


def pytest_configure(config: pytest.Config) -> None:
    """Where assertions are counted, none may pass on nothing."""
    if config.getini("enable_assertion_pass_hook"):
        config.pluginmanager.register(CountAsserted(), "count-asserted")


def pytest_collection_modifyitems(config: pytest.Config, items: list[pytest.Item]) -> None:
    """What takes longest begins first, so that no worker is left with it when the others are done.

    Whole tasks of owners are tried in the browser; their details, of which API and parts of the interface are
    tried too, by ``make thorough``.
    """
    left = [] if THOROUGH else [item for item in items if item.get_closest_marker("detail")]
    if left:
        config.hook.pytest_deselected(items=left)
        items[:] = [item for item in items if item.get_closest_marker("detail") is None]
    items.sort(key=lambda item: "browser" not in item.path.parts)


def pytest_collection_finish() -> None:
    """What is there before the first test stays to the end: the collector need not look through it each time
    (a twelfth of the run)."""
    gc.freeze()
    gc.set_threshold(100_000, 50, 1000)


def pytest_sessionfinish(session: pytest.Session) -> None:
    """The server that the tests in the browser shared ends when all workers have."""
    if not is_worker():
        end_server(session.config)


# Straps, links and lugs cost nothing where a test works out the rest by hand.
NO_SMALL_PARTS = {
    f"{part}_price": 0.0 for part in ("hold_down", "link", "bars", "lug", "string_fuse", "shunt", "upkeep")
}


@pytest.fixture(scope="session")
def reference() -> Reference:
    return data.reference()


@pytest.fixture(scope="session")
def evaluated(reference: Reference) -> Callable[..., Results]:
    """A plan evaluated from its loads and whatever else differs from a plain 12 V boat; of the catalogue the
    verdict sees only what is named."""

    def build(
        loads: tuple[Load, ...],
        inverter: Inverter | None = None,
        found: tuple[Bank, ...] | None = (),
        **changes: Any,
    ) -> Results:
        fields: dict[str, Any] = {
            "name": "Test",
            "kind": "boat",
            "system_v": 12,
            "off_grid_nights": 60,
            "years_kept": 10,
            "battery_c": 15,
            "rest_c": 15,
            "standby_w": 0,
            "house_rule": "customary",
            "candidates": (Candidate("agm", "agm"), Candidate("lfp", "lfp")),
            "models": reference.catalogue,
        }
        overrides = NO_SMALL_PARTS | changes.pop("overrides", {})
        fields |= {"overrides": overrides} | changes
        plan = Plan(loads=loads, inverter=inverter or Inverter(), **fields)
        return evaluate(plan, reference, found=found)

    return build


@pytest.fixture(scope="session")
def demo_results(reference: Reference) -> Callable[[str], Results]:
    """The results of a demo rig."""

    @cache
    def build(name: str, found: tuple[Bank, ...] | None = None, **rig: Any) -> Results:
        document = data.demo_rig(name)
        document["rig"] |= rig
        return evaluate(files.to_plan(files.read(document, reference), reference), reference, found=found)

    # What is worked out of a plan never changes: one serves for all who look at it.
    return build
