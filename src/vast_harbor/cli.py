"""The command line: ``vast-harbor serve | demo | compare | report | signal-k | backup | restore | prepare |
openapi | schema``."""

import argparse
import contextlib
import errno
import gc
import json
import os
import signal
import sqlite3
import sys
import time
from datetime import UTC, date, datetime
from pathlib import Path
from types import FrameType

from platformdirs import user_data_path

from vast_harbor import __version__, data, memory
from vast_harbor.core.figures.display import Style
from vast_harbor.core.packages import packages_of
from vast_harbor.core.passage import evaluate
from vast_harbor.formats import rig_file as files
from vast_harbor.formats.html_page import PAPERS
from vast_harbor.formats.report.document import report
from vast_harbor.formats.rig_document import RigFile
from vast_harbor.formats.table import comparison_table, results_json
from vast_harbor.phrases import phrase
from vast_harbor.store import backup, rigs
from vast_harbor.store.database import Damaged, Database, get_setting, set_setting
from vast_harbor.store.salvage import salvage
from vast_harbor.store.scratch import scratch, sweep
from vast_harbor.store.trouble import Trouble
from vast_harbor.web.base import security
from vast_harbor.web.harbor.cards import renew_in_background
from vast_harbor.web.log import live_routes
from vast_harbor.web.log.demo_log import add_demo_log
from vast_harbor.web.log.live import begin_of
from vast_harbor.web.log.live_routes import played_trial
from vast_harbor.web.log.signal_k_server import SignalKServer
from vast_harbor.web.plan.lists import interface_lists
from vast_harbor.web.server.app import create_app
from vast_harbor.web.server.http_server import EVERYWHERE, HERE, make_server
from vast_harbor.web.server.pairing import let_phones_in, local_addresses

PORT = 8650
DEMO_MARK = "demo"


def default_database() -> Path:
    """Where the owner's rigs are kept unless another file is named."""
    return user_data_path("vast-harbor") / "harbor.sqlite3"


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="vast-harbor", description="Size and choose a house battery bank.")
    parser.add_argument(
        "--version", action="version", version=phrase("command_line.cli.vast_harbor", version=__version__)
    )
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")
    serve = commands.add_parser("serve", help=phrase("command_line.cli.serve_help"))
    demo = commands.add_parser("demo", help=phrase("command_line.cli.demo_help"))
    for command, path in ((serve, default_database()), (demo, Path(".demo/harbor.sqlite3"))):
        command.add_argument(
            "--data", type=Path, default=path, metavar="FILE", help=phrase("command_line.cli.database_file")
        )
        command.add_argument(
            "--port", type=int, default=PORT, help=phrase("command_line.cli.port_127_0_0", port=PORT)
        )
        command.add_argument("--lan", action="store_true", help=phrase("command_line.cli.lan_help"))
    compare = commands.add_parser("compare", help=phrase("command_line.cli.compare_help"))
    report_ = commands.add_parser("report", help=phrase("command_line.cli.report_help"))
    for command in (compare, report_):
        which = command.add_mutually_exclusive_group(required=True)
        which.add_argument(
            "file", type=Path, nargs="?", metavar="FILE", help=phrase("command_line.cli.file_help")
        )
        which.add_argument(
            "--demo",
            choices=data.DEMO_RIGS,
            metavar="NAME",
            help=phrase("command_line.cli.demo_rig", demo_rigs=", ".join(data.DEMO_RIGS)),
        )
    report_.add_argument(
        "--paper", choices=tuple(PAPERS), default="a4", help=phrase("command_line.cli.paper_size_default_a4")
    )
    compare.add_argument("--json", action="store_true", help=phrase("command_line.cli.results_workings"))
    backup_ = commands.add_parser("backup", help=phrase("command_line.cli.backup_help"))
    backup_.add_argument("file", type=Path, metavar="FILE", help=phrase("command_line.cli.file_write"))
    restore_ = commands.add_parser("restore", help=phrase("command_line.cli.restore_help"))
    restore_.add_argument(
        "file", type=Path, metavar="FILE", help=phrase("command_line.cli.file_restore_from")
    )
    for command in (backup_, restore_):
        command.add_argument(
            "--data",
            type=Path,
            default=default_database(),
            metavar="FILE",
            help=phrase("command_line.cli.database_file"),
        )
    signal_k = commands.add_parser("signal-k", help=phrase("command_line.cli.signal_k_help"))
    signal_k.add_argument(
        "file", type=Path, nargs="?", metavar="FILE", help=phrase("command_line.cli.file_help")
    )
    signal_k.add_argument(
        "--demo", choices=data.DEMO_RIGS, default="kittiwake", metavar="NAME",
        help=phrase("command_line.cli.demo_rig", demo_rigs=", ".join(data.DEMO_RIGS)),
    )  # fmt: skip
    signal_k.add_argument("--port", type=int, default=8375, help=phrase("command_line.cli.signal_k_port"))
    signal_k.add_argument(
        "--hours-per-second", type=float, default=1.0, help=phrase("command_line.cli.signal_k_speed")
    )
    commands.add_parser("prepare", help=phrase("command_line.cli.prepare_help"))
    commands.add_parser("openapi", help=phrase("command_line.cli.openapi_help"))
    schema = commands.add_parser("schema", help=phrase("command_line.cli.schema_help"))
    schema.add_argument(
        "--openapi", action="store_true", help=phrase("command_line.cli.components_openapi_description")
    )
    schema.add_argument("--interface", action="store_true", help=phrase("command_line.cli.interface_lists"))
    return parser


