"""Work in a process of its own, with a limit of time and memory: for what comes from outside or may run long.

Native code that reads files or combines paths holds the interpreter while it runs, and some of it can be made to run
for hours by a few bytes. Here it holds only a process that nobody waits for longer than agreed, and that gives way
to others. What is called must be a function of a module, with arguments and a result that can be pickled; the same
arguments give the same result as a call in this process.
"""

from __future__ import annotations

import atexit
import logging
import os
import pickle
import resource
import signal
import struct
import subprocess
import sys
import threading
import time
import traceback
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, field
from typing import IO, Any, NoReturn, TypeVar

from obrell.core.errors import Broke, ObrellError, TookTooLong, TooLarge
from obrell.core.workspace import Workspace

T = TypeVar("T")
log = logging.getLogger(__name__)

SECONDS = 4.0
"""Processor time that one piece of work may take, unless it is one of several with a budget."""
STUCK_TIMES, STUCK_S = 30.0, 900.0
"""Work is measured by processor time, so that a busy machine only delays it. On the clock it may take that many times
as long, and so many seconds at least: a process that waits for ever is ended."""
MEGABYTES = 500
NICENESS = 5
DAMAGED = "cannot be done: it is damaged, or far too large."
TOO_LONG = "takes longer than it may. Something simpler will do."
_START = "from obrell.core.aside import _serve; _serve()"
_LENGTH = struct.Struct("<Q")


@dataclass(slots=True)
class _Budget:
    """Seconds of processor time that are left for several pieces of work."""

    left: float


_MEMORY = None
"""Sent in place of an error when memory ran out."""
_budget: ContextVar[_Budget | None] = ContextVar("budget", default=None)
_MARK = "OBRELL_ASIDE"
_INSIDE = _MARK in os.environ
"""Whether this process is one that works aside."""


@dataclass(slots=True, eq=False)
class Pool:
    """At most ``most`` processes for one sort of work, so that other work never waits for them."""

    most: int
    idle: list[_Helper] = field(default_factory=list)
    slots: threading.BoundedSemaphore = field(init=False)

    def __post_init__(self) -> None:
        self.slots = threading.BoundedSemaphore(self.most)

    def ask(self, job: bytes) -> tuple[bool, Any, float]:
        """Run a job. Return whether it succeeded, its result or error, and the processor time it took, s."""
        with self.slots:
            try:
                helper = self.idle.pop()
            except IndexError:
                helper = _Helper()
            done, value, spent = helper.ask(job)
            if done or value is not _MEMORY:
                self.idle.append(helper)
            else:
                helper.end()
            return done, value, spent


OUTLINES = Pool(2)
"""For edits and drawings."""
READING = Pool(2)
"""For files."""


@dataclass(frozen=True, slots=True)
class Room:
    """Where a piece of work runs and how many megabytes it may take; ``ready`` runs first and is not counted."""

    pool: Pool = OUTLINES
    megabytes: int = MEGABYTES
    ready: Callable[[], object] | None = None


ROOM = Room()


def aside(what: str, function: Callable[..., T], *args: Any, room: Room = ROOM) -> T:
    """``function(*args)``, made in another process. Raises what it raises of our own errors, ``TookTooLong`` when
    it takes more time than it may or takes its process down, ``TooLarge`` when it takes more memory, and ``Broke`` for
    any other error; ``what`` begins the sentence that says so."""
    patient = _budget.get()
    if _INSIDE and patient is None:
        return function(*args)
    budget = patient or _Budget(SECONDS)
    if budget.left <= 0:
        raise TookTooLong(f"{what} {TOO_LONG}")
    given = budget.left
    try:
        if _INSIDE:
            done, value, spent = _forked(function, args, given)
        else:
            done, value, spent = room.pool.ask(pickle.dumps((room.ready, function, args, given, room.megabytes)))
    except _Ended as ended:
        budget.left = 0
        raise TookTooLong(f"{what} {ended.words}", given) from ended
    budget.left -= spent
    if done:
        made: T = value
        return made
    if isinstance(value, ObrellError):
        raise value
    if value is _MEMORY:
        raise TooLarge(f"{what} takes more memory than it may have ({room.megabytes:,} MB).")
    log.error("%s failed:\n%s", what, value)
    raise Broke(f"{what} failed: it is damaged, or holds something that is not known here.")


@contextmanager
def patience(seconds: float) -> Iterator[None]:
    """Within, all pieces of work together may take that many seconds of processor time."""
    before = _budget.set(_Budget(seconds))
    try:
        yield
    finally:
        _budget.reset(before)


def warm_up() -> None:
    """Have a process ready before it is needed."""
    aside("This", abs, 1)


class _Ended(Exception):
    """The process is gone, and why."""

    def __init__(self, words: str) -> None:
        super().__init__(words)
        self.words = words


