using CalmQuill.Core.Operations;
using CalmQuill.Core.Typesetting;
using CalmQuill.Core.Writing;
using CsCheck;

namespace CalmQuill.Core.Tests;

/// <summary>Text in lines, where no font is at hand: each letter is half as wide as its type is high, so that all places are known.</summary>
public sealed class TypesetterTests
{
    /// <summary>The height of the usual type, 12 pt, in bits: 12 · 127 / 0.36 · 64 / 100, ISO 31: 1 pt here is 1/72 inch.</summary>
    private static readonly int Type = Lengths.OfType(120);

    private static readonly int Letter = Type / 2;

    private static readonly string[] Words =
    [
        "a",
        "ab ",
        "pendulum ",
        "\n",
        "שלום ",
        "12 ",
        "😀",
        "-",
        "e\u0301",
        "\u2028",
        "\t",
        "Maßstab ",
    ];

    [Fact]
    public void A_point_is_a_seventy_second_of_an_inch()
    {
        // 72 pt are 25.4 mm, which are 2540 hundredths.
        Assert.Equal(2_540 * Lengths.PerUnit, Lengths.OfType(720));
        Assert.Equal(-Lengths.OfType(145), Lengths.OfType(-145), 1.0);
        // 500 of 1000 units of a font at 12 pt are 6 pt.
        Assert.Equal(Lengths.OfType(60), Lengths.OfFont(500, 120, 1_000));
    }

    [Fact]
    public void Lines_take_what_has_room_and_spaces_hang_over_their_end()
    {
        // Room for ten letters and a half.
        var lines = Lines(Set("one two three four", Units(10.5)));
        Assert.Equal(["one two ", "three four"], lines.Select(line => line.Text));
        Assert.All(lines, line => Assert.Equal(0, line.Line.Left));
        Assert.Equal(7 * Letter, lines[0].Line.Width, 8.0);
        // A hyphen ends a line as a space does, and a no-break space does not (UAX #14).
        Assert.Equal(["half-", "second"], Lines(Set("half-second", Units(8))).Select(line => line.Text));
        Assert.Equal(["at ", "5\u00a0mm"], Lines(Set("at 5\u00a0mm", Units(5.5))).Select(line => line.Text));
    }

    [Fact]
    public void A_word_longer_than_a_line_goes_on_on_the_next_and_no_sign_is_cut_in_two()
    {
        Assert.Equal(["abcdefgh", "ij k"], Lines(Set("abcdefghij k", Units(8.5))).Select(line => line.Text));
        var lines = Lines(Set("😀😀😀😀😀", Units(2.4)));
        Assert.All(lines, line => Assert.Equal(0, line.Text.Length % 2));
        // No line is narrower than 5 mm, which is room for two.
        Assert.Equal(6, Lines(Set("abcdefghijkl", 1)).Count);
    }

    [Fact]
    public void Lines_stand_on_the_ruling_and_large_type_on_every_second()
    {
        var set = Set("Title\nbody\nbody", 10_000, 710, new PassageFormat(0, 6, Trait.Style, "title"));
        var feet = Lines(set).Select(line => line.Y).ToList();
        Assert.Equal(0, feet[0]);
        Assert.All(feet, foot => Assert.Equal(0, foot % (710 * Lengths.PerUnit)));
        Assert.Equal(710 * Lengths.PerUnit, feet[1]);
        // 24 pt are 8.47 mm: one line of 7.1 mm has no room for them.
        var below = Lines(Set("body\nTitle", 10_000, 710, new PassageFormat(5, 11, Trait.Style, "title")));
        Assert.Equal(2 * 710 * Lengths.PerUnit, below[1].Y);
        // Freely they are 1.3 of their type apart.
        Assert.Equal(Lengths.OfType(156), Lines(Set("a\nb", 10_000))[1].Y, 1.0);
    }

    [Fact]
    public void Lines_begin_end_and_fill_where_they_are_told_to()
    {
        int room = Units(10.5) * Lengths.PerUnit;
        Assert.Equal(room - 4 * Letter, Aligned("right").Line.Left, 3.0);
        Assert.Equal((room - 4 * Letter) / 2, Aligned("centre").Line.Left, 3.0);
        var lines = Lines(Set("one two three four", Units(10.5), 0, new PassageFormat(0, 19, Trait.Align, "justified")));
        Assert.Equal(room, lines[0].Line.Width);
        var last = lines[0].Line.Pieces.Last(piece => !piece.IsSpace);
        Assert.Equal(room, last.X + last.Width, 2.0);
        // The last line of a paragraph is as wide as it is.
        Assert.True(lines[1].Line.Width < room);

        (SetLine Line, string Text, int Y) Aligned(string how) =>
            Lines(Set("four", Units(10.5), 0, new PassageFormat(0, 5, Trait.Align, how)))[0];
    }

