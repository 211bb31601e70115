"""A job's dates as an iCalendar file (RFC 5545): whole days, nobody invited, no alarm."""

from __future__ import annotations

from datetime import datetime, timedelta

from icalendar import Calendar, Event

from fulmen.core.job_dates import JobDate


def calendar_file(title: str, job_key: str, dates: tuple[JobDate, ...], made_at: datetime) -> str:
    """The file's text. An event keeps its identifier, so that bringing it in again moves it.

    Args:
        title: the job's title, put before each event's.
        job_key: tells the job from every other of this store.
        dates: the days.
        made_at: when the file is made.
    """
    calendar = Calendar()
    calendar.add("prodid", "-//Fulmen//job dates//EN")
    calendar.add("version", "2.0")
    for one in dates:
        event = Event()
        event.add("uid", f"{job_key}-{one.key}@fulmen.invalid")
        event.add("dtstamp", made_at)
        event.add("dtstart", one.day)
        event.add("dtend", one.day + timedelta(days=1))
        event.add("summary", f"{title}: {one.title}")
        event.add("description", one.detail)
        calendar.add_component(event)
    return str(calendar.to_ical().decode())
