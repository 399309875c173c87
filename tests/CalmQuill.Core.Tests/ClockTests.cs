using CalmQuill.Core.Lenses;
using CsCheck;
using NodaTime;

namespace CalmQuill.Core.Tests;

/// <summary>Days and stretches of time across changes of the clock; the reference is NodaTime 3 with its own time zone database.</summary>
public sealed class ClockTests
{
    private static readonly DateTimeZone[] Zones =
    [
        .. new[]
        {
            "Europe/Berlin",
            "America/New_York",
            "Australia/Lord_Howe",
            "Asia/Kolkata",
            "Pacific/Apia",
            "America/Santiago",
            "Asia/Beirut",
            "Africa/Cairo",
            "America/Havana",
            "Etc/UTC",
        }.Select(name => DateTimeZoneProviders.Tzdb[name]),
    ];

    private static readonly Gen<(DateTimeZone Zone, Instant Now)> Moment = Gen.Select(
            Gen.Int[0, Zones.Length - 1],
            Gen.Int[0, 25 * 365 * 24 * 60]
        )
        .Select((zone, minutes) => (Zones[zone], Instant.FromUtc(2004, 1, 1, 0, 0) + Duration.FromMinutes(minutes)));

    [Fact]
    public void Every_day_begins_when_it_begins_there_also_when_the_clock_is_changed_at_midnight() =>
        Gen.Select(Moment, Gen.Int[-500, 500])
            .Sample(
                (moment, days) =>
                {
                    var clock = ClockOf(moment.Zone, moment.Now);
                    var today = moment.Now.InZone(moment.Zone).Date;
                    Assert.Equal(new DateOnly(today.Year, today.Month, today.Day), clock.Today);
                    var day = today.PlusDays(days);
                    Assert.Equal(Start(day, moment.Zone), clock.BeginningOf(new DateOnly(day.Year, day.Month, day.Day)));
                },
                iter: 20_000
            );

    [Fact]
    public void Stretches_of_time_are_whole_days_of_the_place_whatever_its_clock_did_in_between() =>
        Moment.Sample(
            moment =>
            {
                var clock = ClockOf(moment.Zone, moment.Now);
                var today = moment.Now.InZone(moment.Zone).Date;
                foreach (
                    var (name, first, end) in new[]
                    {
                        ("today", today, today.PlusDays(1)),
                        ("yesterday", today.PlusDays(-1), today),
                        ("this-week", today.With(DateAdjusters.PreviousOrSame(IsoDayOfWeek.Monday)), today.PlusDays(1)),
                        ("past-7-days", today.PlusDays(-6), today.PlusDays(1)),
                        ("past-30-days", today.PlusDays(-29), today.PlusDays(1)),
                        ("this-month", new LocalDate(today.Year, today.Month, 1), today.PlusDays(1)),
                        ("this-year", new LocalDate(today.Year, 1, 1), today.PlusDays(1)),
                        ("2026-03-01/2026-03-31", new LocalDate(2026, 3, 1), new LocalDate(2026, 4, 1)),
                        ("2025-10-26/2025-10-26", new LocalDate(2025, 10, 26), new LocalDate(2025, 10, 27)),
                    }
                )
                {
                    var (from, to) = (Start(first, moment.Zone), Start(end, moment.Zone));
                    // A day that the place left out holds nothing.
                    Assert.Equal(from == to ? [] : [(from, to)], new Core.Lenses.Span(name).Bounds(clock, []));
                }
            },
            iter: 3_000
        );

    [Fact]
    public void A_day_that_a_place_left_out_is_empty()
    {
        var apia = DateTimeZoneProviders.Tzdb["Pacific/Apia"];
        var clock = ClockOf(apia, Instant.FromUtc(2012, 1, 5, 12, 0));
        Assert.Equal(clock.BeginningOf(new DateOnly(2011, 12, 31)), clock.BeginningOf(new DateOnly(2011, 12, 30)));
        Assert.Equal(Start(new LocalDate(2011, 12, 31), apia), clock.BeginningOf(new DateOnly(2011, 12, 31)));
        Assert.Equal(24 * 3_600_000, clock.BeginningOf(new DateOnly(2011, 12, 30)) - clock.BeginningOf(new DateOnly(2011, 12, 29)));
    }

    [Fact]
    public void The_day_on_which_a_clock_is_put_forward_is_an_hour_shorter_and_the_other_an_hour_longer()
    {
        var clock = ClockOf(Zones[0], Instant.FromUtc(2026, 6, 1, 12, 0));
        long Length(int month, int day) =>
            (clock.BeginningOf(new DateOnly(2026, month, day).AddDays(1)) - clock.BeginningOf(new DateOnly(2026, month, day))) / 3_600_000;
        Assert.Equal((23, 25, 24), (Length(3, 29), Length(10, 25), Length(6, 1)));
    }

    [Fact]
    public void A_clock_that_says_nonsense_is_told_from_one_that_does_not()
    {
        Assert.True(LocalClock.AreGood([]));
        Assert.True(LocalClock.AreGood([(0, -720), (1, 840)]));
        Assert.False(LocalClock.AreGood([(0, 961)]));
        Assert.False(LocalClock.AreGood([(1, 0), (1, 60)]));
        Assert.False(LocalClock.AreGood([.. Enumerable.Range(0, LocalClock.MostChanges + 1).Select(i => ((long)i, 0))]));
    }

    /// <summary>What a browser in that place would say of its clock.</summary>
    private static LocalClock ClockOf(DateTimeZone zone, Instant now) =>
        new(
            now.ToUnixTimeMilliseconds(),
            [
                .. zone.GetZoneIntervals(Instant.FromUtc(2000, 1, 1, 0, 0), Instant.FromUtc(2040, 1, 1, 0, 0))
                    .Select(interval =>
                        (interval.HasStart ? interval.Start.ToUnixTimeMilliseconds() : long.MinValue / 4, interval.WallOffset.Seconds / 60)
                    ),
            ]
        );

    /// <summary>When a day begins. One that a place left out, as Samoa did 30 December 2011, is empty: it begins when the next one does.</summary>
    private static long Start(LocalDate day, DateTimeZone zone)
    {
        var midnight = zone.MapLocal(day.AtMidnight());
        return midnight.Count == 0 && midnight.LateInterval.IsoLocalStart.Date > day
            ? Start(day.PlusDays(1), zone)
            : day.AtStartOfDayInZone(zone).ToInstant().ToUnixTimeMilliseconds();
    }
}