class _Helper:
    """One process that works aside, asked by one thread at a time."""

    def __init__(self) -> None:
        self._process = subprocess.Popen(
            [sys.executable, "-c", _START], env=os.environ | {_MARK: "1"},
            stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL,
        )  # fmt: skip

    def ask(self, job: bytes) -> tuple[bool, Any, float]:
        """Whether it was done, the result or the error, and the seconds it took."""
        try:
            _send(_pipe(self._process.stdin), job)
            answer = _received(_pipe(self._process.stdout))
        except (OSError, EOFError):
            raise _Ended(self._why()) from None
        done, value, spent = pickle.loads(answer)
        return done, value, spent

    def end(self) -> None:
        """No more of it."""
        self._process.kill()
        self._process.wait()
        for pipe in (self._process.stdin, self._process.stdout):
            _pipe(pipe).close()

    def _why(self) -> str:
        self._process.kill()
        code = -self._process.wait()
        if code in (signal.SIGPROF, signal.SIGALRM):
            return TOO_LONG
        return DAMAGED


@atexit.register
def _end_all() -> None:
    for pool in (OUTLINES, READING):
        while pool.idle:
            pool.idle.pop().end()


def _pipe(pipe: IO[bytes] | None) -> IO[bytes]:
    assert pipe is not None
    return pipe


def _send(pipe: IO[bytes], content: bytes) -> None:
    pipe.write(_LENGTH.pack(len(content)) + content)
    pipe.flush()


def _received(pipe: IO[bytes]) -> bytes:
    (length,) = _LENGTH.unpack(_exactly(pipe, _LENGTH.size))
    return _exactly(pipe, length)


def _exactly(pipe: IO[bytes], length: int) -> bytes:
    content = pipe.read(length)
    if len(content) < length:
        raise EOFError
    return content


def _serve() -> None:
    """Work until nobody asks any more. What takes too long is ended by the system, whoever still waits for it."""
    os.nice(NICENESS)
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    ask, answer = sys.stdin.buffer, os.fdopen(os.dup(1), "wb")
    os.dup2(2, 1)
    while True:
        try:
            ready, function, args, seconds, megabytes = pickle.loads(_received(ask))
        except EOFError:
            return
        if ready is not None:
            ready()
        before = time.process_time()
        done, value = _worked(function, args, seconds, megabytes)
        _send(answer, pickle.dumps((done, value, time.process_time() - before)))


def _worked(
    function: Callable[..., Any], args: tuple[Any, ...], seconds: float, megabytes: int = MEGABYTES
) -> tuple[bool, Any]:  # fmt: skip
    signal.setitimer(signal.ITIMER_PROF, seconds)
    signal.setitimer(signal.ITIMER_REAL, max(STUCK_S, STUCK_TIMES * seconds))
    _limit_memory(_now_mapped() + (megabytes << 20))
    try:
        with Workspace().entered():
            return True, function(*args)
    except ObrellError as error:
        error.__cause__ = error.__context__ = None
        return False, error
    except MemoryError:
        return False, _MEMORY
    except Exception:
        return False, traceback.format_exc()
    finally:
        signal.setitimer(signal.ITIMER_PROF, 0)
        signal.setitimer(signal.ITIMER_REAL, 0)
        _limit_memory(resource.RLIM_INFINITY)


def _forked(function: Callable[..., Any], args: tuple[Any, ...], seconds: float) -> tuple[bool, Any, float]:
    """Run a function in a fork of this process, so that it can be ended alone. Its processor time counts towards the
    budget of this process."""
    left = signal.getitimer(signal.ITIMER_PROF)[0] or seconds
    read, write = os.pipe()
    child = os.fork()
    if child == 0:
        _answer_once(write, function, args, min(seconds, left))
    os.close(write)
    with os.fdopen(read, "rb") as pipe:
        answer = pipe.read()
    _, status, used = os.wait4(child, 0)
    spent = used.ru_utime + used.ru_stime
    signal.setitimer(signal.ITIMER_PROF, max(0.001, left - spent))
    if status:
        ended = os.WIFSIGNALED(status) and os.WTERMSIG(status) == signal.SIGPROF
        raise _Ended(TOO_LONG if ended else DAMAGED)
    done, value = pickle.loads(answer)
    return done, value, spent


def _answer_once(write: int, function: Callable[..., Any], args: tuple[Any, ...], seconds: float) -> NoReturn:
    try:
        answer = pickle.dumps(_worked(function, args, seconds))
        with os.fdopen(write, "wb") as pipe:
            pipe.write(answer)
    except BaseException:
        os._exit(1)
    os._exit(0)


def _limit_memory(most: int) -> None:
    _, hard = resource.getrlimit(resource.RLIMIT_AS)
    resource.setrlimit(resource.RLIMIT_AS, (most, hard))


def _now_mapped() -> int:
    with open("/proc/self/statm", encoding="ascii") as pages:
        return int(pages.read().split()[0]) * resource.getpagesize()
