"""A private MariaDB instance under var/: own folder, own socket, loopback only, no system service touched."""

from __future__ import annotations

import contextlib
import getpass
import os
import random
import secrets
import signal
import socket
import subprocess
import time
from dataclasses import dataclass
from pathlib import Path

from house.ground import LOGS, VAR, SetupProblem, run_logged
from house.kept import kept

DATABASE = "arrow_bench"
USER = "arrow_bench"
# everything in our own databases (the one in use, one being restored, the tests' own), nothing on the server around them
RIGHTS = rf"GRANT ALL PRIVILEGES ON `%arrow\_bench%`.* TO '{USER}'@'127.0.0.1'"
PORTS = (20_000, 32_000)
RELEASED = 10.0  # s that a port may be held by what is left of a server
# a web thread keeps one connection open: their number bounds what the web takes, and the server must take more than that
WEB_PROCESSES, WEB_THREADS = 4, 48
OTHERS = 64  # workers, studies, commands, a backup
CONNECTIONS = WEB_PROCESSES * WEB_THREADS + OTHERS
GRANT_OPTION = 1024  # the bit of MariaDB's privilege mask


@dataclass(frozen=True)
class Instance:
    """One MariaDB instance: where its data lies and how to reach it."""

    folder: Path

    @property
    def data(self) -> Path:
        return self.folder / "data"

    @property
    def socket(self) -> Path:
        # a socket path may have 107 bytes at most, so it stands outside deep check-outs
        return Path(f"/tmp/arrow-bench-{os.getuid()}-{abs(hash_of(self.folder))}.sock")

    @property
    def pid_file(self) -> Path:
        return self.folder / "mariadbd.pid"

    @property
    def port_file(self) -> Path:
        return self.folder / "port"

    @property
    def password_file(self) -> Path:
        return self.folder / "password"

    @property
    def name_file(self) -> Path:
        """Names the database in use, where a backup was brought back beside the first one."""
        return self.folder / "name"

    @property
    def name(self) -> str:
        return self.name_file.read_text().strip() if self.name_file.exists() else DATABASE

    def use(self, name: str) -> None:
        """Make a database the one in use, at once and for good."""
        part = self.folder / "name.part"
        with open(part, "w") as out:
            out.write(name)
            out.flush()
            os.fsync(out.fileno())
        os.replace(part, self.name_file)

    @property
    def password(self) -> str:
        return self.password_file.read_text().strip()

    @property
    def port(self) -> int:
        return int(self.port_file.read_text())

    def environment(self) -> dict[str, str]:
        """What the application needs to find this instance."""
        return {
            "ARROW_BENCH_DB_HOST": "127.0.0.1",
            "ARROW_BENCH_DB_PORT": str(self.port),
            "ARROW_BENCH_DB_NAME": self.name,
            "ARROW_BENCH_DB_USER": USER,
            "ARROW_BENCH_DB_PASSWORD": self.password,
        }


def hash_of(folder: Path) -> int:
    import zlib

    return zlib.crc32(str(folder.resolve()).encode())


def default_instance() -> Instance:
    return Instance(VAR / "database")


def free_port() -> int:
    """A free port below those that the system gives to callers.

    Among those, a client that calls a dead server again and again is at last given the server's own port for its end, talks to itself,
    and keeps the server from coming back there.
    """
    while True:
        port = random.randrange(*PORTS)
        with socket.socket() as probe, contextlib.suppress(OSError):
            probe.bind(("127.0.0.1", port))
            return port


def _port(instance: Instance, moving: bool) -> int:
    """The port that it had: whoever uses it finds it again. One of its threads may hold it for a moment after it was killed.

    Where it stays taken, another one if it is `moving`. Raises `SetupProblem` if it is not.
    """
    try:
        port = instance.port
    except (OSError, ValueError):
        return free_port()
    until = time.monotonic() + RELEASED
    while time.monotonic() < until:
        with socket.socket() as probe, contextlib.suppress(OSError):
            probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
            probe.bind(("127.0.0.1", port))
            return port
        time.sleep(0.1)
    if not moving:
        raise SetupProblem(f"Port {port}, where web and workers look for the database, is taken by another program.")
    return free_port()


