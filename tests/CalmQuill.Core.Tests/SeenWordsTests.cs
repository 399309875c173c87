using System.Globalization;
using CalmQuill.Core.Seen;
using CalmQuill.Core.Writing;

namespace CalmQuill.Core.Tests;

/// <summary>What is seen in typed words: addresses, days, times, numbers to be called, sums.</summary>
public sealed class SeenWordsTests
{
    /// <summary>A Monday.</summary>
    private static readonly DateOnly On = new(2026, 11, 30);

    [Theory]
    [InlineData("see https://example.org/a?b=c#d.", "https://example.org/a?b=c#d", "https://example.org/a?b=c#d")]
    [InlineData("(https://example.org/a_(b))", "https://example.org/a_(b)", "https://example.org/a_(b)")]
    [InlineData("“http://example.org/”, they say", "http://example.org/", "http://example.org/")]
    [InlineData("at www.example.org/notes, page 2", "www.example.org/notes", "https://www.example.org/notes")]
    [InlineData("example.com: all of it", "example.com", "https://example.com")]
    [InlineData("source:https://example.org/x", "https://example.org/x", "https://example.org/x")]
    [InlineData("[https://example.org]", "https://example.org", "https://example.org")]
    [InlineData("notes.md and e.g. this", null, null)]
    [InlineData("https://", null, null)]
    [InlineData("https:// example.org/x", "example.org/x", "https://example.org/x")]
    [InlineData("javascript:alert(1) and file:///etc/passwd", null, null)]
    public void Addresses_of_the_web_end_where_the_sentence_goes_on(string line, string? words, string? target) =>
        Check(line, SeenKind.Link, words, target);

    [Theory]
    [InlineData("write to ada.lund@example.org.", "ada.lund@example.org")]
    [InlineData("<ada+clock@mail.example.org>", "ada+clock@mail.example.org")]
    [InlineData("@ada and ada@ and ada@here", null)]
    [InlineData("a..b@example.org", null)]
    [InlineData("one@two@example.org", null)]
    public void Addresses_of_mail_are_names_at_hosts(string line, string? address) => Check(line, SeenKind.Mail, address, address);

    [Theory]
    [InlineData("until 2026-12-04 at last", "2026-12-04", "2026-12-04")]
    [InlineData("on 4.12.2026, then", "4.12.2026", "2026-12-04")]
    [InlineData("bis 4. 12. 26", "4. 12. 26", "2026-12-04")]
    [InlineData("bis 4.12. abgeben", "4.12.", "2026-12-04")]
    [InlineData("Exercise 4.12. is hard", null, null)]
    [InlineData("4/12/2026", "4/12/2026", "2026-12-04")]
    [InlineData("12/31/2026", "12/31/2026", "2026-12-31")]
    [InlineData("the 9th of October 2027", "9th of October 2027", "2027-10-09")]
    [InlineData("9 October", "9 October", "2027-10-09")]
    [InlineData("on 4 December we meet", "4 December", "2026-12-04")]
    [InlineData("October 9, 2027", "October 9, 2027", "2027-10-09")]
    [InlineData("Oct. 9th", "Oct. 9th", "2027-10-09")]
    [InlineData("am 9. Oktober 2027", "9. Oktober 2027", "2027-10-09")]
    [InlineData("4. Dez. 2026", "4. Dez. 2026", "2026-12-04")]
    [InlineData("Friday, 4 December", "Friday, 4 December", "2026-12-04")]
    [InlineData("Freitag, 4.12.", "Freitag, 4.12.", "2026-12-04")]
    [InlineData("by Friday.", "Friday", "2026-12-04")]
    [InlineData("next Monday", "Monday", "2026-12-07")]
    [InlineData("tomorrow", "tomorrow", "2026-12-01")]
    [InlineData("übermorgen", "übermorgen", "2026-12-02")]
    [InlineData("29 February", "29 February", "2028-02-29")]
    [InlineData("29 February 2027", null, null)]
    [InlineData("31.4.2026", null, null)]
    [InlineData("they may 5 times march", null, null)]
    [InlineData("version 10.2.2026.1", null, null)]
    [InlineData("12026-12-04", null, null)]
    public void Days_are_read_as_they_are_written(string line, string? words, string? day) => Check(line, SeenKind.Day, words, day);