def _fail(message: str) -> int:
    print(phrase("command_line.cli.vast_harbor_message", message=message), file=sys.stderr)
    return 2


def _rig_named(args: argparse.Namespace) -> RigFile | None:
    """The rig that is named; None where it cannot be read, which is told."""
    try:
        document = files.loads_text(args.file.read_bytes()) if args.file else data.demo_rig(args.demo)
        return files.read(document, data.reference())
    except OSError as error:
        _fail(f"{args.file}: {error.strerror}.")
    except files.RigFileError as error:
        for problem in error.problems:
            _fail(f"{problem.path or args.file}: {problem.message}")
    return None


def _signal_k(args: argparse.Namespace) -> int:
    """Play the trial of a rig as a Signal K server, until it is ended."""
    rig, reference = _rig_named(args), data.reference()
    if rig is None:
        return 2
    played = played_trial(evaluate(files.to_plan(rig, reference, date.today().isoformat()), reference))
    if not played:
        return _fail(phrase("command_line.cli.signal_k_no_bank"))
    begin = begin_of(played, time.time(), datetime.now().astimezone().tzinfo or UTC)
    try:
        server = SignalKServer(args.port, lambda: iter(played), begin, args.hours_per_second)
    except (OSError, OverflowError) as error:
        return _fail(phrase("command_line.cli.signal_k_port_taken", port=args.port, why=str(error)))
    print(phrase("command_line.cli.signal_k_serving", port=server.port), flush=True)
    with contextlib.suppress(KeyboardInterrupt):
        server.serve_forever()
    server.server_close()
    return 0


def _print_rig(args: argparse.Namespace) -> int:
    """The comparison, or the report, of a rig."""
    rig, reference = _rig_named(args), data.reference()
    if rig is None:
        return 2
    style = Style(rig.rig.units, rig.rig.currency, locale=rig.rig.numbers)
    today = date.today().isoformat()
    results = evaluate(files.to_plan(rig, reference, today), reference)
    packages_of(results, reference)
    if args.command == "report":
        print(report(results, reference, style, today, args.paper))
    elif args.json:
        print(json.dumps(results_json(results, style), ensure_ascii=False, indent=2))
    else:
        print(comparison_table(results, style))
    return 0


def _serve(args: argparse.Namespace) -> int:
    memory.share()
    sweep(args.data)
    try:
        database = Database(args.data)
        with database.writing() as db:
            # What was being taken in when the program was killed did not come whole.
            rigs.drop_coming(db)
        if args.command == "demo" and not _fill_demo(database):
            return _fail(phrase("command_line.cli.contains_own_rigs_demo", data=args.data))
        _keep_today(args.data)
        addresses = local_addresses() if args.lan else []
        app = create_app(database, security.LOCAL_HOSTS | set(addresses))
        server = make_server(app, args.port, EVERYWHERE if addresses else HERE)
        if addresses:
            let_phones_in(app, server.effective_port, addresses)
    except Damaged as error:
        return _fail(f"{error} {_saved(args.data)}")
    except (Trouble, backup.BadCopy) as error:
        return _fail(str(error))
    except OSError as error:
        return _fail(_port_taken(args.port, error))
    # Figures hold no cycles, so the collector finds nothing. In pairs, 95 of 100 edits of a large rig took
    # under 220 ms without both lines, 105 with the first, 92 with both.
    data.reference()
    gc.freeze()
    gc.set_threshold(100_000, 50, 100)
    # An edit that lets go of the interpreter waits this long at most until it has it back [s].
    sys.setswitchinterval(0.001)
    renew_in_background(app)
    live_routes.go_on(app)
    # A shell that starts it in the background has it ignore interrupts: who sends one means it.
    for asked_to_end in (signal.SIGTERM, signal.SIGINT):
        signal.signal(asked_to_end, _end)
    try:
        print(
            phrase("command_line.cli.vast_harbor_http_127", effective_port=server.effective_port), flush=True
        )
        if args.lan:
            address = f"http://{addresses[0]}:{server.effective_port}" if addresses else ""
            said = phrase("command_line.cli.lan", address=address)
            print(said if addresses else phrase("command_line.cli.no_lan"), flush=True)
        server.run()
    except KeyboardInterrupt:
        server.close()
    finally:
        database.close()
    return 0