    [Fact]
    public void Lists_have_signs_numbers_count_each_depth_by_itself_and_are_set_in()
    {
        var set = Set(
            "a\nb\nc\nd\ne\nf",
            10_000,
            0,
            new PassageFormat(0, 10, Trait.List, "number"),
            new PassageFormat(2, 6, Trait.Indent, "1"),
            new PassageFormat(10, 12, Trait.List, "bullet")
        );
        Assert.Equal(["1.", "a.", "b.", "2.", "3.", "•"], set.Paragraphs.Select(one => one.Paragraph.Sign!.Shape.Text));
        Assert.Equal([800, 1_600, 1_600, 800, 800, 800], Lines(set).Select(line => line.Line.Left / Lengths.PerUnit));
        // A paragraph of no list ends them.
        var broken = Set(
            "a\nb\nc",
            10_000,
            0,
            new PassageFormat(0, 2, Trait.List, "number"),
            new PassageFormat(4, 6, Trait.List, "number")
        );
        Assert.Equal(["1.", null, "1."], broken.Paragraphs.Select(one => one.Paragraph.Sign?.Shape.Text));
        var deep = Set("a", 10_000, 0, new PassageFormat(0, 2, Trait.List, "number"), new PassageFormat(0, 2, Trait.Indent, "2"));
        Assert.Equal("i.", deep.Paragraphs[0].Paragraph.Sign!.Shape.Text);
    }

    [Fact]
    public void What_runs_from_right_to_left_begins_at_the_right_and_numbers_in_it_do_not_turn_round()
    {
        var (line, _, _) = Lines(Set("שלום 12", Units(10.5)))[0];
        Assert.True(line.FromRight);
        Assert.Equal(Units(10.5) * Lengths.PerUnit, line.Left + line.Width, 2.0);
        // From left to right: the number, the space, the word (UAX #9).
        Assert.Equal([5, 4, 0], line.Pieces.Select(piece => piece.Start));
        Assert.Equal(line.Left + line.Width, line.CaretAt(0), 2.0);
        Assert.True(line.CaretAt(5) < line.CaretAt(7));
        Assert.True(line.CaretAt(1) < line.CaretAt(0));
    }

    [Fact]
    public void Wherever_a_press_sets_the_caret_it_stands() =>
        Gen.Select(
                Gen.Int[0, Words.Length - 1].Select(which => Words[which]).Array[0, 30],
                Gen.Int[500, 9_000],
                Gen.Int[0, 3].Select(which => new[] { "", "right", "centre", "justified" }[which])
            )
            .Sample(
                (words, width, align) =>
                {
                    var text = string.Concat(words);
                    var set = Set(text, width, 0, new PassageFormat(0, text.Length + 1, Trait.Align, align));
                    // All letters stand on lines, each once, and lines follow each other.
                    var lines = Lines(set);
                    Assert.Equal(
                        text.Replace("\n", "", StringComparison.Ordinal).Replace('\u2028', ' '),
                        string.Concat(lines.Select(line => line.Text))
                    );
                    Assert.Equal(lines.Select(line => line.Y).Order(), lines.Select(line => line.Y));
                    foreach (var (paragraph, start, _) in set.Paragraphs)
                    {
                        foreach (var line in paragraph.Lines)
                        {
                            for (var letter = line.Start; letter < line.End; letter++)
                            {
                                // Nobody stands within a sign.
                                if (char.IsLowSurrogate(text[start + letter]))
                                    continue;
                                var x = line.CaretAt(letter);
                                var back = line.LetterAt(x);
                                // Letters between which there is no room share a place.
                                Assert.InRange(line.CaretAt(back) - x, -1, 1);
                            }

                            Assert.Same(line, set.LineOf(start + line.Start).Line);
                        }
                    }
                }
            );

