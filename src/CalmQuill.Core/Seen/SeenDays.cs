namespace CalmQuill.Core.Seen;

/// <summary>Finds days and times of day among words, as they are written in English and German.</summary>
internal static class SeenDays
{
    private const int FirstYear = 1900,
        LastYear = 2199,
        Century = 2000;

    private static readonly string[][] Months =
    [
        ["January", "Jan", "Januar", "Jänner"],
        ["February", "Feb", "Februar"],
        ["March", "Mar", "März", "Mrz"],
        ["April", "Apr"],
        ["May", "Mai"],
        ["June", "Jun", "Juni"],
        ["July", "Jul", "Juli"],
        ["August", "Aug"],
        ["September", "Sep", "Sept"],
        ["October", "Oct", "Oktober", "Okt"],
        ["November", "Nov"],
        ["December", "Dec", "Dezember", "Dez"],
    ];

    /// <summary>From Sunday, as <see cref="DayOfWeek"/> counts.</summary>
    private static readonly string[][] Weekdays =
    [
        ["Sunday", "Sonntag"],
        ["Monday", "Montag"],
        ["Tuesday", "Dienstag"],
        ["Wednesday", "Mittwoch"],
        ["Thursday", "Donnerstag"],
        ["Friday", "Freitag"],
        ["Saturday", "Samstag", "Sonnabend"],
    ];

    private static readonly Dictionary<string, int> Near = new()
    {
        ["today"] = 0,
        ["heute"] = 0,
        ["tomorrow"] = 1,
        ["morgen"] = 1,
        ["übermorgen"] = 2,
    };

    /// <summary>Two numbers with points, as 12.3., are a day without a year only behind one of these; else they may number anything.</summary>
    private static readonly HashSet<string> Before =
    [
        "am",
        "bis",
        "zum",
        "vom",
        "ab",
        "den",
        "der",
        "dem",
        "seit",
        "vor",
        "nach",
        "und",
        "oder",
        "on",
        "by",
        "until",
        "till",
        "from",
        "since",
        "due",
        "before",
        "after",
        "fällig",
    ];

    /// <param name="words">The words of a line.</param>
    /// <param name="on">The day on which it was written; null where that is not known, and only days with their year are told.</param>
    /// <param name="isLocal">Whether that is the day of the place where it was written, so that “tomorrow” and “Friday” can be told as well.</param>
    public static IEnumerable<SeenPart> In(IReadOnlyList<Word> words, DateOnly? on, bool isLocal)
    {
        for (var at = 0; at < words.Count; at++)
        {
            if (!IsBegin(words, at) || (Day(words, at, on, isLocal) ?? Time(words, at)) is not { } read)
                continue;
            yield return read;
            while (at + 1 < words.Count && words[at + 1].Start < read.To)
                at++;
        }
    }

    /// <summary>Whether nothing stands before it that makes it a part of something else.</summary>
    private static bool IsBegin(IReadOnlyList<Word> words, int at)
    {
        if (at == 0 || words[at - 1].IsBlank)
            return true;
        var before = words[at - 1];
        if (before.IsName || before.IsNumber || before.Text is "." or "," or ":" or "/" or "-" or "_" or "+")
            return false;
        return true;
    }

    private static SeenPart? Day(IReadOnlyList<Word> words, int at, DateOnly? on, bool isLocal)
    {
        var reader = new Reader(words, at);
        if (words[at].IsName)
        {
            if (IndexOf(Weekdays, words[at].Text) is { } weekday)
            {
                // “Friday, 4 December” says one day.
                reader.Next();
                reader.Take(",");
                if (reader.Blank() && reader.Peek is { IsBlank: false } && Date(reader, on) is { } exact)
                    return Part(words[at], reader, exact);
                return isLocal && on is { } day
                    ? new SeenPart(words[at].Start, words[at].End, SeenKind.Day, Text(Coming(day, (DayOfWeek)weekday)))
                    : null;
            }

            if (isLocal && on is { } from && Near.TryGetValue(words[at].Text, out var days))
                return new SeenPart(words[at].Start, words[at].End, SeenKind.Day, Text(from.AddDays(days)));
        }

        return Date(reader, on) is { } date ? Part(words[at], reader, date) : null;
    }

