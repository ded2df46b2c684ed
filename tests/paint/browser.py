"""A small hand on Chromium's remote protocol, to look at HTML files as readers meet them."""

import base64
import json
import shutil
import subprocess
import tempfile
import urllib.request
from pathlib import Path
from time import monotonic, sleep
from typing import Any

import websocket

CHROMIUM = shutil.which("chromium") or shutil.which("chromium-browser")


class Browser:
    """One page of a headless browser; it notes what is asked for and what is complained of."""

    def __init__(self) -> None:
        assert CHROMIUM is not None
        self._folder = tempfile.TemporaryDirectory()
        self._process = subprocess.Popen(
            [CHROMIUM, "--headless=new", "--no-sandbox", "--disable-gpu", "--remote-debugging-port=0",
             "--force-device-scale-factor=1", "--hide-scrollbars", "--font-render-hinting=none",
             f"--user-data-dir={self._folder.name}", "about:blank"],
            stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL,
        )  # fmt: skip
        port = self._port()
        with urllib.request.urlopen(f"http://127.0.0.1:{port}/json", timeout=10) as held:
            target = next(one for one in json.load(held) if one["type"] == "page")
        self._socket = websocket.create_connection(target["webSocketDebuggerUrl"], timeout=20, suppress_origin=True)
        self._number = 0
        self.requests: list[str] = []
        self.complaints: list[str] = []
        for domain in ("Page", "Network", "Runtime", "Log", "Accessibility", "DOM"):
            self.call(f"{domain}.enable")

    def _port(self) -> int:
        file, until = Path(self._folder.name) / "DevToolsActivePort", monotonic() + 30
        while monotonic() < until:
            if file.exists() and (text := file.read_text()).strip():
                return int(text.split()[0])
            sleep(0.05)
        raise TimeoutError("The browser did not start.")

    def call(self, method: str, **parameters: Any) -> dict[str, Any]:
        """Ask for something, and note what is told meanwhile."""
        self._number += 1
        number = self._number
        self._socket.send(json.dumps({"id": number, "method": method, "params": parameters}))
        while True:
            said = json.loads(self._socket.recv())
            if said.get("id") == number:
                assert "error" not in said, said
                return dict(said["result"])
            self._note(said)

    def _note(self, said: dict[str, Any]) -> None:
        method, held = said.get("method"), said.get("params", {})
        if method == "Network.requestWillBeSent":
            self.requests.append(held["request"]["url"])
        elif method == "Runtime.exceptionThrown":
            self.complaints.append(json.dumps(held["exceptionDetails"]))
        elif method == "Runtime.consoleAPICalled" and held["type"] in ("error", "warning"):
            self.complaints.append(json.dumps(held["args"]))
        elif method == "Log.entryAdded" and held["entry"]["level"] in ("error", "warning"):
            self.complaints.append(held["entry"]["text"])
        elif method == "Page.loadEventFired":
            self._loaded = True

    def open(self, path: Path, width: int = 1100, height: int = 900) -> None:
        """Show a file, and wait until it is there with its faces."""
        self.call("Emulation.setDeviceMetricsOverride", width=width, height=height, deviceScaleFactor=1, mobile=False)
        self.call("Page.navigate", url=path.as_uri())
        until = monotonic() + 20
        while self.run("document.readyState") != "complete" and monotonic() < until:
            sleep(0.05)
        self.run("document.fonts.ready.then(() => 1)")

    def run(self, script: str) -> Any:
        """What a script gives. It is the tools' own, which no content policy holds back."""
        found = self.call("Runtime.evaluate", expression=script, returnByValue=True, awaitPromise=True)
        return found["result"].get("value")

    def press(self, key: str) -> None:
        """Press a key."""
        for kind in ("rawKeyDown", "keyUp"):
            self.call("Input.dispatchKeyEvent", type=kind, key=key, code=key, windowsVirtualKeyCode=KEYS[key])

    def shot(self, selector: str) -> bytes:
        """An element as PNG."""
        box = self.run(
            f"(() => {{ const b = document.querySelector({selector!r}).getBoundingClientRect();"
            "return [b.x + scrollX, b.y + scrollY, b.width, b.height] })()"
        )
        clip = {"x": box[0], "y": box[1], "width": box[2], "height": box[3], "scale": 1}
        return base64.b64decode(self.call("Page.captureScreenshot", clip=clip, captureBeyondViewport=True)["data"])

    def tree(self) -> list[dict[str, Any]]:
        """What assistive technology is told."""
        return list(self.call("Accessibility.getFullAXTree")["nodes"])

    def close(self) -> None:
        """End it."""
        self._socket.close()
        self._process.terminate()
        self._process.wait(10)
        self._folder.cleanup()


KEYS = {"ArrowLeft": 37, "ArrowRight": 39, "Home": 36, "End": 35, "Tab": 9, "Enter": 13}
