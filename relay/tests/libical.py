"""What libical says of an iCalendar text on standard input: one line for each error, none where it is well."""

import ctypes
import sys

ical = ctypes.CDLL("libical.so.3")
ical.icalparser_parse_string.restype = ctypes.c_void_p
ical.icalparser_parse_string.argtypes = [ctypes.c_char_p]
ical.icalrestriction_check.argtypes = [ctypes.c_void_p]
ical.icalcomponent_count_errors.argtypes = [ctypes.c_void_p]
ical.icalcomponent_as_ical_string.argtypes = [ctypes.c_void_p]
ical.icalcomponent_as_ical_string.restype = ctypes.c_char_p

calendar = ical.icalparser_parse_string(sys.stdin.buffer.read())
if not calendar:
    print("cannot be parsed")
else:
    ical.icalrestriction_check(calendar)
    if ical.icalcomponent_count_errors(calendar):
        text = ical.icalcomponent_as_ical_string(calendar).decode()
        unfolded = text.replace("\r\n ", "").replace("\n ", "")
        print("\n".join(line for line in unfolded.splitlines() if "X-LIC-ERROR" in line))
