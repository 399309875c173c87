using System.Diagnostics;
using System.Globalization;
using System.Text;
using CalmQuill.CalendarFeed;
using CalmQuill.Core.Planner;
using CalmQuill.Documents.Calendars;
using CsCheck;

namespace CalmQuill.Documents.Tests;

/// <summary>iCalendar files: the standard's own examples of recurrence, zones, updates, and everything that can be wrong with a file.</summary>
public class CalendarTests
{
    /// <summary>RFC 5545 §3.8.5.3, each with the dates that stand there; all start at 9:00 in New York.</summary>
    [Theory]
    [InlineData(
        "19970902T090000",
        "FREQ=DAILY;COUNT=10",
        "1997-09-02 1997-09-03 1997-09-04 1997-09-05 1997-09-06 1997-09-07 1997-09-08 1997-09-09 1997-09-10 1997-09-11"
    )]
    [InlineData(
        "19970902T090000",
        "FREQ=WEEKLY;COUNT=10;WKST=SU;BYDAY=TU,TH",
        "1997-09-02 1997-09-04 1997-09-09 1997-09-11 1997-09-16 1997-09-18 1997-09-23 1997-09-25 1997-09-30 1997-10-02"
    )]
    [InlineData(
        "19970905T090000",
        "FREQ=MONTHLY;COUNT=10;BYDAY=1FR",
        "1997-09-05 1997-10-03 1997-11-07 1997-12-05 1998-01-02 1998-02-06 1998-03-06 1998-04-03 1998-05-01 1998-06-05"
    )]
    [InlineData("19970928T090000", "FREQ=MONTHLY;BYMONTHDAY=-3", "1997-09-28 1997-10-29 1997-11-28 1997-12-29 1998-01-29 1998-02-26")]
    [InlineData(
        "19970902T090000",
        "FREQ=MONTHLY;COUNT=10;BYMONTHDAY=2,15",
        "1997-09-02 1997-09-15 1997-10-02 1997-10-15 1997-11-02 1997-11-15 1997-12-02 1997-12-15 1998-01-02 1998-01-15"
    )]
    [InlineData("19970610T090000", "FREQ=YEARLY;COUNT=10;BYMONTH=6,7", "1997-06-10 1997-07-10")]
    [InlineData("19970904T090000", "FREQ=MONTHLY;COUNT=3;BYDAY=TU,WE,TH;BYSETPOS=3", "1997-09-04 1997-10-07 1997-11-06")]
    [InlineData("19970902T090000", "FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13", "1998-02-13")]
    public void Recurrences_fall_on_the_days_of_the_standards_examples(string start, string rule, string days)
    {
        var until =
            days.StartsWith("1998", StringComparison.Ordinal) || !rule.Contains("COUNT", StringComparison.Ordinal)
                ? new DateOnly(1998, 2, 28)
                : new DateOnly(1998, 6, 30);
        if (rule.StartsWith("FREQ=YEARLY", StringComparison.Ordinal))
            until = new DateOnly(1997, 12, 31);
        var found = Read(
            $"DTSTART;TZID=America/New_York:{start}\r\nDURATION:PT1H\r\nRRULE:{rule}",
            new DateOnly(1997, 6, 1),
            until,
            "America/New_York"
        );
        // The example of the 13th begins on a day that is not one; the standard excludes it by EXDATE.
        var dates = found
            .Select(entry => entry.Start.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture))
            .Where(day => rule.Contains("BYMONTHDAY=13", StringComparison.Ordinal) ? day != "1997-09-02" : true);
        Assert.Equal(days, string.Join(' ', dates));
        Assert.All(found, entry => Assert.Equal((9, 10), (entry.Start.Hour, entry.End.Hour)));
    }

    /// <summary>More of RFC 5545 §3.8.5.3: rule, and the days that stand there as far as a year goes; all start at 9:00 in New York on the first of them.</summary>
    [Theory]
    [InlineData("FREQ=DAILY;INTERVAL=10;COUNT=5", "1997-09-02 1997-09-12 1997-09-22 1997-10-02 1997-10-12")]
    [InlineData("FREQ=DAILY;UNTIL=19970907T000000Z", "1997-09-02 1997-09-03 1997-09-04 1997-09-05 1997-09-06")]
    [InlineData(
        "FREQ=WEEKLY;COUNT=10",
        "1997-09-02 1997-09-09 1997-09-16 1997-09-23 1997-09-30 1997-10-07 1997-10-14 1997-10-21 1997-10-28 1997-11-04"
    )]
    [InlineData("FREQ=WEEKLY;INTERVAL=2;WKST=SU;COUNT=6", "1997-09-02 1997-09-16 1997-09-30 1997-10-14 1997-10-28 1997-11-11")]
    [InlineData(
        "FREQ=WEEKLY;INTERVAL=2;COUNT=8;WKST=SU;BYDAY=TU,TH",
        "1997-09-02 1997-09-04 1997-09-16 1997-09-18 1997-09-30 1997-10-02 1997-10-14 1997-10-16"
    )]
    [InlineData("FREQ=MONTHLY;INTERVAL=2;COUNT=4;BYDAY=1SU,-1SU", "1997-09-07 1997-09-28 1997-11-02 1997-11-30")]
    [InlineData("FREQ=MONTHLY;COUNT=6;BYDAY=-2MO", "1997-09-22 1997-10-20 1997-11-17 1997-12-22 1998-01-19 1998-02-16")]
    [InlineData(
        "FREQ=MONTHLY;COUNT=10;BYMONTHDAY=1,-1",
        "1997-09-30 1997-10-01 1997-10-31 1997-11-01 1997-11-30 1997-12-01 1997-12-31 1998-01-01 1998-01-31 1998-02-01"
    )]
    [InlineData("FREQ=MONTHLY;INTERVAL=18;COUNT=3;BYMONTHDAY=10,11,12", "1997-09-10 1997-09-11 1997-09-12")]
    [InlineData(
        "FREQ=MONTHLY;BYDAY=SA;BYMONTHDAY=7,8,9,10,11,12,13;COUNT=6",
        "1997-09-13 1997-10-11 1997-11-08 1997-12-13 1998-01-10 1998-02-07"
    )]
    [InlineData("FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-2;COUNT=5", "1997-09-29 1997-10-30 1997-11-27 1997-12-30 1998-01-29")]
    [InlineData("FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=MO", "1997-08-05 1997-08-10 1997-08-19 1997-08-24")]
    [InlineData("FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=SU", "1997-08-05 1997-08-17 1997-08-19 1997-08-31")]
    public void Further_recurrences_fall_on_the_days_of_the_standards_examples(string rule, string days)
    {
        var wanted = days.Split(' ');
        var found = Read(
            $"DTSTART;TZID=America/New_York:{wanted[0].Replace("-", "", StringComparison.Ordinal)}T090000\r\nDURATION:PT1H\r\nRRULE:{rule}",
            new DateOnly(1997, 6, 1),
            new DateOnly(1998, 6, 30),
            "America/New_York"
        );
        Assert.Equal(wanted, found.Select(entry => entry.Start.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture)));
        // Nine o'clock before and after the clocks went back on 26 October 1997.
        Assert.All(found, entry => Assert.Equal(9, entry.Start.Hour));
    }

    /// <summary>A meeting every week at one and the same local time, seen from every other place, by NodaTime.</summary>
    [Fact]
    public void A_weekly_meeting_stays_at_its_own_hour_and_comes_to_ours_by_both_clocks() =>
        Gen.Select(Gen.Int[0, Places.Length - 1], Gen.Int[0, Places.Length - 1], Gen.Int[0, 365], Gen.Int[0, 23])
            .Sample(
                (theirs, ours, day, hour) =>
                {
                    var start = new DateTime(2026, 1, 1, hour, 30, 0).AddDays(day);
                    var (there, here) = (
                        NodaTime.DateTimeZoneProviders.Tzdb[Places[theirs]],
                        NodaTime.DateTimeZoneProviders.Tzdb[Places[ours]]
                    );
                    var found = Read(
                        $"DTSTART;TZID={Places[theirs]}:{start:yyyyMMdd'T'HHmmss}\r\nDURATION:PT1H\r\nRRULE:FREQ=WEEKLY;COUNT=8",
                        DateOnly.FromDateTime(start.AddDays(-2)),
                        DateOnly.FromDateTime(start.AddDays(60)),
                        Places[ours]
                    );
                    var wanted = Enumerable
                        .Range(0, 8)
                        .Select(week => NodaTime.LocalDateTime.FromDateTime(start.AddDays(7 * week)))
                        // An hour that the clock leaves out, or has twice, is read differently by different programs.
                        .Where(local => there.MapLocal(local).Count == 1)
                        .Select(local => there.AtStrictly(local).WithZone(here).LocalDateTime.ToDateTimeUnspecified())
                        .ToList();
                    Assert.Subset(found.Select(entry => entry.Start).ToHashSet(), wanted.ToHashSet());
                },
                iter: 200
            );

    private static readonly string[] Places =
    [
        "Europe/Berlin",
        "America/New_York",
        "Asia/Kolkata",
        "Australia/Sydney",
        "America/Sao_Paulo",
        "Africa/Cairo",
        "Etc/UTC",
    ];

    [Fact]
    public void Times_come_to_the_clock_of_the_persons_own_place()
    {
        var (first, last) = (new DateOnly(2026, 10, 1), new DateOnly(2026, 11, 30));
        // 19:00 in Berlin is 18:00 in London; 18:00 UTC is 20:00 in Berlin in summer, 19:00 in winter.
        Assert.Equal(18, Read("DTSTART;TZID=Europe/Berlin:20261008T190000", first, last, "Europe/London").Single().Start.Hour);
        Assert.Equal(
            [20, 19],
            Read("DTSTART:20261024T180000Z\r\nRRULE:FREQ=DAILY;COUNT=2", first, last, "Europe/Berlin").Select(entry => entry.Start.Hour)
        );
        Assert.Equal(19, Read("DTSTART:20261008T190000", first, last, "Asia/Tokyo").Single().Start.Hour);
        var day = Read("DTSTART;VALUE=DATE:20261008\r\nDTEND;VALUE=DATE:20261010", first, last, "Asia/Tokyo").Single();
        Assert.True(day.AllDay && day.IsOn(new DateOnly(2026, 10, 9)) && !day.IsOn(new DateOnly(2026, 10, 10)));
    }

    [Fact]
    public void A_moved_happening_of_a_series_stands_once_and_a_cancelled_one_not_at_all()
    {
        var text = File(
            "UID:series\r\nDTSTART:20261007T190000\r\nDURATION:PT1H\r\nRRULE:FREQ=WEEKLY;COUNT=4\r\nEXDATE:20261021T190000",
            "UID:series\r\nRECURRENCE-ID:20261014T190000\r\nDTSTART:20261015T170000\r\nDURATION:PT1H"
        );
        var entries = CalendarFile.Read(text, new DateOnly(2026, 10, 1), new DateOnly(2026, 11, 30), "UTC").Content!.Entries;
        Assert.Equal(["07 19", "15 17", "28 19"], entries.Select(entry => entry.Start.ToString("dd HH", CultureInfo.InvariantCulture)));
        // The moved one is still the one of the 14th, so that what was written beside it stays with it.
        var before = CalendarFile
            .Read(
                File("UID:series\r\nDTSTART:20261007T190000\r\nDURATION:PT1H\r\nRRULE:FREQ=WEEKLY;COUNT=4"),
                new DateOnly(2026, 10, 1),
                new DateOnly(2026, 11, 30),
                "UTC"
            )
            .Content!.Entries;
        Assert.Equal(before[1].Id, entries[1].Id);
    }

    [Fact]
    public void The_feed_of_the_stand_in_is_read_and_its_later_state_differs_as_it_says()
    {
        var today = new DateOnly(2026, 10, 8);
        IReadOnlyList<CalendarEntry> Of(bool changed) =>
            CalendarFile
                .Read(LanternCalendar.Write(today, changed), new DateOnly(2026, 10, 1), new DateOnly(2027, 1, 31), "Europe/Berlin")
                .Content!.Entries;
        Assert.Contains(
            Of(false),
            entry =>
                entry is { Title: "Clock class", Place: "Lantern Street 4, workshop" }
                && entry.Start == new DateTime(2026, 10, 14, 19, 0, 0)
        );
        Assert.Equal(3, PlannerPlan.Update(Of(false), Of(true)).Count());
    }

    [Theory]
    [InlineData("", "does not begin")]
    [InlineData("<html>", "does not begin")]
    [InlineData("BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nDTSTART:2026", "damaged")]
    public void A_file_that_is_none_is_refused_in_words(string text, string words) =>
        Assert.Contains(
            words,
            CalendarFile.Read(text, new DateOnly(2026, 1, 1), new DateOnly(2026, 12, 31), "UTC").Refusal!.Sentence.English,
            StringComparison.Ordinal
        );

    [Fact]
    public void Broken_entries_and_unknown_zones_are_passed_over_by_name()
    {
        var text = File(
            "UID:1\r\nDTSTART;TZID=Moon/Tycho:20261008T190000\r\nDURATION:PT1H",
            "UID:2\r\nSUMMARY:no start",
            "UID:3\r\nDTSTART:20261009T190000",
            "UID:4\r\nDTSTART:20261010T190000\r\nRRULE:FREQ=SOMETIMES"
        );
        var content = CalendarFile.Read(text, new DateOnly(2026, 10, 1), new DateOnly(2026, 10, 31), "UTC").Content;
        Assert.NotNull(content);
        Assert.Contains("Moon/Tycho", content.UnknownZones);
        Assert.Contains(content.Entries, entry => entry.Start == new DateTime(2026, 10, 8, 19, 0, 0));
        Assert.Contains(content.Entries, entry => entry.Start == new DateTime(2026, 10, 9, 19, 0, 0));
        // Nothing is dropped in silence.
        Assert.Equal(2, content.Passed);
        Assert.Equal(
            new HashSet<(string, string)>
            {
                ("no start", "It has no date that can be read."),
                ("Untitled", "It repeats by a rule that cannot be read."),
            },
            [.. content.Named.Select(one => (one.Title, one.Why.English))]
        );
        var often = CalendarFile
            .Read(
                File("UID:1\r\nSUMMARY:Heartbeat\r\nDTSTART:19990101T000000\r\nRRULE:FREQ=MINUTELY"),
                new DateOnly(2026, 10, 1),
                new DateOnly(2026, 10, 2),
                "UTC"
            )
            .Content!;
        Assert.Equal(("Heartbeat", "It repeats too often."), (often.Named.Single().Title, often.Named.Single().Why.English));
        Assert.Empty(often.Entries);
    }

    /// <summary>Zones of the file's own, of other systems (CLDR) and under longer names, against NodaTime's and against fixed offsets.</summary>
    [Theory]
    [InlineData("Workshop", "+0500", "+0500", 14)]
    [InlineData("\"Workshop: upstairs\"", "+0530", "+0530", 13.5)]
    [InlineData("\"(UTC-03:00) Anywhere\"", null, null, 22)]
    [InlineData("W. Europe Standard Time", null, null, 17)]
    [InlineData("Tokyo Standard Time", null, null, 10)]
    [InlineData("/lantern.example/2026/Europe/Lisbon", null, null, 18)]
    public void A_time_in_a_zone_that_is_not_the_ianas_lands_at_the_right_hour(string zone, string? from, string? to, double hour)
    {
        var own = from is null
            ? ""
            : $"BEGIN:VTIMEZONE\r\nTZID:{zone.Trim('"')}\r\nBEGIN:STANDARD\r\nDTSTART:19700101T000000\r\nTZOFFSETFROM:{from}\r\nTZOFFSETTO:{to}\r\nEND:STANDARD\r\nEND:VTIMEZONE\r\n";
        var text = File($"UID:1\r\nDTSTART;TZID={zone}:20261007T190000\r\nDURATION:PT1H\r\nRRULE:FREQ=WEEKLY;COUNT=2")
            .Replace("BEGIN:VEVENT", own + "BEGIN:VEVENT", StringComparison.Ordinal);
        var content = CalendarFile.Read(text, new DateOnly(2026, 10, 1), new DateOnly(2026, 10, 31), "UTC").Content!;
        Assert.Empty(content.UnknownZones);
        Assert.Equal([hour, hour], content.Entries.Select(entry => entry.Start.TimeOfDay.TotalHours));
        Assert.All(content.Entries, entry => Assert.Equal(1, (entry.End - entry.Start).TotalHours));
    }

    /// <summary>A zone of the file's own that changes its clock as Europe does lands, all year, where NodaTime's own zone does.</summary>
    [Fact]
    public void A_zone_of_the_files_own_changes_its_clock_by_its_rules()
    {
        const string Own =
            "BEGIN:VTIMEZONE\r\nTZID:Bench\r\nBEGIN:DAYLIGHT\r\nDTSTART:19810329T020000\r\nRRULE:FREQ=YEARLY;BYMONTH=3;BYDAY=-1SU\r\nTZOFFSETFROM:+0100\r\nTZOFFSETTO:+0200\r\nEND:DAYLIGHT\r\nBEGIN:STANDARD\r\nDTSTART:19961027T030000\r\nRRULE:FREQ=YEARLY;BYMONTH=10;BYDAY=-1SU\r\nTZOFFSETFROM:+0200\r\nTZOFFSETTO:+0100\r\nEND:STANDARD\r\nEND:VTIMEZONE\r\n";
        IEnumerable<DateTime> In(string zone, string own) =>
            CalendarFile
                .Read(
                    File($"UID:1\r\nDTSTART;TZID={zone}:20260103T190000\r\nRRULE:FREQ=WEEKLY;UNTIL=20261205T180000Z")
                        .Replace("BEGIN:VEVENT", own + "BEGIN:VEVENT", StringComparison.Ordinal),
                    new DateOnly(2026, 1, 1),
                    new DateOnly(2026, 12, 31),
                    "America/New_York"
                )
                .Content!.Entries.Select(entry => entry.Start);
        var wanted = In("Europe/Berlin", "").ToList();
        Assert.Equal(49, wanted.Count);
        Assert.Equal(wanted, In("Bench", Own));
    }

    /// <summary>What began long ago is found by stepping on from near the days wanted, and is the same as going through all of it.</summary>
    [Fact]
    public void Recurrences_of_any_beginning_show_in_the_planners_span()
    {
        Assert.Equal(
            31,
            Read("DTSTART:19600101T090000\r\nRRULE:FREQ=DAILY", new DateOnly(2026, 10, 1), new DateOnly(2026, 10, 31), "UTC").Count
        );
        Gen.Select(Gen.Int[1, 9], Gen.Bool, Gen.Int[0, 4], Gen.Int[0, 6], Gen.Int[60, 4000])
            .Sample(
                (interval, weekly, by, day, back) =>
                {
                    var begins = new DateOnly(2026, 10, 1).AddDays(-back);
                    var rule =
                        $"FREQ={(weekly ? "WEEKLY" : "DAILY")};INTERVAL={interval}"
                        + by switch
                        {
                            1 => $";BYDAY={new[] { "MO", "TU", "WE", "TH", "FR", "SA", "SU" }[day]}",
                            2 => ";BYMONTH=10,11",
                            3 => ";BYDAY=MO,TH;WKST=SU",
                            _ => "",
                        };
                    List<DateTime> Found(string more, DateOnly first) =>
                        [
                            .. Read(
                                    $"DTSTART:{begins:yyyyMMdd}T090000\r\nDURATION:PT26H\r\nRRULE:{rule}{more}",
                                    first,
                                    new DateOnly(2026, 11, 30),
                                    "UTC"
                                )
                                .Select(entry => entry.Start),
                        ];
                    // With a count it is gone through from its beginning.
                    Assert.Equal(Found(";COUNT=9000", new DateOnly(2026, 10, 1)), Found("", new DateOnly(2026, 10, 1)));
                },
                iter: 120
            );
    }

    [Fact]
    public void Endless_rules_end_and_too_many_entries_are_refused_before_they_cost_much()
    {
        var clock = Stopwatch.StartNew();
        Assert.Equal(
            31,
            Read("DTSTART:19700101T190000\r\nRRULE:FREQ=DAILY", new DateOnly(2020, 10, 1), new DateOnly(2020, 10, 31), "UTC").Count
        );
        Assert.Empty(
            Read(
                "DTSTART:20261001T190000\r\nRRULE:FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30",
                new DateOnly(2026, 10, 2),
                new DateOnly(2026, 12, 31),
                "UTC"
            )
        );
        var each = CalendarFile.Read(
            File("UID:1\r\nDTSTART:20261001T190000\r\nRRULE:FREQ=MINUTELY"),
            new DateOnly(2026, 10, 1),
            new DateOnly(2026, 12, 31),
            "UTC"
        );
        Assert.Contains("more than 5000 entries", each.Refusal!.Sentence.English, StringComparison.Ordinal);
        var many = new StringBuilder("BEGIN:VCALENDAR\r\nVERSION:2.0\r\n");
        for (var i = 0; i < 100_000; i++)
            many.Append(
                CultureInfo.InvariantCulture,
                $"BEGIN:VEVENT\r\nUID:{i}\r\nDTSTART:202610{1 + i % 28:D2}T{i % 24:D2}0000\r\nEND:VEVENT\r\n"
            );
        Assert.Contains(
            "more than 5000 entries",
            CalendarFile
                .Read(many.Append("END:VCALENDAR\r\n").ToString(), new DateOnly(2026, 10, 1), new DateOnly(2026, 12, 31), "UTC")
                .Refusal!.Sentence.English,
            StringComparison.Ordinal
        );
        // Not a measurement: only that none of these runs on for ever.
        Assert.True(clock.Elapsed < TimeSpan.FromMinutes(2));
    }

    [Fact]
    public void Noise_is_read_or_refused_and_never_more() =>
        Gen
            .String.Array[0, 6]
            .Sample(
                parts =>
                {
                    var (content, refusal) = CalendarFile.Read(
                        File(string.Join("\r\n", parts.Select(part => $"DTSTART:{part}"))),
                        new DateOnly(2026, 1, 1),
                        new DateOnly(2026, 12, 31),
                        "UTC"
                    );
                    Assert.True(content is null != refusal is null);
                },
                iter: 300
            );

    private static IReadOnlyList<CalendarEntry> Read(string lines, DateOnly first, DateOnly last, string zone) =>
        CalendarFile.Read(File($"UID:test\r\n{lines}"), first, last, zone).Content!.Entries;

    private static string File(params string[] events) =>
        $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Test//EN\r\n{string.Concat(events.Select(one => $"BEGIN:VEVENT\r\nDTSTAMP:20260101T000000Z\r\n{one}\r\nEND:VEVENT\r\n"))}END:VCALENDAR\r\n";

    [Theory]
    [InlineData("RRULE:FREQ=SECONDLY")]
    [InlineData("RRULE:FREQ=MINUTELY;COUNT=100000000")]
    [InlineData("RRULE:FREQ=HOURLY;INTERVAL=1")]
    [InlineData("RRULE:FREQ=DAILY;BYHOUR=0,1,2,3,4,5,6,7,8,9,10,11,12;BYMINUTE=0,1,2,3,4,5,6,7,8,9,10;BYSECOND=0,1,2,3,4,5,6")]
    [InlineData("RRULE:FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30")]
    public void A_calendar_that_repeats_without_end_is_read_before_long(string rule)
    {
        var events = string.Concat(
            Enumerable
                .Range(0, 50)
                .Select(i => $"BEGIN:VEVENT\r\nUID:{i}\r\nDTSTART:19800101T190000\r\n{rule}\r\nSUMMARY:Again\r\nEND:VEVENT\r\n")
        );
        var text =
            $"BEGIN:VCALENDAR\r\nVERSION:2.0\r\n{events}BEGIN:VEVENT\r\nUID:once\r\nDTSTART:20261008T190000\r\nSUMMARY:Once\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n";
        var clock = System.Diagnostics.Stopwatch.StartNew();
        var (content, refusal) = CalendarFile.Read(text, new DateOnly(2026, 10, 1), new DateOnly(2026, 10, 31), "Europe/Berlin");
        if (rule.Contains("BYHOUR", StringComparison.Ordinal) || rule.Contains("YEARLY", StringComparison.Ordinal))
            Assert.Contains(content!.Entries, entry => entry.Title == "Once");
        else
            Assert.Contains("repeats more than can be gone through", refusal!.Sentence.English, StringComparison.Ordinal);
        Assert.True(clock.Elapsed < TimeSpan.FromSeconds(20), clock.Elapsed.ToString());
    }
}
