using CalmQuill.Core.Lenses;
using CalmQuill.Core.Library;
using CalmQuill.Testing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>The rules of lenses: what matches, relative dates, and their JSON.</summary>
public class LensTests
{
    // Monday 23 November 2026, week 48, two hours ahead of UTC.
    private static readonly DateTimeOffset Now = new(2026, 11, 23, 1, 30, 0, TimeSpan.FromHours(2));

    [Theory]
    [InlineData("today", "2026-11-23", "2026-11-23")]
    [InlineData("yesterday", "2026-11-22", "2026-11-22")]
    [InlineData("this-week", "2026-11-23", "2026-11-23")]
    [InlineData("past-7-days", "2026-11-17", "2026-11-23")]
    [InlineData("past-30-days", "2026-10-25", "2026-11-23")]
    [InlineData("this-month", "2026-11-01", "2026-11-23")]
    [InlineData("this-term", "2026-09-07", "2026-12-18")]
    [InlineData("this-year", "2026-01-01", "2026-11-23")]
    [InlineData("2026-02-01/2026-02-28", "2026-02-01", "2026-02-28")]
    public void A_span_runs_from_the_first_days_midnight_to_the_last_days_end_where_the_person_is(string name, string first, string last)
    {
        var terms = Span.ReadTerms("2026-01-12/2026-03-27 2026-09-07/2026-12-18")!;
        var (from, to) = Assert.Single(new Span(name).Bounds(Now, terms));
        Assert.Equal(new DateTimeOffset(DateOnly.Parse(first).ToDateTime(default), Now.Offset).ToUnixTimeMilliseconds(), from);
        Assert.Equal(new DateTimeOffset(DateOnly.Parse(last).AddDays(1).ToDateTime(default), Now.Offset).ToUnixTimeMilliseconds(), to);
    }

    // ISO 8601: weeks begin on Monday, so Sunday belongs to the week before.
    [Theory]
    [InlineData("2026-11-22", "2026-11-16")]
    [InlineData("2026-11-28", "2026-11-23")]
    [InlineData("2027-01-01", "2026-12-28")]
    public void A_week_begins_on_Monday(string today, string monday)
    {
        var now = new DateTimeOffset(DateOnly.Parse(today).ToDateTime(new TimeOnly(12, 0)), TimeSpan.Zero);
        Assert.Equal(
            new DateTimeOffset(DateOnly.Parse(monday).ToDateTime(default), TimeSpan.Zero).ToUnixTimeMilliseconds(),
            new Span("this-week").Bounds(now, [])[0].From
        );
    }

    [Fact]
    public void Between_terms_this_term_is_the_last_one_and_without_any_a_half_year()
    {
        var july = new DateTimeOffset(2026, 7, 1, 12, 0, 0, TimeSpan.Zero);
        Assert.Equal(
            At(2026, 1, 12),
            new Span("this-term").Bounds(july, Span.ReadTerms("2026-01-12/2026-03-27 2026-09-07/2026-12-18")!)[0].From
        );
        Assert.Equal((At(2026, 2, 1), At(2026, 8, 1)), new Span("this-term").Bounds(july, [])[0]);
        Assert.Equal((At(2025, 8, 1), At(2026, 2, 1)), new Span("this-term").Bounds(july.AddMonths(-6), [])[0]);
        Assert.Null(Span.ReadTerms("2026-03-01/2026-01-01"));
        Assert.Null(Span.ReadTerms("soon"));
    }