    private static SeenPart Part(Word first, Reader reader, DateOnly date) => new(first.Start, reader.Last, SeenKind.Day, Text(date));

    private static string Text(DateOnly day) => day.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture);

    /// <summary>The next day of a name; on such a day the one a week later.</summary>
    private static DateOnly Coming(DateOnly on, DayOfWeek wanted)
    {
        var days = ((int)wanted - (int)on.DayOfWeek + 7) % 7;
        return on.AddDays(days == 0 ? 7 : days);
    }

    private static DateOnly? Date(Reader reader, DateOnly? on)
    {
        if (reader.Peek is { IsName: true })
            return MonthFirst(reader, on);
        if (reader.Number(4, 4) is { } year)
            return reader.Take("-") && reader.Number(2, 2) is { } m && reader.Take("-") && reader.Number(2, 2) is { } d && reader.IsEnd
                ? Known(year, m, d)
                : null;
        var begin = reader.At;
        if (reader.Number(1, 2) is not { } first)
            return null;
        if (reader.Take("/"))
            return reader.Number(1, 2) is { } second && reader.Take("/") && Year(reader) is { } slashed && reader.IsEnd
                // Where both orders can be meant the day stands first.
                ? Known(slashed, second, first) ?? Known(slashed, first, second)
                : null;
        return InWords(reader, first, on) ?? WithPoints(reader.From(begin), on);
    }

    /// <summary>“9 October 2026”, “9th of October”, “9. Oktober”.</summary>
    private static DateOnly? InWords(Reader reader, int day, DateOnly? on)
    {
        if (!reader.Take("."))
            reader.TakeOne("st", "nd", "rd", "th");
        if (!reader.Blank())
            return null;
        if (reader.TakeOne("of") && !reader.Blank())
            return null;
        if (reader.Peek is not { } name || IndexOf(Months, name.Text) is not { } month)
            return null;
        reader.Next();
        return WithYear(reader, month + 1, day, on);
    }

    /// <summary>“October 9, 2026”, “Oct. 9th”.</summary>
    private static DateOnly? MonthFirst(Reader reader, DateOnly? on)
    {
        if (reader.Peek is not { } name || IndexOf(Months, name.Text) is not { } month)
            return null;
        reader.Next();
        reader.Take(".");
        if (!reader.Blank() || reader.Number(1, 2) is not { } day || reader.IsJoined)
            return null;
        reader.TakeOne("st", "nd", "rd", "th");
        return WithYear(reader, month + 1, day, on);
    }

    private static DateOnly? WithYear(Reader reader, int month, int day, DateOnly? on)
    {
        var end = reader.At;
        // A point ends what is cut short, and a comma stands before the year in one way of writing.
        if (!reader.Take("."))
            reader.Take(",");
        if (reader.Blank() && reader.Number(4, 4) is { } year)
            return Known(year, month, day);
        reader.Return(end);
        return on is { } from ? Next(from, month, day) : null;
    }

    /// <summary>“9.10.2026”, “9. 10. 26”; behind some words “9.10.” as well.</summary>
    private static DateOnly? WithPoints(Reader reader, DateOnly? on)
    {
        var begin = reader.At;
        if (reader.Number(1, 2) is not { } day || !reader.Take("."))
            return null;
        reader.Blank();
        if (reader.Number(1, 2) is not { } month || !reader.Take("."))
            return null;
        var end = reader.At;
        reader.Blank();
        if (Year(reader) is { } year && reader.IsEnd && Known(year, month, day) is { } date)
            return date;
        reader.Return(end);
        return
            on is { } from
            && reader.WordBefore(begin) is { } word
            && (Before.Contains(word) || IndexOf(Weekdays, word) is not null)
            && reader.IsEnd
            ? Next(from, month, day)
            : null;
    }

    private static int? Year(Reader reader) => reader.Number(4, 4) ?? (reader.Number(2, 2) is { } two ? Century + two : null);

    private static DateOnly? Known(int year, int month, int day) =>
        year is >= FirstYear and <= LastYear && month is >= 1 and <= 12 && day >= 1 && day <= DateTime.DaysInMonth(year, month)
            ? new DateOnly(year, month, day)
            : null;

    /// <summary>The first such day that is not past; the 29th of February waits for its year.</summary>
    private static DateOnly? Next(DateOnly on, int month, int day)
    {
        for (var year = on.Year; year <= on.Year + 8; year++)
        {
            if (Known(year, month, day) is { } date && date >= on)
                return date;
        }

        return null;
    }

    /// <summary>“14:30”, “2:30 pm”, “2 pm”, “14 Uhr”, “14.30 Uhr”.</summary>
    private static SeenPart? Time(IReadOnlyList<Word> words, int at)
    {
        var reader = new Reader(words, at);
        if (reader.Number(1, 2) is not { } hour || hour > 24)
            return null;
        int? minute = null;
        var byPoint = false;
        var bare = reader.At;
        if (reader.Take(":") || (byPoint = reader.Take(".")))
        {
            minute = reader.Number(2, 2);
            if (minute is null or > 59)
            {
                if (!byPoint)
                    return null;
                (minute, byPoint) = (null, false);
                reader.Return(bare);
            }
        }

        var end = reader.At;
        reader.Blank();
        var isHalfDay = reader.TakeOne("am", "pm", "AM", "PM");
        var half = isHalfDay ? reader.Taken.ToUpperInvariant() : "";
        var isNamed = isHalfDay || reader.TakeOne("Uhr");
        if (!isNamed)
            reader.Return(end);
        if (!isNamed && (minute is null || byPoint || !reader.IsEnd))
            return null;
        if (isHalfDay && hour is 0 or > 12 || (hour == 24 && (minute ?? 0) != 0))
            return null;
        if (isHalfDay)
            hour = hour % 12 + (half == "PM" ? 12 : 0);
        return new SeenPart(
            words[at].Start,
            reader.Last,
            SeenKind.Time,
            string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{hour % 24:00}:{minute ?? 0:00}")
        );
    }

    /// <summary>Names are written with a capital: “may” and “march” mean other things.</summary>
    private static int? IndexOf(string[][] names, string word)
    {
        var at = Array.FindIndex(names, some => some.Contains(word));
        return at < 0 ? null : at;
    }

    /// <summary>Goes along words.</summary>
    private sealed class Reader(IReadOnlyList<Word> words, int at)
    {
        public int At { get; private set; } = at;

        public string Taken { get; private set; } = "";

        public Word? Peek => At < words.Count ? words[At] : null;

        /// <summary>Where what was read ends.</summary>
        public int Last => words[At - 1].End;

        /// <summary>Whether what was read goes on without a blank.</summary>
        public bool IsJoined =>
            Peek is { } next && (next.IsNumber || (next.Text is ":" or "." or "," && At + 1 < words.Count && words[At + 1].IsNumber));

        /// <summary>Whether what was read ends here.</summary>
        public bool IsEnd => !IsJoined && Peek is not { IsName: true } and not { Text: "-" or "/" };

        public void Next() => At++;

        public void Return(int to) => At = to;

        public Reader From(int to)
        {
            At = to;
            return this;
        }

        public bool Take(string sign)
        {
            if (Peek is not { } next || next.Text != sign)
                return false;
            At++;
            return true;
        }

        public bool TakeOne(params ReadOnlySpan<string> some)
        {
            if (Peek is not { } next || !some.Contains(next.Text))
                return false;
            Taken = next.Text;
            At++;
            return true;
        }

        /// <summary>One blank, as usual or as wide as one.</summary>
        public bool Blank()
        {
            if (Peek is not { IsBlank: true })
                return false;
            At++;
            return true;
        }

        public int? Number(int least, int most)
        {
            if (Peek is not { } next || !next.IsDigits(least, most))
                return null;
            At++;
            return next.Number;
        }

        /// <summary>The word before a place, where one blank lies between.</summary>
        public string? WordBefore(int place)
        {
            var before = place - 1;
            if (before >= 0 && words[before].IsBlank)
                before--;
            if (before >= 0 && words[before].Is(","))
                before--;
            return before >= 0 && words[before].IsName ? words[before].Text : null;
        }
    }
}
