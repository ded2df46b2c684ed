"""Mail drafts, parsed by the standard library (RFC 5322; MIME, RFC 2045 to 2049)."""

import email
import email.policy

import pytest

from kavlet.core.files.mail import Attachment, MailDraft, addresses, dumps
from kavlet.core.values.errors import KavletError

PNG = b"\x89PNG\r\n\x1a\n" + bytes(40)


def parsed(draft: MailDraft) -> email.message.EmailMessage:
    made = email.message_from_bytes(dumps(draft), policy=email.policy.default)
    assert isinstance(made, email.message.EmailMessage)
    return made


DRAFT = MailDraft(
    ("Åsa Mölk <asa@mirefen.example>", "bo@mirefen.example"), "Besucher: März", "Two lines\nof <words>",
    ((PNG, "Bars of “gates”"),), (Attachment("grüße aus dem Moor.pdf", b"%PDF-1.7"),),
)  # fmt: skip


def test_addressees_subject_and_words() -> None:
    made = parsed(DRAFT)
    assert [one.addr_spec for one in made["to"].addresses] == ["asa@mirefen.example", "bo@mirefen.example"]
    assert made["to"].addresses[0].display_name == "Åsa Mölk"
    assert made["subject"] == "Besucher: März"
    assert made["X-Unsent"] == "1"
    body = made.get_body(("plain",))
    assert body is not None
    assert body.get_content().split() == ["Two", "lines", "of", "<words>"]


def test_the_picture_is_shown_in_the_text_with_its_words() -> None:
    made = parsed(DRAFT)
    page = made.get_body(("html",))
    assert page is not None
    text = page.get_content()
    assert "of &lt;words&gt;" in text
    assert 'alt="Bars of “gates”"' in text
    picture = next(part for part in made.walk() if part.get_content_type() == "image/png")
    assert picture.get_content() == PNG
    assert f"cid:{picture['content-id'].strip('<>')}" in text
    assert picture.get_content_disposition() == "inline"


def test_files_go_along_with_their_names() -> None:
    (attached,) = parsed(DRAFT).iter_attachments()
    assert attached.get_filename() == "grüße aus dem Moor.pdf"
    assert attached.get_content_type() == "application/pdf"
    assert attached.get_content() == b"%PDF-1.7"


def test_the_same_draft_gives_the_same_bytes() -> None:
    assert dumps(DRAFT) == dumps(DRAFT)


def test_a_subject_cannot_smuggle_headers_in() -> None:
    made = parsed(MailDraft(("bo@mirefen.example",), "Hello\r\nBcc: eve@example.org", "words"))
    assert made["bcc"] is None
    assert made["subject"] == "Hello Bcc: eve@example.org"


def test_addresses_of_a_text() -> None:
    assert addresses("a@b.org; Åsa <asa@mirefen.example>,\n c@localhost") == (
        "a@b.org", "Åsa <asa@mirefen.example>", "c@localhost"
    )  # fmt: skip
    assert addresses("  ") == ()


@pytest.mark.parametrize("wrong", ["nobody", "a@b", "a b@c.org", "<>", "x@y.org z", '"@"@'])
def test_what_is_no_address_is_refused_in_a_sentence(wrong: str) -> None:
    with pytest.raises(KavletError, match="no mail address"):
        addresses(wrong)