    [Theory]
    [InlineData("at 14:30 sharp", "14:30", "14:30")]
    [InlineData("at 2:30 pm", "2:30 pm", "14:30")]
    [InlineData("12 am", "12 am", "00:00")]
    [InlineData("um 14.30 Uhr", "14.30 Uhr", "14:30")]
    [InlineData("um 9 Uhr", "9 Uhr", "09:00")]
    [InlineData("24:00", "24:00", "00:00")]
    [InlineData("25:00", null, null)]
    [InlineData("14:60", null, null)]
    [InlineData("13 pm", null, null)]
    [InlineData("1:2:30", null, null)]
    [InlineData("14.30 metres", null, null)]
    public void Times_of_day_are_read_as_they_are_written(string line, string? words, string? time) =>
        Check(line, SeenKind.Time, words, time);

    [Theory]
    [InlineData("call +49 30 1234567.", "+49 30 1234567", "+49301234567")]
    [InlineData("+49 (0)30 123 45 67", "+49 (0)30 123 45 67", "+49301234567")]
    [InlineData("(030) 123-4567", "(030) 123-4567", "0301234567")]
    [InlineData("030/1234567", "030/1234567", "0301234567")]
    [InlineData("0.333 333 333", null, null)]
    [InlineData("007", null, null)]
    [InlineData("12 345 678", null, null)]
    [InlineData("+49 30 1234567 8901234 567", null, null)]
    [InlineData("00 11 22 33 = 4", null, null)]
    public void Numbers_to_be_called_begin_with_a_country_or_nought(string line, string? words, string? number) =>
        Check(line, SeenKind.Phone, words, number);

    [Theory]
    [InlineData("12 + 30", "12 + 30", "42")]
    [InlineData("costs 3 x 14 =", "3 x 14 =", "42")]
    [InlineData("(2 + 4)·7 = ", "(2 + 4)·7 =", "42")]
    [InlineData("1,5 + 2,25 =", "1,5 + 2,25 =", "3,75")]
    [InlineData("84/2 =", "84/2 =", "42")]
    [InlineData("50 − 8 =", "50 − 8 =", "42")]
    [InlineData("6 × 7", "6 × 7", "42")]
    [InlineData("84 ÷ 2", "84 ÷ 2", "42")]
    [InlineData("1/3 + 1/6 =", "1/3 + 1/6 =", "1/2 = 0.5")]
    [InlineData("84/2", null, null)]
    [InlineData("pages 2 - 5", null, null)]
    [InlineData("12 + 30 = 42", null, null)]
    [InlineData("1 + 2 = x", null, null)]
    [InlineData("7 + ", null, null)]
    [InlineData("2 + 3 / 0 =", null, null)]
    [InlineData("1.000,5 + 1 =", null, null)]
    [InlineData("2 + 3a", null, null)]
    public void Sums_are_reckoned(string line, string? words, string? result) => Check(line, SeenKind.Sum, words, result);

    [Fact]
    public void Several_are_seen_in_one_line_and_none_twice()
    {
        const string line = "Ring +49 30 1234567 by Friday 14:30, or ada@example.org; www.example.org/2026-12-04 says 3 * 4";
        Assert.Equal(
            [SeenKind.Phone, SeenKind.Day, SeenKind.Time, SeenKind.Mail, SeenKind.Link, SeenKind.Sum],
            SeenWords.In(line, On).Select(part => part.Kind)
        );
    }