def running_pid(instance: Instance) -> int | None:
    """The process id of this instance's server when it lives, also one that an earlier run left behind."""
    try:
        pid = int(instance.pid_file.read_text())
        command = Path(f"/proc/{pid}/cmdline").read_bytes()
    except (OSError, ValueError):
        return None
    return pid if b"mariadbd" in command and str(instance.data).encode() in command else None


def owner(instance: Instance) -> tuple[int, str] | None:
    """The command of the bench that runs this instance: its process and its words; None where nobody does, or who did is gone."""
    if running_pid(instance) is None:
        return None
    try:
        pid = int((instance.folder / "owner").read_text())
        words = Path(f"/proc/{pid}/cmdline").read_bytes().decode(errors="replace").split("\0")
    except (OSError, ValueError):
        return None
    return (pid, " ".join(words).strip()) if any("bench" in word for word in words) else None


def claim(instance: Instance) -> bool:
    """Whether this command stops the instance at its end: nobody runs it, or the one who started it is gone."""
    owner_file = instance.folder / "owner"
    if owner(instance) is not None:
        return False
    instance.folder.mkdir(parents=True, exist_ok=True)
    owner_file.write_text(str(os.getpid()))
    return True


def create(instance: Instance) -> None:
    instance.folder.mkdir(parents=True, exist_ok=True)
    run_logged(
        "mariadb: creating the database folder",
        [
            "mariadb-install-db",
            "--no-defaults",
            f"--user={getpass.getuser()}",
            f"--datadir={instance.data}",
            "--auth-root-authentication-method=normal",
            "--skip-test-db",
        ],
        "The database folder could not be created.",
    )


def start(instance: Instance, timeout: float = 60, moving: bool = True) -> None:
    """Start (or adopt) the server and make sure that our database and user exist; while others use it, it is not `moving`."""
    if running_pid(instance) is None:
        fresh = not instance.data.exists()
        if fresh:
            create(instance)
        elif not (instance.data / "mysql").is_dir():
            raise SetupProblem(
                f"The database folder {instance.data} is broken: its system tables are missing. "
                "Restore it from a backup, or move it away to start empty."
            )
        _launch(instance, timeout, moving)
        _hold_room(instance)
    if not instance.password_file.exists():
        _secure(instance)
    else:
        _least_rights(instance)


def _launch(instance: Instance, timeout: float, moving: bool) -> None:
    LOGS.mkdir(parents=True, exist_ok=True)
    no_files = instance.folder / "no-files"
    scratch = instance.folder / "tmp"  # its own: a server that starts clears away what it takes for leftovers of its last run
    for folder in (no_files, scratch):
        folder.mkdir(exist_ok=True, mode=0o700)
    port = _port(instance, moving)
    log = (LOGS / "mariadbd.log").open("ab")
    process = subprocess.Popen(
        [
            "/usr/sbin/mariadbd",
            "--no-defaults",
            f"--user={getpass.getuser()}",
            f"--datadir={instance.data}",
            f"--socket={instance.socket}",
            f"--port={port}",
            "--bind-address=127.0.0.1",
            f"--pid-file={instance.pid_file}",
            "--character-set-server=utf8mb4",
            "--collation-server=utf8mb4_unicode_ci",
            "--sql-mode=STRICT_TRANS_TABLES,NO_ZERO_DATE,NO_ZERO_IN_DATE,ERROR_FOR_DIVISION_BY_ZERO,NO_ENGINE_SUBSTITUTION",
            "--innodb-flush-log-at-trx-commit=1",
            "--skip-name-resolve",
            "--local-infile=0",
            f"--secure-file-priv={no_files}",
            f"--tmpdir={scratch}",
            "--max-allowed-packet=64M",
            f"--max-connections={CONNECTIONS}",
            "--innodb-buffer-pool-size=512M",
            "--innodb-log-file-size=256M",
        ],
        stdout=log,
        stderr=subprocess.STDOUT,
        stdin=subprocess.DEVNULL,
        start_new_session=True,
    )
    deadline = time.monotonic() + timeout
    while time.monotonic() < deadline:
        if process.poll() is not None:
            raise SetupProblem(
                f"The database did not start: its folder {instance.data} may be damaged or in use. Details: {LOGS / 'mariadbd.log'}"
            )
        with contextlib.suppress(OSError), socket.create_connection(("127.0.0.1", port), timeout=0.5):
            instance.port_file.write_text(str(port))
            return
        time.sleep(0.05)
    process.kill()
    raise SetupProblem(f"The database did not answer within {timeout:.0f} s. Details: {LOGS / 'mariadbd.log'}")


