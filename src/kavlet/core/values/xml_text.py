"""Texts as XML can hold them."""


def xml_text(text: str) -> str:
    """The text without characters that XML 1.0 cannot hold (section 2.2, production Char)."""
    return "".join(
        sign
        for sign in text
        if sign in "\t\n\r" or " " <= sign <= "\ud7ff" or "\ue000" <= sign <= "\ufffd" or sign >= "\U00010000"
    )