    [Fact]
    public void Without_the_day_of_writing_only_whole_days_are_seen() =>
        Assert.Equal(["2026-12-04"], SeenWords.In("tomorrow, Friday, 9 October, 4.12.2026", null).Select(part => part.Value));

    [Fact]
    public void Where_the_place_is_not_known_no_day_is_told_by_that_of_writing_alone() =>
        Assert.Equal(
            ["2027-10-09", "2026-12-04"],
            SeenWords.In("tomorrow, Friday, 9 October, Friday, 4 December", On, isLocal: false).Select(part => part.Value)
        );

    [Fact]
    public void What_words_were_made_to_lead_to_counts_first()
    {
        var text = new TypedText();
        var passage = new Passage(
            "see example.org on 4.12.2026",
            [new PassageFormat(0, 15, Trait.Link, "https://example.com/other"), new PassageFormat(4, 11, Trait.Bold, "1")]
        );
        var id = new Operations.OpId(7, 1);
        text.Take(id, new Operations.Stamp(new Operations.Hlc(1), id), passage.Whole(id));
        var seen = SeenWords.In(text.Paragraphs().Single(), On);
        Assert.Equal(
            [new SeenPart(0, 15, SeenKind.Link, "https://example.com/other"), new SeenPart(19, 28, SeenKind.Day, "2026-12-04")],
            seen
        );
    }

    /// <summary>Whatever stands there: parts lie in the line, one behind the other, and say what can be read again.</summary>
    [Fact]
    public void Whatever_is_typed_parts_lie_in_order_within_the_line()
    {
        var chance = new Random(14);
        string[] bits =
        [
            "1",
            "12",
            "2026",
            "0",
            "+",
            "-",
            "/",
            ".",
            ",",
            ":",
            " ",
            " ",
            "(",
            ")",
            "=",
            "x",
            "@",
            "example.org",
            "https://",
            "May",
            "9",
            "Friday",
            "th",
            "of",
            "Uhr",
            "pm",
            "%",
            "^",
            "\u00A0",
            "ü",
            "\uD83D",
        ];
        for (var round = 0; round < 20_000; round++)
        {
            var line = string.Concat(Enumerable.Range(0, chance.Next(1, 16)).Select(_ => bits[chance.Next(bits.Length)]));
            var end = 0;
            foreach (var part in SeenWords.In(line, On))
            {
                Assert.True(part.From >= end && part.To > part.From && part.To <= line.Length, line);
                end = part.To;
                var isRead = part.Kind switch
                {
                    SeenKind.Day => DateOnly.TryParseExact(
                        part.Value,
                        "yyyy-MM-dd",
                        CultureInfo.InvariantCulture,
                        DateTimeStyles.None,
                        out _
                    ),
                    SeenKind.Time => TimeOnly.TryParseExact(part.Value, "HH:mm", CultureInfo.InvariantCulture, DateTimeStyles.None, out _),
                    SeenKind.Link => Links.LinkTarget.Read(part.Value) is not null,
                    _ => part.Value.Length > 0,
                };
                Assert.True(isRead, $"{line}: {part}");
            }
        }
    }

    /// <summary>One huge line, of what looks like more and more of the same, costs no more than its length.</summary>
    [Theory]
    [InlineData("1+")]
    [InlineData("0 1 ")]
    [InlineData("(")]
    [InlineData(")")]
    [InlineData("a@b.c/")]
    [InlineData("https://a.b)")]
    [InlineData("9. 10. ")]
    public void A_huge_line_is_read(string again) =>
        Assert.True(SeenWords.In(string.Concat(Enumerable.Repeat(again, 200_000 / again.Length)), On).All(part => part.To <= 20_000));

    private static void Check(string line, SeenKind kind, string? words, string? value)
    {
        var seen = SeenWords.In(line, On).Where(part => part.Kind == kind).Select(part => (line[part.From..part.To], part.Value));
        Assert.Equal(words is null ? [] : [(words, value!)], seen);
    }
}
