"""The outbox and the showcase: kept on this machine, shown to nobody else."""

import http.client
import socket
from collections.abc import Iterator
from datetime import datetime
from pathlib import Path

import pytest

from kavlet.core.files.mail import Attachment, MailDraft, dumps
from kavlet.core.values.errors import KavletError
from kavlet.sharing import outbox, showcase
from kavlet.sharing.server import HOST, Server

WHEN = datetime(2026, 3, 1, 9, 30)


@pytest.fixture(autouse=True)
def _own_data(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "data"))


@pytest.fixture
def server() -> Iterator[Server]:
    made = Server()
    with socket.socket() as free:
        free.bind((HOST, 0))
        port = free.getsockname()[1]
    showcase.keep(showcase.Index(port))
    made.start()
    yield made
    made.stop()


def asked(server: Server, path: str, host: str | None = None, method: str = "GET") -> tuple[int, bytes, dict[str, str]]:
    held = http.client.HTTPConnection(HOST, server.port, timeout=5)
    try:
        held.putrequest(method, path, skip_host=True)
        held.putheader("Host", host if host is not None else f"{HOST}:{server.port}")
        held.endheaders()
        answer = held.getresponse()
        return answer.status, answer.read(), dict(answer.getheaders())
    finally:
        held.close()


def mail(subject: str = "Gates", to: tuple[str, ...] = ("bo@mirefen.example",)) -> bytes:
    return dumps(MailDraft(to, subject, "words", attached=(Attachment("gates.pdf", b"%PDF"),)))


def test_what_is_sent_is_kept_and_read_back() -> None:
    first = outbox.send(mail("One"), WHEN)
    second = outbox.send(mail("Two"), WHEN)  # in the same second
    assert first.path != second.path
    found = outbox.mails()
    assert {one.subject for one in found} == {"One", "Two"}
    assert (found[0].when, found[0].to, found[0].files) == (WHEN, "bo@mirefen.example", ("gates.pdf",))
    outbox.delete(first.path)
    assert [one.subject for one in outbox.mails()] == ["Two"]


def test_a_mail_to_nobody_is_refused() -> None:
    with pytest.raises(KavletError, match="no addressee"):
        outbox.send(mail(to=()))
    assert outbox.mails() == []


def test_only_mails_of_the_outbox_are_deleted(tmp_path: Path) -> None:
    other = tmp_path / "keep.eml"
    other.write_bytes(mail())
    outbox.delete(other)
    assert other.exists()


def test_an_address_lasts_over_versions(server: Server) -> None:
    first = showcase.publish("document|chart|k1", "Gates", b"<p>one</p>", WHEN)
    path = "/" + first.token
    assert asked(server, path)[:2] == (200, b"<p>one</p>")
    second = showcase.publish("document|chart|k1", "Gates, again", b"<p>two</p>", WHEN)
    assert second.token == first.token
    assert asked(server, path)[1] == b"<p>two</p>"
    assert asked(server, f"{path}/v1")[1] == b"<p>one</p>"
    assert asked(server, f"{path}/v3")[0] == 404
    assert [one.title for one in showcase.index().pages] == ["Gates, again"]


def test_what_is_taken_back_is_gone(server: Server) -> None:
    page = showcase.publish("k", "Gates", b"<p>one</p>")
    file = showcase.page_file(page.token, 1)
    showcase.take_back(page.token)
    assert asked(server, f"/{page.token}")[0] == 410
    assert not file.exists()
    again = showcase.publish("k", "Gates", b"<p>back</p>")
    assert again.token == page.token
    assert asked(server, f"/{page.token}")[1] == b"<p>back</p>"


@pytest.mark.parametrize("path", ["/", "/index.json", "/../index.json", "/%2e%2e/index.json", "//etc/passwd",
                                  "/aaaaaaaaaaaa", "/aaaaaaaaaaaa/1.html"])  # fmt: skip
def test_nothing_else_is_served(server: Server, path: str) -> None:
    showcase.publish("k", "Gates", b"<p>one</p>")
    assert asked(server, path)[0] in (400, 404)


@pytest.mark.parametrize("host", ["kavlet.example", "kavlet.example:80", "", "127.0.0.1.example.org", "[::1]"])
def test_a_foreign_name_is_refused(server: Server, host: str) -> None:
    page = showcase.publish("k", "Gates", b"<p>one</p>")
    assert asked(server, f"/{page.token}", host)[0] == 403


def test_only_reading_is_answered(server: Server) -> None:
    page = showcase.publish("k", "Gates", b"<p>one</p>")
    status, content, headers = asked(server, f"/{page.token}", method="HEAD")
    assert (status, content, headers["Content-Length"]) == (200, b"", "10")
    for method in ("POST", "PUT", "DELETE", "OPTIONS", "TRACE"):
        assert asked(server, f"/{page.token}", method=method)[0] == 501


def test_answers_say_how_they_may_be_used(server: Server) -> None:
    page = showcase.publish("k", "Gates", b"<p>one</p>")
    headers = asked(server, f"/{page.token}")[2]
    assert headers["X-Content-Type-Options"] == "nosniff"
    assert headers["Content-Type"] == "text/html; charset=utf-8"
    assert headers["Cache-Control"] == "no-store"


def test_nobody_else_can_reach_it(server: Server) -> None:
    with socket.socket(socket.AF_INET, socket.SOCK_STREAM) as other:
        other.settimeout(2)
        assert other.connect_ex((HOST, server.port)) == 0
    assert server._server is not None
    assert server._server.socket.getsockname()[0] == HOST


def test_a_port_that_addresses_depend_on_is_not_changed(server: Server) -> None:
    assert server.running
    showcase.publish("k", "Gates", b"<p>one</p>")
    with pytest.raises(KavletError, match="is in use"):
        Server().start()


def test_a_broken_index_is_as_none(tmp_path: Path) -> None:
    showcase.folder().mkdir(parents=True)
    (showcase.folder() / "index.json").write_text("{")
    assert showcase.index() == showcase.Index()
    del tmp_path
