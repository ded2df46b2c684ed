"""A mail draft (RFC 5322, MIME by RFC 2045 to 2049): words, a picture inline with its text, files attached."""

import re
from email.headerregistry import Address
from email.message import EmailMessage
from email.policy import SMTP
from html import escape

from msgspec import Struct

from kavlet.core.messages import say
from kavlet.core.values.errors import KavletError

SUFFIX = ".eml"
_ADDRESS = re.compile(r"[^@\s<>,;\"]+@[^@\s<>,;\"]+\.[^@\s<>,;\"]+|[^@\s<>,;\"]+@localhost")
_NAMED = re.compile(r"\s*(?P<name>[^<>]*?)\s*<(?P<at>[^<>]+)>\s*")
KINDS = {
    ".png": ("image", "png"), ".jpg": ("image", "jpeg"), ".jpeg": ("image", "jpeg"), ".svg": ("image", "svg+xml"),
    ".pdf": ("application", "pdf"), ".html": ("text", "html"), ".gif": ("image", "gif"), ".webp": ("image", "webp"),
    ".pptx": ("application", "vnd.openxmlformats-officedocument.presentationml.presentation"),
    ".docx": ("application", "vnd.openxmlformats-officedocument.wordprocessingml.document"),
    ".xlsx": ("application", "vnd.openxmlformats-officedocument.spreadsheetml.sheet"),
    ".odp": ("application", "vnd.oasis.opendocument.presentation"),
    ".odt": ("application", "vnd.oasis.opendocument.text"),
    ".ods": ("application", "vnd.oasis.opendocument.spreadsheet"),
}  # fmt: skip


class Attachment(Struct, frozen=True):
    """A file that goes along: its name and bytes."""

    name: str
    content: bytes


class MailDraft(Struct, frozen=True):
    """A mail to be sent: addressees, subject, words, the pictures shown in it (PNG with their texts), files."""

    to: tuple[str, ...]
    subject: str
    words: str
    shown: tuple[tuple[bytes, str], ...] = ()
    attached: tuple[Attachment, ...] = ()


def addresses(text: str) -> tuple[str, ...]:
    """The addresses of a text, apart by commas or semicolons. Raises KavletError for one that is none."""
    mail_addresses = []
    for part in re.split(r"[,;\n]", text):
        if part.strip():
            match = _NAMED.fullmatch(part)
            address = match["at"] if match else part.strip()
            if not _ADDRESS.fullmatch(address):
                raise KavletError(
                    say("“{text}” is no mail address.", text=part.strip()),
                    remedy=say("Write it like name@example.org."),
                )
            mail_addresses.append(part.strip())
    return tuple(mail_addresses)


def _address(text: str) -> Address:
    named = _NAMED.fullmatch(text)
    at = named["at"] if named else text
    user, _, host = at.rpartition("@")
    return Address(named["name"].strip('" ') if named else "", user, host)


def dumps(draft: MailDraft) -> bytes:
    """The draft as a message that a mail program opens to be sent. The same draft gives the same bytes: what is unsent
    has no date."""
    made = EmailMessage(policy=SMTP)
    made["To"] = [_address(one) for one in draft.to]
    made["Subject"] = " ".join(draft.subject.split())
    made["X-Unsent"] = "1"
    made.set_content(draft.words)
    if draft.shown:
        body = "".join(f"<p>{escape(line) or '&nbsp;'}</p>" for line in draft.words.split("\n"))
        body += "".join(
            f'<p><img src="cid:picture{number}@kavlet" alt="{escape(alt)}" style="max-width:100%"></p>'
            for number, (_, alt) in enumerate(draft.shown, 1)
        )
        made.add_alternative(f"<html><body>{body}</body></html>", subtype="html")
        page = made.get_payload()[-1]  # type: ignore[index]
        for number, (content, alt) in enumerate(draft.shown, 1):
            page.add_related(  # type: ignore[union-attr]
                content, "image", "png", cid=f"<picture{number}@kavlet>", filename=f"picture{number}.png",
                disposition="inline", headers=[f"Content-Description: {' '.join(alt.split())[:900]}"] if alt else None,
            )  # fmt: skip
    for one in draft.attached:
        ending = "." + one.name.rpartition(".")[2].lower()
        main, sub = KINDS.get(ending, ("application", "octet-stream"))
        if main == "text":
            made.add_attachment(one.content.decode(), subtype=sub, filename=one.name)
        else:
            made.add_attachment(one.content, maintype=main, subtype=sub, filename=one.name)
    return _fixed(made)


def _fixed(made: EmailMessage) -> bytes:
    """With boundaries that follow from what is between them, not from chance."""
    for number, part in enumerate(part for part in made.walk() if part.is_multipart()):
        part.set_boundary(f"=_kavlet-{number}_=")  # RFC 2045, 6.7: "=_" stands in no encoded text
    return made.as_bytes()
