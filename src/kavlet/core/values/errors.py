"""The one error that is meant for the user."""

from collections.abc import Callable

from kavlet.core.messages import NOTHING, Message


class KavletError(Exception):
    """Something the user can put right, said in one sentence.

    `what` is the sentence; `where` a path such as ``charts[2].layers[0]`` or a file, empty where the sentence says it;
    `remedy` what to do, empty where that is plain. Messages are written when the error is read.
    """

    def __init__(self, what: Message, where: str = "", remedy: Message = NOTHING) -> None:
        super().__init__(what)
        self.what = what
        self.where = where
        self.remedy = remedy

    def __str__(self) -> str:
        text = f"{self.where}: {self.what}" if self.where else str(self.what)
        return f"{text} {self.remedy}" if self.remedy else text


def refusal(do: Callable[[], object]) -> str:
    """Do something. Returns why it was refused, in one sentence; empty where it was done."""
    try:
        do()
    except KavletError as error:
        return str(error)
    return ""


def attempt(do: Callable[[], object], tell: Callable[[str], object]) -> bool:
    """Do something; where it is refused, tell why in one sentence. Returns whether it was done."""
    why = refusal(do)
    if why:
        tell(why)
    return not why