def _hold_room(instance: Instance) -> None:
    """Take the disk's room for the log now: a server that cannot write its log ends, one that cannot grow a table only says so."""
    log = instance.data / "ib_logfile0"
    with contextlib.suppress(OSError):
        # the command asks the file system and nothing else; Python's own call would write into the log where that cannot do it
        subprocess.run(["fallocate", f"--length={log.stat().st_size}", str(log)], capture_output=True, check=False)


def _secure(instance: Instance) -> None:
    """A fresh root account has no password: give our user a generated one and drop all others."""
    password = secrets.token_urlsafe(24)
    statements = f"""
        CREATE DATABASE IF NOT EXISTS {DATABASE} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;
        CREATE OR REPLACE USER '{USER}'@'127.0.0.1' IDENTIFIED BY '{password}';
        {RIGHTS};
        DELETE FROM mysql.global_priv WHERE User IN ('root', '') AND User <> '{USER}';
        FLUSH PRIVILEGES;
    """
    done = subprocess.run(
        ["mariadb", "--no-defaults", f"--socket={instance.socket}", "--user=root"],
        input=statements,
        text=True,
        capture_output=True,
        check=False,
    )
    if done.returncode:
        raise SetupProblem(f"The database accounts could not be set up: {done.stderr.strip()}")
    kept(instance.password_file, lambda: password)


def _least_rights(instance: Instance) -> None:
    """Instances of earlier releases gave the account every right on the server: leave it those on its own databases."""

    def ask(statements: str) -> str:
        done = subprocess.run(
            ["mariadb", "--no-defaults", "--host=127.0.0.1", f"--port={instance.port}", f"--user={USER}", "--batch", "-N"],
            input=statements,
            text=True,
            capture_output=True,
            check=False,
            env=os.environ | {"MYSQL_PWD": instance.password},
        )
        if done.returncode:
            raise SetupProblem(f"The rights of the database account could not be read or set: {done.stderr.strip()}")
        return done.stdout

    if "ALL PRIVILEGES ON *.*" not in ask("SHOW GRANTS"):
        return
    ask(
        f"UPDATE mysql.global_priv SET Priv = JSON_SET(Priv, '$.access', JSON_VALUE(Priv, '$.access') | {GRANT_OPTION})"
        f" WHERE User = '{USER}'; FLUSH PRIVILEGES"
    )
    ask(f"{RIGHTS}; REVOKE ALL PRIVILEGES ON *.* FROM '{USER}'@'127.0.0.1'; REVOKE GRANT OPTION ON *.* FROM '{USER}'@'127.0.0.1'")


def stop(instance: Instance, timeout: float = 30) -> None:
    pid = running_pid(instance)
    if pid is None:
        return
    os.kill(pid, signal.SIGTERM)
    deadline = time.monotonic() + timeout
    while running_pid(instance) is not None and time.monotonic() < deadline:
        with contextlib.suppress(ChildProcessError):
            os.waitpid(pid, os.WNOHANG)
        time.sleep(0.05)
    if running_pid(instance) is not None:
        os.kill(pid, signal.SIGKILL)
