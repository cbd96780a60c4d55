"""Other readers of calendars, to be compared with: each line in is a case, each line out its verdicts.

A rule: {"rule", "start", "from", "to"} gives what dateutil and libical say begins in that span.
A calendar: {"calendar", "from", "to"} gives the busy times that recurring-ical-events finds.
A card: {"card"} gives what vobject reads on it; {"write"} gives a card of version 3 as vobject writes it.
Debian: python3-dateutil, gir1.2-ical-3.0 with python3-gi, python3-recurring-ical-events, python3-vobject.
"""
import json
import os
import select
import signal
import sys
from datetime import datetime, timezone

MOST = 12


def by_dateutil(case):
    from dateutil.rrule import rrulestr
    start = datetime.strptime(case["start"], "%Y%m%dT%H%M%S")
    low = datetime.strptime(case["from"], "%Y%m%dT%H%M%S")
    high = datetime.strptime(case["to"], "%Y%m%dT%H%M%S")
    rule = rrulestr("RRULE:" + case["rule"], dtstart=start)
    found = []
    for at in rule.xafter(low, inc=True):
        if at >= high or len(found) >= MOST:
            break
        found.append(at.strftime("%Y%m%dT%H%M%S"))
    return found


def by_libical(case):
    import gi
    gi.require_version("ICalGLib", "3.0")
    from gi.repository import ICalGLib
    rule = ICalGLib.Recurrence.new_from_string(case["rule"])
    start = ICalGLib.Time.new_from_string(case["start"])
    moments = ICalGLib.RecurIterator.new(rule, start)
    found = []
    for _ in range(400000):
        at = moments.next()
        if at is None or at.is_null_time():
            break
        text = at.as_ical_string()
        if text >= case["to"] or len(found) >= MOST:
            break
        if text >= case["from"] and (not found or found[-1] != text):
            found.append(text)
    return found


def by_events(case):
    import icalendar
    import recurring_ical_events
    low = datetime.strptime(case["from"], "%Y%m%dT%H%M%SZ").replace(tzinfo=timezone.utc)
    high = datetime.strptime(case["to"], "%Y%m%dT%H%M%SZ").replace(tzinfo=timezone.utc)
    calendar = icalendar.Calendar.from_ical(case["calendar"])

    def instant(value):
        if isinstance(value, datetime):
            if value.tzinfo is None:
                value = value.replace(tzinfo=timezone.utc)
            return value.astimezone(timezone.utc)
        return datetime(value.year, value.month, value.day, tzinfo=timezone.utc)

    found = set()
    for event in recurring_ical_events.of(calendar).between(low, high):
        if str(event.get("STATUS", "")) == "CANCELLED":
            continue
        start = instant(event["DTSTART"].dt)
        end = instant(event["DTEND"].dt)
        found.add(start.strftime("%Y%m%dT%H%M%SZ") + "/" + end.strftime("%Y%m%dT%H%M%SZ"))
    return sorted(found)


def read_card(case):
    import vobject
    card = vobject.readOne(case["card"])
    return {
        "name": card.fn.value,
        "emails": [one.value for one in card.contents["email"]],
        "phone": card.tel.value,
        "birthday": datetime.strptime(card.bday.value.replace("-", ""), "%Y%m%d").strftime("%Y-%m-%d"),
    }


def write_card(case):
    import vobject
    of = case["write"]
    card = vobject.vCard()
    card.add("n").value = vobject.vcard.Name(family=of["name"])
    card.add("fn").value = of["name"]
    for email in of["emails"]:
        card.add("email").value = email
    card.add("tel").value = of["phone"]
    card.add("bday").value = of["birthday"]
    card.add("note").value = of["note"]
    card.add("categories").value = of["tags"]
    return card.serialize()


READERS = {"dateutil": by_dateutil, "libical": by_libical}
PATIENCE = 0.3


def asked(read, case):
    """What a reader says, in a process of its own: some never end for rules that never come true."""
    answer, told = os.pipe()
    child = os.fork()
    if child == 0:
        try:
            said = read(case)
        except BaseException as error:  # what a reader can't do is its verdict, too
            said = type(error).__name__
        os.write(told, (json.dumps(said) + "\n").encode())
        os._exit(0)
    os.close(told)
    said = "Late"
    if select.select([answer], [], [], PATIENCE)[0]:
        with os.fdopen(answer) as file:
            said = json.loads(file.readline() or '"Died"')
    else:
        os.close(answer)
        os.kill(child, signal.SIGKILL)
    os.waitpid(child, 0)
    return said


# Loaded once, before the processes part.
for module in ("dateutil.rrule", "gi", "icalendar", "recurring_ical_events", "vobject"):
    try:
        __import__(module)
    except ImportError:
        pass

for line in sys.stdin:
    case = json.loads(line)
    if "card" in case:
        readers = {"vobject": read_card}
    elif "write" in case:
        readers = {"vobject": write_card}
    else:
        readers = READERS if "rule" in case else {"recurring-ical-events": by_events}
    print(
        json.dumps({name: asked(readers[name], case) for name in case.get("readers", readers)}),
        flush=True,
    )
