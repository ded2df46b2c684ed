"""Shows published pages on 127.0.0.1, to nobody else: no listings, no other files, no foreign host's name."""

import re
import threading
from http import HTTPStatus
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer

import msgspec

from kavlet.core.files import atomic
from kavlet.core.messages import say
from kavlet.core.values.errors import KavletError
from kavlet.sharing import showcase

HOST = "127.0.0.1"
PATH = re.compile(r"/([A-Za-z0-9_-]{12})(?:/v([1-9][0-9]{0,4}))?")
TRIED = 40  # ports after the first, where that is taken
HEADERS = {
    "Content-Type": "text/html; charset=utf-8",
    "X-Content-Type-Options": "nosniff",
    "X-Frame-Options": "DENY",
    "Referrer-Policy": "no-referrer",
    "Cache-Control": "no-store",
    "Cross-Origin-Resource-Policy": "same-origin",
}


class _Handler(BaseHTTPRequestHandler):
    """Answers GET and HEAD for what is published, and nothing else."""

    server_version, sys_version = "Kavlet", ""
    timeout = 10  # seconds for a request to arrive

    def do_GET(self) -> None:
        """A page."""
        self._answer(with_body=True)

    def do_HEAD(self) -> None:
        """A page's headers."""
        self._answer(with_body=False)

    def log_message(self, format: str, *args: object) -> None:  # noqa: A002 - the library's name
        """Nobody's visits are noted."""

    def _answer(self, with_body: bool) -> None:
        status, content = self._found()
        self.send_response(status)
        for name, value in HEADERS.items():
            self.send_header(name, value)
        self.send_header("Content-Length", str(len(content)))
        self.end_headers()
        if with_body:
            self.wfile.write(content)

    def _found(self) -> tuple[HTTPStatus, bytes]:
        port = self.connection.getsockname()[1]
        if self.headers.get("Host") not in (f"{HOST}:{port}", f"localhost:{port}"):  # a foreign name led here
            return HTTPStatus.FORBIDDEN, b"Forbidden"
        asked = PATH.fullmatch(self.path.partition("?")[0])
        page = next(
            (publication for publication in showcase.index().pages if asked and publication.token == asked[1]), None
        )
        if asked is None or page is None:
            return HTTPStatus.NOT_FOUND, b"Not found"
        if page.taken_back:
            return HTTPStatus.GONE, b"This page was taken back."
        version = int(asked[2]) if asked[2] else page.versions[-1].number
        if not 1 <= version <= len(page.versions):
            return HTTPStatus.NOT_FOUND, b"Not found"
        try:
            return HTTPStatus.OK, atomic.read(showcase.page_file(page.token, version), showcase.MAX_BYTES)
        except KavletError:
            return HTTPStatus.NOT_FOUND, b"Not found"


class Server:
    """Runs beside the window or a command line until it is stopped."""

    def __init__(self) -> None:
        self._server: ThreadingHTTPServer | None = None
        self._thread: threading.Thread | None = None

    @property
    def running(self) -> bool:
        """Whether pages are shown now."""
        return self._server is not None

    @property
    def port(self) -> int:
        """The port that pages are shown at; 0 while they are not."""
        return int(self._server.server_address[1]) if self._server is not None else 0

    def start(self) -> None:
        """Show what is published. Raises KavletError where the port is taken and addresses depend on it, or none is
        free."""
        if self._server is not None:
            return
        held = showcase.index()
        ports = [held.port] if held.pages else range(held.port, held.port + TRIED)
        for port in ports:
            try:
                self._server = ThreadingHTTPServer((HOST, port), _Handler)
                break
            except OSError:
                continue
        if self._server is None:
            raise KavletError(
                say("The showcase can’t be shown: port {port} is in use.", port=str(held.port)),
                remedy=say("Another Kavlet may show it already."),
            )
        self._server.daemon_threads = True
        if self.port != held.port:
            showcase.keep(msgspec.structs.replace(held, port=self.port))
        self._thread = threading.Thread(target=self._server.serve_forever, name="kavlet-showcase", daemon=True)
        self._thread.start()

    def stop(self) -> None:
        """Show nothing any more; what is published stays kept."""
        if self._server is not None:
            self._server.shutdown()
            self._server.server_close()
            self._server = None
        if self._thread is not None:
            self._thread.join(timeout=5)
            self._thread = None
