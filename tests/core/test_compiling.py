"""The very first start: kernels are compiled by other processes, and whoever draws meanwhile waits."""

import os
import subprocess
import sys
import threading

import numpy as np

from obrell.core.raster import compiling, jit
from obrell.core.raster.layers import Layer, PixelBox
from obrell.core.raster.quantise import quantise

FIRST_START = """
from obrell.core.raster import compiling, jit
assert not jit.compiled()
compiling.modules = lambda: ["quantise", "shares"]
one = compiling.Compilation()
one.start()
assert one.ready.wait(120)
assert (one.done, one.total) == (2, 2)
"""


def test_processes_leave_what_they_compiled_for_the_next_start(tmp_path):
    there = {**os.environ, "OBRELL_CACHE": str(tmp_path)}
    subprocess.run([sys.executable, "-c", FIRST_START], env=there, check=True)
    names = {path.name.split(".")[0] for path in tmp_path.rglob("*.nbi")}
    assert {"quantise", "shares"} <= names


def test_all_kernels_are_in_the_modules_that_are_compiled():
    assert {one.function.__module__.rsplit(".", 1)[1] for one in jit._KERNELS} <= set(compiling.modules())


def test_processes_that_fail_hold_nothing_up(monkeypatch):
    monkeypatch.setattr(sys, "executable", "/bin/false")
    compilation = compiling.Compilation()
    compilation.start()
    assert compilation.ready.wait(60)
    assert compilation.done == 0
    assert quantise(Layer.clear(PixelBox(0, 0, 3, 2))).shape == (2, 3, 4)


class Gate(threading.Event):
    """An event that says when somebody waits for it."""

    def __init__(self):
        super().__init__()
        self.asked = threading.Event()

    def wait(self, timeout=None):
        self.asked.set()
        return super().wait(timeout)


def test_a_kernel_that_is_needed_waits_until_it_is_compiled(monkeypatch):
    gate, answers = Gate(), []
    monkeypatch.setattr(jit, "_HELD", [gate])
    kernel = jit._Kernel(lambda value: value + 1, ("int64(int64)",))
    thread = threading.Thread(target=lambda: answers.append(kernel(np.int64(1))))
    thread.start()
    assert gate.asked.wait(30)
    assert kernel._made is None
    gate.set()
    thread.join(30)
    assert answers == [2]