def _port_taken(port: int, error: OSError) -> str:
    if error.errno == errno.EADDRINUSE:
        return phrase("command_line.cli.port_use_perhaps_vast", port=port)
    return phrase("command_line.cli.port_cannot_used", port=port, strerror=error.strerror or error)


def _saved(path: Path) -> str:
    """Save what can be read of a damaged file; what became of it, and what to do."""
    to = path.with_name(f"{path.stem}-saved-{datetime.now():%Y-%m-%d-%H%M%S}.sqlite3")
    copies = backup.whole_copies(path)
    newest = phrase("command_line.cli.newest_copy", copy=copies[0], data=path) if copies else ""
    try:
        count = salvage(path, to, copies)
    except (OSError, sqlite3.Error, Trouble) as error:
        return phrase("command_line.cli.readable_part_could_saved", error=error) + newest
    if not count:
        to.unlink(missing_ok=True)
        return phrase("command_line.cli.nothing_readable") + newest
    return phrase("command_line.cli.rigs_saved", count=count, to=to, data=path) + newest


def _keep_today(path: Path) -> None:
    """Keep a copy of each day of use; that it cannot be kept stops nobody, and is said."""
    try:
        backup.keep(path, date.today().isoformat())
    except (OSError, sqlite3.Error, Trouble, backup.BadCopy) as error:
        print(phrase("command_line.cli.vast_harbor_todays_copy", path=path, error=error), file=sys.stderr)


def _backup(args: argparse.Namespace) -> int:
    try:
        backup.verify(args.data)
        print(phrase("command_line.cli.rigs", data=args.data, copy=backup.copy(args.data, args.file)))
    except (OSError, sqlite3.Error, Trouble, backup.BadCopy) as error:
        return _fail(str(error))
    return 0


def _restore(args: argparse.Namespace) -> int:
    try:
        before = backup.put_back(args.file, args.data, date.today().isoformat())
        Database(args.data).close()
    except (OSError, sqlite3.Error, Trouble, backup.BadCopy) as error:
        return _fail(str(error))
    print(phrase("command_line.cli.rigs_file_data", file=args.file, data=args.data))
    if before is not None:
        print(phrase("command_line.cli.earlier_rigs_kept", before=before))
    return 0


def _end(number: int, frame: FrameType | None) -> None:
    """End as Ctrl+C does: what was asked is answered, and the journal is folded into the file."""
    raise KeyboardInterrupt


def _fill_demo(database: Database) -> bool:
    reference = data.reference()
    with database.writing() as db:
        if get_setting(db, DEMO_MARK):
            return True
        if rigs.names(db):
            return False
        for place, name in enumerate(data.DEMO_RIGS):
            document = files.to_document(files.read(data.demo_rig(name), reference))
            rig_id = rigs.add(db, document, place=1000 * place)
            add_demo_log(db, rig_id, name, int(time.time()))
        set_setting(db, DEMO_MARK, __version__)
    return True


def _prepare() -> int:
    """Run one demo rig once: the compiled loop is then kept on disk."""
    reference = data.reference()
    plan = files.to_plan(files.read(data.demo_rig(data.DEMO_RIGS[0]), reference), reference)
    evaluate(plan, reference).simulated.run()
    return 0


def _openapi() -> int:
    with scratch() as folder:
        app = create_app(Database(folder / "empty.sqlite3"))
        print(app.test_client().get("/api/openapi.json").get_data(as_text=True))
    return 0


def main(argv: list[str] | None = None) -> int:
    """Run the command line.

    Args:
        argv: arguments; those of the process when None.

    Returns:
        Exit status: 0 done, 2 a clear sentence on standard error.
    """
    args = _parser().parse_args(argv)
    try:
        if args.command in ("compare", "report"):
            return _print_rig(args)
        if args.command == "signal-k":
            return _signal_k(args)
        if args.command == "backup":
            return _backup(args)
        if args.command == "restore":
            return _restore(args)
        if args.command == "prepare":
            return _prepare()
        if args.command == "openapi":
            return _openapi()
        if args.command == "schema" and args.interface:
            print(interface_lists(), end="")
            return 0
        if args.command == "schema":
            described = files.json_schema_components() if args.openapi else files.json_schema()
            print(json.dumps(described, ensure_ascii=False, indent=2))
            return 0
        return _serve(args)
    except BrokenPipeError:
        os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0


if __name__ == "__main__":
    sys.exit(main())
