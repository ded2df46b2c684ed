"""Telling the window from another thread, until it ends."""

import threading
import time

import pytest
import shiboken6
from PySide6.QtCore import QObject, Qt, Signal
from pytestqt.qtbot import QtBot

from kavlet.core.messages import say
from kavlet.desktop.thread_signal import ThreadSignal
from kavlet.desktop.worker import Worker


class Told(QObject):
    told = Signal(int)


def test_what_is_told_arrives_until_it_ends(qtbot: QtBot) -> None:
    heard: list[int] = []
    of = Told()
    of.told.connect(heard.append, Qt.ConnectionType.QueuedConnection)
    teller = ThreadSignal(of)
    thread = threading.Thread(target=lambda: teller.tell(lambda: of.told.emit(1)))
    thread.start()
    thread.join()
    qtbot.waitUntil(lambda: heard == [1])
    teller.end()
    teller.tell(lambda: of.told.emit(2))
    qtbot.wait(5)
    assert heard == [1]


def test_the_end_of_an_object_waits_for_what_is_being_told() -> None:
    of = QObject()
    teller, begun, said = ThreadSignal(of), threading.Event(), []

    def slowly() -> None:
        begun.set()
        time.sleep(0.05)
        said.append(1)

    thread = threading.Thread(target=lambda: teller.tell(slowly))
    thread.start()
    begun.wait(5)
    shiboken6.delete(of)
    assert said == [1]
    teller.tell(lambda: said.append(2))
    assert said == [1]
    thread.join()


@pytest.mark.parametrize("stopped", [True, False])
def test_a_worker_that_ends_at_its_work_is_not_told_of_it(stopped: bool, qtbot: QtBot) -> None:
    for _ in range(20):
        worker = Worker(lambda _error: None)
        worker.patience = 0.0
        heard: list[object] = []
        begun = threading.Event()

        def do(begun: threading.Event = begun) -> int:
            begun.set()
            time.sleep(0.002)
            return 3

        worker.ask("x", say("x"), do, heard.append)
        begun.wait(5)
        if stopped:
            worker.stop()
        shiboken6.delete(worker)
        qtbot.wait(5)
        assert not heard


def test_a_worker_that_was_stopped_takes_nothing_up() -> None:
    worker, done = Worker(lambda _error: None), []
    worker.stop()
    worker.ask("x", say("x"), lambda: done.append(1), done.append)
    assert not worker.working
    assert not done