    [Fact]
    public void Typing_into_one_paragraph_sets_that_one_anew_and_no_other()
    {
        var typesetter = new Typesetter();
        var before = typesetter.Set(Paragraphs("one\ntwo\nthree"), 9_000, 0);
        var after = typesetter.Set(Paragraphs("one\ntwo!\nthree"), 9_000, 0);
        Assert.Equal(
            [true, false, true],
            before.Paragraphs.Zip(after.Paragraphs).Select(pair => pair.First.Paragraph == pair.Second.Paragraph)
        );
        Assert.Equal([0, 4, 9], after.Paragraphs.Select(one => one.Start));
    }

    private static int Units(double letters) => (int)(letters * Letter / Lengths.PerUnit);

    private static IEnumerable<Paragraph> Paragraphs(string text, params PassageFormat[] formats)
    {
        var typed = new TypedText();
        var id = new OpId(1, 1);
        typed.Take(id, new Stamp(Hlc.At(1), id), new Passage(text, formats).Whole(id));
        return typed.Paragraphs();
    }

    private static SetText Set(string text, int width, int ruling = 0, params PassageFormat[] formats) =>
        new Typesetter().Set(Paragraphs(text, formats), width, ruling);

    private static List<(SetLine Line, string Text, int Y)> Lines(SetText set) =>
        [
            .. set.Paragraphs.SelectMany(one =>
                one.Paragraph.Lines.Select(line =>
                    (line, string.Concat(line.Pieces.OrderBy(piece => piece.Start).Select(piece => piece.Shape.Text)), one.Y + line.Y)
                )
            ),
        ];

    /// <summary>Whatever is typed, removed, made to look otherwise and taken back: what is remembered is never shown in place of what is.</summary>
    [Fact]
    public void What_is_set_anew_in_part_is_what_would_be_set_from_nothing()
    {
        Gen.Select(Gen.Int[0, 400], Gen.Int[0, 5], Gen.Int[0, 6])
            .List[1, 24]
            .Sample(
                acts =>
                {
                    var text = new TypedText();
                    var setter = new Typesetter();
                    var ids = new List<OpId>();
                    foreach (var (at, what, n) in acts)
                    {
                        OpId id = new(1, (ulong)ids.Count + 1);
                        var place = text.Length == 0 ? 0 : at % (text.Length + 1);
                        TextChange change = what switch
                        {
                            0 or 1 => new TextChange(
                                [text.InsertionAt(place, string.Concat(Enumerable.Repeat(n % 2 == 0 ? "word " : "line\n", n + 1)))],
                                [],
                                []
                            ),
                            2 when text.Length > place => new TextChange(
                                [],
                                [.. text.RemovalsOf(place, Math.Min(n + 1, text.Length - place))],
                                []
                            ),
                            3 when text.Length > place => new TextChange(
                                [],
                                [],
                                [text.FormatOf(place, 1, Trait.Bold, n % 2 == 0 ? "1" : "")]
                            ),
                            4 => new TextChange([], [], [text.FormatOfParagraphs(place, 0, Trait.List, n % 2 == 0 ? "number" : "")]),
                            _ => new TextChange([text.InsertionAt(place, "x")], [], []),
                        };
                        if (what == 5 && ids.Count > 0)
                            text.SetActive(ids[at % ids.Count], n % 2 == 0);
                        else
                        {
                            text.Take(id, new Stamp(Hlc.At(ids.Count + 1), id), change);
                            ids.Add(id);
                        }

                        if (n == 6 && ids.Count > 0)
                            text.Withdraw(ids[^1]);
                        // They are not asked for after each of several things that were done.
                        if (n % 3 == 1)
                            continue;
                        var now = text.Paragraphs();
                        var fresh = Paragraph.Of(text.Spans(), text.EndLook).ToList();
                        Assert.Equal(fresh.Select(Said), now.Select(Said));
                        Assert.Equal(
                            new Typesetter().Set(fresh, 6_000, 710).Paragraphs.Select(Lines),
                            setter.Set(now, 6_000, 710).Paragraphs.Select(Lines)
                        );
                    }
                },
                iter: 300
            );

        static string Said(Paragraph one) =>
            $"{one.Start} {string.Join('|', one.Spans.Select(span => $"{span.Text}{string.Join(',', span.Look.Values)}"))} {string.Join(',', one.Look.Values)}";

        static string Lines((SetParagraph Paragraph, int Start, int Y) one) =>
            $"{one.Start} {one.Y} {string.Join('|', one.Paragraph.Lines.Select(line => $"{line.Start}-{line.End}@{line.Y},{line.Width}"))} {one.Paragraph.Sign?.Shape.Text}";
    }
}
