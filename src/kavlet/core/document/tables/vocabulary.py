"""Words by which authors name columns and rows, in the languages there are catalogues for."""

import re
from collections.abc import Iterable

_WORD = re.compile(r"[^\W\d_]+|#|%", re.UNICODE)


def _set(words: str) -> frozenset[str]:
    return frozenset(words.split())


# What a column is for, by a word of its header.
GOAL = _set("goal goals target targets plan planned aim due quota wanted ziel ziele soll geplant vorgabe sollwert")
BUDGET = _set("budget allowance grant available etat haushalt verfügbar rahmen")
GROUP = _set("group area region category type class kind sector gruppe bereich art kategorie typ sparte")
NOTE = _set("note notes comment comments remark remarks bemerkung bemerkungen notiz kommentar anmerkung")
IDENTITY = _set(
    "id # key code postcode zip plz postleitzahl phone telephone tel telefon fax rank place rang platz iban isbn"
)
NUMBERED = _set("no nr number nummer lfd")  # in the first column
UNITS = _set(
    "euro euros dollar dollars pound pounds minute minutes minuten hour hours stunden seconds days tage kg gram "
    "tonnes km metre metres meter meters cm litre litres liter percent prozent points punkte degrees grad kwh "
    "ha"
)
CHANGE = _set("change changes effect delta difference movement veränderung änderung effekt differenz bewegung")
COUNT = _set(
    "number count people children persons animals trees planted pieces pairs anzahl stück personen kinder tiere "
    "bäume paare"
)
ACROSS = _set("x")
PERIOD_HEAD = _set(
    "year years month week day date quarter season term decade time period jahr jahre monat woche tag datum "
    "quartal saison zeit zeitraum halbjahr"
)
STAGE_HEAD = _set("stage stages step steps phase status stufe schritt stadium")

# What a row is, by a word of its name.
STAGES = _set(
    "visit visits visitors view views click clicks open opened lead leads contact inquiry enquiry enquiries "
    "tour tours signup sign signed registered registration apply applied applicants invited interviewed offered "
    "offer offers hired trial order ordered orders paid bought member members donor donations qualified "
    "proposal won besuch besuche anfrage anfragen angebot angebote anmeldung anmeldungen bestellung "
    "bestellungen auftrag aufträge bezahlt mitglied mitglieder"
)
START = _set("start opening begin beginning initial stock anfang anfangsbestand beginn bestand vorjahr")
END = _set("end closing final ende endbestand schluss")

_MONTHS = (
    "jan(?:uary|uar)?|feb(?:ruary|ruar)?|mar(?:ch)?|mär(?:z)?|mrz|apr(?:il)?|may|mai|june?|juni|july?|juli|aug(?:ust)?"
    "|sept?(?:ember)?|o[ck]t(?:ober)?|nov(?:ember)?|de[cz](?:ember)?"
)
_DAYS = (
    "mon(?:day|tag)?|tue(?:s(?:day)?)?|wed(?:nesday)?|thu(?:rs(?:day)?)?|fri(?:day)?|sat(?:urday)?|sun(?:day)?"
    "|dienstag|mittwoch|donnerstag|freitag|samstag|sonntag"
)
_SEASONS = "spring|summer|autumn|fall|winter|frühjahr|frühling|sommer|herbst"
_YEAR = r"(?:1[89]|20|21)\d\d"
PERIOD = re.compile(
    rf"(?:(?:{_MONTHS}|{_DAYS}|{_SEASONS})\.?(?:\s+(?:{_YEAR}|'?\d\d))?|(?:fy\s*)?{_YEAR}s?(?:[/–-]\d\d(?:\d\d)?)?"
    rf"|(?:q|h)[1-4](?:\s*{_YEAR})?|{_YEAR}\s*(?:q|h)[1-4]|(?:w|week|kw|woche|day|tag|month|monat|year|jahr)\s*\d+"
    rf"|{_YEAR}-\d\d(?:-\d\d)?|\d\d?:\d\d(?::\d\d)?)",
    re.IGNORECASE,
)
_THEN = "before|previous|last year|vorher|vorjahr|davor"
_NOW = "after|now|this year|current|nachher|dieses jahr|heute|danach"
THEN, NOW = re.compile(_THEN, re.IGNORECASE), re.compile(_NOW, re.IGNORECASE)
_SIDES = (
    "men women|male female|males females|boys girls|in out|births deaths|arrivals departures|imports exports"
    "|for against|left right|männer frauen|männlich weiblich|jungen mädchen|zugänge abgänge"
    "|geburten sterbefälle|einfuhr ausfuhr"
)
SIDES = frozenset(frozenset(pair.split()) for pair in _SIDES.split("|"))


def words_of(text: str) -> frozenset[str]:
    """The words of a text, in small letters."""
    return frozenset(_WORD.findall(text.casefold()))


def is_period(text: str) -> bool:
    """Whether a text names a point or span of time: a year, a month, a quarter, a weekday, a time of day."""
    return PERIOD.fullmatch(text.strip()) is not None


def are_periods(texts: Iterable[str]) -> bool:
    """Whether nearly all texts, and more than one, name times."""
    held = [text for text in texts if text.strip()]
    return len(held) > 1 and sum(map(is_period, held)) >= 0.8 * len(held)


def two_periods(one: str, other: str) -> bool:
    """Whether two headers name the same thing at an earlier and a later time."""
    if is_period(one) and is_period(other):
        return one.strip() != other.strip()
    return bool(THEN.fullmatch(one.strip()) and NOW.fullmatch(other.strip()))


def two_sides(one: str, other: str) -> bool:
    """Whether two headers name the two sides of one thing, such as men and women."""
    return frozenset((one.strip().casefold(), other.strip().casefold())) in SIDES