    [Fact]
    public void Rules_combine_with_and_or_not_over_nested_tags()
    {
        Guid exam = Generate.Node(10),
            level = Generate.Node(11),
            drawings = Generate.Node(12),
            deleted = Generate.Node(13);
        LibraryNode[] structure =
        [
            Tag(exam, Guid.Empty, "exam"),
            Tag(level, exam, "level 2"),
            Tag(drawings, Guid.Empty, "drawings"),
            Tag(deleted, Guid.Empty, "old") with
            {
                InBin = true,
            },
        ];
        var context = new RuleContext(structure, "", Now);
        var page = new Entry(
            Guid.NewGuid(),
            EntryKind.Page,
            Guid.Empty,
            "Échappement",
            new TagSet([level]),
            0,
            At(2026, 11, 22),
            [Generate.People[1]],
            false
        );
        bool Matches(Rule rule) => rule.Matches(page, context);
        Assert.True(Matches(new Rule.Tagged(exam)));
        Assert.False(Matches(new Rule.All([new Rule.Tagged(exam), new Rule.Tagged(drawings)])));
        Assert.True(Matches(new Rule.Any([new Rule.Tagged(exam), new Rule.Tagged(drawings)])));
        Assert.True(Matches(new Rule.Not(new Rule.Any([new Rule.Tagged(drawings), new Rule.Tagged(deleted)]))));
        Assert.True(
            Matches(new Rule.All([new Rule.Titled("echapp"), new Rule.By(Generate.People[1]), new Rule.Written(new Span("past-7-days"))]))
        );
        // A lens that names a deleted tag finds nothing by it, and fails at nothing.
        Assert.False(Matches(new Rule.Tagged(deleted)));
        Assert.False(Matches(new Rule.Tagged(Guid.NewGuid())));
        Assert.False(new Rule.All([new Rule.OfKind(EntryKind.Page), new Rule.Starred()]).MayMatch(EntryKind.Notebook));
        Assert.True(new Rule.Not(new Rule.OfKind(EntryKind.Page)).MayMatch(EntryKind.Notebook));
    }

    [Fact]
    public void What_a_rule_says_of_kinds_never_contradicts_what_it_matches() =>
        Gen.Select(Generate.Rule, Gen.Int[1, 4], Gen.Bool)
            .Sample(
                (rule, kind, starred) =>
                {
                    var entry = new Entry(
                        Generate.Node(6),
                        (EntryKind)kind,
                        Generate.Node(1),
                        "1",
                        new TagSet([Generate.Node(10)]),
                        1_700_000_000_000,
                        null,
                        [Generate.People[0]],
                        starred
                    );
                    if (rule.Matches(entry, new RuleContext([], "", Now)))
                        Assert.True(rule.MayMatch((EntryKind)kind));
                },
                iter: 2000
            );

    [Fact]
    public void Rules_read_back_from_JSON_as_they_were() =>
        Generate.Rule.Sample(rule =>
        {
            var text = RuleJson.Write(rule);
            var (read, refusal) = RuleJson.Read(text);
            if (text.Length > RuleJson.MostCharacters)
                Assert.NotNull(refusal);
            else
                Assert.Equal(text, RuleJson.Write(read!));
        });

    [Theory]
    [InlineData("")]
    [InlineData("7")]
    [InlineData("{}")]
    [InlineData("""{"all":[{"tag":"x"}]}""")]
    [InlineData("""{"all":[],"any":[]}""")]
    [InlineData("""{"kind":"drawer"}""")]
    [InlineData("""{"kind":"7"}""")]
    [InlineData("""{"written":"next-week"}""")]
    [InlineData("""{"written":"2026-13-01/"}""")]
    [InlineData("""{"wished":true}""")]
    [InlineData("""{"not":{"not":{"not":{"not":{"not":{"not":{"not":{"not":{"not":{"starred":true}}}}}}}}}}""")]
    public void Malformed_rules_come_back_with_a_sentence(string text)
    {
        var (rule, refusal) = RuleJson.Read(text);
        Assert.Null(rule);
        Assert.EndsWith(".", refusal!.Sentence.English, StringComparison.Ordinal);
    }

    [Fact]
    public void Noise_is_never_more_than_refused() =>
        Gen.String.Sample(text => Assert.True(RuleJson.Read(text) is (null, not null) or (not null, null)), iter: 3000);

    private static long At(int year, int month, int day) =>
        new DateTimeOffset(year, month, day, 0, 0, 0, TimeSpan.Zero).ToUnixTimeMilliseconds();

    private static LibraryNode Tag(Guid id, Guid parent, string name) =>
        new(
            id,
            NodeKind.Tag,
            parent,
            "V",
            name,
            "",
            "",
            "",
            "",
            false,
            false,
            TagSet.None,
            "",
            null,
            null,
            null,
            "",
            0,
            Guid.Empty,
            null,
            false
        );
}
